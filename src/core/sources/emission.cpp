#include "core/sources/emission.hpp"

#include <algorithm>
#include <cmath>

#include "core/geometry/ray_tracer.hpp"
#include "core/photometry/luminous_faces.hpp"
#include "core/transport/tracing/sampling.hpp"

namespace glow::sources {
namespace {

/// A direction drawn from one cell of the table, even in solid angle, and the intensity there.
struct Drawn {
  Vec3 along;  ///< components along c0, c90, g0
  double candela = 0;
};

Drawn draw_from_cell(const photometry::IntensityTable& table, std::size_t c, std::size_t g, double s,
                     double t) {
  const double cos0 = std::cos(table.gamma_deg()[g] * kDegree);
  const double cos1 = std::cos(table.gamma_deg()[g + 1] * kDegree);
  const double cos_gamma = cos0 + t * (cos1 - cos0);
  const double sin_gamma = std::sqrt(std::max(0.0, 1 - cos_gamma * cos_gamma));
  const double c_deg =
      table.rotational() ? 360 * s : table.c_deg()[c] + s * (table.c_deg()[c + 1] - table.c_deg()[c]);
  const Vec3 along(sin_gamma * std::cos(c_deg * kDegree), sin_gamma * std::sin(c_deg * kDegree), cos_gamma);
  return {along, table.intensity(c_deg, std::acos(std::clamp(cos_gamma, -1.0, 1.0)) / kDegree)};
}

double mean_intensity(const photometry::IntensityTable& table, std::size_t c, std::size_t g) {
  const double width = table.rotational() ? 360 : table.c_deg()[c + 1] - table.c_deg()[c];
  const double solid_angle =
      width * kDegree *
      (std::cos(table.gamma_deg()[g] * kDegree) - std::cos(table.gamma_deg()[g + 1] * kDegree));
  return table.cell_flux(c, g) / solid_angle;
}

Vec3 in_room(const geometry::Frame& f, const Vec3& v) {
  return v.x() * f.c0 + v.y() * f.c90 + v.z() * f.g0;
}

}  // namespace

Vec3 EmittedRay::start(const geometry::Frame& frame) const {
  const double lift = along.z() < 0 ? -geometry::kStartOffset : geometry::kStartOffset;
  return frame.origin + in_room(frame, place) + lift * frame.g0;
}

Vec3 EmittedRay::direction(const geometry::Frame& frame) const {
  return in_room(frame, along);
}

Emission::Emission(const photometry::IntensityTable& table, const photometry::LuminousArea& area, int count,
                   std::uint64_t seed) {
  const photometry::LuminousSurface surface(area);
  const std::size_t rows = table.cell_rows();
  std::vector<double> sum_to_cell;
  double sum = 0;
  for (std::size_t c = 0; c < table.cell_columns(); ++c)
    for (std::size_t g = 0; g < rows; ++g) sum_to_cell.push_back(sum += table.cell_flux(c, g));
  const Vec2 shift_direction(transport::unit_interval(transport::mixed(seed, 1)),
                             transport::unit_interval(transport::mixed(seed, 2)));
  const Vec2 shift_point(transport::unit_interval(transport::mixed(seed, 3)),
                         transport::unit_interval(transport::mixed(seed, 4)));
  double total = 0;
  for (int i = 0; i < count; ++i) {
    const double wanted = (i + 0.5) / count * sum;
    const auto found = std::upper_bound(sum_to_cell.begin(), sum_to_cell.end() - 1, wanted);
    const std::size_t cell = std::size_t(found - sum_to_cell.begin());
    const Vec2 st = transport::even_point(std::uint32_t(i), shift_direction);
    const Drawn drawn = draw_from_cell(table, cell / rows, cell % rows, st.x(), st.y());
    // Within the cell directions are drawn evenly, so a portion carries more where the intensity is higher.
    const double flux = drawn.candela / mean_intensity(table, cell / rows, cell % rows);
    const Vec2 uv = transport::even_point(std::uint32_t(i) * 7 + 3, shift_point);
    rays_.push_back({surface.point_seen(drawn.along, uv.x(), uv.y()), drawn.along, flux});
    total += flux;
  }
  for (EmittedRay& ray : rays_) ray.flux_lm *= table.flux() / total;
}

}  // namespace glow::sources
