#include "core/space/placing/group_placer.hpp"

#include "core/space/placing/luminaire_placing.hpp"

namespace glow::space {

struct GroupPlacer::Parts {
  const model::Project& project;
  model::Room room;
  geometry::Polygon outline;
  WrittenWalls walls;
  RoomGeometry built;

  Parts(const model::Project& of, const model::Room& written)
      : project(of), room(written), outline(geometry::tidied(written.outline)), walls(room, outline) {
    geometry::Geometry geometry;
    Problems ignored;
    built = add_room_geometry(room, outline, walls, geometry, ignored);
  }
};

GroupPlacer::GroupPlacer(const model::Project& project, const model::Room& room)
    : parts_(std::make_unique<const Parts>(project, room)) {}

GroupPlacer::~GroupPlacer() = default;

std::optional<LuminaireGroup> GroupPlacer::place(const model::LuminairePlacement& placement) const {
  model::Room room;
  room.name = parts_->room.name;
  room.luminaires = {placement};
  Problems ignored;
  geometry::Geometry geometry;
  PlacedGroups placed =
      place_luminaires(parts_->project, room, parts_->built, parts_->walls, geometry, ignored);
  if (placed.groups.empty() || placed.groups.front().luminaires.empty()) return std::nullopt;
  return std::move(placed.groups.front());
}

}  // namespace glow::space
