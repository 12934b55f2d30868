#include "core/transport/sampled_flux.hpp"

namespace glow::transport {

SampledFlux SampledFlux::none(std::size_t patches) {
  return of(Eigen::VectorXd::Zero(Eigen::Index(patches)));
}

SampledFlux SampledFlux::of_sets(Eigen::MatrixXf sets_lm) {
  SampledFlux flux;
  flux.mean_lm = sets_lm.cast<double>().rowwise().mean();
  flux.sets_lm = std::move(sets_lm);
  return flux;
}

void SampledFlux::add(const SampledFlux& other, double factor) {
  if (mean_lm.size() == 0) mean_lm.setZero(other.mean_lm.size());
  if (other.varies() && !varies()) sets_lm = mean_lm.cast<float>().replicate(1, kSets);
  if (other.varies())
    sets_lm += float(factor) * other.sets_lm;
  else if (varies())
    sets_lm.colwise() += (factor * other.mean_lm).cast<float>();
  mean_lm += factor * other.mean_lm;
}

void SampledFlux::reduce(const Eigen::VectorXd& share) {
  if (varies()) {
    sets_lm.array().colwise() *= share.cast<float>().array();
    mean_lm = sets_lm.cast<double>().rowwise().mean();
  } else {
    mean_lm = mean_lm.cwiseProduct(share);
  }
}

}  // namespace glow::transport
