#include "core/space/placing/area_placing.hpp"

#include <fmt/format.h>

#include <cmath>

#include "core/geometry/polygon_bands.hpp"
#include "core/space/placing/footprints.hpp"
#include "core/space/placing/grid_placing.hpp"

namespace glow::space {
namespace {

using geometry::Polygon;

constexpr double kBorder = 0.5;   // m along the walls; EN 12464-1, areas of a room
constexpr double kUpright = 0.7;  // |z| of a normal: below it an area counts as upright
constexpr double kSameLevel =
    0.3;                           // m: level areas nearer in height than this keep out of each other's bands
constexpr double kTouches = 1e-6;  // m

bool is_upright(const Grid& area) {
  return std::abs(area.grid.plane.normal.z()) < kUpright;
}

Polygon in_plan(const Grid& area) {
  Polygon plan;
  for (const Vec2& p : area.grid.outline) plan.push_back(area.grid.plane.at(p).xy());
  return plan;
}

class AreaPlacer {
 public:
  AreaPlacer(const model::Room& room, const RoomGeometry& built, const WrittenWalls& walls,
             const std::vector<standards::RequirementTable>& standards, Problems& problems)
      : room_(room), built_(built), walls_(walls), standards_(standards), problems_(problems) {}

  PlacedAreas place_all() {
    for (const model::AreaWish& wish : room_.areas) place(wish);
    const bool bands = room_.verification == model::Verification::by_areas;
    const std::size_t count = areas_.size();
    for (std::size_t i = 0; i < count; ++i) {
      result_.grids.push_back(areas_[i].grid);
      result_.briefs.push_back(areas_[i].brief);
      if (bands && areas_[i].surroundings) form_bands(areas_[i]);
    }
    return std::move(result_);
  }

 private:
  struct Area {
    Grid grid;
    Tasks tasks;
    bool surroundings = true;
    std::optional<model::LeaveOut> leave_out;
    Place place;
    GridBrief brief;
  };

  void place(const model::AreaWish& wish);
  bool settle_height(model::GridWish& wish, const Tasks& tasks, const Place& place);
  void check_orientation(const Area& area, const Place& place);
  void keep_inside(Area& area, const Place& place);
  void form_bands(const Area& area);
  std::optional<Grid> band(const Area& area, GridRole role, const Polygon& inner, double width,
                           const char* what, Polygon& outer);
  bool is_inside(const Vec3& p, double border) const;

  const model::Room& room_;
  const RoomGeometry& built_;
  const WrittenWalls& walls_;
  const std::vector<standards::RequirementTable>& standards_;
  Problems& problems_;
  PlacedAreas result_;
  std::vector<Area> areas_;
};

/// The task brings the height of an area that states none.
bool AreaPlacer::settle_height(model::GridWish& wish, const Tasks& tasks, const Place& place) {
  double* first = nullptr;
  if (wish.rectangle) first = &wish.rectangle->at.z();
  if (wish.polygon && !wish.polygon->empty()) first = &wish.polygon->front().z();
  if (!first || !std::isnan(*first)) return true;
  if (tasks.empty()) return false;
  const standards::Requirement& row = tasks.front().row;
  if (!row.plane_height_m) {
    problems_.error(
        "P055", place,
        fmt::format(FMT_STRING("area \"{}\": the plane of task \"{}\" has no height of its own ({}); say "
                               "where it lies, with \"on\" or a height"),
                    wish.name, row.key, row.plane_note));
    return false;
  }
  *first = *row.plane_height_m;
  if (wish.polygon)
    for (Vec3& p : *wish.polygon) p.z() = *row.plane_height_m;
  return true;
}

void AreaPlacer::place(const model::AreaWish& wish) {
  const std::string task = wish.task.empty() ? room_.task.value_or("") : wish.task;
  if (task.empty()) {
    problems_.error(
        "P004", wish.grid.place,
        fmt::format(FMT_STRING("area \"{}\" has no task, nor has its room; give it one (glowgrid tasks "
                               "WORDS finds keys)"),
                    wish.grid.name));
    return;
  }
  const Tasks tasks = find_tasks(standards_, task, wish.task.empty() ? room_.task_place : wish.task_place,
                                 wish.level ? wish.level : room_.level, problems_);
  model::GridWish where = wish.grid;
  if (!settle_height(where, tasks, wish.grid.place) || tasks.empty()) return;
  result_.tasks.push_back(tasks);
  where.density.rule = count_rule(tasks);
  for (Grid& grid : place_grid(room_, built_, walls_, where, GridRole::task_area, problems_)) {
    Area area{std::move(grid), tasks, wish.surroundings, wish.grid.leave_out, wish.grid.place, {task, {}}};
    check_orientation(area, wish.grid.place);
    keep_inside(area, wish.grid.place);
    for (const standards::TaskInForce& each : tasks)
      for (standards::Demand& demand : standards::task_demands(each))
        area.brief.demands.push_back(std::move(demand));
    areas_.push_back(std::move(area));
  }
}

void AreaPlacer::check_orientation(const Area& area, const Place& place) {
  const standards::Requirement& row = area.tasks.front().row;
  const bool upright = is_upright(area.grid);
  const bool wants_upright = row.orientation() == standards::PlaneOrientation::vertical;
  const bool wants_level = row.orientation() == standards::PlaneOrientation::horizontal;
  if ((wants_upright && upright) || (wants_level && !upright) || (!wants_upright && !wants_level)) return;
  problems_.warning(
      "P056", place,
      fmt::format(FMT_STRING("area \"{}\" lies {}, but \"{}\" is read on a plane that is {}; {}"),
                  area.grid.name, upright ? "upright" : "level", row.key, row.plane_note,
                  wants_upright ? "put it on a face (on = \"...\") or tilt it by 90"
                                : "lay it level, or take another task"));
}

bool AreaPlacer::is_inside(const Vec3& p, double border) const {
  const Vec2 plan = p.xy();
  if (p.z() < -kTouches || p.z() > built_.shell.clear_height(plan) + kTouches) return false;
  return geometry::contains(built_.shell.outline, plan) &&
         geometry::distance_to_edges(built_.shell.outline, plan) > border - kTouches;
}

void AreaPlacer::keep_inside(Area& area, const Place& place) {
  const std::size_t before = area.grid.grid.points.size();
  Grid inside = area.grid;
  thin_out(inside.grid, [&](const Vec3& p) { return is_inside(p, 0); });
  const std::size_t after = inside.grid.points.size();
  if (after == before) return;
  if (after == 0) {
    problems_.error(
        "P057", place,
        fmt::format(FMT_STRING("area \"{}\" lies outside the room \"{}\"; expected a place inside"),
                    area.grid.name, room_.name));
    return;
  }
  problems_.warning(
      "P057", place,
      fmt::format(FMT_STRING("{} of {} points of area \"{}\" lie outside the room \"{}\" and are left "
                             "out; move or shorten it"),
                  before - after, before, area.grid.name, room_.name));
  area.grid = std::move(inside);
}

/// The strip of `width` around `inner`, in the area's own plane.
std::optional<Grid> AreaPlacer::band(const Area& area, GridRole role, const Polygon& inner, double width,
                                     const char* what, Polygon& outer) {
  const readings::PlaneGrid& own = area.grid.grid;
  outer = geometry::grown(inner, width);
  const bool level = own.plane.is_level();
  if (level) {
    Polygon plan;
    for (const Vec2& p : built_.shell.outline) plan.push_back(own.plane.local({p.x(), p.y(), 0}));
    const auto pieces = geometry::common_area(outer, plan);
    if (!pieces.empty()) outer = pieces.front();
  }
  std::vector<Polygon> holes = {inner};
  for (const Area& other : areas_) {
    if (&other == &area || !level || !other.grid.grid.plane.is_level()) continue;
    if (std::abs(other.grid.grid.plane.origin.z() - own.plane.origin.z()) > kSameLevel) continue;
    Polygon hole;
    for (const Vec2& p : in_plan(other.grid)) hole.push_back(own.plane.local({p.x(), p.y(), 0}));
    holes.push_back(std::move(hole));
  }
  Grid grid;
  Problems ignored;  // a band without points is noted below, wrong names at the area
  grid.name = area.grid.name + " " + what;
  grid.role = role;
  if (auto laid = readings::plane_grid(own.plane, outer, holes, 0, {})) {
    grid.grid = std::move(*laid);
    grid.on_ground = area.grid.on_ground && follow_ground(built_.shell.ground, grid.grid);
    bool reaches_wall = false;
    for (const Vec2& p : own.outline) reaches_wall = reaches_wall || !is_inside(own.plane.at(p), kBorder);
    const double border = role == GridRole::background && level && !reaches_wall ? kBorder : 0;
    thin_out(grid.grid, [&](const Vec3& p) { return is_inside(p, border); });
    // Nobody sees what lies under a cabinet: bands go round what stands in them.
    leave_out_footprints(built_.objects, area.leave_out.value_or(model::LeaveOut{true, {}}), area.place,
                         grid.name, grid.grid, ignored);
    if (!grid.grid.points.empty()) return grid;
  }
  result_.not_verified.push_back({standards::NotVerified::Why::no_room_for_band, grid.name, 0});
  return std::nullopt;
}

void AreaPlacer::form_bands(const Area& area) {
  std::optional<Grid> surrounding, background;
  GridBrief of_surrounding{area.brief.task, {}}, of_background = of_surrounding;
  for (const standards::TaskInForce& task : area.tasks) {
    if (!task.em_lx) continue;
    const auto rule = standards::surroundings_of(task.row, *task.em_lx);
    if (!rule) continue;
    Polygon outer, beyond;
    if (!surrounding)
      surrounding =
          band(area, GridRole::surrounding, area.grid.grid.outline, rule->band_m, "surrounding", outer);
    if (!surrounding) return;
    for (standards::Demand& demand : standards::surrounding_demands(task, *rule))
      of_surrounding.demands.push_back(std::move(demand));
    if (rule->background_lx && !background)
      background = band(area, GridRole::background, surrounding->grid.outline, rule->background_band_m,
                        "background", beyond);
    if (background)
      for (standards::Demand& demand : standards::background_demands(task, *rule))
        of_background.demands.push_back(std::move(demand));
  }
  const auto add = [&](std::optional<Grid>& grid, GridBrief& brief) {
    if (!grid) return;
    result_.grids.push_back(std::move(*grid));
    result_.briefs.push_back(std::move(brief));
  };
  add(surrounding, of_surrounding);
  add(background, of_background);
}

}  // namespace

PlacedAreas place_areas(const model::Room& room, const RoomGeometry& built, const WrittenWalls& walls,
                        const std::vector<standards::RequirementTable>& standards, Problems& problems) {
  return AreaPlacer(room, built, walls, standards, problems).place_all();
}

}  // namespace glow::space
