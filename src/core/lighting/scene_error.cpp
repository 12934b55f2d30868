#include "core/lighting/scene_error.hpp"

#include <algorithm>
#include <cmath>

namespace glow::lighting {
namespace {

/// Single points of a scene hang on other patches than those of all sources together do: held against
/// calculations of their own, their errors were up to twice as large.
constexpr double kOfOnePoint = 2;

/// What sources give of a sum, all as placed and in the scene.
struct Proportion {
  double placed = 0, scene = 0, placed_squares = 0, scene_squares = 0;

  void add(double before, double now) {
    placed += before;
    scene += now;
    placed_squares += before * before;
    scene_squares += now * now;
  }
  double factor() const {
    if (placed <= 0) return scene > 0 ? 1 : 0;
    return std::max(scene / placed, std::sqrt(scene_squares / placed_squares));
  }
};

}  // namespace

transport::Deviations SceneError::deviations(const transport::WeightedSum& sum) const {
  std::vector<double> of_sources(lighting_->sources().size(), 0.0);
  for (const auto& [r, weight] : sum)
    for (std::size_t s = 0; s < of_sources.size(); ++s)
      of_sources[s] += weight * lighting_->sources()[s].interreflected_lx[r];
  Proportion proportion;
  for (std::size_t s = 0; s < of_sources.size(); ++s)
    proportion.add((*planned_)[s].maintained() * of_sources[s], (*scene_)[s].maintained() * of_sources[s]);
  const double times = proportion.factor();
  transport::Deviations result = placed_->deviations(sum);
  for (double& value : result.of_sets) value *= times;
  result.of_coarse_patches *= times;
  return result;
}

/// The mean over the sets is what the receiver gets; they differ from it as they do with all as placed.
std::array<double, transport::kSets> SceneError::sets_at(std::size_t receiver) const {
  Proportion proportion;
  for (std::size_t s = 0; s < lighting_->sources().size(); ++s) {
    const double of_source = lighting_->sources()[s].interreflected_lx[receiver];
    proportion.add((*planned_)[s].maintained() * of_source, (*scene_)[s].maintained() * of_source);
  }
  std::array<double, transport::kSets> sets = placed_->sets_at(receiver);
  double mean = 0;
  for (const double value : sets) mean += value / transport::kSets;
  const double times = proportion.factor();
  for (double& value : sets) value = proportion.scene + kOfOnePoint * times * (value - mean);
  return sets;
}

}  // namespace glow::lighting
