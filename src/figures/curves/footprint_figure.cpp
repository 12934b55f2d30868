#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/sources/direct/direct_light.hpp"
#include "figures/canvas/colour_scale.hpp"
#include "figures/canvas/isolines.hpp"
#include "figures/curves/curve_style.hpp"

namespace glow::figures {
namespace {

constexpr int kNodes = 161;          // along each side
constexpr double kOutermost = 0.01;  // of the maximum: the outermost line
constexpr double kFootprintSide = 640, kFootprintLeft = 130, kFootprintTop = 100;
constexpr double kFarthest = 4.0;  // times the height

/// Illuminance on the plane, nodes over a square about the point below the luminaire.
Lattice lattice_of(const photometry::Photometry& photometry, double height_m, double reach_m) {
  const std::shared_ptr<const photometry::IntensityTable> table(&photometry.table, [](const auto*) {});
  const photometry::PlacedLuminaire luminaire{table, photometry.area,
                                              geometry::Frame::upright({0, 0, height_m}, 0)};
  const sources::DirectLight light(luminaire, nullptr);
  Lattice lattice;
  lattice.low = Vec2(-reach_m, -reach_m);
  lattice.step = Vec2::Constant(2 * reach_m / (kNodes - 1));
  lattice.nx = lattice.ny = kNodes;
  for (int j = 0; j < kNodes; ++j)
    for (int i = 0; i < kNodes; ++i) {
      const Vec2 p = lattice.node(i, j);
      lattice.values.push_back(light.illuminance({{p.x(), p.y(), 0}, Vec3::UnitZ()}));
    }
  return lattice;
}

/// Half side of the square that holds all of at least kOutermost of the maximum, m.
double reach_of(const photometry::Photometry& photometry, double height_m) {
  const Lattice coarse = lattice_of(photometry, height_m, kFarthest * height_m);
  const double most = *std::max_element(coarse.values.begin(), coarse.values.end());
  double reach = 0.05 * height_m;
  for (int j = 0; j < kNodes; ++j)
    for (int i = 0; i < kNodes; ++i)
      if (coarse.at(i, j) >= kOutermost * most)
        reach = std::max(reach, 1.15 * coarse.node(i, j).cwiseAbs().maxCoeff());
  return std::min(reach, kFarthest * height_m);
}

std::vector<double> levels_below(double most) {
  std::vector<double> levels;
  for (double power = std::pow(10.0, std::floor(std::log10(kOutermost * most))); power <= most; power *= 10)
    for (const double factor : {1.0, 2.0, 5.0})
      if (factor * power >= kOutermost * most && factor * power < most) levels.push_back(factor * power);
  return levels;
}

}  // namespace

std::string footprint_svg(const Curve& curve, double height_m) {
  const photometry::Photometry& p = *curve.photometry;
  const double reach = reach_of(p, height_m);
  const Lattice lattice = lattice_of(p, height_m, reach);
  const double most = *std::max_element(lattice.values.begin(), lattice.values.end());
  SvgCanvas canvas(kSheetWidth, kSheetHeight);
  const auto px = [&](const Vec2& m) {
    return Vec2(kFootprintLeft + (m.x() / reach + 1) / 2 * kFootprintSide,
                kFootprintTop + (1 - m.y() / reach) / 2 * kFootprintSide);
  };
  const auto path = [&](const std::vector<Vec2>& points, bool closed) {
    std::vector<Vec2> drawn;
    for (const Vec2& m : points) drawn.push_back(px(m));
    return path_data(drawn, closed);
  };
  const std::vector<double> levels = most > 0 ? levels_below(most) : std::vector<double>();
  canvas.rectangle({kFootprintLeft, kFootprintTop}, {kFootprintSide, kFootprintSide},
                   scale_colour(0).c_str());
  for (std::size_t k = 0; k < levels.size(); ++k) {
    std::string region;
    for (const auto& piece : region_above(lattice, levels[k])) region += path(piece, true);
    canvas.path(region, scale_colour(double(k + 1) / double(levels.size())).c_str());
    for (const auto& line : isolines(lattice, levels[k]))
      canvas.path(path(line, false), "none", "#ffffff", 1.2);
  }
  const double step = round_step(reach, 4);
  for (double m = -step * std::floor(reach / step); m <= reach + 1e-9; m += step) {
    const std::string words = fmt::format(FMT_STRING("{:g}"), std::abs(m) < 1e-9 ? 0.0 : m);
    canvas.text(px({m, -reach}) + Vec2(0, 22), words, {12, "middle", kSheetGrey});
    canvas.text(px({-reach, m}) + Vec2(-10, 4), words, {12, "end", kSheetGrey});
  }
  canvas.text(px({0, -reach}) + Vec2(0, 44), "m along C0", {12, "middle", kSheetGrey});
  canvas.text(px({-reach, 0}) - Vec2(60, 0), "m along C90", {12, "middle", kSheetGrey, false, nullptr, -90});
  const Vec2 half(std::max(2.0, p.area.extent_c0_m / reach * kFootprintSide / 4),
                  std::max(2.0, p.area.extent_c90_m / reach * kFootprintSide / 4));
  if (is_round(p.area.shape))
    canvas.circle(px({0, 0}), half.x(), "none", kSheetInk, 1.5);
  else
    canvas.rectangle(px({0, 0}) - half, 2 * half, "none", kSheetInk, 1.5);
  double y = 130;
  canvas.text({860, y - 14}, "Illuminance in lx", {13, "start", kSheetInk, true});
  for (std::size_t k = levels.size() + 1; k-- > 0; y += 26) {
    canvas.rectangle({860, y}, {34, 26},
                     scale_colour(levels.empty() ? 0 : double(k) / double(levels.size())).c_str(), "#ffffff");
    if (k > 0)
      canvas.text({902, y + 30}, fmt::format(FMT_STRING("{:g}"), levels[k - 1]), {12, "start", kSheetInk});
  }
  canvas.text({860, y + 34}, fmt::format(FMT_STRING("highest {:.4g} lx"), most),
              {13, "start", kSheetInk, true});
  draw_title(
      canvas, {curve},
      fmt::format(FMT_STRING("direct light of one luminaire on a plane {:g} m below it, initial"), height_m));
  draw_body(canvas, p, {1060, 560}, 170);
  return canvas.bytes();
}

}  // namespace glow::figures
