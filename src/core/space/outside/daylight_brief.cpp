#include "core/space/outside/daylight_brief.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/standards/daylight_rules.hpp"

namespace glow::space {
namespace {

constexpr double kOpenSky = 10000;  // lx; factors do not hang on it
constexpr int kUsualYear = 2025;    // of the day on which sunlight is counted: no leap year

/// Whether daylight comes in by level roof openings alone.
bool is_lit_from_above(const Space& space) {
  constexpr double kLevel = 0.999;  // cosine
  bool any = false;
  for (const Opening& opening : space.openings) {
    if (!opening.lets_daylight_in()) continue;
    if (!opening.in_roof || opening.outwards.z() < kLevel) return false;
    any = true;
  }
  return any;
}

std::optional<daylight::SunDay> sun_day(const model::Site& site, const model::DaylightWish& wish) {
  if (!site.latitude_deg || !site.longitude_deg) return std::nullopt;
  daylight::SunDay day;
  day.year = kUsualYear;
  day.month = wish.sun_month;
  day.day = wish.sun_day;
  day.latitude_deg = *site.latitude_deg;
  day.longitude_deg = *site.longitude_deg;
  day.time_zone_h = site.time_zone_h.value_or(std::round(*site.longitude_deg / 15));
  day.north_deg = site.north_deg.value_or(0);
  day.least_altitude_deg = wish.sun_above_deg;
  return day;
}

void warn(Problems& problems, const Place& place, const std::string& words) {
  problems.warning("P096", place, words);
}

Brief brief_of(const model::Project& project, const PlannedRoom& room, Brief brief, Problems& problems) {
  using Why = standards::NotVerified::Why;
  const model::DaylightWish& wish = *room.room->daylight;
  const model::Site& site = project.site;
  DaylightBrief& daylight = brief.daylight.emplace();
  daylight.open_lx = kOpenSky;
  if (wish.provision && !site.median_diffuse_lx) {
    brief.not_verified.push_back({Why::median_unknown, {}, 0});
    warn(problems, wish.place,
         fmt::format(
             FMT_STRING(
                 "\"{}\" asks for daylight provision, but nothing says how bright it is outside; give [site] "
                 "median_diffuse = \"15000 lx\", say, or climate_of = \"Berlin\""),
             room.space.name));
  } else if (wish.provision) {
    for (std::size_t g = 0; g < room.space.grids.size(); ++g)
      if (room.space.grids[g].role == GridRole::daylight_plane)
        brief.grids[g].demands = standards::provision_demands(
            int(*wish.provision), *site.median_diffuse_lx, site.median_source, is_lit_from_above(room.space));
  }
  if (wish.view) daylight.view = standards::view_demands(int(*wish.view));
  if (!wish.sunlight) return brief;
  daylight.day = sun_day(site, wish);
  if (daylight.day) {
    daylight.sunlight = standards::sunlight_demands(int(*wish.sunlight));
    warn_of_north(site, problems);
    return brief;
  }
  brief.not_verified.push_back({Why::place_unknown, {}, 0});
  warn(problems, wish.place,
       fmt::format(FMT_STRING("\"{}\" asks for hours of sunlight, but [site] has no latitude and longitude"),
                   room.space.name));
  return brief;
}

}  // namespace

std::optional<Grid> daylight_plane(const model::Room& room, const Space& space, Problems& problems) {
  const bool of_year = room.year && room.year->provision;
  const model::DaylightWish wish = room.daylight.value_or(model::DaylightWish{});
  if (!wish.provision && !wish.view && !of_year) return std::nullopt;
  auto grid = wish.plane_m < space.height_m ? readings::plane_grid(space.outline, wish.plane_m,
                                                                   standards::kDaylightBorder, std::nullopt)
                                            : std::nullopt;
  if (!grid) {
    problems.error(
        "P017", room.daylight ? wish.place : room.year->place,
        fmt::format(
            FMT_STRING("nothing of \"{}\" is left of a plane at {} that keeps {} from the walls, which "
                       "EN 17037 holds daylight against; take what asks for it out"),
            room.name, problems.length(wish.plane_m), problems.length(standards::kDaylightBorder)));
    return std::nullopt;
  }
  return Grid{"daylight plane", GridRole::daylight_plane, readings::Kernel::plane, Vec3::UnitX(),
              std::move(*grid)};
}

PlannedScene year_of(const PlannedRoom& room, YearPlan year, const Brief& nothing_asked) {
  PlannedScene scene;
  scene.name = model::kYearScene;
  scene.brief = nothing_asked;
  scene.asks_as_room = false;
  scene.shares.assign(room.space.groups.size(), 0.0);
  scene.cct_k.resize(room.space.groups.size());
  if (const auto& wish = room.room->year) {
    standards::YearWishes wishes{wish->autonomy, wish->spatial_autonomy, wish->sun_exposure,
                                 wish->exposure_lxh};
    for (std::size_t g = 0; g < room.space.grids.size(); ++g) {
      if (g == 0 && room.space.work_plane())
        scene.brief.grids[g].demands = standards::year_demands(wishes, year.levels_lx.front());
      if (wish->provision && room.space.grids[g].role == GridRole::daylight_plane)
        scene.brief.grids[g].demands =
            standards::year_provision_demands(int(*wish->provision), is_lit_from_above(room.space));
    }
  }
  PlannedMoment& moment = scene.moment.emplace();
  moment.sky_words = fmt::format(FMT_STRING("mean of the hours of use ({}; weather of {})"), year.hours_words,
                                 year.place.empty() ? year.file : year.place);
  moment.sky = daylight::Sky::overcast(year.mean_open_lx());
  moment.states = year.states;
  scene.year = std::move(year);
  return scene;
}

std::vector<PlannedScene> plan_daylight(const model::Project& project, const PlannedRoom& room,
                                        const Brief& nothing_asked, Problems& problems) {
  std::vector<PlannedScene> scenes;
  if (!room.room->daylight) return scenes;
  const model::DaylightWish& wish = *room.room->daylight;
  const std::set<std::string> known = known_states(project);
  for (const std::string& state : wish.states)
    if (!known.count(state))
      problems.error(
          "P095", wish.states_place,
          fmt::format(FMT_STRING("\"daylight\" names the state \"{}\", in which nothing stands or hangs "
                                 "outside{}{}"),
                      state, known.empty() ? "" : "; there are: ", fmt::join(known, ", ")));
  const Brief brief = brief_of(project, room, nothing_asked, problems);
  const std::vector<std::string> names = wish.scene_names();
  for (std::size_t k = 0; k < names.size(); ++k) {
    PlannedScene& scene = scenes.emplace_back();
    scene.name = names[k];
    scene.brief = brief;
    scene.asks_as_room = false;
    scene.shares.assign(room.space.groups.size(), 0.0);
    scene.cct_k.resize(room.space.groups.size());
    PlannedMoment& moment = scene.moment.emplace();
    moment.sky_words = "overcast sky";
    moment.sky = daylight::Sky::overcast(kOpenSky);
    moment.has_factor = true;
    if (k > 0) moment.states = {wish.states[k - 1]};
  }
  return scenes;
}

}  // namespace glow::space
