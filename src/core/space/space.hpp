#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/geometry/room_shell.hpp"
#include "core/model/project.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/readings/grid.hpp"
#include "core/space/eye_set.hpp"
#include "core/space/room_tasks.hpp"
#include "core/readings/receiver.hpp"

namespace glow::space {

/// Luminaires that are switched together: one entry of the room's list.
struct LuminaireGroup {
  std::string mark;
  std::shared_ptr<const photometry::Photometry> photometry;  ///< at the flux that the project states
  std::vector<photometry::PlacedLuminaire> luminaires;
  std::vector<double> rotations_deg;  ///< of each luminaire
  double dimming = 1;                 ///< share of full output
  double maintenance_factor = 1;
  std::optional<model::LuminaireMaintenance> maintenance;  ///< the parts of the factor, when stated
  std::optional<model::ArraySize> array;                   ///< laid as an array
  std::optional<double> cct_k;
  std::optional<double> ra;  ///< general colour rendering index
  std::optional<double> lamp_luminance_cd_m2, shielding_deg;
};

/// What an object, or an opening in a wall, looks like from above.
struct PlanShape {
  std::string name;
  geometry::Polygon outline;  ///< a panel's and an opening's has two corners
  double bottom_m = 0, top_m = 0;
  bool solid = true;  ///< false: legs and shelves, a mesh, or an opening; one can look into it
};

enum class GridRole {
  work_plane,
  floor,
  ceiling,
  wall,
  requested,  ///< by the designer
  task_area,
  surrounding,  ///< the immediate surrounding area of a task area
  background,   ///< the background area beyond it
  faces,        ///< cylinders at the height of people's eyes
  eye_level     ///< level planes at the very same points: for the modelling ratio
};

/// "work plane", "floor", "ceiling", "wall", "wanted", "task area", "surrounding area", "background area",
/// "faces", "eye level".
std::string to_string(GridRole role);
std::optional<GridRole> grid_role(const std::string& words);

/// Where light is read over an area.
struct Grid {
  std::string name;
  GridRole role = GridRole::requested;
  readings::Kernel kernel = readings::Kernel::plane;
  Vec3 facing = Vec3::UnitX();  ///< of semi-cylinders
  readings::PlaneGrid grid;
  std::vector<standards::Demand> demands;  ///< what is asked of it
  std::string task;                        ///< key of the task that asks, of areas

  readings::Receiver receiver(std::size_t point) const;
};

/// Where light is read at one spot.
struct Point {
  std::string name;
  readings::Receiver receiver;
};

/// A surface of the room and what it is made of.
struct SurfaceFinish {
  std::string surface;
  model::Finish finish;
};

/// One room, ready to compute: everything looked up, placed and checked.
struct Space {
  std::string name;
  units::ShownUnits units;    ///< that sentences about the room are in
  geometry::Polygon outline;  ///< tidied, counter-clockwise
  double height_m = 0;
  double floor_area_m2 = 0;
  double maintenance_factor = 1;  ///< of the groups together, weighted by their flux
  std::optional<model::SurfaceMaintenance> room_surfaces;
  model::Reflectances reflectances;
  geometry::Geometry geometry;
  std::vector<std::string> wall_names;  ///< by the outline's edges
  std::vector<PlanShape> objects, openings;
  std::vector<LuminaireGroup> groups;
  std::vector<Grid> grids;  ///< the work plane first
  std::vector<Point> spots;
  std::vector<EyeSet> eyes;
  GlareWish glare;
  std::vector<SurfaceFinish> finishes;
  std::string plane_height_source;         ///< why the plane is at its height, in words
  Tasks tasks;                             ///< of the room as a whole, one for each standard
  std::vector<standards::Demand> demands;  ///< of no grid: the light's colour
  std::string verified_as;                 ///< what is held against the task, and what follows, in words
  std::vector<std::string> not_verified;   ///< what is asked and cannot be, or is not, verified
  std::vector<std::string> assumed;        ///< what the project does not state
  std::vector<std::string> meetings;       ///< what touches what

  const readings::PlaneGrid& work_plane() const { return grids.front().grid; }
};

/// Turns what was written into a room to compute. Nothing comes back exactly when an error was added;
/// warnings name what would make the result doubtful. Photometric files must have been read; a mark whose
/// file could not be read is passed over in silence, since that was reported already. `standards`: at least
/// one, the main one first.
std::optional<Space> build_space(const model::Project& project, const model::Room& room,
                                          const std::vector<standards::RequirementTable>& standards,
                                          Problems& problems);

}  // namespace glow::space
