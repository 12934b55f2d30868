#include "core/photometry/intensity_table.hpp"

#include <algorithm>
#include <cassert>
#include <cmath>

#include "core/geometry/arctangent.hpp"

namespace glow::photometry {
namespace {

constexpr std::size_t kMostBuckets = 4096;
constexpr double kEvenStep = 1e-12;  // relative; steps that differ by rounding only

/// Integral of (a + b (x - x0)) sin x from x0 to x1, radians.
double integral_linear_sine(double x0, double x1, double y0, double y1) {
  const double slope = (y1 - y0) / (x1 - x0);
  return y0 * std::cos(x0) - y1 * std::cos(x1) + slope * (std::sin(x1) - std::sin(x0));
}

}  // namespace

AngleAxis::AngleAxis(std::vector<double> nodes) : nodes_(std::move(nodes)) {
  assert(!nodes_.empty());
  if (nodes_.size() < 2) return;
  double smallest = nodes_.back() - nodes_.front();
  for (std::size_t i = 1; i < nodes_.size(); ++i) smallest = std::min(smallest, nodes_[i] - nodes_[i - 1]);
  const double span = nodes_.back() - nodes_.front();
  even_ = span <= smallest * double(nodes_.size() - 1) * (1 + kEvenStep);
  if (even_) {
    buckets_per_degree_ = double(nodes_.size() - 1) / span;
    return;
  }
  const double wanted = std::ceil(span / std::max(smallest, span / double(kMostBuckets)));
  const std::size_t buckets = std::max<std::size_t>(1, static_cast<std::size_t>(wanted));
  buckets_per_degree_ = double(buckets) / span;
  first_in_bucket_.resize(buckets + 1);
  std::size_t i = 0;
  for (std::size_t b = 0; b <= buckets; ++b) {
    const double x = nodes_.front() + double(b) / buckets_per_degree_;
    while (i + 2 < nodes_.size() && nodes_[i + 1] <= x) ++i;
    first_in_bucket_[b] = i;
  }
}

std::size_t AngleAxis::interval(double x) const {
  const double position = std::max(0.0, (x - nodes_.front()) * buckets_per_degree_);
  if (even_) return std::min(static_cast<std::size_t>(position), nodes_.size() - 2);
  std::size_t i = first_in_bucket_[std::min(static_cast<std::size_t>(position), first_in_bucket_.size() - 1)];
  while (i > 0 && x < nodes_[i]) --i;
  while (i + 2 < nodes_.size() && x > nodes_[i + 1]) ++i;
  return i;
}

IntensityTable::IntensityTable(std::vector<double> c_deg, std::vector<double> gamma_deg,
                               std::vector<double> candela)
    : c_axis_(std::move(c_deg)), gamma_axis_(std::move(gamma_deg)), candela_(std::move(candela)) {
  assert(candela_.size() == c_axis_.nodes().size() * gamma_axis_.nodes().size());
  assert(rotational() || (c_axis_.nodes().front() == 0 && c_axis_.nodes().back() == 360));
  for (std::size_t c = 0; c < cell_columns(); ++c)
    for (std::size_t g = 0; g < cell_rows(); ++g) {
      const double flux = cell_flux(c, g);
      flux_ += flux;
      const double top = gamma_axis_.nodes()[g + 1];
      const double bottom = gamma_axis_.nodes()[g];
      // A cell that straddles the horizontal is shared out by its height; makers' tables have a node at 90.
      upward_flux_ += flux * std::clamp((top - 90.0) / (top - bottom), 0.0, 1.0);
    }
  bends_ = std::make_shared<const TableBends>(*this);
}

double IntensityTable::intensity(double c_deg, double gamma_deg) const {
  const auto& gammas = gamma_axis_.nodes();
  if (gamma_deg < gammas.front() || gamma_deg > gammas.back()) return 0;
  if (gammas.size() < 2) return 0;
  const std::size_t g = gamma_axis_.interval(gamma_deg);
  const double t = (gamma_deg - gammas[g]) / (gammas[g + 1] - gammas[g]);
  const std::size_t row = gammas.size();
  if (rotational()) return candela_[g] + t * (candela_[g + 1] - candela_[g]);
  double c = c_deg;
  if (c < 0 || c >= 360) c -= 360.0 * std::floor(c / 360.0);
  const std::size_t k = c_axis_.interval(c);
  const double s = (c - c_axis_.nodes()[k]) / (c_axis_.nodes()[k + 1] - c_axis_.nodes()[k]);
  const double* a = &candela_[k * row + g];
  const double* b = a + row;
  const double low = a[0] + s * (b[0] - a[0]);
  const double high = a[1] + s * (b[1] - a[1]);
  return low + t * (high - low);
}

double IntensityTable::intensity_along(double along_c0, double along_c90, double along_g0) const {
  const double across = std::sqrt(along_c0 * along_c0 + along_c90 * along_c90);
  const double gamma_deg = std::min(geometry::atan2_deg(across, along_g0), 180.0);
  if (rotational()) return intensity(0, gamma_deg);
  const double c_deg = geometry::atan2_deg(along_c90, along_c0);
  return intensity(c_deg < 0 ? c_deg + 360 : c_deg, gamma_deg);
}

BentIntensity IntensityTable::bent_intensity_along(const Vec3& along, double width) const {
  // From one Gauss point to the far corner of a square piece.
  constexpr double kFarEnd = 1.2;
  const auto& gammas = gamma_axis_.nodes();
  if (gammas.size() < 2) return {};
  const double across = std::sqrt(along.x() * along.x() + along.y() * along.y());
  const double gamma = std::min(geometry::atan2_deg(across, along.z()), 180.0);
  double c = rotational() ? 0 : geometry::atan2_deg(along.y(), along.x());
  if (c < 0) c += 360;
  const std::size_t row = gamma_axis_.interval(std::clamp(gamma, gammas.front(), gammas.back()));
  const std::size_t column = rotational() || c >= 360 ? 0 : c_axis_.interval(c);
  double to_edge = std::abs(std::min(gamma - gammas[row], gammas[row + 1] - gamma));
  if (!rotational()) {
    const auto& planes = c_axis_.nodes();
    const double sine = across / std::max(along.norm(), 1e-30);
    to_edge = std::min(to_edge, sine * std::min(c - planes[column], planes[column + 1] - c));
  }
  const double bend =
      to_edge * kDegree > kFarEnd * width ? 0 : bends_->near(column * cell_rows() + row, width);
  return {intensity(c, gamma), bend};
}

/// A bilinear piece is greatest at one of its corners: at nodes, and where the cone's bounds cut between
/// them.
double IntensityTable::most_within(const Vec3& along, double angle_deg) const {
  const auto at_each = [](const std::vector<double>& nodes, double low, double high, const auto& look) {
    look(low);
    for (auto node = std::upper_bound(nodes.begin(), nodes.end(), low); node != nodes.end() && *node < high;
         ++node)
      look(*node);
    look(high);
  };
  const double across = std::sqrt(along.x() * along.x() + along.y() * along.y());
  const double gamma = std::min(geometry::atan2_deg(across, along.z()), 180.0);
  const double low = std::max(gamma - angle_deg, gamma_deg().front());
  const double high = std::min(gamma + angle_deg, gamma_deg().back());
  if (low > high) return 0;
  double most = 0;
  const auto look_along = [&](double c) {
    at_each(gamma_deg(), low, high, [&](double g) { most = std::max(most, intensity(c, g)); });
  };
  const bool holds_pole = gamma <= angle_deg || gamma + angle_deg >= 180;
  if (rotational() || holds_pole) {
    for (const double c : c_deg()) look_along(c);
    return most;
  }
  const double half =
      std::asin(std::min(1.0, std::sin(angle_deg * kDegree) / std::sin(gamma * kDegree))) / kDegree;
  const double c = geometry::atan2_deg(along.y(), along.x());
  for (const double turn : {0.0, 360.0}) {
    const double from = std::max(0.0, c - half + turn), to = std::min(360.0, c + half + turn);
    if (from <= to) at_each(c_deg(), from, to, look_along);
  }
  return most;
}

Peak IntensityTable::peak() const {
  Peak best;
  const std::size_t row = gamma_deg().size();
  for (std::size_t i = 0; i < candela_.size(); ++i)
    if (candela_[i] > best.candela) best = {candela_[i], c_deg()[i / row], gamma_deg()[i % row]};
  return best;
}

double IntensityTable::cell_flux(std::size_t c, std::size_t g) const {
  const double g0 = gamma_deg()[g] * kDegree;
  const double g1 = gamma_deg()[g + 1] * kDegree;
  if (rotational()) return 2 * kPi * integral_linear_sine(g0, g1, node(0, g), node(0, g + 1));
  const double width = (c_deg()[c + 1] - c_deg()[c]) * kDegree;
  const double low = (node(c, g) + node(c + 1, g)) / 2;
  const double high = (node(c, g + 1) + node(c + 1, g + 1)) / 2;
  return width * integral_linear_sine(g0, g1, low, high);
}

IntensityTable IntensityTable::scaled(double factor) const {
  std::vector<double> candela = candela_;
  for (double& value : candela) value *= factor;
  return {c_deg(), gamma_deg(), std::move(candela)};
}

}  // namespace glow::photometry
