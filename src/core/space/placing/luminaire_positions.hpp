#pragma once

#include "core/space/placing/named_faces.hpp"

namespace glow::space {

/// Where one luminaire of a placement hangs.
struct LuminairePosition {
  Vec2 at = Vec2::Zero();  ///< in plan, or on `surface`
  double turn_deg = 0;     ///< beyond the placement's own rotation
  std::optional<readings::Plane>
      on;  ///< what it is mounted on and shines away from; nothing: it hangs in plan

  /// Its place in the room; z is 0 for one that hangs in plan.
  Vec3 place() const { return on ? on->at(at) : Vec3(at.x(), at.y(), 0); }
};

/// Finds the places of luminaires from how they are written, one placement at a time, and notes what lies
/// outside the room or is not there to be mounted on.
class LuminairePositions {
 public:
  LuminairePositions(const model::Room& room, const RoomGeometry& built, const WrittenWalls& walls,
                     Problems& problems)
      : room_(room), built_(built), walls_(walls), problems_(problems) {}

  /// Empty where something was wrong, which has been told. `photometry`: null as long as its file could not
  /// be read.
  std::vector<LuminairePosition> find(const model::LuminairePlacement& placement,
                                      const photometry::Photometry* photometry);
  /// m, between columns and rows, of each array in plan.
  const std::vector<Vec2>& array_spacings() const { return array_spacings_; }

 private:
  std::vector<LuminairePosition> laid(const model::LuminairePlacement& placement,
                                      const geometry::Polygon& outline);
  std::vector<LuminairePosition> array_of(const model::LuminairePlacement& placement,
                                          const geometry::Polygon& outline);
  std::vector<LuminairePosition> on_wall(const model::LuminairePlacement& placement,
                                         const photometry::Photometry* photometry);
  std::vector<LuminairePosition> on_surface(const model::LuminairePlacement& placement);
  std::vector<LuminairePosition> over(const model::LuminairePlacement& placement);
  void on_flat(const model::LuminairePlacement& placement, const std::vector<Vec3>& corners,
               std::vector<LuminairePosition>& positions);
  readings::Plane ceiling_at(const Vec2& at) const;
  bool all_inside(const model::LuminairePlacement& placement, const std::vector<LuminairePosition>& positions,
                  const geometry::Polygon& outline);

  const model::Room& room_;
  const RoomGeometry& built_;
  const WrittenWalls& walls_;
  Problems& problems_;
  std::vector<Vec2> array_spacings_;
};

/// "P1", or "board light (P1)" where the group has a name.
std::string called(const model::LuminairePlacement& placement);

}  // namespace glow::space
