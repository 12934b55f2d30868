#include "files/project/outside/moments_reader.hpp"

#include <fmt/format.h>

#include <cstdio>

#include "core/daylight/sun.hpp"

namespace glow::files {
namespace {

using model::Moment;
using units::Dimension;

constexpr Range kDaylight{0, 200000}, kIrradiance{0, 1500}, kTurbidity{1.5, 12}, kDewPoint{-60, 40};
constexpr Range kStep{60, 6 * 3600};  // s
constexpr int kFirstYear = 1900, kLastYear = 2100;

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

/// "14:30", in hours.
std::optional<double> read_time(TomlTable& table, const char* key, Need need = Need::optional) {
  const auto words = table.text(key, need);
  if (!words) return std::nullopt;
  int hour = 0, minute = 0, used = 0;
  if (std::sscanf(words->c_str(), "%d:%d%n", &hour, &minute, &used) == 2 && std::size_t(used) >= 4 &&
      std::size_t(used) == words->size() && hour >= 0 && hour < 24 && minute >= 0 && minute < 60)
    return hour + minute / 60.0;
  table.problems().error(
      "P005", table.place_of(key),
      fmt::format(FMT_STRING("\"{}\" is \"{}\"; expected hours and minutes, such as \"14:30\""), key,
                  *words));
  return std::nullopt;
}

/// [altitude, azimuth]: where the sun stands, instead of date and time.
void read_sun_place(TomlTable& table, Moment& moment) {
  if (!table.has("sun_at")) return;
  const auto place = table.numbers("sun_at", 2, -360, 360);
  if (!place) return;
  moment.sun_at_deg = Vec2((*place)[0], (*place)[1]);
  if (moment.sun_at_deg->x() <= 0 || moment.sun_at_deg->x() > 90)
    table.problems().error(
        "P005", table.place_of("sun_at"),
        "\"sun_at\" is [altitude, azimuth] in degrees, azimuth clockwise from north; expected an "
        "altitude above 0 and up to 90");
  for (const char* key : {"date", "time", "series", "irradiance"})
    if (table.has(key))
      table.problems().error(
          "P007", table.place_of(key),
          fmt::format(FMT_STRING("\"sun_at\" says where the sun stands; take \"{}\" out"), key));
}

/// { from = "06:00", to = "20:00", step = "30 min" }.
void read_series(TomlTable& moment, Moment& into) {
  auto table = moment.table("series");
  if (!table) return;
  model::Series series;
  const auto from = read_time(*table, "from", Need::required), to = read_time(*table, "to", Need::required);
  series.step_h = table->quantity("step", Dimension::time, kStep).value_or(1800) / 3600;
  series.place = table->place();
  table->finish();
  if (!from || !to) return;
  series.from_h = *from;
  series.to_h = *to;
  if (series.to_h <= series.from_h)
    moment.problems().error("P005", series.place,
                            "\"series\" ends before it begins; expected from < to, within one day");
  else if (series.steps() > model::Series::kMostSteps)
    moment.problems().error("P005", series.place,
                            fmt::format(FMT_STRING("\"series\" has {} steps; expected at most {}"),
                                        series.steps(), model::Series::kMostSteps));
  else
    into.series = series;
}

/// [low, high] or one number, lx: what of the area lies within is told.
void read_limits(TomlTable& table, Moment& moment) {
  if (!table.has("within")) return;
  const auto limits = table.numbers("within", 2, 0, kDaylight.high);
  if (!limits) return;
  moment.within_lx = {(*limits)[0], (*limits)[1]};
  if (moment.within_lx->first >= moment.within_lx->second)
    table.problems().error("P005", table.place_of("within"),
                           "\"within\" is [low, high], lx, such as [300, 3000]; expected low below high");
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

std::vector<Moment> read_moments(TomlTable& root) {
  std::vector<Moment> moments;
  for (auto& [name, table] : root.named_tables("moments")) {
    const int errors_before = table.problems().error_count();
    Moment moment;
    moment.name = name;
    moment.place = table.place();
    read_date(table, moment);
    moment.time_h = read_time(table, "time");
    read_sun_place(table, moment);
    read_series(table, moment);
    read_limits(table, moment);
    moment.summer_time = table.flag("summer_time");
    read_sky(table, moment);
    moment.diffuse_lx = table.quantity("diffuse", Dimension::illuminance, kDaylight);
    moment.sun_lx = table.quantity("sun", Dimension::illuminance, kDaylight);
    moment.turbidity = table.quantity("turbidity", Dimension::number, kTurbidity);
    if (table.problems().error_count() == errors_before) refuse_idle_keys(table, moment);
    moment.scene = table.text("scene");
    moment.scene_place = table.place_of("scene");
    for (const auto& [state, place] : table.texts("states")) moment.states.push_back(state);
    moment.states_place = table.place_of("states");
    table.finish();
    if (table.problems().error_count() == errors_before) moments.push_back(std::move(moment));
  }
  return moments;
}

}  // namespace glow::files
