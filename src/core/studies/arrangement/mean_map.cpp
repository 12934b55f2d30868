#include "core/studies/arrangement/mean_map.hpp"

#include <algorithm>
#include <cmath>

namespace glow::studies {
namespace {

constexpr double kSame = 1e-6;   // of directions and heights
constexpr double kNear2 = 1e-4;  // m2: nearer samples are not told apart

}  // namespace

/// Samples that hang alike, by the inverse fourth power of their distances.
double MeanMap::mean_of(const photometry::PlacedLuminaire& luminaire, std::size_t demand) const {
  double sum = 0, weights = 0;
  for (const Sample& sample : samples_) {
    const geometry::Frame &own = luminaire.frame, &other = sample.luminaire.frame;
    if (std::abs(own.origin.z() - other.origin.z()) > kSame || (own.c0 - other.c0).norm() > kSame) continue;
    const double distance2 = std::max(kNear2, (own.origin - other.origin).squaredNorm());
    const double weight = 1 / (distance2 * distance2);
    sum += weight * sample.means_lx[demand];
    weights += weight;
  }
  return weights > 0 ? sum / weights : INFINITY;  // nothing is known: it may be anything
}

double MeanMap::times_asked(const LaidField& field) const {
  double least = INFINITY;
  for (std::size_t d = 0; d < demands_.size(); ++d) {
    double mean = demands_[d].there_lx;
    for (const photometry::PlacedLuminaire& luminaire : field.group.luminaires) mean += mean_of(luminaire, d);
    least = std::min(least, mean / demands_[d].required_lx);
  }
  return least;
}

}  // namespace glow::studies
