#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/geometry/room_shell.hpp"
#include "core/model/project.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/readings/grid.hpp"
#include "core/standards/requirement_table.hpp"

namespace glow::scene {

/// Luminaires that are switched together: one entry of the room's list.
struct LuminaireGroup {
  std::string mark;
  std::shared_ptr<const photometry::Photometry> photometry;
  std::vector<photometry::PlacedLuminaire> luminaires;
  std::vector<double> rotations_deg;  ///< of each luminaire
};

/// What an object, or an opening in a wall, looks like from above.
struct PlanShape {
  std::string name;
  geometry::Polygon outline;  ///< a panel's and an opening's has two corners
  double bottom_m = 0, top_m = 0;
};

/// One room, ready to compute: everything looked up, placed and checked.
struct RoomScene {
  std::string name;
  geometry::Polygon outline;  ///< tidied, counter-clockwise
  double height_m = 0;
  double floor_area_m2 = 0;
  double maintenance_factor = 1;
  model::Reflectances reflectances;
  geometry::Geometry geometry;
  std::vector<PlanShape> objects, openings;
  std::vector<LuminaireGroup> groups;
  readings::PlaneGrid grid;
  std::string grid_name = "work plane";
  std::string plane_height_source;  ///< why the plane is at its height, in words
  std::optional<standards::Requirement> requirement;
};

/// Turns what was written into a room to compute. Nothing comes back exactly when an error was added;
/// warnings name what would make the result doubtful. Photometric files must have been read; a mark whose
/// file could not be read is passed over in silence, since that was reported already.
std::optional<RoomScene> build_room_scene(const model::Project& project, const model::Room& room,
                                          const standards::RequirementTable& table, Problems& problems);

}  // namespace glow::scene
