#include "files/project/site_reader.hpp"

#include <fmt/format.h>

#include <cstdio>

#include "core/daylight/sun.hpp"

namespace glow::files {
namespace {

using model::Moment;
using units::Dimension;

constexpr Range kLatitude{-90, 90}, kLongitude{-180, 180}, kZone{-12, 14}, kBearing{-360, 360};
constexpr Range kReflectance{0, 0.98}, kHeight{-1000, 1000}, kDaylight{0, 200000}, kIrradiance{0, 1500};
constexpr Range kTurbidity{1.5, 12}, kDewPoint{-60, 40}, kShare{0.01, 1};
constexpr int kFirstYear = 1900, kLastYear = 2100;

model::Obstruction read_obstruction(TomlTable& table, std::size_t number) {
  model::Obstruction own;
  own.place = table.place();
  own.name = table.text("name").value_or(fmt::format(FMT_STRING("obstruction {}"), number));
  if (const auto outline = table.points("outline", Need::required)) own.outline = *outline;
  own.bottom_m = table.quantity("bottom", Dimension::length, kHeight).value_or(0);
  own.top_m = table.quantity("top", Dimension::length, kHeight, Need::required).value_or(0);
  own.reflectance = table.quantity("reflectance", Dimension::ratio, kReflectance).value_or(0.3);
  own.state = table.text("state").value_or("");
  table.finish();
  if (const auto fault = geometry::fault_of_outline(own.outline); fault && !own.outline.empty())
    table.problems().error("P013", table.place_of("outline"),
                           fmt::format(FMT_STRING("this outline is not a simple polygon: {}"), *fault));
  if (own.top_m <= own.bottom_m && table.has("top"))
    table.problems().error(
        "P095", table.place_of("top"),
        fmt::format(FMT_STRING("\"{}\" has its top below its bottom; expected it above"), own.name));
  return own;
}

/// "2026-03-21".
void read_date(TomlTable& table, Moment& moment) {
  const auto words = table.text("date");
  if (!words) return;
  int used = 0;
  const bool whole =
      std::sscanf(words->c_str(), "%d-%d-%d%n", &moment.year, &moment.month, &moment.day, &used) == 3 &&
      std::size_t(used) == words->size();
  if (whole && moment.year >= kFirstYear && moment.year <= kLastYear && moment.month >= 1 &&
      moment.month <= 12 && moment.day >= 1 &&
      moment.day <= daylight::days_in_month(moment.year, moment.month))
    return;
  table.problems().error(
      "P005", table.place_of("date"),
      fmt::format(FMT_STRING("\"date\" is \"{}\"; expected a day from {} to {}, such as 2026-03-21"), *words,
                  kFirstYear, kLastYear));
}

/// "14:30".
void read_time(TomlTable& table, Moment& moment) {
  const auto words = table.text("time");
  if (!words) return;
  int hour = 0, minute = 0, used = 0;
  if (std::sscanf(words->c_str(), "%d:%d%n", &hour, &minute, &used) == 2 && std::size_t(used) >= 4 &&
      hour >= 0 && hour < 24 && minute >= 0 && minute < 60)
    moment.time_h = hour + minute / 60.0;
  else
    table.problems().error(
        "P005", table.place_of("time"),
        fmt::format(FMT_STRING("\"time\" is \"{}\"; expected hours and minutes, such as \"14:30\""), *words));
}

void read_sky(TomlTable& table, Moment& moment) {
  constexpr std::pair<const char*, Moment::Sky> kSkies[] = {{"overcast", Moment::Sky::overcast},
                                                            {"clear", Moment::Sky::clear},
                                                            {"intermediate", Moment::Sky::intermediate},
                                                            {"uniform", Moment::Sky::uniform}};
  if (auto irradiance = table.table("irradiance")) {
    moment.sky = Moment::Sky::all_weather;
    moment.direct_w_m2 =
        irradiance->quantity("direct", Dimension::number, kIrradiance, Need::required).value_or(0);
    moment.diffuse_w_m2 =
        irradiance->quantity("diffuse", Dimension::number, kIrradiance, Need::required).value_or(0);
    moment.dew_point_c = irradiance->quantity("dew_point", Dimension::number, kDewPoint).value_or(10);
    irradiance->finish();
    for (const char* key : {"sky", "diffuse", "sun", "turbidity"})
      if (table.has(key)) {
        table.skip(key);
        table.problems().error("P007", table.place_of(key),
                               fmt::format(FMT_STRING("\"irradiance\" makes the sky; take \"{}\" out"), key));
      }
    return;
  }
  if (table.is_text("sky")) {
    const std::string words = table.text("sky").value_or("");
    for (const auto& [name, sky] : kSkies)
      if (words == name) {
        moment.sky = sky;
        return;
      }
    table.problems().error(
        "P005", table.place_of("sky"),
        fmt::format(FMT_STRING("\"sky\" is \"{}\"; expected overcast, clear, intermediate, uniform, a "
                               "number from 1 to 15 (CIE S 011), or irradiance = {{ direct, diffuse }}"),
                    words));
  } else if (const auto number = table.count("sky", 1, 15)) {
    moment.sky = Moment::Sky::general;
    moment.general = *number;
  } else if (!table.has("sky")) {
    table.problems().error(
        "P004", table.place(),
        fmt::format(FMT_STRING("moment \"{}\" has no sky; give it one, such as sky = \"overcast\""),
                    moment.name));
  }
}

/// What the sky has no use for.
void refuse_idle_keys(TomlTable& table, const Moment& moment) {
  const auto refuse = [&](const char* key, const char* why) {
    if (table.has(key))
      table.problems().error("P007", table.place_of(key),
                             fmt::format(FMT_STRING("\"{}\" {}; take it out"), key, why));
  };
  if (moment.sky == Moment::Sky::all_weather) return;
  if (moment.sky == Moment::Sky::overcast || moment.sky == Moment::Sky::uniform)
    refuse("sun", "has no place in a sky that hides it");
  if (moment.sky != Moment::Sky::clear) refuse("turbidity", "is said of clear skies");
}

}  // namespace

model::Site read_site(TomlTable& root) {
  model::Site site;
  auto table = root.table("site");
  if (!table) return site;
  site.stated = true;
  site.place = table->place();
  site.latitude_deg = table->quantity("latitude", Dimension::angle, kLatitude);
  site.longitude_deg = table->quantity("longitude", Dimension::angle, kLongitude);
  site.time_zone_h = table->quantity("time_zone", Dimension::number, kZone);
  site.north_deg = table->quantity("north", Dimension::angle, kBearing);
  site.ground_reflectance =
      table->quantity("ground_reflectance", Dimension::ratio, kReflectance).value_or(0.2);
  for (TomlTable& each : table->tables("obstructions"))
    site.obstructions.push_back(read_obstruction(each, site.obstructions.size() + 1));
  table->finish();
  return site;
}

std::vector<Moment> read_moments(TomlTable& root) {
  std::vector<Moment> moments;
  for (auto& [name, table] : root.named_tables("moments")) {
    const int errors_before = table.problems().error_count();
    Moment moment;
    moment.name = name;
    moment.place = table.place();
    read_date(table, moment);
    read_time(table, moment);
    moment.summer_time = table.flag("summer_time").value_or(false);
    read_sky(table, moment);
    moment.diffuse_lx = table.quantity("diffuse", Dimension::illuminance, kDaylight);
    moment.sun_lx = table.quantity("sun", Dimension::illuminance, kDaylight);
    moment.turbidity = table.quantity("turbidity", Dimension::number, kTurbidity);
    refuse_idle_keys(table, moment);
    moment.scene = table.text("scene");
    moment.scene_place = table.place_of("scene");
    for (const auto& [state, place] : table.texts("states")) moment.states.push_back(state);
    moment.states_place = table.place_of("states");
    table.finish();
    if (table.problems().error_count() == errors_before) moments.push_back(std::move(moment));
  }
  return moments;
}

void read_glazing(TomlTable& table, model::Opening& into) {
  using Law = daylight::Glazing::Law;
  into.outside = table.flag("outside").value_or(true);
  into.dirt = table.quantity("dirt", Dimension::ratio, kShare).value_or(1);
  if (!table.has("glazing")) return;
  if (table.is_list("glazing")) {
    into.glazing.law = Law::table;
    for (const auto& pair : table.pairs("glazing")) into.glazing.table.emplace_back(pair.x(), pair.y());
    bool rising = into.glazing.table.size() > 1;
    for (std::size_t i = 0; i < into.glazing.table.size(); ++i) {
      const auto& [angle, share] = into.glazing.table[i];
      rising = rising && angle >= 0 && angle <= 90 && share >= 0 && share <= 1.05 &&
               (i == 0 || angle > into.glazing.table[i - 1].first);
    }
    if (!rising)
      table.problems().error(
          "P005", table.place_of("glazing"),
          "\"glazing\" as a list is [[angle, share of the transmittance at normal incidence], ...], "
          "angles rising from 0 to 90");
    into.has_glazing = rising;
    return;
  }
  const std::string words = table.text("glazing").value_or("");
  into.has_glazing = true;
  into.glazing.law = Law::clear;
  if (words == "clear single")
    into.glazing.panes = 1;
  else if (words == "clear double")
    into.glazing.panes = 2;
  else if (words == "clear triple")
    into.glazing.panes = 3;
  else if (words == "even")
    into.glazing.law = Law::constant;
  else
    table.problems().error(
        "P005", table.place_of("glazing"),
        fmt::format(FMT_STRING("\"glazing\" is \"{}\"; expected clear single, clear double, clear "
                               "triple, even (the same at every angle) or a measured table. Panes "
                               "that redirect light are not computed"),
                    words));
}

}  // namespace glow::files
