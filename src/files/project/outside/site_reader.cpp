#include "files/project/outside/site_reader.hpp"

#include <fmt/format.h>
#include <toml++/toml.h>

#include <cstdio>
#include <map>

#include "core/daylight/sun.hpp"
#include "files/output/embedded_files.hpp"
#include "files/project/ranges.hpp"
#include "files/project/room/objects_reader.hpp"

namespace glow::files {
namespace {

using model::ClockChange;
using units::Dimension;

constexpr Range kLatitude{-90, 90}, kLongitude{-180, 180}, kZone{-12, 14}, kBearing{-360, 360};
constexpr Range kElevation{-500, 9000}, kMedian{1000, 60000}, kPlane{0, 5}, kLowSun{0, 30};
constexpr std::array<const char*, 5> kWeeks = {"first", "second", "third", "fourth", "last"};

/// Place of a word in a list, from 0; -1: it is not there.
template <std::size_t N>
int number_of(const std::array<const char*, N>& list, const std::string& word) {
  for (std::size_t k = 0; k < N; ++k)
    if (word == list[k]) return int(k);
  return -1;
}

/// "last Sunday of March, 2:00".
std::optional<ClockChange> read_change(TomlTable& table, const char* key) {
  const auto words = table.text(key, Need::required);
  if (!words) return std::nullopt;
  char week[12] = "", day[12] = "", month[12] = "";
  int hour = 0, minute = 0, used = 0;
  ClockChange change;
  if (std::sscanf(words->c_str(), "%11s %11s of %11[A-Za-z], %d:%d%n", week, day, month, &hour, &minute,
                  &used) == 5 &&
      std::size_t(used) == words->size()) {
    change.week = number_of(kWeeks, week) + 1;
    change.weekday = number_of(daylight::kWeekdays, day);
    change.month = number_of(daylight::kMonths, month) + 1;
    change.hour = hour + minute / 60.0;
    if (change.week > 0 && change.weekday >= 0 && change.month > 0 && hour >= 0 && hour < 24 && minute >= 0 &&
        minute < 60)
      return change;
  }
  table.problems().error(
      "P005", table.place_of(key),
      fmt::format(
          FMT_STRING("\"{}\" is \"{}\"; expected when clocks change, such as \"last Sunday of March, 2:00\", "
                     "in the local time that they show then"),
          key, *words));
  return std::nullopt;
}

std::optional<model::SummerTime> read_summer_time(TomlTable& site) {
  auto table = site.table("summer_time");
  if (!table) return std::nullopt;
  const auto from = read_change(*table, "from"), to = read_change(*table, "to");
  table->finish();
  if (!from || !to) return std::nullopt;
  return model::SummerTime{*from, *to};
}

/// Hours, or "UTC+05:30".
std::optional<double> read_zone(TomlTable& site) {
  if (!site.is_text("time_zone")) return site.quantity("time_zone", Dimension::number, kZone);
  const std::string words = site.text("time_zone").value_or("");
  const std::string offset = words.rfind("UTC", 0) == 0 ? words.substr(3) : words;
  char sign = 0;
  int hours = 0, minutes = 0, used = 0;
  if (offset.empty() && !words.empty()) return 0;
  if (std::sscanf(offset.c_str(), "%c%d%n", &sign, &hours, &used) >= 2 && (sign == '+' || sign == '-') &&
      hours >= 0 && hours <= 14) {
    const std::string rest = offset.substr(std::size_t(used));
    int more = 0;
    const bool with_minutes =
        std::sscanf(rest.c_str(), ":%d%n", &minutes, &more) == 1 && std::size_t(more) == rest.size();
    const double zone = (sign == '-' ? -1 : 1) * (hours + minutes / 60.0);
    if ((rest.empty() || with_minutes) && minutes >= 0 && minutes < 60 && zone >= kZone.low &&
        zone <= kZone.high)
      return zone;
  }
  site.problems().error(
      "P005", site.place_of("time_zone"),
      fmt::format(
          FMT_STRING("\"time_zone\" is \"{}\"; expected hours ahead of universal time, such as 1, 5.5 or "
                     "\"UTC+05:30\"; summer time is said apart"),
          words));
  return std::nullopt;
}

struct KnownPlace {
  double median_lx = 0;
  std::string certainty;
};

const std::map<std::string, KnownPlace>& known_places() {
  static const std::map<std::string, KnownPlace> places = [] {
    const EmbeddedFile* file = embedded_table("places.toml");
    const toml::table document = toml::parse(file->bytes, file->name);
    Problems problems;
    TomlTable root(document, "places", file->name, problems);
    std::map<std::string, KnownPlace> result;
    for (auto& [name, table] : root.named_tables("places"))
      result[name] = {table.quantity("median_diffuse", Dimension::illuminance, kMedian).value_or(0),
                      table.text("certainty").value_or("")};
    return result;
  }();
  return places;
}

/// How bright it is outside in half of all daylight hours: stated, or of a place that is known.
void read_median(TomlTable& table, model::Site& site) {
  site.median_diffuse_lx = table.quantity("median_diffuse", Dimension::illuminance, kMedian);
  if (site.median_diffuse_lx) site.median_source = "stated by the project";
  const auto like = table.text("climate_of");
  if (!like) return;
  const auto found = known_places().find(*like);
  if (found == known_places().end()) {
    std::vector<std::string> names;
    for (const auto& [name, place] : known_places()) names.push_back(name);
    const std::string near = nearest_word(*like, names);
    table.problems().error(
        "P005", table.place_of("climate_of"),
        near.empty()
            ? fmt::format(
                  FMT_STRING("\"climate_of\" is \"{}\", a place that is not in the table; expected one of "
                             "{}, or median_diffuse in lx instead"),
                  *like, fmt::join(names, ", "))
            : fmt::format(FMT_STRING("\"climate_of\" is \"{}\"; did you mean \"{}\"?"), *like, near));
  } else if (site.median_diffuse_lx) {
    table.problems().error("P007", table.place_of("climate_of"),
                           "\"median_diffuse\" says how bright it is; take \"climate_of\" out");
  } else {
    site.median_diffuse_lx = found->second.median_lx;
    site.median_source = fmt::format(
        FMT_STRING("of {}, table of EN 17037, {}"), *like,
        found->second.certainty == "single" ? "held from one source" : "recalled, not compared with print");
  }
}

}  // namespace

std::optional<model::DaylightWish::Level> read_daylight_level(TomlTable& table, const char* key) {
  using Level = model::DaylightWish::Level;
  const auto words = table.text(key);
  if (!words) return std::nullopt;
  constexpr std::array<const char*, 3> kLevels = {"minimum", "medium", "high"};
  const int level = number_of(kLevels, *words);
  if (level >= 0) return Level(level);
  table.problems().error(
      "P005", table.place_of(key),
      fmt::format(FMT_STRING("\"{}\" is \"{}\"; expected a level of EN 17037: minimum, medium or high"), key,
                  *words));
  return std::nullopt;
}

namespace {

/// "03-21": the day on which sunlight is counted.
void read_day(TomlTable& table, model::DaylightWish& wish) {
  const auto words = table.text("sunlight_day");
  if (!words) return;
  int month = 0, day = 0, used = 0;
  const bool whole = std::sscanf(words->c_str(), "%d-%d%n", &month, &day, &used) == 2 &&
                     std::size_t(used) == words->size() && month >= 1 && month <= 12 && day >= 1 &&
                     day <= daylight::days_in_month(2024, month);
  if (whole) {
    wish.sun_month = month;
    wish.sun_day = day;
    return;
  }
  table.problems().error(
      "P005", table.place_of("sunlight_day"),
      fmt::format(FMT_STRING("\"sunlight_day\" is \"{}\"; expected month and day, such as \"03-21\""),
                  *words));
}

}  // namespace

model::Site read_site(TomlTable& root, const Materials& materials) {
  model::Site site;
  auto table = root.table("site");
  if (!table) return site;
  site.stated = true;
  site.place = table->place();
  site.latitude_deg = table->quantity("latitude", Dimension::angle, kLatitude);
  site.longitude_deg = table->quantity("longitude", Dimension::angle, kLongitude);
  site.time_zone_h = read_zone(*table);
  site.summer_time = read_summer_time(*table);
  site.elevation_m = table->quantity("elevation", Dimension::length, kElevation).value_or(0);
  site.north_deg = table->quantity("north", Dimension::angle, kBearing);
  site.ground_reflectance =
      table->quantity("ground_reflectance", Dimension::ratio, range::kReflectance).value_or(0.2);
  read_median(*table, site);
  site.obstructions = read_obstructions(*table, materials);
  table->finish();
  return site;
}

std::optional<model::DaylightWish> read_daylight(TomlTable& room) {
  auto table = room.table("daylight");
  if (!table) return std::nullopt;
  model::DaylightWish wish;
  wish.place = table->place();
  wish.provision = read_daylight_level(*table, "provision");
  wish.sunlight = read_daylight_level(*table, "sunlight");
  wish.view = read_daylight_level(*table, "view");
  wish.plane_m = table->quantity("plane", Dimension::length, kPlane).value_or(wish.plane_m);
  read_day(*table, wish);
  wish.sun_above_deg = table->quantity("sun_above", Dimension::angle, kLowSun).value_or(0);
  for (const auto& [state, place] : table->texts("states")) wish.states.push_back(state);
  wish.states_place = table->place_of("states");
  table->finish();
  if (!wish.provision && !wish.sunlight && !wish.view)
    table->problems().error(
        "P004", wish.place,
        "\"daylight\" asks for nothing; expected provision, sunlight or view, each minimum, medium or "
        "high");
  return wish;
}

}  // namespace glow::files
