#include "figures/daylight/weather_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "core/daylight/sun.hpp"
#include "figures/canvas/colour_scale.hpp"
#include "figures/curves/curve_style.hpp"
#include "figures/flat/flat_view.hpp"

namespace glow::figures {
namespace {

constexpr double kHorizon = 270;  // px: radius
constexpr double kTableLeft = 760, kTableTop = 150, kCellWide = 34, kCellHigh = 11.5;
constexpr double kSkiesTop = 540, kSkiesHigh = 170;
constexpr std::array<const char*, daylight::Climate::kClasses> kSkies = {"#7e8794", "#b9c4cf", "#e8c27a"};
constexpr std::array<const char*, daylight::Climate::kClasses> kSkyNames = {"overcast", "between", "clear"};

std::string month_name(int month) {
  return std::string(daylight::kMonths[std::size_t(month - 1)]).substr(0, 3);
}

class WeatherSheet {
 public:
  WeatherSheet(const daylight::Weather& weather, const std::vector<daylight::HourOutside>& hours,
               const daylight::Climate& climate)
      : weather_(weather), hours_(hours), climate_(climate), canvas_(kSheetWidth, kSheetHeight) {}

  std::string draw() {
    title();
    beams();
    rings();
    diffuse();
    skies();
    return canvas_.bytes();
  }

 private:
  /// A direction on the page: north up, east to the right as on a map.
  Vec2 px(double altitude_deg, double azimuth_deg) const {
    return middle_ + kHorizon * (90 - altitude_deg) / 90 *
                         Vec2(std::sin(azimuth_deg * kDegree), -std::cos(azimuth_deg * kDegree));
  }
  void title();
  void beams();
  void rings();
  void way(int month, const char* ink);
  void diffuse();
  void skies();

  const daylight::Weather& weather_;
  const std::vector<daylight::HourOutside>& hours_;
  const daylight::Climate& climate_;
  SvgCanvas canvas_;
  Vec2 middle_{340, 450};
};

void WeatherSheet::title() {
  canvas_.text({kSheetLeft, 40},
               fitted_text("Weather of " + (weather_.place.empty() ? "a place without name" : weather_.place),
                           660, 24, true),
               {24, "start", kSheetInk, true});
  canvas_.text(
      {kSheetLeft, 64},
      fmt::format(FMT_STRING("latitude {:g}, longitude {:g}, UTC{:+g}, {:.0f} m above the sea"),
                  weather_.latitude_deg, weather_.longitude_deg, weather_.time_zone_h, weather_.elevation_m),
      {14, "start", kSheetGrey});
  double x = kTableLeft - 44;
  const auto number = [&](const std::string& value, const char* what) {
    canvas_.text({x, 42}, value, {22, "start", kSheetInk, true});
    canvas_.text({x, 62}, what, {12.5, "start", kSheetGrey});
    x += 176;
  };
  number(fmt::format(FMT_STRING("{:.0f} lx"), climate_.median_diffuse_lx), "median diffuse, 2190 h");
  number(fmt::format(FMT_STRING("{:.0f} kWh/m2"), climate_.global_kwh_m2), "global in the year");
  int sunshine = 0;
  for (const auto& month : climate_.months) sunshine += month.sunshine_h;
  number(fmt::format(FMT_STRING("{} h"), sunshine), "of sunshine");
}

/// Every hour of light, dim ones first so that bright ones show.
void WeatherSheet::beams() {
  const ColourScale scale = banded_scale(1000, 90000, 9);
  std::vector<const daylight::HourOutside*> order;
  for (const auto& hour : hours_) order.push_back(&hour);
  std::stable_sort(order.begin(), order.end(), [](const auto* a, const auto* b) {
    return a->sky.direct_normal_lx < b->sky.direct_normal_lx;
  });
  for (const auto* hour : order)
    canvas_.circle(px(hour->altitude_deg, hour->azimuth_deg), 1.9,
                   scale.colours[scale.band(hour->sky.direct_normal_lx)].c_str(), "none");
  canvas_.text({kSheetLeft, 112}, "the sun's place in every hour of light, coloured by its beam",
               {13, "start", kSheetInk, true});
  draw_scale(canvas_, scale, "Beam in lx", 640, 300, 240);
}

void WeatherSheet::rings() {
  for (const double altitude : {0.0, 30.0, 60.0}) {
    canvas_.circle(middle_, kHorizon * (90 - altitude) / 90, "none", altitude > 0 ? "#a9a6a0" : kSheetInk,
                   altitude > 0 ? 0.8 : 1.5);
    if (altitude > 0)
      canvas_.text(px(altitude, 0) + Vec2(4, 13), fmt::format(FMT_STRING("{:g} deg"), altitude),
                   {11, "start", kSheetGrey, false, "#ffffff"});
  }
  constexpr std::array<const char*, 4> kWinds = {"N", "E", "S", "W"};
  for (int k = 0; k < 4; ++k) {
    canvas_.line(middle_, px(0, 90 * k), "#c9c6c0", 0.8);
    canvas_.text(px(-6, 90 * k) + Vec2(0, 5), kWinds[std::size_t(k)], {14, "middle", kSheetInk, true});
  }
  way(6, kSheetInk);
  way(12, kSheetInk);
}

/// The sun's way on the 21st of a month.
void WeatherSheet::way(int month, const char* ink) {
  std::vector<Vec2> points;
  Vec2 top(0, 0);
  double highest = -90;
  for (double hour = 0; hour <= 24; hour += 0.25) {
    const daylight::SunPosition sun =
        daylight::sun_position({daylight::kSunYear, month, 21, hour - weather_.time_zone_h},
                               weather_.latitude_deg, weather_.longitude_deg);
    if (sun.altitude_deg <= 0) {
      canvas_.path(path_data(points), "none", ink, 1.2);
      points.clear();
      continue;
    }
    points.push_back(px(sun.altitude_deg, sun.azimuth_deg));
    if (sun.altitude_deg > highest) top = points.back();
    highest = std::max(highest, sun.altitude_deg);
  }
  canvas_.path(path_data(points), "none", ink, 1.2);
  if (highest > 0)
    canvas_.text(top + Vec2(0, -6), fmt::format(FMT_STRING("21 {}"), month_name(month)),
                 {11.5, "middle", kSheetInk, false, "#ffffff"});
}

/// Median diffuse illuminance: months to the right, hours upwards.
void WeatherSheet::diffuse() {
  double most = 1000;
  for (const auto& month : climate_.months)
    for (const double lux : month.diffuse_by_hour) most = std::max(most, lux);
  const ColourScale scale = banded_scale(1000, most, 8);
  canvas_.text({kTableLeft, kTableTop - 20}, "median diffuse illuminance by month and hour (standard time)",
               {13, "start", kSheetInk, true});
  for (int m = 0; m < 12; ++m)
    for (int h = 0; h < 24; ++h) {
      const double lux = climate_.months[std::size_t(m)].diffuse_by_hour[std::size_t(h)];
      canvas_.rectangle({kTableLeft + m * kCellWide, kTableTop + (23 - h) * kCellHigh},
                        {kCellWide + 0.4, kCellHigh + 0.4},  // no seams
                        lux > 0 ? scale.colours[scale.band(lux)].c_str() : "#2b2b33");
    }
  for (int h = 0; h <= 24; h += 6)
    canvas_.text({kTableLeft - 8, kTableTop + (24 - h) * kCellHigh + 4}, fmt::format(FMT_STRING("{}:00"), h),
                 {11.5, "end", kSheetGrey});
  for (int m = 1; m <= 12; ++m)
    canvas_.text({kTableLeft + (m - 0.5) * kCellWide, kTableTop + 24 * kCellHigh + 17}, month_name(m),
                 {11, "middle", kSheetGrey});
  draw_scale(canvas_, scale, "Diffuse in lx", kTableLeft + 12 * kCellWide + 24, kTableTop - 6,
             24 * kCellHigh);
}

/// Shares of the hours of light by how clear the sky is.
void WeatherSheet::skies() {
  canvas_.text({kTableLeft, kSkiesTop - 34}, "hours of light by sky", {13, "start", kSheetInk, true});
  double x = kTableLeft + 160;
  for (int s = 0; s < daylight::Climate::kClasses; ++s) {
    canvas_.rectangle({x, kSkiesTop - 44}, {12, 12}, kSkies[std::size_t(s)]);
    canvas_.text({x + 18, kSkiesTop - 34}, kSkyNames[std::size_t(s)], {12, "start", kSheetGrey});
    x += 92;
  }
  const double base = kSkiesTop + kSkiesHigh, most = 480;  // hours that a bar of full height stands for
  for (int hours = 0; hours <= 400; hours += 100) {
    const double y = base - kSkiesHigh * hours / most;
    canvas_.line({kTableLeft, y}, {kTableLeft + 12 * kCellWide, y}, hours == 0 ? kSheetInk : kGridLine);
    canvas_.text({kTableLeft - 8, y + 4}, fmt::format(FMT_STRING("{} h"), hours), {11.5, "end", kSheetGrey});
  }
  for (int m = 0; m < 12; ++m) {
    double y = base;
    for (int s = 0; s < daylight::Climate::kClasses; ++s) {
      const double high = kSkiesHigh * climate_.months[std::size_t(m)].by_sky[std::size_t(s)] / most;
      y -= high;
      canvas_.rectangle({kTableLeft + m * kCellWide + 5, y}, {kCellWide - 10, high}, kSkies[std::size_t(s)]);
    }
    canvas_.text({kTableLeft + (m + 0.5) * kCellWide, base + 17}, month_name(m + 1),
                 {11, "middle", kSheetGrey});
  }
}

}  // namespace

std::string weather_svg(const daylight::Weather& weather, const std::vector<daylight::HourOutside>& hours,
                        const daylight::Climate& climate) {
  return WeatherSheet(weather, hours, climate).draw();
}

}  // namespace glow::figures
