#include "cli/sheets/weather_sheet.hpp"

#include <fmt/format.h>

#include "core/daylight/sun.hpp"

namespace glow::cli {
namespace {

double percent(int part, int all) {
  return all > 0 ? 100.0 * part / all : 0;
}

}  // namespace

std::string weather_sheet(const std::string& file, const daylight::Weather& weather,
                          const daylight::Climate& climate) {
  std::string text = fmt::format(
      FMT_STRING("{}: {}\n  latitude {:g}, longitude {:g} (north and east positive), UTC{:+g}, {:.0f} m\n"),
      file, weather.place.empty() ? "no name" : weather.place, weather.latitude_deg, weather.longitude_deg,
      weather.time_zone_h, weather.elevation_m);
  if (!weather.period.empty()) text += fmt::format(FMT_STRING("  data: {}\n"), weather.period);
  text += fmt::format(FMT_STRING("  {} hours, {} of light, {} missing\n\n"), weather.hours.size(),
                      climate.light_hours, weather.missing);
  text += fmt::format(FMT_STRING("  {:<28}{:>10}{:>12}{:>14}\n"), "", "kWh/m2", "most W/m2", "klx h");
  const auto row = [&](const char* what, double sum, double most, double light) {
    text += fmt::format(FMT_STRING("  {:<28}{:>10.0f}{:>12.0f}{:>14.0f}\n"), what, sum, most, light);
  };
  row(climate.global_is_stated ? "global, horizontal" : "global, from the others", climate.global_kwh_m2,
      climate.most_global_w_m2, climate.global_klxh);
  row("sun, facing it", climate.direct_kwh_m2, climate.most_direct_w_m2, climate.direct_klxh);
  row("sky, horizontal", climate.diffuse_kwh_m2, climate.most_diffuse_w_m2, climate.diffuse_klxh);
  text += fmt::format(FMT_STRING("\n  median diffuse illuminance (2190 h, EN 17037): {:.0f} lx\n\n"),
                      climate.median_diffuse_lx);
  text += fmt::format(FMT_STRING("  {:<11}{:>8}{:>11}{:>10}{:>10}{:>10}{:>8}\n"), "month", "kWh/m2",
                      "sunshine h", "median lx", "overcast", "between", "clear");
  for (std::size_t m = 0; m < 12; ++m) {
    const daylight::Climate::Month& month = climate.months[m];
    text += fmt::format(FMT_STRING("  {:<11}{:>8.0f}{:>11}{:>10.0f}"), daylight::kMonths[m],
                        month.global_kwh_m2, month.sunshine_h, month.median_diffuse_lx);
    text += fmt::format(FMT_STRING("{:>8.0f} %{:>8.0f} %{:>6.0f} %\n"),
                        percent(month.by_sky[daylight::Climate::kOvercast], month.light_hours),
                        percent(month.by_sky[daylight::Climate::kBetween], month.light_hours),
                        percent(month.by_sky[daylight::Climate::kClear], month.light_hours));
  }
  return text;
}

nlohmann::ordered_json weather_json(const std::string& file, const daylight::Weather& weather,
                                    const daylight::Climate& climate) {
  nlohmann::ordered_json json;
  json["file"] = file;
  json["place"] = weather.place;
  json["latitude_deg"] = weather.latitude_deg;
  json["longitude_deg"] = weather.longitude_deg;
  json["time_zone_h"] = weather.time_zone_h;
  json["elevation_m"] = weather.elevation_m;
  json["period"] = weather.period;
  json["hours"] = weather.hours.size();
  json["missing_hours"] = weather.missing;
  json["light_hours"] = climate.light_hours;
  json["global_kwh_m2"] = climate.global_kwh_m2;
  json["direct_normal_kwh_m2"] = climate.direct_kwh_m2;
  json["diffuse_kwh_m2"] = climate.diffuse_kwh_m2;
  json["most_global_w_m2"] = climate.most_global_w_m2;
  json["most_direct_normal_w_m2"] = climate.most_direct_w_m2;
  json["most_diffuse_w_m2"] = climate.most_diffuse_w_m2;
  json["global_klxh"] = climate.global_klxh;
  json["direct_normal_klxh"] = climate.direct_klxh;
  json["diffuse_klxh"] = climate.diffuse_klxh;
  json["median_diffuse_lx"] = climate.median_diffuse_lx;
  json["hours_by_clearness"] = climate.by_clearness;
  for (const daylight::Climate::Month& month : climate.months)
    json["months"].push_back({{"global_kwh_m2", month.global_kwh_m2},
                              {"sunshine_h", month.sunshine_h},
                              {"light_hours", month.light_hours},
                              {"median_diffuse_lx", month.median_diffuse_lx},
                              {"hours_overcast", month.by_sky[daylight::Climate::kOvercast]},
                              {"hours_between", month.by_sky[daylight::Climate::kBetween]},
                              {"hours_clear", month.by_sky[daylight::Climate::kClear]}});
  return json;
}

}  // namespace glow::cli
