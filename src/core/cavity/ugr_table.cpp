#include "core/cavity/ugr_table.hpp"

#include <algorithm>
#include <cmath>

#include "core/glare/unified_glare.hpp"
#include "core/photometry/derived.hpp"

namespace glow::cavity {
namespace {

constexpr double kSpacing = 0.25;  // of the height

double reference_flux(const photometry::Photometry& p) {
  return !p.absolute && p.lamp_flux_lm && *p.lamp_flux_lm > 0 ? *p.lamp_flux_lm : p.flux_lm();
}

/// Sum of I^2 / (A r^2 p^2) over the luminaires of a room, cd2/m2 in units of the height; cd as installed.
/// `turn`: 1 or -1, the way that C0 (or C90) points along the line of sight.
double sum_of_terms(const photometry::Photometry& p, const TableRoom& room, Sight sight, double turn,
                    bool ratio_index) {
  const int across = int(std::lround(room.x / kSpacing)), along = int(std::lround(room.y / kSpacing));
  double sum = 0;
  for (int j = 0; j < along; ++j)
    for (int i = 0; i < across; ++i) {
      const double side = (i + 0.5) * room.x / across - room.x / 2, ahead = (j + 0.5) * room.y / along;
      const glare::SightPosition at{ahead, std::abs(side), 1};
      if (!ratio_index && !glare::in_field_of_view(at)) continue;
      // From the luminaire to the eye, along its own axes.
      const double to_c0 = sight == Sight::along_c0 ? -turn * ahead : turn * side;
      const double to_c90 = sight == Sight::along_c0 ? turn * side : -turn * ahead;
      const double r2 = side * side + ahead * ahead + 1;
      const double gamma = std::acos(1 / std::sqrt(r2)) / kDegree;
      const double c = std::atan2(to_c90, to_c0) / kDegree;
      const double candela = p.table.intensity_along(to_c0, to_c90, 1);
      const double area = photometry::projected_area(p.area, c, gamma);
      if (candela <= 0 || area <= 0) continue;
      const double index = ratio_index ? glare::ratio_position_index(at) : glare::guth_position_index(at);
      sum += candela * candela / (area * r2 * index * index);
    }
  return sum;
}

}  // namespace

const std::vector<TableRoom>& UgrTable::rooms() {
  static const std::vector<TableRoom> list = {{2, 2}, {2, 3},  {2, 4},  {2, 6},  {2, 8},  {2, 12}, {4, 2},
                                              {4, 3}, {4, 4},  {4, 6},  {4, 8},  {4, 12}, {8, 4},  {8, 6},
                                              {8, 8}, {8, 12}, {12, 4}, {12, 6}, {12, 8}};
  return list;
}

const std::vector<Reflectances>& UgrTable::reflectances() {
  static const std::vector<Reflectances> list = {
      {0.7, 0.5, 0.2}, {0.7, 0.3, 0.2}, {0.5, 0.5, 0.2}, {0.5, 0.3, 0.2}, {0.3, 0.3, 0.2}};
  return list;
}

double flux_correction(const photometry::Photometry& photometry) {
  return 8 * std::log10(reference_flux(photometry) / 1000);
}

std::vector<double> tabular_ugr(const photometry::Photometry& p, const TableRoom& room, Sight sight,
                                const std::vector<Reflectances>& sets, bool ratio_index) {
  const bool c0 = sight == Sight::along_c0;
  const Cavity cavity{c0 ? room.y : room.x, c0 ? room.x : room.y, 1};
  const FluxShares direct = direct_shares(p.table, cavity);
  const double sum =
      std::max(sum_of_terms(p, room, sight, 1, ratio_index), sum_of_terms(p, room, sight, -1, ratio_index));
  const double luminaires = room.x * room.y / (kSpacing * kSpacing);
  const double correction = flux_correction(p);
  std::vector<double> values;
  for (const Reflectances& r : sets) {
    // Background: what the walls get by way of the surfaces.
    const double indirect = total_shares(direct, cavity, r).walls - direct.walls;
    const double wall_lx = p.table.flux() * luminaires * indirect / (2 * (room.x + room.y));
    values.push_back(glare::ugr_value(sum, wall_lx / kPi).value_or(NAN) - correction);
  }
  return values;
}

std::string to_string(NoTable reason) {
  switch (reason) {
    case NoTable::no_luminous_size:
      return "the file states no luminous size";
    case NoTable::no_luminous_width:
      return "the file states a luminous area without width";
    case NoTable::no_light_downwards:
      return "no light leaves downwards";
  }
  return "";
}

std::optional<NoTable> no_ugr_table(const photometry::Photometry& p) {
  if (p.area.shape == photometry::LuminousShape::point) return NoTable::no_luminous_size;
  if (photometry::projected_area(p.area, 0, 45) <= 0 && photometry::projected_area(p.area, 90, 45) <= 0)
    return NoTable::no_luminous_width;
  if (p.table.upward_flux() >= p.flux_lm() * (1 - 1e-6)) return NoTable::no_light_downwards;
  return std::nullopt;
}

UgrHeadline ugr_headline(const photometry::Photometry& p) {
  constexpr TableRoom kRoom{4, 8};
  const std::vector<Reflectances> set = {{0.7, 0.5, 0.2}};
  UgrHeadline headline;
  headline.correction = flux_correction(p);
  headline.lamp_flux_lm = reference_flux(p);
  headline.along_c0 = tabular_ugr(p, kRoom, Sight::along_c0, set)[0] + headline.correction;
  headline.along_c90 = tabular_ugr(p, kRoom, Sight::along_c90, set)[0] + headline.correction;
  headline.symmetric = has_one_ugr_table(p.table);
  return headline;
}

bool has_one_ugr_table(const photometry::IntensityTable& table) {
  const photometry::Symmetry symmetry = photometry::symmetry_found(table);
  return symmetry == photometry::Symmetry::rotational || symmetry == photometry::Symmetry::quadrant;
}

UgrTable ugr_table(const photometry::Photometry& p) {
  UgrTable table;
  for (const TableRoom& room : UgrTable::rooms()) {
    table.along_c0.push_back(tabular_ugr(p, room, Sight::along_c0, UgrTable::reflectances()));
    table.along_c90.push_back(tabular_ugr(p, room, Sight::along_c90, UgrTable::reflectances()));
  }
  return table;
}

}  // namespace glow::cavity
