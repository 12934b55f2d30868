#include "core/photometry/derived.hpp"

#include <algorithm>
#include <cmath>
#include <vector>

namespace glow::photometry {
namespace {

constexpr double kSameIntensity = 0.01;  // of the peak: planes that differ by less are alike
constexpr double kWidestSpacing = 6.0;

/// Intensity over the angle from straight down in the planes C (positive) and C + 180 (negative): corners of
/// the piecewise straight curve between -90 and 90 degrees.
std::vector<Vec2> curve_in_plane(const IntensityTable& table, double c_deg) {
  std::vector<double> gammas;
  for (const double g : table.gamma_deg())
    if (g < 90) gammas.push_back(g);
  gammas.push_back(90);
  if (gammas.front() > 0) gammas.insert(gammas.begin(), 0);
  std::vector<Vec2> curve;
  for (std::size_t i = gammas.size(); i-- > 0;)
    curve.emplace_back(-gammas[i], table.intensity(c_deg + 180, gammas[i]));
  // Straight down belongs to both sides; they may disagree in a poor file.
  for (const double g : gammas) curve.emplace_back(g, table.intensity(c_deg, g));
  return curve;
}

std::optional<double> first_crossing(const std::vector<Vec2>& curve, std::size_t from, int step,
                                     double level) {
  for (std::size_t i = from; (step > 0 ? i + 1 < curve.size() : i > 0); i += std::size_t(step)) {
    const Vec2& a = curve[i];
    const Vec2& b = curve[i + std::size_t(step)];
    if (a.y() >= level && b.y() < level) return a.x() + (b.x() - a.x()) * (a.y() - level) / (a.y() - b.y());
  }
  return std::nullopt;
}

}  // namespace

double flux_between(const IntensityTable& table, double low_deg, double high_deg) {
  // Integral of a straight line in gamma times sin gamma, over the part of each row inside the limits.
  double flux = 0;
  const auto& gammas = table.gamma_deg();
  for (std::size_t g = 0; g + 1 < gammas.size(); ++g) {
    const double a = std::max(gammas[g], low_deg), b = std::min(gammas[g + 1], high_deg);
    if (b <= a) continue;
    for (std::size_t c = 0; c < table.cell_columns(); ++c) {
      const std::size_t next = table.rotational() ? c : c + 1;
      const double width = table.rotational() ? 2 * kPi : (table.c_deg()[c + 1] - table.c_deg()[c]) * kDegree;
      const double bottom = (table.node(c, g) + table.node(next, g)) / 2;
      const double top = (table.node(c, g + 1) + table.node(next, g + 1)) / 2;
      const double slope = (top - bottom) / (gammas[g + 1] - gammas[g]);
      const double y0 = bottom + slope * (a - gammas[g]), y1 = bottom + slope * (b - gammas[g]);
      const double x0 = a * kDegree, x1 = b * kDegree;
      flux += width *
              (y0 * std::cos(x0) - y1 * std::cos(x1) + (y1 - y0) / (x1 - x0) * (std::sin(x1) - std::sin(x0)));
    }
  }
  return flux;
}

std::optional<FluxCode> flux_code(const Photometry& photometry) {
  const IntensityTable& table = photometry.table;
  const double down = flux_between(table, 0, 90);
  if (down <= 0) return std::nullopt;
  const auto cone = [&](double steradians) {
    return 100 * flux_between(table, 0, std::acos(1 - steradians / (2 * kPi)) / kDegree) / down;
  };
  FluxCode code{cone(kPi / 2), cone(kPi), cone(1.5 * kPi), 100 * down / table.flux(), {}};
  if (!photometry.absolute && photometry.lamp_flux_lm && *photometry.lamp_flux_lm > 0)
    code.n5 = 100 * table.flux() / *photometry.lamp_flux_lm;
  return code;
}

std::optional<BeamEdges> beam_edges(const IntensityTable& table, double c_deg, double share) {
  const std::vector<Vec2> curve = curve_in_plane(table, c_deg);
  std::size_t peak = 0;
  for (std::size_t i = 1; i < curve.size(); ++i)
    if (curve[i].y() >= curve[peak].y()) peak = i;  // of two equal ones the one towards C
  const double level = share * curve[peak].y();
  if (level <= 0) return std::nullopt;
  const auto left = first_crossing(curve, peak, -1, level);
  const auto right = first_crossing(curve, peak, 1, level);
  if (!left || !right) return std::nullopt;
  return BeamEdges{curve[peak].y(), curve[peak].x(), *left, *right};
}

double projected_area(const LuminousArea& area, double c_deg, double gamma_deg) {
  const double x = area.extent_c0_m, y = area.extent_c90_m, h = area.height_m();
  const double s = std::sin(gamma_deg * kDegree), flat = std::abs(std::cos(gamma_deg * kDegree));
  const double to_c0 = s * std::cos(c_deg * kDegree), to_c90 = s * std::sin(c_deg * kDegree);
  switch (area.shape) {
    case LuminousShape::point:
      return 0;
    case LuminousShape::rectangle:
      return x * y * flat;
    case LuminousShape::disc:
    case LuminousShape::ellipse:
      return kPi / 4 * x * y * flat;
    case LuminousShape::box: {
      const auto& sides = area.side_heights_m;
      return x * y * flat + std::abs(to_c0) * y * (to_c0 > 0 ? sides[0] : sides[2]) +
             std::abs(to_c90) * x * (to_c90 > 0 ? sides[1] : sides[3]);
    }
    case LuminousShape::vertical_cylinder:
      return kPi / 4 * x * y * flat + std::sqrt(x * y) * h * s;
    case LuminousShape::horizontal_cylinder_c0:
      return x * y * std::sqrt(std::max(0.0, 1 - to_c0 * to_c0)) + kPi / 4 * y * h * std::abs(to_c0);
    case LuminousShape::horizontal_cylinder_c90:
      return x * y * std::sqrt(std::max(0.0, 1 - to_c90 * to_c90)) + kPi / 4 * x * h * std::abs(to_c90);
    case LuminousShape::sphere:
      return kPi / 4 * std::cbrt(x * y * h) * std::cbrt(x * y * h);
    case LuminousShape::upright_disc:
      return kPi / 4 * y * h * std::abs(to_c0);
  }
  return 0;
}

std::optional<double> mean_luminance(const Photometry& photometry, double c_deg, double gamma_deg) {
  constexpr double kNoArea = 1e-9;  // m2
  const double area = projected_area(photometry.area, c_deg, gamma_deg);
  if (area < kNoArea) return std::nullopt;
  return photometry.table.intensity(c_deg, gamma_deg) / area;
}

std::optional<double> max_luminance_above_65(const Photometry& photometry) {
  std::optional<double> most;
  for (int c = 0; c < 360; c += 15)
    for (int g = 65; g <= 85; g += 5)
      if (const auto luminance = mean_luminance(photometry, c, g))
        most = std::max(most.value_or(0), *luminance);
  return most;
}

std::optional<double> spacing_criterion(const IntensityTable& table, double c_deg) {
  const double below = table.intensity(c_deg, 0);
  if (below <= 0) return std::nullopt;
  // Illuminance midway over that below, both for height 1: positive while the spacing can still grow.
  const auto surplus = [&](double spacing) {
    const double angle = std::atan(spacing / 2);
    const double both =
        table.intensity(c_deg, angle / kDegree) + table.intensity(c_deg + 180, angle / kDegree);
    return both * std::pow(std::cos(angle), 3) - below;
  };
  constexpr double kStep = 0.01;
  for (double spacing = kStep; spacing <= kWidestSpacing; spacing += kStep) {
    if (surplus(spacing) >= 0) continue;
    double low = spacing - kStep, high = spacing;
    while (high - low > 1e-9) {
      const double middle = (low + high) / 2;
      (surplus(middle) >= 0 ? low : high) = middle;
    }
    return low;
  }
  return std::nullopt;
}

namespace {

/// Whether every plane has the intensities of the plane that `image` maps it to.
template <class Image>
bool planes_agree(const IntensityTable& table, double tolerance, Image&& image) {
  for (const double c : table.c_deg())
    for (const double g : table.gamma_deg())
      if (std::abs(table.intensity(c, g) - table.intensity(image(c), g)) > tolerance) return false;
  return true;
}

}  // namespace

Symmetry symmetry_found(const IntensityTable& table) {
  const double tolerance = kSameIntensity * table.peak().candela;
  if (table.rotational() || planes_agree(table, tolerance, [](double) { return 0.0; }))
    return Symmetry::rotational;
  const bool about_c0 = planes_agree(table, tolerance, [](double c) { return 360 - c; });
  const bool about_c90 = planes_agree(table, tolerance, [](double c) { return 180 - c; });
  if (about_c0 && about_c90) return Symmetry::quadrant;
  return about_c0 ? Symmetry::about_c0 : about_c90 ? Symmetry::about_c90 : Symmetry::none;
}

std::string kind_of_distribution(const IntensityTable& table) {
  const double up = table.upward_flux() / table.flux();
  const std::string share = up < 0.1   ? "direct"
                            : up < 0.4 ? "semi-direct"
                            : up < 0.6 ? "direct-indirect"
                            : up < 0.9 ? "semi-indirect"
                                       : "indirect";
  if (up >= 0.9) return share;
  const auto across = beam_edges(table, 0, 0.5), along = beam_edges(table, 90, 0.5);
  if (!across && !along) return share + ", spread out";
  const double straight_down = table.intensity(0, 0);
  for (const double c : {0.0, 90.0}) {
    const auto& edges = c == 0 ? across : along;
    if (!edges || edges->peak_cd < 1.15 * straight_down || std::abs(edges->peak_deg) < 10) continue;
    const double opposite = table.intensity(edges->peak_deg > 0 ? c + 180 : c, std::abs(edges->peak_deg));
    return share + (opposite > 0.8 * edges->peak_cd ? ", batwing" : ", asymmetric");
  }
  const double width = std::min(across ? across->width_deg() : 180.0, along ? along->width_deg() : 180.0);
  return share + (width < 10    ? ", very narrow beam"
                  : width < 25  ? ", narrow beam"
                  : width < 60  ? ", medium beam"
                  : width < 130 ? ", wide beam"
                                : ", very wide beam");
}

double lean_of(const IntensityTable& table) {
  if (table.rotational() || table.flux() <= 0) return 0;
  Vec2 mean = Vec2::Zero();
  const auto middle = [](const std::vector<double>& nodes, std::size_t i) {
    return (nodes[i] + nodes[i + 1]) / 2 * kDegree;
  };
  for (std::size_t g = 0; g < table.cell_rows(); ++g)
    for (std::size_t c = 0; c < table.cell_columns(); ++c) {
      const double angle = middle(table.c_deg(), c);
      mean += table.cell_flux(c, g) * std::sin(middle(table.gamma_deg(), g)) *
              Vec2(std::cos(angle), std::sin(angle));
    }
  return mean.norm() / table.flux();
}

LightKind light_kind(const IntensityTable& table) {
  constexpr double kLeaning = 0.2, kSomeUp = 0.1, kAllUp = 0.9;
  if (lean_of(table) >= kLeaning) return LightKind::one_sided;
  const double up = table.upward_flux() / table.flux();
  return up < kSomeUp ? LightKind::direct : up < kAllUp ? LightKind::direct_indirect : LightKind::indirect;
}

std::string to_string(LightKind kind) {
  constexpr const char* kNames[] = {"direct", "direct-indirect", "indirect", "one-sided"};
  return kNames[std::size_t(kind)];
}

bool gives_uplight(const Photometry& photometry) {
  constexpr double kUplight = 0.1;
  return photometry.table.upward_flux() > kUplight * photometry.flux_lm();
}

}  // namespace glow::photometry
