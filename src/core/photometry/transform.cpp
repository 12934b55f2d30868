#include "core/photometry/transform.hpp"

#include <algorithm>
#include <cmath>
#include <set>

namespace glow::photometry {
namespace {

constexpr double kHairAngle = 1e-9;
constexpr double kSharpEdge =
    1e-4;  // degrees: where light stops at the end of a table, so wide stays the step

double turned_into_circle(double c_deg) {
  double c = std::fmod(c_deg, 360.0);
  if (c < 0) c += 360;
  return c > 360 - kHairAngle ? 0 : c;
}

/// Angles of all lists, equal ones once.
std::vector<double> united(std::vector<double> angles) {
  std::sort(angles.begin(), angles.end());
  angles.erase(
      std::unique(angles.begin(), angles.end(), [](double a, double b) { return b - a < kHairAngle; }),
      angles.end());
  return angles;
}

/// The symmetry after a turn, where it still is one of those that files can declare.
Symmetry turned(Symmetry symmetry, double angle_deg) {
  if (symmetry == Symmetry::rotational) return symmetry;
  const double quarter = angle_deg / 90;
  if (std::abs(quarter - std::round(quarter)) > kHairAngle) return Symmetry::none;
  const bool odd = std::lround(quarter) % 2 != 0;
  if (odd && symmetry == Symmetry::about_c0) return Symmetry::about_c90;
  if (odd && symmetry == Symmetry::about_c90) return Symmetry::about_c0;
  return symmetry;
}

void turn_area(Photometry& p, double angle_deg, std::vector<std::string>& notes) {
  LuminousArea& area = p.area;
  const int quarters = static_cast<int>(std::lround(angle_deg / 90)) & 3;
  if (std::abs(angle_deg / 90 - std::round(angle_deg / 90)) > kHairAngle) {
    if (area.shape == LuminousShape::point || (is_round(area.shape) && area.extent_c0_m == area.extent_c90_m))
      return;
    const double c = std::abs(std::cos(angle_deg * kDegree)), s = std::abs(std::sin(angle_deg * kDegree));
    const double x = area.extent_c0_m, y = area.extent_c90_m;
    area.extent_c0_m = c * x + s * y;
    area.extent_c90_m = s * x + c * y;
    area.shape = area.height_m() > 0 ? LuminousShape::box : LuminousShape::rectangle;
    p.body.reset();
    notes.push_back(
        "a file cannot hold a luminous area that is turned by other than 90 degrees; the rectangle around it "
        "is "
        "written");
    return;
  }
  std::rotate(area.side_heights_m.begin(), area.side_heights_m.begin() + ((4 - quarters) & 3),
              area.side_heights_m.end());
  if (quarters % 2 == 0) return;
  std::swap(area.extent_c0_m, area.extent_c90_m);
  if (p.body) std::swap(p.body->extent_c0_m, p.body->extent_c90_m);
  if (area.shape == LuminousShape::horizontal_cylinder_c0)
    area.shape = LuminousShape::horizontal_cylinder_c90;
  else if (area.shape == LuminousShape::horizontal_cylinder_c90)
    area.shape = LuminousShape::horizontal_cylinder_c0;
  if (area.shape == LuminousShape::upright_disc) {
    area.shape = LuminousShape::rectangle;
    notes.push_back("an upright disc that does not face C0 is written as a rectangle");
  }
}

}  // namespace

IntensityTable shielded(const IntensityTable& table, double from_deg) {
  std::vector<double> gammas, candela;
  for (const double gamma : table.gamma_deg())
    if (gamma < from_deg) gammas.push_back(gamma);
  if (gammas.size() == table.gamma_deg().size()) return table;  // ends before
  gammas.push_back(from_deg);
  if (gammas.size() < 2) return table.scaled(0);  // begins beyond: nothing is left
  for (const double c : table.c_deg())
    for (const double gamma : gammas) candela.push_back(table.intensity(c, gamma));
  return {table.c_deg(), gammas, candela};
}

Photometry scaled(const Photometry& photometry, double factor) {
  Photometry result = photometry;
  result.table = photometry.table.scaled(factor);
  if (result.lamp_flux_lm) *result.lamp_flux_lm *= factor;
  return result;
}

Photometry turned(const Photometry& photometry, double angle_deg, std::vector<std::string>& notes) {
  Photometry result = photometry;
  turn_area(result, angle_deg, notes);
  result.declared_symmetry = turned(photometry.declared_symmetry, angle_deg);
  const IntensityTable& table = photometry.table;
  if (table.rotational()) return result;
  std::vector<double> planes = {0};
  for (const double c : table.c_deg()) planes.push_back(turned_into_circle(c + angle_deg));
  planes = united(planes);
  planes.push_back(360);
  std::vector<double> candela;
  for (const double c : planes)
    for (const double g : table.gamma_deg())
      candela.push_back(table.intensity(turned_into_circle(c - angle_deg), g));
  result.table = IntensityTable(planes, table.gamma_deg(), candela);
  return result;
}

Photometry merged(const std::vector<Photometry>& parts, std::vector<std::string>& notes) {
  Photometry result = parts.front();
  if (parts.size() == 1) return result;
  std::vector<double> planes, gammas;
  bool rotational = true;
  Symmetry symmetry = parts.front().declared_symmetry;
  result.lamp_flux_lm = 0.0;
  result.watts = 0.0;
  for (const Photometry& part : parts) {
    const IntensityTable& table = part.table;
    rotational = rotational && table.rotational();
    if (!table.rotational()) planes.insert(planes.end(), table.c_deg().begin(), table.c_deg().end());
    const auto& own = table.gamma_deg();
    gammas.insert(gammas.end(), own.begin(), own.end());
    // Light that stops at the end of one table must not fade out towards the next angle of another.
    if (own.back() < 180) gammas.push_back(own.back() + kSharpEdge);
    if (own.front() > 0) gammas.push_back(own.front() - kSharpEdge);
    if (part.declared_symmetry != symmetry) symmetry = Symmetry::none;
    result.absolute = result.absolute || part.absolute || !part.lamp_flux_lm;
    if (part.lamp_flux_lm && result.lamp_flux_lm) *result.lamp_flux_lm += *part.lamp_flux_lm;
    if (!part.watts) result.watts.reset();
    if (part.watts && result.watts) *result.watts += *part.watts;
    LuminousArea& area = result.area;
    if (part.area.shape != area.shape) area.shape = LuminousShape::rectangle;
    area.extent_c0_m = std::max(area.extent_c0_m, part.area.extent_c0_m);
    area.extent_c90_m = std::max(area.extent_c90_m, part.area.extent_c90_m);
    for (std::size_t k = 0; k < 4; ++k)
      area.side_heights_m[k] = std::max(area.side_heights_m[k], part.area.side_heights_m[k]);
  }
  gammas = united(gammas);
  planes = rotational ? std::vector<double>{0} : united(planes);
  std::vector<double> candela;
  for (const double c : planes)
    for (const double g : gammas) {
      double sum = 0;
      for (const Photometry& part : parts) sum += part.table.intensity(c, g);
      candela.push_back(sum);
    }
  result.table = IntensityTable(planes, gammas, candela);
  result.declared_symmetry = rotational                         ? Symmetry::rotational
                             : symmetry == Symmetry::rotational ? Symmetry::none
                                                                : symmetry;
  if (result.absolute) result.lamp_flux_lm.reset();
  result.keywords.clear();
  notes.push_back("the luminous area is the largest extent of the parts; one luminaire has one area");
  return result;
}

}  // namespace glow::photometry
