#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/geometry/room_shell.hpp"
#include "core/model/project.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/readings/grid.hpp"
#include "core/readings/receiver.hpp"
#include "core/space/eye_set.hpp"
#include "core/space/objects/solid.hpp"
#include "core/space/room_tasks.hpp"

namespace glow::space {

/// Luminaires that are switched together: one entry of the room's list. At full output, as new: what of that
/// they give is said by lighting::Weights.
struct LuminaireGroup {
  std::string mark;
  std::string name;           ///< unique in the room: as written, or the mark and a number
  std::string fitting;        ///< mark of the fitting that it is a part of; empty: none
  double share = 1;           ///< of the placement's dimming: a part's own
  std::size_t placement = 0;  ///< number of the entry in model::Room::luminaires
  std::shared_ptr<const photometry::Photometry> photometry;  ///< at the flux that the project states
  std::vector<photometry::PlacedLuminaire> luminaires;
  std::vector<double> rotations_deg;  ///< of each luminaire
  std::optional<model::Array> array;  ///< laid as an array in plan, by count
  model::LampColour colour;
  std::optional<double> ra;  ///< general colour rendering index
  std::optional<double> lamp_luminance_cd_m2, shielding_deg;
};

/// What an object looks like from above.
struct PlanShape {
  std::string name;
  Solid extent;       ///< about all of it; a panel's plan has two corners
  bool solid = true;  ///< false: legs and shelves, or a mesh; one can look into it
};

/// A window, door or hole in a wall or in the ceiling.
struct Opening {
  std::string name;
  bool in_roof = false;
  std::size_t wall = 0;           ///< of those in walls
  std::vector<Vec3> corners;      ///< m, counter-clockwise seen from inside, from the lower left one
  Vec3 outwards = Vec3::UnitY();  ///< unit length: the way that light leaves by
  std::optional<model::Finish> pane;
  daylight::Glazing glazing =
      {};               ///< for daylight: frame and dirt included; nothing passes where it is opaque
  daylight::Bars bars;  ///< that cast shadows; the glazing is then that between them
  std::vector<model::Shade> screens = {};  ///< before it, in their states

  bool lets_daylight_in() const { return glazing.at_normal > 0 || glazing.scattered > 0; }
  Vec3 middle() const { return (corners[0] + corners[2]) / 2; }
  /// Its line in plan, counter-clockwise along the outline; of one in the ceiling its outline, seen from
  /// above.
  geometry::Polygon plan() const {
    if (!in_roof) return {corners[1].xy(), corners[0].xy()};
    return {corners[3].xy(), corners[2].xy(), corners[1].xy(), corners[0].xy()};
  }
  double bottom_m() const { return corners[0].z(); }
  double top_m() const { return corners[2].z(); }
};

enum class GridRole {
  work_plane,
  floor,
  ceiling,
  wall,
  requested,  ///< by the designer
  task_area,
  surrounding,     ///< the immediate surrounding area of a task area
  background,      ///< the background area beyond it
  faces,           ///< cylinders at the height of people's eyes
  eye_level,       ///< level planes at the very same points: for the modelling ratio
  escape_route,    ///< of emergency lighting: along the centre line, on the floor
  escape_band,     ///< half of the route's width about it
  open_area,       ///< the floor but for 0.5 m along the walls
  daylight_plane,  ///< that daylight is held against
  neighbour        ///< a window or facade beside an outdoor area, read as new
};

/// "work plane", "floor", "ceiling", "wall", "wanted", "task area", "surrounding area", "background area",
/// "faces", "eye level", "escape route", "escape route band", "open area",
/// "daylight plane", "neighbour".
std::string to_string(GridRole role);
std::optional<GridRole> grid_role(const std::string& words);

/// Where light is read over an area.
struct Grid {
  std::string name;
  GridRole role = GridRole::requested;
  readings::Kernel kernel = readings::Kernel::plane;
  Vec3 facing = Vec3::UnitX();  ///< of semi-cylinders
  readings::PlaneGrid grid;
  bool on_ground = false;  ///< outdoors: its points lie above the ground as its plane lies above 0

  readings::Receiver receiver(std::size_t point) const;
  /// Whether it is one that people look at between its points too: a work plane, an area or one that was
  /// asked for.
  bool is_looked_at() const {
    return role == GridRole::work_plane || role == GridRole::requested || role == GridRole::task_area;
  }
};

/// Where light is read at one point.
struct Point {
  std::string name;
  readings::Receiver receiver;
  bool is_eye = false;  ///< of somebody who looks that way
};

/// Something that stands or hangs outside: a building, a tree, slats.
struct OutsidePart {
  std::string name;
  std::string state;  ///< it is there in moments that name this state; empty: always
  geometry::Geometry geometry;
  bool is_shade = false;     ///< it belongs to an opening
  std::string opening = {};  ///< then: that one's name
};

/// A window, point or facade of somebody beside an outdoor area.
struct NeighbourPlace {
  std::string name;
  std::size_t grid = 0;         ///< number of the space's
  std::vector<Vec3> eyes;       ///< that luminaires glare into: the window's middle, or a facade's points
  Vec3 facing = Vec3::UnitX();  ///< outwards, unit length; zero: whichever way, on an area
  std::optional<standards::AreaUse> use;
  double background_cd_m2 = 0;    ///< luminance of its surroundings
  bool finds_background = false;  ///< it is computed
};

/// Somebody on a road beside an outdoor area.
struct RoadUserPlace {
  std::string name;
  Vec3 eye = Vec3::Zero(), sight = Vec3::UnitX();  ///< unit length, level
  double road_cd_m2 = 1;
  std::optional<double> age;
};

/// A surface of the room and what it is made of.
struct SurfaceFinish {
  std::string surface;
  model::Finish finish;
};

/// Two objects that touch: an object, and another one or (empty) a wall.
struct Meeting {
  std::string object, other;
};

/// One room, ready to compute: everything looked up, placed and checked. Grids, points, sets of eyes and
/// luminaire groups have their numbers as ids; so have the surfaces of the geometry, which also know their
/// role. What is asked of it is its Brief; what of their light the luminaires give, lighting::Weights.
struct Space {
  // Defined in room_geometry.cpp: inline, they would be compiled into every file that holds one.
  Space();
  Space(const Space&);
  Space(Space&&) noexcept;
  Space& operator=(const Space&);
  Space& operator=(Space&&) noexcept;
  ~Space();

  std::string name;
  geometry::Polygon outline;  ///< tidied, counter-clockwise
  double height_m = 0;        ///< of walls, and of the ceiling where there is one
  bool roofed = true;         ///< false: open above
  bool outdoors = false;      ///< ground without walls
  bool flat_ceiling = true;
  bool flat_outside = true;  ///< no part of the roof lies lower than another beside it
  double floor_area_m2 = 0;
  model::Reflectances reflectances;
  geometry::Geometry geometry;
  std::vector<std::string> wall_names;  ///< by the outline's edges
  std::vector<PlanShape> objects;
  std::vector<Opening> openings;
  geometry::Ground ground;     ///< outdoors; level where nothing else is said
  geometry::Geometry outside;  ///< the room's own shell from outside, and the reveals of its windows
  std::vector<OutsidePart> outside_parts;  ///< what else stands outside, each in its state
  double ground_reflectance = 0.2;
  std::vector<LuminaireGroup> groups;
  std::vector<Grid> grids;  ///< the work plane first, if there is one; at least one
  std::vector<Point> points;
  std::vector<EyeSet> eyes;
  std::vector<NeighbourPlace> neighbours;  ///< outdoors
  std::vector<RoadUserPlace> road_users;
  std::vector<SurfaceFinish> finishes;
  std::vector<Meeting> meetings;

  /// Null: there is none.
  const readings::PlaneGrid* work_plane() const {
    const bool there = !grids.empty() && grids.front().role == GridRole::work_plane;
    return there ? &grids.front().grid : nullptr;
  }
};

}  // namespace glow::space
