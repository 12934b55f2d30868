#include "core/space/room_builder.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/model/file_names.hpp"
#include "core/space/doubtful_input.hpp"
#include "core/space/grid_checks.hpp"
#include "core/space/outside/daylight_brief.hpp"
#include "core/space/outside/neighbours.hpp"
#include "core/space/outside/outside.hpp"
#include "core/space/placing/area_placing.hpp"
#include "core/space/placing/emergency_placing.hpp"
#include "core/space/placing/eye_placing.hpp"
#include "core/space/placing/footprints.hpp"
#include "core/space/placing/grid_placing.hpp"
#include "core/space/placing/luminaire_placing.hpp"
#include "core/space/placing/view_placing.hpp"
#include "core/space/room_geometry.hpp"
#include "core/space/times/scenes.hpp"
#include "core/space/tolerances.hpp"
#include "core/space/work_plane.hpp"
#include "core/standards/energy_rules.hpp"

namespace glow::space {
namespace {

class RoomBuilder {
 public:
  RoomBuilder(const model::Project& project, const model::Room& room,
              const std::vector<standards::RequirementTable>& standards, Problems& problems)
      : project_(project), room_(room), standards_(standards), problems_(problems) {}

  std::optional<PlannedRoom> build() {
    const int errors_before = problems_.error_count();
    if (const auto fault = geometry::fault_of_outline(room_.outline)) {
      problems_.error(
          "P013", room_.outline_place,
          fmt::format(FMT_STRING("the outline of \"{}\" is not a simple polygon: {}"), room_.name, *fault));
      return std::nullopt;
    }
    space_.name = room_.name;
    space_.outline = geometry::tidied(room_.outline);
    space_.height_m = room_.height_m;
    space_.floor_area_m2 = geometry::signed_area(space_.outline);
    space_.roofed = room_.roofed;
    space_.outdoors = room_.outdoors;
    space_.flat_ceiling = room_.roofed && room_.ceiling.empty();
    space_.flat_outside = std::all_of(room_.ceiling.begin(), room_.ceiling.end(),
                                      [](const auto& part) { return part.over.empty(); });
    space_.reflectances = room_.reflectances;
    const WrittenWalls walls(room_, space_.outline);
    space_.wall_names = walls.names();
    RoomGeometry built = add_room_geometry(room_, space_.outline, walls, space_.geometry, problems_);
    space_.ground = built.shell.ground;
    describe(built);
    if (room_.task)
      brief_.tasks = find_tasks(standards_, *room_.task, room_.task_place, room_.level, problems_);
    lay_work_plane(room_, built, space_, brief_, problems_);
    lay_areas(built, walls);
    for (Grid& grid : place_grids(room_, built, walls, problems_)) add(std::move(grid), {});
    for (Grid& grid : place_emergency_grids(room_, built, walls, problems_)) add(std::move(grid), {});
    lay_faces();
    if (room_.daylight || (room_.year && room_.year->provision))
      if (auto grid = daylight_plane(room_, space_, problems_)) add(std::move(*grid), {});
    place_neighbours(project_, room_, space_, brief_, problems_);
    check_grid_names(room_, space_, problems_);
    if (space_.grids.empty() && problems_.error_count() == errors_before)
      problems_.error(
          "P080", room_.place,
          fmt::format(FMT_STRING("nothing is read in \"{}\": it has no work plane, surfaces = false, and "
                                 "no grids or areas"),
                      room_.name));
    space_.points = place_points(room_, built, problems_);
    lay_eyes();
    if (project_.shows_daylight())
      for (Point& point : points_at(space_.eyes)) space_.points.push_back(std::move(point));
    PlacedGroups placed = place_luminaires(project_, room_, built, walls, space_.geometry, problems_);
    space_.groups = std::move(placed.groups);
    demand_of_room();
    if (room_.luminaires.empty() && !project_.shows_daylight() && !room_.daylight)
      problems_.warning(
          "P020", room_.place,
          fmt::format(FMT_STRING("room \"{}\" has no luminaires; it will be dark"), room_.name));
    if (space_.work_plane())
      warn_of_equal_pitch(room_, *space_.work_plane(), placed.array_spacings, problems_);
    warn_of_objects_over(room_, space_, brief_, built.objects, problems_);
    warn_of_doubtful_input(project_, room_, space_, brief_, problems_);
    if (problems_.error_count() > errors_before) return std::nullopt;
    return PlannedRoom{&room_, std::move(space_), std::move(brief_), {}, {}, {}};
  }

 private:
  void add(Grid grid, GridBrief brief) {
    space_.grids.push_back(std::move(grid));
    brief_.grids.push_back(std::move(brief));
  }
  /// Of the room's floor above the building's zero; a room on no floor lies at it.
  double level_of_floor() const {
    for (const model::Floor& floor : project_.floors)
      if (!room_.floor.empty() && floor.name == room_.floor) return floor.level_m;
    return 0;
  }
  void describe(const RoomGeometry& built);
  void describe(Opening placed);
  void lay_areas(const RoomGeometry& built, const WrittenWalls& walls);
  void note_not_verified(const Tasks& tasks);
  void lay_faces();
  void lay_eyes();
  void check_left_out(const std::vector<model::LeftOutLuminaire>& list);
  void demand_of_room();

  const model::Project& project_;
  const model::Room& room_;
  const std::vector<standards::RequirementTable>& standards_;
  Problems& problems_;
  Space space_;
  Brief brief_;
  Tasks surface_tasks_;  ///< that walls, ceiling and cylinders are held against
  std::vector<Tasks> all_tasks_;
};

/// An opening in its place, as it was written.
void RoomBuilder::describe(Opening placed) {
  for (const model::Opening& written : room_.openings) {
    if (written.name != placed.name) continue;
    placed.pane = written.pane;
    placed.glazing = glazing_of(written);
    placed.bars = written.bars;
    for (const model::Shade& shade : written.shades)
      if (shade.kind == model::Shade::Kind::screen) placed.screens.push_back(shade);
    if (written.reveal_m > 0)
      add_reveal(placed, written.reveal_m, written.reveal_reflectance, space_.outside);
    add_shades(placed, written.shades, written.reveal_m, space_.outside_parts);
  }
  space_.openings.push_back(std::move(placed));
}

/// What plans show of the room and its objects, and what all of it is made of.
void RoomBuilder::describe(const RoomGeometry& built) {
  for (const PlacedObject& placed : built.objects) {
    space_.objects.push_back({placed.name, placed.extent, placed.solids.size() == 1});
    space_.finishes.push_back({placed.name, placed.object->finish});
  }
  for (const geometry::WallOpening& opening : built.shell.openings) {
    Opening placed;
    placed.name = opening.name;
    placed.wall = opening.wall;
    placed.corners = geometry::opening_corners(built.shell, opening);
    const Vec3 along = (placed.corners[0] - placed.corners[1]).normalized();
    placed.outwards = along.cross(Vec3::UnitZ());
    describe(std::move(placed));
  }
  for (const geometry::CeilingOpening& opening : built.shell.roof_openings) {
    Opening placed;
    placed.name = opening.name;
    placed.in_roof = true;
    placed.corners = geometry::opening_corners(built.shell, opening);
    const std::vector<Vec3>& c = placed.corners;
    placed.outwards = (c[3] - c[0]).cross(c[1] - c[0]).normalized();
    describe(std::move(placed));
  }
  geometry::add_room_outside(space_.outside, built.shell);
  if (project_.shows_daylight() || room_.daylight)
    for (OutsidePart& part : place_obstructions(project_.site, level_of_floor(), space_, problems_))
      space_.outside_parts.push_back(std::move(part));
  space_.ground_reflectance = project_.site.ground_reflectance;
  const auto shell = [&](const std::string& name, const geometry::Material& material) {
    model::Finish finish;
    finish.material = material;
    for (const model::Wall& wall : room_.walls)
      if (wall.finish && (wall.name == name || fmt::format(FMT_STRING("wall {}"), wall.number) == name))
        finish = *wall.finish;
    space_.finishes.push_back({name, finish});
  };
  shell("floor", built.shell.floor_material);
  if (room_.roofed) shell("ceiling", built.shell.ceiling_material);
  for (std::size_t i = 0; !room_.outdoors && i < space_.wall_names.size(); ++i)
    shell(space_.wall_names[i], built.shell.wall_material(i));
  for (const model::Opening& opening : room_.openings)
    if (opening.pane) space_.finishes.push_back({opening.name, *opening.pane});
  space_.meetings = built.meetings;
}

/// Task areas; and who asks for light on walls, ceiling and faces: the room's task, or the task of an area.
void RoomBuilder::lay_areas(const RoomGeometry& built, const WrittenWalls& walls) {
  PlacedAreas areas = place_areas(room_, built, walls, standards_, problems_);
  surface_tasks_ = brief_.tasks;
  if (surface_tasks_.empty() && !areas.tasks.empty()) surface_tasks_ = areas.tasks.front();
  for (std::size_t g = 0; g < areas.grids.size(); ++g)
    add(std::move(areas.grids[g]), std::move(areas.briefs[g]));
  brief_.not_verified.insert(brief_.not_verified.end(), areas.not_verified.begin(), areas.not_verified.end());
  for (const Tasks& tasks : areas.tasks) note_not_verified(tasks);
  all_tasks_ = areas.tasks;
  all_tasks_.push_back(brief_.tasks);
  note_not_verified(brief_.tasks);
  const bool by_areas = room_.verification == model::Verification::by_areas;
  if (room_.areas.empty() && brief_.tasks.empty()) return;
  const bool room_counts = room_.task && whole_room_counts(room_);
  brief_.verified_as = room_.areas.empty() ? VerifiedAs::whole_room
                       : !by_areas         ? VerifiedAs::whole_room_and_areas
                       : room_counts       ? VerifiedAs::room_and_areas_of_other_tasks
                                           : VerifiedAs::areas_with_surroundings;
}

void RoomBuilder::note_not_verified(const Tasks& tasks) {
  for (const standards::TaskInForce& task : tasks)
    for (standards::NotVerified each : standards::not_verified(task.row)) {
      if (tasks.size() > 1) each.subject = task.row.standard_name();  // the other one may hold it
      if (std::find(brief_.not_verified.begin(), brief_.not_verified.end(), each) ==
          brief_.not_verified.end())
        brief_.not_verified.push_back(each);
    }
}

/// Cylinders at the height of eyes where the task asks for them, and level planes at the same points.
void RoomBuilder::lay_faces() {
  std::vector<standards::Demand> demands;
  for (const standards::TaskInForce& task : surface_tasks_)
    for (standards::Demand& demand : standards::surface_demands(task, task.row.ez_lx))
      demands.push_back(std::move(demand));
  if (demands.empty()) return;
  const standards::Requirement& row = surface_tasks_.front().row;
  const double height = is_seated(room_, surface_tasks_) ? standards::kSeatedEye : standards::kStandingEye;
  const double inset = space_.work_plane() ? space_.work_plane()->inset_m : kDefaultInset;
  auto grid = height < room_.height_m ? readings::plane_grid(space_.outline, height, inset, std::nullopt)
                                      : std::nullopt;
  if (!grid) {
    brief_.not_verified.push_back({standards::NotVerified::Why::no_room_for_faces, {}, 0});
    return;
  }
  const bool follows = follow_ground(space_.ground, *grid);
  const std::string name = fmt::format(FMT_STRING("faces at {:.1f} m"), height);
  add({name, GridRole::faces, readings::Kernel::cylinder, Vec3::UnitX(), *grid, follows},
      {row.key, std::move(demands)});
  add({name + " level", GridRole::eye_level, readings::Kernel::plane, Vec3::UnitX(), std::move(*grid),
       follows},
      {});
}

/// Whose glare is rated, and against what.
void RoomBuilder::lay_eyes() {
  const bool seated = is_seated(room_, surface_tasks_);
  brief_.glare = glare_brief(room_, all_tasks_, standards_.front().name());
  brief_.glare.table_eye_m = seated ? standards::kSeatedEye : standards::kStandingEye;
  if (brief_.glare.rates_gr && !space_.work_plane())
    problems_.error(
        "P080", room_.work_plane.place,
        fmt::format(FMT_STRING("the task of \"{}\" limits GR, which needs the light of the work plane; "
                               "take work_plane = false out"),
                    room_.name));
  if (brief_.glare.screens) check_left_out(brief_.glare.screens->left_out);
  space_.eyes = place_eyes(room_, space_, brief_.glare, seated, problems_);
}

/// What screens are said not to mirror hangs in the room.
void RoomBuilder::check_left_out(const std::vector<model::LeftOutLuminaire>& list) {
  std::vector<std::string> marks;
  for (const model::LuminairePlacement& placement : room_.luminaires)
    for (const std::string& mark : project_.marks_of(placement.mark)) marks.push_back(mark);
  for (const model::LeftOutLuminaire& entry : list)
    if (std::find(marks.begin(), marks.end(), entry.mark) == marks.end())
      problems_.error(
          "P081", entry.place,
          fmt::format(FMT_STRING("there is no luminaire {} in \"{}\" to be left out of the check of "
                                 "screens; there are: {}"),
                      entry.mark, room_.name, fmt::join(marks, ", ")));
}

/// What is asked of walls and ceiling, and of the light's colour.
void RoomBuilder::demand_of_room() {
  for (const standards::TaskInForce& task : surface_tasks_) {
    for (std::size_t g = 0; g < space_.grids.size(); ++g) {
      const Grid& grid = space_.grids[g];
      if (grid.role != GridRole::wall && grid.role != GridRole::ceiling) continue;
      const auto& asked = grid.role == GridRole::wall ? task.row.ewall_lx : task.row.eceiling_lx;
      for (standards::Demand& demand : standards::surface_demands(task, asked))
        brief_.grids[g].demands.push_back(std::move(demand));
    }
    for (standards::Demand& demand : standards::colour_demands(task))
      brief_.light.push_back(std::move(demand));
  }
}

}  // namespace

std::optional<PlannedRoom> build_room(const model::Project& project, const model::Room& room,
                                      const std::vector<standards::RequirementTable>& standards,
                                      Problems& problems) {
  return RoomBuilder(project, room, standards, problems).build();
}

}  // namespace glow::space
