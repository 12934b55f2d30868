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

}  // namespace glow::cli
