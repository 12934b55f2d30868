#include "core/space/energy_plan.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "core/space/year_plan.hpp"
#include "core/standards/usual_hours.hpp"

namespace glow::space {
namespace {

void error(Problems& problems, const Place& place, const std::string& text) {
  problems.error("P132", place, text);
}

/// Groups of a zone by the names that it gives; each group is in one zone only. Names of what is not there
/// are passed over: the project's reader knows them all, and rooms are tried without some of their
/// luminaires.
void take_groups(const model::ControlWish& wish, const Space& space, std::set<std::size_t>& taken,
                 PlannedZone& zone, Problems& problems) {
  for (const std::string& name : wish.of)
    for (std::size_t g = 0; g < space.groups.size(); ++g) {
      if (space.groups[g].name != name && space.groups[g].mark != name && space.groups[g].fitting != name)
        continue;
      if (taken.insert(g).second)
        zone.groups.push_back(g);
      else
        error(problems, wish.of_place,
              fmt::format(FMT_STRING("group \"{}\" is in two zones of \"{}\"; name it in one"),
                          space.groups[g].name, space.name));
    }
}

void find_sensor(const model::ControlWish& wish, const Space& space, PlannedZone& zone, Problems& problems) {
  if (wish.sensor.empty()) return;
  std::vector<std::string> names;
  for (std::size_t i = 0; i < space.points.size(); ++i) {
    names.push_back(space.points[i].name);
    if (space.points[i].name == wish.sensor) zone.sensor = i;
  }
  const std::string near = zone.sensor ? std::string() : nearest_word(wish.sensor, names);
  if (!zone.sensor)
    error(problems, wish.sensor_place,
          fmt::format(FMT_STRING("the sensor \"{}\" is no point of \"{}\"; {}"), wish.sensor, space.name,
                      near.empty() ? "give the room [[rooms.points]] with that name"
                                   : "did you mean \"" + near + "\"?"));
}

std::vector<char> used_hours(const model::UseHours& use, const model::Site& site, int first_weekday) {
  std::vector<char> used;
  for (int h = 0; h < daylight::kHoursOfYear; ++h) used.push_back(is_used(use, site, first_weekday, h));
  return used;
}

}  // namespace

std::optional<EnergyPlan> plan_energy(const model::Project& project, const model::Room& room,
                                      const Space& space, const std::string& task_area,
                                      const std::optional<double>& task_lx, Problems& problems) {
  if (!project.energy && room.controls.empty() && !room.energy) return std::nullopt;
  if (space.groups.empty()) return std::nullopt;
  EnergyPlan plan;
  plan.area_m2 = space.floor_area_m2;
  plan.maintenance = room.maintenance_factor.value_or(1);
  plan.has_weather = project.year && project.year->weather;
  plan.has_windows = std::any_of(space.openings.begin(), space.openings.end(),
                                 [](const Opening& opening) { return opening.lets_daylight_in(); });
  if (const auto usual = standards::usual_hours(task_area)) {
    plan.day_h = usual->day_h;
    plan.night_h = usual->night_h;
    plan.building = usual->building;
  }
  if (project.energy) {
    plan.price = project.energy->price;
    plan.co2_kg = project.energy->co2_kg;
    plan.currency = project.energy->currency;
  }
  std::optional<model::UseHours> use;
  if (project.year) use = project.year->hours;
  if (project.energy && project.energy->hours) use = project.energy->hours;
  if (room.year && room.year->hours) use = room.year->hours;
  if (room.energy && room.energy->hours) use = room.energy->hours;
  if (use)
    plan.used = used_hours(*use, project.site, plan.has_weather ? project.year->weather->first_weekday : 0);
  std::set<std::size_t> taken;
  const model::ControlWish* rest = nullptr;
  for (const model::ControlWish& wish : room.controls) {
    PlannedZone zone;
    zone.wish = &wish;
    zone.name = wish.name;
    zone.target_lx = wish.target_lx.value_or(task_lx.value_or(0));
    if (wish.of.empty() && rest)
      error(problems, wish.place, "two zones name no groups; only one can take all that is left");
    if (wish.of.empty()) rest = &wish;
    take_groups(wish, space, taken, zone, problems);
    find_sensor(wish, space, zone, problems);
    if (wish.kind != model::ControlKind::none && zone.target_lx <= 0)
      error(
          problems, wish.place,
          fmt::format(FMT_STRING("nothing says what level the zone \"{}\" keeps: give it target, or the room "
                                 "a task"),
                      zone.name));
    plan.zones.push_back(std::move(zone));
  }
  PlannedZone others;
  others.name = "without control";
  for (std::size_t g = 0; g < space.groups.size(); ++g)
    if (!taken.count(g)) {
      const auto all = std::find_if(plan.zones.begin(), plan.zones.end(),
                                    [&](const PlannedZone& zone) { return zone.wish == rest && rest; });
      (all == plan.zones.end() ? others : *all).groups.push_back(g);
    }
  if (!others.groups.empty()) plan.zones.push_back(std::move(others));
  return plan;
}

}  // namespace glow::space
