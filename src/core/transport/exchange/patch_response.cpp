#include "core/transport/exchange/patch_response.hpp"

#include <Eigen/Cholesky>
#include <numeric>

namespace glow::transport {
namespace {

constexpr Eigen::Index kTogether = 64;  // lights
constexpr int kMostPaneRounds = 20;     // of light through scattering panes
constexpr float kLeftOver = 1e-5f;

std::vector<int> each_by_itself(std::size_t count) {
  std::vector<int> groups(count);
  std::iota(groups.begin(), groups.end(), 0);
  return groups;
}

}  // namespace

/// The balance between groups of patches: with y = sqrt(rho) E, (A - R G R) y = R direct and R =
/// diag(sqrt(rho)).
class PatchResponse::Direct {
 public:
  Direct(const PatchSet& patches, const Exchange& exchange, std::vector<int> groups, std::size_t count)
      : group_(std::move(groups)), areas_(exchange.areas.between_groups(group_, count)) {
    const Eigen::Index n = Eigen::Index(count);
    area_ = Eigen::VectorXf::Zero(n);
    root_ = area_;
    passing_ = area_;
    other_.assign(count, -1);
    for (std::size_t i = 0; i < group_.size(); ++i) {
      const Eigen::Index g = group_[i], p = Eigen::Index(i);
      area_[g] += float(exchange.visible_area_m2[p]);
      root_[g] = float(std::sqrt(exchange.reflectance[p]));
      passing_[g] = float(exchange.passing[p]);
      const int other = patches.patches()[i].other_side;
      if (other >= 0 && exchange.passing[p] > 0) other_[std::size_t(g)] = group_[std::size_t(other)];
    }
    area_ = area_.cwiseMax(float(kNoArea));
    for (std::size_t g = 0; g < count; ++g)
      if (other_[g] >= 0) panes_.push_back(int(g));
    Eigen::MatrixXf system = -(root_.asDiagonal() * areas_ * root_.asDiagonal());
    system.diagonal() += area_;
    taken_apart_.compute(system);
  }

  /// lm/m2 that leave each patch for lm straight on each.
  Eigen::MatrixXf leaving(const Eigen::MatrixXf& onto_lm) const {
    Eigen::MatrixXf light = joined(onto_lm);
    Eigen::MatrixXf out = Eigen::MatrixXf::Zero(light.rows(), light.cols());
    const float scale = light.cwiseAbs().maxCoeff();
    for (int pass = 0; pass < kMostPaneRounds; ++pass) {
      const Eigen::MatrixXf y = taken_apart_.solve(root_.asDiagonal() * light);
      const Eigen::MatrixXf reflected = root_.asDiagonal() * y;
      out += reflected;
      if (panes_.empty()) break;
      light = passed_on(light, reflected, out);
      if (light.cwiseAbs().maxCoeff() <= kLeftOver * scale) break;
    }
    return spread(out);
  }

 private:
  Eigen::MatrixXf joined(const Eigen::MatrixXf& of_patches) const {
    if (std::size_t(area_.size()) == group_.size()) return of_patches;
    Eigen::MatrixXf sums = Eigen::MatrixXf::Zero(area_.size(), of_patches.cols());
    for (std::size_t i = 0; i < group_.size(); ++i) sums.row(group_[i]) += of_patches.row(Eigen::Index(i));
    return sums;
  }
  Eigen::MatrixXf spread(const Eigen::MatrixXf& of_groups) const {
    if (std::size_t(area_.size()) == group_.size()) return of_groups;
    Eigen::MatrixXf values(Eigen::Index(group_.size()), of_groups.cols());
    for (std::size_t i = 0; i < group_.size(); ++i) values.row(Eigen::Index(i)) = of_groups.row(group_[i]);
    return values;
  }
  /// What leaves the other sides of panes, added to `out`, and where it falls, lm.
  Eigen::MatrixXf passed_on(const Eigen::MatrixXf& light, const Eigen::MatrixXf& reflected,
                            Eigen::MatrixXf& out) const {
    Eigen::MatrixXf falls = Eigen::MatrixXf::Zero(light.rows(), light.cols());
    for (const int pane : panes_) {
      const Eigen::RowVectorXf lux =
          (light.row(pane) + areas_.row(pane) * reflected) / area_[Eigen::Index(pane)];
      const Eigen::RowVectorXf leaves = passing_[Eigen::Index(pane)] * lux;
      const int other = other_[std::size_t(pane)];
      out.row(other) += leaves;
      falls.noalias() += areas_.col(other) * leaves;
    }
    return falls;
  }

  std::vector<int> group_;  // of patches
  Eigen::MatrixXf areas_;
  Eigen::VectorXf area_, root_, passing_;
  std::vector<int> other_, panes_;
  Eigen::LLT<Eigen::MatrixXf> taken_apart_;
};

PatchResponse::PatchResponse(const PatchSet& patches, const Exchange& exchange, bool corrected)
    : patches_(&patches), exchange_(&exchange), corrected_(corrected) {
  if (patches.size() == 0 || patches.size() > kMostAtOnce) return;
  fine_ = std::make_unique<const Direct>(patches, exchange, each_by_itself(patches.size()), patches.size());
  if (!corrected) return;
  std::vector<int> groups;
  for (const Patch& patch : patches.patches()) groups.push_back(patch.coarse);
  coarse_ = std::make_unique<const Direct>(patches, exchange, std::move(groups), patches.coarse_groups());
}

PatchResponse::~PatchResponse() = default;

Eigen::MatrixXf PatchResponse::leaving_at_once(const Eigen::MatrixXf& onto_lm) const {
  constexpr float kMore = float(LightBalance::kStillMissing);
  const Eigen::MatrixXf fine = fine_->leaving(onto_lm);
  if (!corrected_) return fine;
  return (1 + kMore) * fine - kMore * coarse_->leaving(onto_lm);
}

Eigen::MatrixXf PatchResponse::leaving(const Eigen::MatrixXf& onto_lm, const Watch& watch) const {
  Eigen::MatrixXf result(onto_lm.rows(), onto_lm.cols());
  if (patches_->size() == 0) return result;
  const Eigen::Index together = fine_ ? kTogether : 1;
  const LightBalance balance(*patches_, *exchange_);
  parallel_for(std::size_t((onto_lm.cols() + together - 1) / together), watch, "light between surfaces",
               [&](std::size_t block) {
                 const Eigen::Index first = Eigen::Index(block) * together;
                 const Eigen::Index width = std::min(together, onto_lm.cols() - first);
                 if (fine_) {
                   result.middleCols(first, width) = leaving_at_once(onto_lm.middleCols(first, width));
                   return;
                 }
                 const Eigen::VectorXd direct = onto_lm.col(first).cast<double>();
                 double residual = 0;
                 const Eigen::VectorXd lux = balance.solve(direct, residual);
                 const Eigen::VectorXd out = corrected_ ? balance.leaving(direct, lux, exchange_->reflectance)
                                                        : exitance(*exchange_, *patches_, lux);
                 result.col(first) = out.cast<float>();
               });
  return result;
}

}  // namespace glow::transport
