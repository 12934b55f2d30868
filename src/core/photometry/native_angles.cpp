#include "core/photometry/native_angles.hpp"

#include <algorithm>
#include <cmath>

#include "core/geometry/arctangent.hpp"

namespace glow::photometry {
namespace {

constexpr double kGammaStep = 0.25;  // degrees
constexpr double kPlaneStep = 1.0;

struct NativeTable {
  AngleAxis horizontal, vertical;
  const std::vector<double>& candela;

  double at(double h, double v) const {
    const auto& hs = horizontal.nodes();
    const auto& vs = vertical.nodes();
    if (h < hs.front() || h > hs.back() || v < vs.front() || v > vs.back()) return 0;
    const std::size_t i = horizontal.interval(h), j = vertical.interval(v);
    const double s = (h - hs[i]) / (hs[i + 1] - hs[i]), t = (v - vs[j]) / (vs[j + 1] - vs[j]);
    const double* a = &candela[i * vs.size() + j];
    const double* b = a + vs.size();
    // Rounding may leave a hair less than nothing at the edge of the table.
    return std::max(0.0, (1 - s) * ((1 - t) * a[0] + t * a[1]) + s * ((1 - t) * b[0] + t * b[1]));
  }
};

}  // namespace

IntensityTable resampled(NativeKind kind, const std::vector<double>& horizontal_deg,
                         const std::vector<double>& vertical_deg, const std::vector<double>& candela) {
  const NativeTable native{AngleAxis(horizontal_deg), AngleAxis(vertical_deg), candela};
  std::vector<double> planes, gammas, values;
  for (int i = 0; i * kPlaneStep <= 360; ++i) planes.push_back(i * kPlaneStep);
  for (int i = 0; i * kGammaStep <= 90; ++i) gammas.push_back(i * kGammaStep);
  for (const double c : planes)
    for (const double g : gammas) {
      const double x = std::sin(g * kDegree) * std::cos(c * kDegree);
      const double y = std::sin(g * kDegree) * std::sin(c * kDegree);
      const double z = std::cos(g * kDegree);
      // B: sin H = x, tan V = y / z.  A: sin Y = y, tan X = x / z.
      const double latitude = std::asin(std::clamp(kind == NativeKind::b ? x : y, -1.0, 1.0)) / kDegree;
      const double turn = geometry::atan2_deg(kind == NativeKind::b ? y : x, std::max(z, 0.0));
      values.push_back(kind == NativeKind::b ? native.at(latitude, turn) : native.at(turn, latitude));
    }
  return {planes, gammas, values};
}

}  // namespace glow::photometry
