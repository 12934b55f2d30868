#include "core/transport/exchange/light_balance.hpp"

#include <functional>

#include "core/transport/exchange/conjugate_gradients.hpp"

namespace glow::transport {
namespace {

constexpr double kResidual = 3e-5;  // relative to the direct light; far below what sampling leaves uncertain
constexpr double kResidualFrom = 1e-4;  // the same from a light that is known
constexpr int kMostSteps = 1000;
constexpr int kMostPasses = 200;  // of light through scattering panes
constexpr double kPassed = 1e-7;
constexpr double kBlack = 0.05;  // square root of a reflectance

using Times = std::function<Eigen::VectorXd(const Eigen::VectorXd&)>;

/// The direct light and, everywhere alike, what an even room of the same mean reflectance would add.
Eigen::VectorXd first_guess(const Eigen::VectorXd& area, const Eigen::VectorXd& root,
                            const Eigen::VectorXd& direct) {
  const double absorbed_area = (area.array() * (1 - root.array().square())).sum();
  const double reflected = (root.array().square() * direct.array()).sum();
  const double even = absorbed_area > 0 ? reflected / absorbed_area : 0;
  return (direct.cwiseQuotient(area).array() + even).matrix();
}

/// A E = direct + G rho E. With y = sqrt(rho) E the system is symmetric: (A - R G R) y = R direct with
/// R = diag(sqrt(rho)); black patches fall out and follow at the end.
/// `known`: light that is close, to begin at; null: begun at the direct light.
Eigen::VectorXd reflected(const Eigen::VectorXd& area, const Eigen::VectorXd& root, const Times& times,
                          const Eigen::VectorXd& direct, double& residual,
                          const Eigen::VectorXd* known = nullptr) {
  const Eigen::VectorXd right = root.cwiseProduct(direct);
  const auto apply = [&](const Eigen::VectorXd& y) {
    return Eigen::VectorXd(area.cwiseProduct(y) - root.cwiseProduct(times(root.cwiseProduct(y))));
  };
  Eigen::VectorXd y = root.cwiseProduct(known ? *known : Eigen::VectorXd(first_guess(area, root, direct)));
  Eigen::VectorXd rest;
  residual = conjugate_gradients(apply, area, right, known ? kResidualFrom : kResidual, kMostSteps, y, rest);
  // A y - R G R y = right - rest tells G R y, and so the light, wherever something is reflected.
  if (root.size() > 0 && root.minCoeff() > kBlack) return (y + rest.cwiseQuotient(area)).cwiseQuotient(root);
  return (direct + times(root.cwiseProduct(y))).cwiseQuotient(area);
}

}  // namespace

struct LightBalance::System {
  Eigen::VectorXd area, root;
  Times times;                                                     ///< exchange between unknowns
  std::function<Eigen::VectorXd(const Eigen::VectorXd&)> passing;  ///< lm on each, passed on by panes

  /// `known`: as of `reflected`.
  Eigen::VectorXd solve(const Eigen::VectorXd& direct, bool any_passing, double& residual,
                        const Eigen::VectorXd* known = nullptr) const {
    // What the solver leaves open may take a dark patch a hair below nothing.
    Eigen::VectorXd lux = reflected(area, root, times, direct, residual, known).cwiseMax(0.0);
    if (!any_passing) return lux;
    // Light through scattering panes comes on top, pass by pass: each holds less than the one before.
    Eigen::VectorXd light = direct, last = lux;
    const double scale = lux.norm();
    for (int pass = 0; pass < kMostPasses && last.norm() > kPassed * scale; ++pass) {
      light = passing(last);
      last = reflected(area, root, times, light, residual);
      lux += last;
    }
    return lux;
  }
};

LightBalance::LightBalance(const PatchSet& patches, const Exchange& exchange)
    : patches_(&patches), exchange_(&exchange) {}

/// exchange of what panes pass from one side to the other, lm on every patch.
Eigen::VectorXd LightBalance::passed_on(const Eigen::VectorXd& lux) const {
  Eigen::VectorXd passed = Eigen::VectorXd::Zero(lux.size());
  for (Eigen::Index i = 0; i < lux.size(); ++i) {
    const int other = patches_->patches()[std::size_t(i)].other_side;
    if (other >= 0) passed[i] = exchange_->passing[other] * lux[other];
  }
  return exchange_->areas.times(passed);
}

Eigen::VectorXd LightBalance::joined(const Eigen::VectorXd& of_patches) const {
  Eigen::VectorXd sums = Eigen::VectorXd::Zero(Eigen::Index(patches_->coarse_groups()));
  for (Eigen::Index i = 0; i < of_patches.size(); ++i)
    sums[patches_->patches()[std::size_t(i)].coarse] += of_patches[i];
  return sums;
}

Eigen::VectorXd LightBalance::spread(const Eigen::VectorXd& of_groups) const {
  Eigen::VectorXd values(Eigen::Index(patches_->size()));
  for (Eigen::Index i = 0; i < values.size(); ++i)
    values[i] = of_groups[patches_->patches()[std::size_t(i)].coarse];
  return values;
}

Eigen::VectorXd LightBalance::solve(const Eigen::VectorXd& direct_lm, const Eigen::VectorXd& reflectance,
                                    double& residual) const {
  const System system{exchange_->visible_area_m2.cwiseMax(kNoArea), reflectance.cwiseSqrt(),
                      [&](const Eigen::VectorXd& x) { return exchange_->areas.times(x); },
                      [&](const Eigen::VectorXd& lux) { return passed_on(lux); }};
  return system.solve(direct_lm, exchange_->any_passing, residual);
}

Eigen::VectorXd LightBalance::solve_from(const Eigen::VectorXd& known_direct_lm,
                                         const Eigen::VectorXd& known_lx, const Eigen::VectorXd& direct_lm,
                                         double& residual) const {
  const Eigen::VectorXd area = exchange_->visible_area_m2.cwiseMax(kNoArea);
  const Eigen::VectorXd root = exchange_->reflectance.cwiseSqrt();
  const double known = known_direct_lm.sum(), factor = known > 0 ? direct_lm.sum() / known : 0;
  const Eigen::VectorXd start =
      factor * known_lx + first_guess(area, root, direct_lm - factor * known_direct_lm);
  return reflected(
             area, root, [&](const Eigen::VectorXd& x) { return exchange_->areas.times(x); }, direct_lm,
             residual, &start)
      .cwiseMax(0.0);
}

Eigen::VectorXd LightBalance::solve_coarse(const Eigen::VectorXd& direct_lm, const Eigen::VectorXd& lux,
                                           const Eigen::VectorXd& reflectance) const {
  Eigen::VectorXd root = Eigen::VectorXd::Zero(Eigen::Index(patches_->coarse_groups()));
  for (std::size_t i = 0; i < patches_->size(); ++i)
    root[patches_->patches()[i].coarse] = std::sqrt(reflectance[Eigen::Index(i)]);
  const Eigen::MatrixXf& areas = exchange_->coarse_areas;
  const Times times = [&](const Eigen::VectorXd& x) {
    return areas.size() > 0 ? Eigen::VectorXd((areas * x.cast<float>()).cast<double>())
                            : joined(exchange_->areas.times(spread(x)));
  };
  const Eigen::VectorXd area = joined(exchange_->visible_area_m2).cwiseMax(kNoArea);
  const Eigen::VectorXd start = joined(exchange_->visible_area_m2.cwiseProduct(lux)).cwiseQuotient(area);
  const System system{area, std::move(root), times,
                      [&](const Eigen::VectorXd& light) { return joined(passed_on(spread(light))); }};
  double residual = 0;
  // With scattering panes the known light holds what they pass, which is solved for apart.
  const bool passing = exchange_->any_passing;
  return spread(system.solve(joined(direct_lm), passing, residual, passing ? nullptr : &start));
}

Eigen::VectorXd LightBalance::leaving(const Eigen::VectorXd& direct_lm, const Eigen::VectorXd& lux,
                                      const Eigen::VectorXd& reflectance) const {
  const Eigen::VectorXd fine = exitance(*exchange_, *patches_, reflectance, lux);
  if (patches_->size() == 0) return fine;
  const Eigen::VectorXd coarse =
      exitance(*exchange_, *patches_, reflectance, solve_coarse(direct_lm, lux, reflectance));
  // Never darker than none.
  return (fine + kStillMissing * (fine - coarse)).cwiseMax(0.0);
}

}  // namespace glow::transport
