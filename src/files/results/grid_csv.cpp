#include "files/results/grid_csv.hpp"

#include <fmt/format.h>

#include <cmath>

#include "core/units/clock.hpp"
#include "files/text/csv_cell.hpp"

namespace glow::files {

namespace {

/// Empty where there is no such light, or no correlated temperature.
std::string colour_cells(const assess::GridColour& colour, std::size_t point) {
  const auto pair = [](const colour::Chromaticity& c) {
    return c.y > 0 ? fmt::format(FMT_STRING(",{:.5f},{:.5f}"), c.x, c.y) : std::string(",,");
  };
  const colour::Chromaticity total = colour.total(point);
  std::optional<colour::Temperature> temperature;
  if (total.y > 0) temperature = colour::correlated(total);
  return pair(colour.direct(point)) + pair(total) +
         (temperature ? fmt::format(FMT_STRING(",{:.0f},{:.4f}"), temperature->kelvin, temperature->duv)
                      : ",,");
}

std::string degrees(const std::optional<double>& v) {
  return v ? fmt::format(FMT_STRING("{:.6g}"), *v) : std::string();
}

/// The factor is empty where the sun shines.
std::string day_cells(const assess::DayOnGrid& day, std::size_t point, const units::ShownUnits& units,
                      const record::MomentRecord& moment) {
  return fmt::format(FMT_STRING(",{:.6g},{:.6g},{:.6g},{:.6g},{},{},{},{},{},{}"),
                     units.light(day.sun_lx[point]), units.light(day.sky_lx[point]),
                     units.light(day.outside_lx[point]), units.light(day.day_lx[point]),
                     day.has_factor ? fmt::format(FMT_STRING("{:.4g}"), day.factor(point)) : std::string(),
                     degrees(moment.latitude_deg), degrees(moment.longitude_deg), moment.date, moment.time,
                     moment.solar_time);
}

}  // namespace

std::string grid_csv(const assess::GridReading& g, const units::ShownUnits& units,
                     const std::optional<record::MomentRecord>& moment) {
  const char *m = units.length_unit(), *lx = units.light_unit();
  std::string text = fmt::format(
      FMT_STRING(
          "x_{0},y_{0},z_{0},normal_x,normal_y,normal_z,direct_{1},interreflected_{1},total_{1}{2}{3}\n"),
      m, lx, g.colour ? ",direct_x,direct_y,total_x,total_y,cct_K,duv" : "",
      g.day ? fmt::format(FMT_STRING(",sun_{0},sky_{0},outside_{0},daylight_{0},daylight_factor_percent,"
                                     "latitude_deg,longitude_deg,date,local_time,"
                                     "solar_time"),
                          lx)
            : std::string());
  // Directions hold rounding errors that look like results.
  const auto clean = [](double v) { return std::abs(v) < 1e-12 ? 0.0 : v; };
  for (std::size_t i = 0; i < g.grid.points.size(); ++i) {
    const Vec3& p = g.grid.points[i];
    const Vec3& n = g.grid.normal_of(i);
    text += fmt::format(FMT_STRING("{:.6g},{:.6g},{:.6g},{:.6g},{:.6g},{:.6g},{:.6g},{:.6g},{:.6g}{}{}\n"),
                        units.length(clean(p.x())), units.length(clean(p.y())), units.length(clean(p.z())),
                        clean(n.x()), clean(n.y()), clean(n.z()), units.light(g.direct_lx[i]),
                        units.light(g.interreflected_lx[i]), units.light(g.total_lx[i]),
                        g.colour ? colour_cells(*g.colour, i) : std::string(),
                        g.day && moment ? day_cells(*g.day, i, units, *moment) : std::string());
  }
  return text;
}

std::string series_csv(const assess::DaySeries& series, const record::MomentRecord& moment,
                       const units::ShownUnits& units) {
  const char* lx = units.light_unit();
  std::string text = fmt::format(
      FMT_STRING(
          "latitude_deg,longitude_deg,date,local_time,solar_time,sun_altitude_deg,sun_azimuth_deg,open_{}"),
      lx);
  for (const assess::DaySeries::Line& line : series.lines)
    text +=
        "," + csv_cell(fmt::format(FMT_STRING("{} {}_{}"), line.name, line.is_point ? "point" : "mean", lx));
  text += "\n";
  for (std::size_t s = 0; s < series.steps.size(); ++s) {
    const assess::DaySeries::Step& step = series.steps[s];
    text += fmt::format(FMT_STRING("{},{},{},{},{},{},{},{:.6g}"), degrees(moment.latitude_deg),
                        degrees(moment.longitude_deg), moment.date, units::clock_words(step.time_h),
                        step.solar_time, degrees(step.altitude_deg), degrees(step.azimuth_deg),
                        units.light(step.open_lx));
    for (const assess::DaySeries::Line& line : series.lines)
      text += fmt::format(FMT_STRING(",{:.6g}"), units.light(line.lux[s]));
    text += "\n";
  }
  return text;
}

std::string eyes_csv(const assess::RoomGlare& glare, const assess::EyeSetGlare& set,
                     const units::ShownUnits& units) {
  const char* m = units.length_unit();
  std::string text = fmt::format(FMT_STRING("x_{0},y_{0},z_{0},azimuth_deg,{1},worst_luminaire,worst_x_{0},"
                                            "worst_y_{0},worst_share\n"),
                                 m, set.views.empty() ? "gr" : "ugr,background_cd_m2");
  const auto place = [&](const Vec3& p) {
    return fmt::format(FMT_STRING("{:.6g},{:.6g},{:.6g}"), units.length(p.x()), units.length(p.y()),
                       units.length(p.z()));
  };
  const auto worst = [&](int source, double share) {
    if (source < 0) return std::string(",,,\n");
    const assess::GlareSourceName& name = glare.sources[std::size_t(source)];
    return fmt::format(FMT_STRING("{},{:.6g},{:.6g},{:.4f}\n"), csv_cell(name.mark),
                       units.length(name.position.x()), units.length(name.position.y()), share);
  };
  const auto value = [](const std::optional<double>& v) {
    return v ? fmt::format(FMT_STRING("{:.2f}"), *v) : std::string();
  };
  for (std::size_t v = 0; v < set.views.size(); ++v) {
    const assess::ViewGlare& view = set.views[v];
    text +=
        fmt::format(FMT_STRING("{},{:.6g},{},{:.5g},{}"), place(set.set.position(v)), set.set.azimuths_deg[v],
                    value(view.ugr), view.background_cd_m2, worst(view.worst_source, view.worst_share));
  }
  for (std::size_t p = 0; set.views.empty() && p < set.ratings.size(); ++p) {
    const assess::EyeRating& rating = set.ratings[p];
    text += fmt::format(FMT_STRING("{},{:.6g},{},{}"), place(set.set.positions[p]), rating.azimuth_deg,
                        value(rating.gr), worst(rating.worst_source, rating.worst_share));
  }
  return text;
}

}  // namespace glow::files
