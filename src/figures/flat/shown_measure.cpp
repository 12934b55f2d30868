#include "figures/flat/shown_measure.hpp"

#include <fmt/format.h>

#include <cctype>

#include "core/colour/bands.hpp"
#include "words/topics/colour_words.hpp"

namespace glow::figures {
namespace {

/// The grid with nothing but its points, to be given values.
assess::GridReading without_values(const assess::GridReading& grid) {
  assess::GridReading bare = grid;
  bare.between = {};
  bare.grid.points.clear();
  bare.grid.cells.clear();
  bare.grid.normals.clear();
  for (std::vector<double>* values : {&bare.total_lx, &bare.direct_lx, &bare.interreflected_lx})
    values->clear();
  return bare;
}

void add(const assess::GridReading& from, std::size_t point, double value, assess::GridReading& to) {
  to.grid.points.push_back(from.grid.points[point]);
  to.grid.normals.push_back(from.grid.normal_of(point));
  to.grid.cells.push_back(from.grid.cells[point]);
  to.total_lx.push_back(value);
}

}  // namespace

std::string ShownMeasure::title(const units::ShownUnits& units) const {
  switch (kind) {
    case Kind::temperature:
      return "Colour temperature in K";
    case Kind::difference:
      return std::string("Difference in ") + unit(units);
    case Kind::factor:
      return "Daylight factor in %";
    case Kind::glare_value:
      return "Glare value k";
    case Kind::year: {
      std::string words = assess::to_string(*of_year) + " in " + unit(units);
      words[0] = char(std::toupper(static_cast<unsigned char>(words[0])));
      return words;
    }
    case Kind::illuminance:
      break;
  }
  return std::string("Illuminance in ") + units.light_unit();
}

std::string ShownMeasure::label(double shown) const {
  if (kind == Kind::difference)
    return std::abs(shown) < 10 ? fmt::format(FMT_STRING("{:+.1f}"), std::abs(shown) < 0.05 ? 0.0 : shown)
                                : fmt::format(FMT_STRING("{:+.0f}"), shown);
  if (kind == Kind::factor && shown < 1) return fmt::format(FMT_STRING("{:.2f}"), shown);
  return shown < 10 ? fmt::format(FMT_STRING("{:.1f}"), shown) : fmt::format(FMT_STRING("{:.0f}"), shown);
}

std::optional<OtherValues> temperatures_of(const assess::GridReading& grid, bool tinted) {
  if (!grid.colour) return std::nullopt;
  OtherValues other{without_values(grid), {ShownMeasure::Kind::temperature, {}, {}}};
  other.measure.subject = "colour of the light: " + words::colour_words(*grid.colour);
  for (std::size_t i = 0; i < grid.grid.points.size(); ++i) {
    const colour::Chromaticity total = grid.colour->total(i);
    const auto temperature = total.y > 0 ? colour::correlated(total) : std::nullopt;
    if (!temperature) continue;
    add(grid, i, temperature->kelvin, other.grid);
    if (!tinted) continue;
    const Vec3 rgb = colour::shown_srgb(total);
    other.measure.tints.push_back(srgb_colour(rgb.x(), rgb.y(), rgb.z()));
  }
  if (other.grid.total_lx.empty()) return std::nullopt;
  other.grid.statistics = readings::statistics(other.grid.total_lx);
  return other;
}

std::optional<OtherValues> factors_of(const assess::GridReading& grid, const std::string& when) {
  if (!grid.day || !grid.day->has_factor || grid.day->day_lx.empty()) return std::nullopt;
  OtherValues other{without_values(grid), {ShownMeasure::Kind::factor, when, {}}};
  for (std::size_t i = 0; i < grid.grid.points.size(); ++i) add(grid, i, grid.day->factor(i), other.grid);
  other.grid.statistics = readings::statistics(other.grid.total_lx);
  return other;
}

std::optional<OtherValues> glare_values_of(const assess::GridReading& grid,
                                           const assess::NeighbourReading& neighbour) {
  if (neighbour.k_by_point.empty() || neighbour.k_by_point.size() != grid.grid.points.size())
    return std::nullopt;
  OtherValues other{without_values(grid), {ShownMeasure::Kind::glare_value, {}, {}}};
  other.measure.subject = fmt::format(FMT_STRING("highest glare value k of a luminaire, before {:.2g} cd/m2"),
                                      neighbour.background_cd_m2);
  for (std::size_t i = 0; i < grid.grid.points.size(); ++i) add(grid, i, neighbour.k_by_point[i], other.grid);
  other.grid.statistics = readings::statistics(other.grid.total_lx);
  return other;
}

OtherValues year_map_of(const assess::GridReading& grid, const assess::YearMap& map,
                        const std::string& hours_of_use) {
  OtherValues other{without_values(grid), {ShownMeasure::Kind::year, {}, {}, map.metric}};
  other.measure.subject = fmt::format(FMT_STRING("{}, hours of use: {}"), map.name(), hours_of_use);
  for (std::size_t i = 0; i < map.values.size(); ++i) add(grid, i, map.values[i], other.grid);
  other.grid.statistics = readings::statistics(other.grid.total_lx);
  return other;
}

OtherValues difference_of(const assess::GridReading& first, const assess::GridReading& second,
                          const std::string& subject, const std::optional<assess::YearMetric>& of_year) {
  OtherValues other{without_values(first), {ShownMeasure::Kind::difference, subject, {}, of_year}};
  for (std::size_t i = 0; i < first.grid.points.size(); ++i)
    add(first, i, first.total_lx[i] - second.total_lx[i], other.grid);
  other.grid.statistics = readings::statistics(other.grid.total_lx);
  return other;
}

}  // namespace glow::figures
