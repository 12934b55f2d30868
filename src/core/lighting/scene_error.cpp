#include "core/lighting/scene_error.hpp"

#include <algorithm>
#include <cmath>

namespace glow::lighting {
namespace {

/// Single points of a scene hang on other patches than those of all sources together do: held against
/// calculations of their own, their errors were up to twice as large.
constexpr double kOfOnePoint = 2;

}  // namespace

/// `of_sources`: what each gives of a sum, at full output as new.
double SceneError::factor(const std::vector<double>& of_sources) const {
  double placed = 0, scene = 0, placed_squares = 0, scene_squares = 0;
  for (std::size_t s = 0; s < of_sources.size(); ++s) {
    const double before = (*planned_)[s].maintained() * of_sources[s];
    const double now = (*scene_)[s].maintained() * of_sources[s];
    placed += before;
    scene += now;
    placed_squares += before * before;
    scene_squares += now * now;
  }
  if (placed <= 0) return scene > 0 ? 1 : 0;
  return std::max(scene / placed, std::sqrt(scene_squares / placed_squares));
}

transport::Deviations SceneError::deviations(const std::vector<double>& weights) const {
  std::vector<double> of_sources;
  for (const transport::GroupLight& source : lighting_->sources()) {
    double sum = 0;
    for (std::size_t r = 0; r < weights.size(); ++r)
      if (weights[r] != 0) sum += weights[r] * source.interreflected_lx[r];
    of_sources.push_back(sum);
  }
  const double times = factor(of_sources);
  transport::Deviations result = placed_->deviations(weights);
  for (double& value : result.of_sets) value *= times;
  result.of_coarse_patches *= times;
  return result;
}

/// The mean over the sets is what the receiver gets; they differ from it as they do with all as placed.
std::array<double, transport::kSets> SceneError::sets_at(std::size_t receiver) const {
  std::vector<double> of_sources;
  double scene = 0;
  for (std::size_t s = 0; s < lighting_->sources().size(); ++s) {
    of_sources.push_back(lighting_->sources()[s].interreflected_lx[receiver]);
    scene += (*scene_)[s].maintained() * of_sources.back();
  }
  std::array<double, transport::kSets> sets = placed_->sets_at(receiver);
  double mean = 0;
  for (const double value : sets) mean += value / transport::kSets;
  const double times = factor(of_sources);
  for (double& value : sets) value = scene + kOfOnePoint * times * (value - mean);
  return sets;
}

}  // namespace glow::lighting
