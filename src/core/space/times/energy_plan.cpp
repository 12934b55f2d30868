#include "core/space/times/energy_plan.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "core/space/build_space.hpp"
#include "core/space/times/year_plan.hpp"
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

void find_sensors(const model::ControlWish& wish, const Space& space, PlannedZone& zone, Problems& problems) {
  std::vector<std::string> names;
  for (const auto& point : space.points) names.push_back(point.name);
  for (const std::string& name : wish.sensors) {
    const auto known = std::find(names.begin(), names.end(), name);
    if (known != names.end()) {
      zone.sensors.push_back(std::size_t(known - names.begin()));
      continue;
    }
    const std::string near = nearest_word(name, names);
    error(problems, wish.sensor_place,
          fmt::format(FMT_STRING("the sensor \"{}\" is no point of \"{}\"; {}"), name, space.name,
                      near.empty() ? "give the room [[rooms.points]] with that name"
                                   : "did you mean \"" + near + "\"?"));
  }
}

/// Which hours are in use, and in which scene: the first whose hours hold them. Hours of scenes are hours of
/// use.
void plan_hours(const std::optional<model::UseHours>& use, const PlannedRoom& room, const model::Site& site,
                int first_weekday, EnergyPlan& plan, Problems& problems) {
  const bool any = std::any_of(room.scenes.begin(), room.scenes.end(),
                               [](const PlannedScene& scene) { return scene.hours.has_value(); });
  if (!use && !any) return;
  plan.scene_of.assign(daylight::kHoursOfYear, EnergyPlan::kAsPlaced);
  std::set<std::pair<int, int>> both;
  for (int h = 0; h < daylight::kHoursOfYear; ++h) {
    int& set = plan.scene_of[std::size_t(h)];
    for (std::size_t s = 0; s < room.scenes.size(); ++s) {
      if (!room.scenes[s].hours || !is_used(*room.scenes[s].hours, site, first_weekday, h)) continue;
      if (set == EnergyPlan::kAsPlaced)
        set = int(s);
      else if (both.insert({set, int(s)}).second)
        error(problems, room.room->place,
              fmt::format(FMT_STRING("scenes \"{}\" and \"{}\" of \"{}\" are set in the same hours; let each "
                                     "hour be in one"),
                          room.scenes[std::size_t(set)].name, room.scenes[s].name, room.space.name));
    }
    plan.used.push_back(set != EnergyPlan::kAsPlaced || (use && is_used(*use, site, first_weekday, h)));
  }
}

/// What luminaires and controls cost; a fitting of several parts costs once.
std::optional<double> investment_of(const model::Project& project, const PlannedRoom& planned) {
  double sum = 0;
  std::set<std::pair<std::string, std::array<double, 3>>> fittings;
  for (const LuminaireGroup& group : planned.space.groups) {
    const std::string& mark = group.fitting.empty() ? group.mark : group.fitting;
    const auto entry = std::find_if(project.schedule.begin(), project.schedule.end(),
                                    [&](const auto& known) { return known.mark == mark; });
    if (entry == project.schedule.end() || !entry->price) return std::nullopt;
    for (const photometry::PlacedLuminaire& one : group.luminaires) {
      const Vec3& at = one.frame.origin;
      if (group.fitting.empty() || fittings.insert({mark, {at.x(), at.y(), at.z()}}).second)
        sum += *entry->price;
    }
  }
  for (const model::ControlWish& zone : planned.room->controls) sum += zone.price.value_or(0);
  return sum;
}

}  // namespace

std::optional<EnergyPlan> plan_energy(const model::Project& project, const PlannedRoom& planned,
                                      const std::string& task_area, const std::optional<double>& task_lx,
                                      Problems& problems) {
  const model::Room& room = *planned.room;
  const Space& space = planned.space;
  if (!project.energy && room.controls.empty() && !room.energy) return std::nullopt;
  if (space.groups.empty()) return std::nullopt;
  EnergyPlan plan;
  plan.area_m2 = space.floor_area_m2;
  plan.maintenance = room.maintenance_factor.value_or(1);
  plan.has_weather = project.year && project.year->weather;
  plan.has_windows = std::any_of(space.openings.begin(), space.openings.end(),
                                 [](const Opening& opening) { return opening.lets_daylight_in(); });
  plan.investment = investment_of(project, planned);
  if (const auto usual = standards::usual_hours(task_area)) {
    plan.day_h = usual->day_h;
    plan.night_h = usual->night_h;
    plan.building = usual->building;
  }
  if (project.energy) {
    plan.price = project.energy->price;
    plan.co2_kg = project.energy->co2_kg;
    plan.currency = project.energy->currency;
    for (const model::UseHours::Holiday& day : project.energy->days) plan.days.push_back(day.first - 1);
  }
  std::optional<model::UseHours> use;
  if (project.year) use = project.year->hours;
  if (project.energy && project.energy->hours) use = project.energy->hours;
  if (room.year && room.year->hours) use = room.year->hours;
  if (room.lit_hours) use = room.lit_hours;
  if (room.energy && room.energy->hours) use = room.energy->hours;
  plan_hours(use, planned, project.site, plan.has_weather ? project.year->weather->first_weekday : 0, plan,
             problems);
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
    find_sensors(wish, space, zone, problems);
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
