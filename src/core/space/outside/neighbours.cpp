#include "core/space/outside/neighbours.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace glow::space {
namespace {

constexpr double kBefore = 0.02;  // m that light is read before a wall
constexpr double kSpot = 0.1;     // m: a point is a window as small as that
constexpr double kMostRaster = 20000;
constexpr double kDawn = 6;  // o'clock, at which nights and curfews end
constexpr double kEvening = 20, kNight = 22;

struct Placed {
  readings::Plane plane;          ///< from a lower left corner, seen from outside; of facades on the ground
  Vec2 low = Vec2::Zero(), high;  ///< in it
  readings::GridDensity density;
};

readings::Plane upright(const Vec3& low, const Vec3& normal) {
  readings::Plane plane;
  plane.origin = low + kBefore * normal;
  plane.normal = normal;
  plane.v = Vec3::UnitZ();
  plane.u = plane.v.cross(normal);
  return plane;
}

Placed placed(const model::Neighbour& neighbour) {
  Placed own;
  if (neighbour.facade) {
    const model::Neighbour::Facade& facade = *neighbour.facade;
    const Vec2 way = facade.to - facade.from;
    const Vec3 normal = Vec3(way.y(), -way.x(), 0).normalized();
    own.plane = upright({facade.from.x(), facade.from.y(), 0}, normal);
    if (own.plane.u.xy().dot(way) < 0) own.plane.origin += Vec3(way.x(), way.y(), 0);
    own.low = {0, facade.bottom_m};
    own.high = {way.norm(), facade.top_m};
    own.density.spacing_m = facade.spacing_m;
    return own;
  }
  if (neighbour.area) {
    own.plane = readings::Plane::level(neighbour.area->height_m);
    own.low = neighbour.area->from;
    own.high = neighbour.area->to;
    own.density.spacing_m = neighbour.area->spacing_m;
    return own;
  }
  const double a = neighbour.facing_deg * kDegree;
  const Vec3 normal(std::cos(a), std::sin(a), 0);
  const bool spot = neighbour.size_m.isZero();
  own.high = spot ? Vec2(kSpot, kSpot) : neighbour.size_m;
  own.plane = upright(neighbour.at, normal);
  own.plane.origin -= own.high.x() / 2 * own.plane.u + own.high.y() / 2 * own.plane.v;
  own.density.columns = own.density.rows = spot ? 1 : 3;
  return own;
}

bool is_of(const model::Neighbour& neighbour, const model::Room& room) {
  return neighbour.of.empty() ||
         std::find(neighbour.of.begin(), neighbour.of.end(), room.name) != neighbour.of.end();
}

/// The solid that holds the place; null: none.
const PlanShape* around(const Space& space, const Vec3& at) {
  for (const PlanShape& object : space.objects)
    if (object.solid && object.extent.holds(at)) return &object;
  return nullptr;
}

void place(const model::Neighbour& neighbour, Space& space, Brief& brief, Problems& problems) {
  const Placed own = placed(neighbour);
  const geometry::Polygon outline = {
      own.low, {own.high.x(), own.low.y()}, own.high, {own.low.x(), own.high.y()}};
  const double most = readings::most_points(outline, 0, own.density);
  if (most > kMostRaster) {
    problems.error(
        "P133", neighbour.place,
        fmt::format(FMT_STRING("facade \"{}\" would have {:.0f} points; expected at most {:.0f}. Give it "
                               "a wider spacing"),
                    neighbour.name, most, kMostRaster));
    return;
  }
  auto grid = readings::plane_grid(own.plane, outline, {}, 0, own.density);
  if (!grid) return;  // as large as it was checked to be, it has a point
  NeighbourPlace place;
  place.name = neighbour.name;
  place.grid = space.grids.size();
  place.facing = neighbour.area ? Vec3(Vec3::Zero()) : own.plane.normal;
  place.use = neighbour.use;
  place.finds_background = neighbour.finds_background;
  place.background_cd_m2 = neighbour.background_cd_m2.value_or(0);
  if (neighbour.facade || neighbour.area)
    place.eyes = grid->points;
  else
    place.eyes = {own.plane.at(own.high / 2)};
  if (const PlanShape* inside = around(space, place.eyes.front()))
    problems.error(
        "P133", neighbour.place,
        fmt::format(FMT_STRING("neighbour \"{}\" lies inside \"{}\"; move one of them, or turn its "
                               "azimuth"),
                    neighbour.name, inside->name));
  space.neighbours.push_back(std::move(place));
  space.grids.push_back({neighbour.name, GridRole::neighbour,
                         neighbour.area ? readings::Kernel::cylinder : readings::Kernel::plane, Vec3::UnitX(),
                         std::move(*grid)});
  brief.grids.emplace_back();
}

/// Whether light is on at some time from `from` to `to` o'clock.
bool is_on(const std::optional<model::UseHours>& hours, double from, double to) {
  return !hours || std::any_of(hours->periods.begin(), hours->periods.end(),
                               [&](const auto& period) { return period.from_h < to && period.to_h > from; });
}

standards::LitTimes lit_times(const std::optional<model::UseHours>& hours, double curfew_h) {
  standards::LitTimes lit;
  lit.day = is_on(hours, kDawn, kEvening);
  lit.evening = is_on(hours, kEvening, kNight);
  lit.night = is_on(hours, kNight, 24) || is_on(hours, 0, kDawn);
  lit.after_curfew = is_on(hours, 0, kDawn) || is_on(hours, std::max(curfew_h, kDawn), 24);
  return lit;
}

}  // namespace

void ask_nothing_of_spill(Brief& brief) {
  if (!brief.spill) return;
  for (auto& demands : brief.spill->glare_values) demands.clear();
  brief.spill->installation.clear();
  brief.spill->road_users.clear();
  brief.spill->of_intensity.clear();
}

void ask_of_spill(const model::Project& project, const Space& space,
                  const std::optional<model::UseHours>& hours, Brief& brief) {
  if (!brief.spill) return;
  ask_nothing_of_spill(brief);
  SpillBrief& spill = *brief.spill;
  const model::SpillWish& wish = project.spill;
  spill.lit = lit_times(hours, wish.curfew_h);
  for (std::size_t n = 0; n < space.neighbours.size(); ++n) {
    const NeighbourPlace& neighbour = space.neighbours[n];
    GridBrief& grid = brief.grids[neighbour.grid];
    grid.demands.clear();
    if (neighbour.use)
      for (standards::Demand& demand : standards::window_demands(*neighbour.use, spill.lit))
        (demand.quantity == standards::Quantity::glare_value ? spill.glare_values[n] : grid.demands)
            .push_back(std::move(demand));
    for (const standards::ZoneStandard standard : wish.standards)
      if (wish.zone)
        for (standards::Demand& demand : standards::property_demands(standard, *wish.zone, spill.lit))
          grid.demands.push_back(std::move(demand));
  }
  for (const standards::ZoneStandard standard : wish.standards) {
    if (!space.road_users.empty()) spill.road_users.push_back(standards::increment_demand(standard));
    if (!wish.zone) continue;
    spill.of_intensity.push_back(standard);
    spill.installation.push_back(standards::upward_demand(standard, *wish.zone));
  }
  if (!wish.zone) return;
  spill.zone = *wish.zone;
  if (auto demand = standards::flux_ratio_demand(*wish.zone, wish.installation))
    spill.installation.push_back(std::move(*demand));
}

void place_neighbours(const model::Project& project, const model::Room& room, Space& space, Brief& brief,
                      Problems& problems) {
  if (!room.outdoors) return;
  for (const model::Neighbour& neighbour : project.neighbours)
    if (is_of(neighbour, room)) place(neighbour, space, brief, problems);
  for (const model::RoadUser& user : room.road_users) {
    const double a = user.towards_deg * kDegree;
    space.road_users.push_back(
        {user.name, user.at, {std::cos(a), std::sin(a), 0}, user.road_cd_m2, user.age});
  }
  if (space.neighbours.empty() && space.road_users.empty() && !project.spill.zone) return;
  SpillBrief& spill = brief.spill.emplace();
  spill.glare_values.resize(space.neighbours.size());
  spill.small_angles = project.spill.small_angles;
  spill.surround_reflectance = project.spill.surround_reflectance;
  spill.worst = project.spill.worst;
  for (const GridBrief& grid : brief.grids)
    for (const standards::Demand& demand : grid.demands)
      if (demand.quantity == standards::Quantity::mean_illuminance && spill.required_lx == 0)
        spill.required_lx = demand.required;
  ask_of_spill(project, space, room.lit_hours, brief);
}

}  // namespace glow::space
