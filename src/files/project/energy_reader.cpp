#include "files/project/energy_reader.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "files/project/outside/year_reader.hpp"
#include "files/project/ranges.hpp"

namespace glow::files {
namespace {

using model::ControlKind;
using model::PresenceKind;
using units::Dimension;

constexpr Range kPrice{0, 1000}, kCarbon{0, 10}, kInvestment{0, 1e9}, kTarget{1, 100000}, kWatts{0, 100000},
    kLimit{0.01, 10000};
constexpr std::size_t kMostDays = 4;
constexpr std::pair<const char*, ControlKind> kKinds[] = {
    {"none", ControlKind::none}, {"switched", ControlKind::switched}, {"dimmed", ControlKind::dimmed}};
constexpr std::pair<const char*, PresenceKind> kPresence[] = {
    {"manual", PresenceKind::manual},
    {"sweep off", PresenceKind::sweep_off},
    {"auto on, dimmed", PresenceKind::auto_on_dimmed},
    {"auto on, off", PresenceKind::auto_on_off},
    {"manual on, dimmed", PresenceKind::manual_on_dimmed},
    {"manual on, auto off", PresenceKind::manual_on_auto_off}};

template <class Kind, std::size_t N>
Kind read_word(TomlTable& table, const char* key, const std::pair<const char*, Kind> (&words)[N],
               Kind otherwise) {
  const auto word = table.text(key);
  if (!word) return otherwise;
  std::string known;
  for (const auto& [name, kind] : words) {
    if (*word == name) return kind;
    known += (known.empty() ? "\"" : ", \"") + std::string(name) + "\"";
  }
  table.problems().error("P005", table.place_of(key),
                         fmt::format(FMT_STRING("\"{}\" is \"{}\"; expected one of {}"), key, *word, known));
  return otherwise;
}

}  // namespace

std::optional<model::EnergyWish> read_energy(TomlTable& root) {
  auto table = root.table("energy");
  if (!table) return std::nullopt;
  model::EnergyWish wish;
  wish.place = table->place();
  wish.price = table->quantity("price", Dimension::number, kPrice);
  wish.currency = table->text("currency").value_or("");
  wish.co2_kg = table->quantity("co2", Dimension::number, kCarbon);
  wish.hours = read_use_hours(*table);
  wish.days = read_dates(*table, "days");
  if (wish.days.size() > kMostDays)
    table->problems().error(
        "P132", table->place_of("days"),
        fmt::format(FMT_STRING("\"days\" names {} days; at most {} are told hour by hour"), wish.days.size(),
                    kMostDays));
  for (const model::UseHours::Holiday& day : wish.days)
    if (day.first != day.last)
      table->problems().error("P132", table->place_of("days"),
                              "\"days\" are told hour by hour; expected single days, such as \"03-21\"");
  table->finish();
  return wish;
}

std::vector<model::ControlWish> read_controls(TomlTable& room) {
  std::vector<model::ControlWish> zones;
  for (TomlTable& table : room.tables("control")) {
    model::ControlWish zone;
    zone.place = table.place();
    zone.name = table.text("name").value_or(fmt::format(FMT_STRING("zone {}"), zones.size() + 1));
    for (const auto& [name, place] : table.texts("groups")) zone.of.push_back(name);
    zone.of_place = table.place_of("groups");
    zone.kind = read_word(table, "kind", kKinds, ControlKind::none);
    if (table.is_list("sensor")) {
      for (const auto& [name, place] : table.texts("sensor")) zone.sensors.push_back(name);
    } else if (auto name = table.text("sensor")) {
      zone.sensors.push_back(std::move(*name));
    }
    zone.sensor_place = table.place_of("sensor");
    zone.target_lx = table.quantity("target", Dimension::illuminance, kTarget);
    zone.least_output = table.quantity("least_output", Dimension::ratio, range::kShare).value_or(0);
    zone.least_power =
        table.quantity("least_power", Dimension::ratio, range::kShare).value_or(zone.least_power);
    zone.standby_w = table.quantity("standby", Dimension::power, kWatts).value_or(0);
    zone.emergency_w = table.quantity("emergency", Dimension::power, kWatts).value_or(0);
    zone.absence = table.quantity("absence", Dimension::ratio, range::kShare).value_or(0);
    zone.presence = read_word(table, "presence", kPresence, PresenceKind::manual);
    zone.constant = table.flag("constant").value_or(false);
    zone.daylight_supply = table.quantity("daylight_supply", Dimension::ratio, range::kShare);
    zone.price = table.quantity("price", Dimension::number, kInvestment);
    zone.daylight_control = table.quantity("daylight_control", Dimension::ratio, range::kShare);
    table.finish();
    for (const model::ControlWish& other : zones)
      if (other.name == zone.name)
        table.problems().error("P132", zone.place,
                               fmt::format(FMT_STRING("two zones are called \"{}\""), zone.name));
    zones.push_back(std::move(zone));
  }
  return zones;
}

void check_controls(const model::Project& project, Problems& problems) {
  for (const model::Room& room : project.rooms) {
    std::vector<std::string> names;
    for (const model::LuminairePlacement& placement : room.luminaires) {
      names.push_back(placement.mark);
      if (!placement.name.empty()) names.push_back(placement.name);
      for (const std::string& part : project.marks_of(placement.mark)) names.push_back(part);
    }
    const auto is_known = [&](const std::string& name) {
      return std::any_of(names.begin(), names.end(), [&](const std::string& known) {
        return name == known || name.rfind(known + " ", 0) == 0;  // "P1 2": the second group of a mark
      });
    };
    for (const model::ControlWish& zone : room.controls)
      for (const std::string& name : zone.of) {
        if (is_known(name)) continue;
        const std::string near = nearest_word(name, names);
        problems.error(
            "P132", zone.of_place,
            fmt::format(FMT_STRING("\"{}\" is no group and no mark in \"{}\"; {}"), name, room.name,
                        near.empty() ? "name one of its luminaires" : "did you mean \"" + near + "\"?"));
      }
  }
}

std::optional<model::EnergyLimits> read_energy_limits(TomlTable& room) {
  auto table = room.table("energy");
  if (!table) return std::nullopt;
  model::EnergyLimits limits;
  limits.place = table->place();
  limits.kwh_m2 = table->quantity("kwh_m2", Dimension::number, kLimit);
  limits.w_m2 = table->quantity("w_m2", Dimension::number, kLimit);
  limits.w_m2_100lx = table->quantity("w_m2_100lx", Dimension::number, kLimit);
  limits.hours = read_use_hours(*table);
  table->finish();
  return limits;
}

}  // namespace glow::files
