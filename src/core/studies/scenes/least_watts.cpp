#include "core/studies/scenes/least_watts.hpp"

#include <algorithm>
#include <cmath>

#include "core/studies/scenes/linear_programme.hpp"

namespace glow::studies {
namespace {

using standards::Check;
using standards::Quantity;

constexpr double kSurely = 1.1;     // times the uncertainty as placed
constexpr double kMostDoubt = 0.2;  // of a value: more is not made up for by light
constexpr double kLacking = 1e6;    // W for a condition that is missed by all of it: before all power

/// The rows that one condition makes.
struct Condition {
  const Check* check = nullptr;
  std::vector<LinearProgramme::Row> rows;
};

class Solver {
 public:
  explicit Solver(const SceneToSolve& scene) : scene_(scene), groups_(scene.shares.size()) {
    for (const Check& check : scene.checks) {
      const Quantity quantity = check.demand.quantity;
      const bool of_grid = check.target.kind == standards::Target::Kind::grid;
      if (check.binding && of_grid &&
          (quantity == Quantity::mean_illuminance || quantity == Quantity::minimum_illuminance ||
           quantity == Quantity::uniformity))
        conditions_.push_back(condition_of(check));
    }
  }

  SolvedScene run() const {
    SolvedScene solved{scene_.shares, {}};
    std::vector<const Condition*> all;
    for (const Condition& condition : conditions_) all.push_back(&condition);
    auto shares = shares_of(all);
    solved.solution.possible = shares.has_value();
    if (!shares) {
      std::vector<const Condition*> against = impossible_alone(all);
      solved.solution.each_alone = !against.empty();
      if (against.empty()) against = contradicting(all);
      for (const Condition* condition : against) solved.solution.contradicting.push_back(*condition->check);
      shares = nearest();
    }
    if (shares) solved.shares.assign(shares->data(), shares->data() + shares->size());
    return solved;
  }

 private:
  /// Maintained lx of each group as placed, at a receiver.
  Eigen::VectorXd light_at(std::size_t receiver) const {
    Eigen::VectorXd lux(groups_);
    for (std::size_t g = 0; g < groups_; ++g)
      lux[Eigen::Index(g)] = scene_.planned[g].maintained() * scene_.lighting.sources()[g].total_lx(receiver);
    return lux;
  }

  Condition condition_of(const Check& check) const {
    const std::vector<std::size_t>& receivers = scene_.setting.judged()[check.target.id].receivers;
    Eigen::VectorXd mean = Eigen::VectorXd::Zero(groups_);
    for (const std::size_t r : receivers) mean += light_at(r) / double(receivers.size());
    const double doubt =
        check.actual > 0 ? std::min(kMostDoubt, kSurely * check.uncertainty / check.actual) : 0;
    const double required = check.demand.required * (1 + doubt);
    Condition condition{&check, {}};
    if (check.demand.quantity == Quantity::mean_illuminance) condition.rows.push_back({mean, required});
    for (const std::size_t r : receivers) {
      if (check.demand.quantity == Quantity::minimum_illuminance)
        condition.rows.push_back({light_at(r), required});
      if (check.demand.quantity == Quantity::uniformity)
        condition.rows.push_back({light_at(r) - required * mean, 0});
    }
    return condition;
  }

  LinearProgramme programme_of(const std::vector<const Condition*>& conditions) const {
    LinearProgramme programme;
    programme.cost.resize(groups_);
    programme.low.resize(groups_);
    programme.high.resize(groups_);
    for (std::size_t g = 0; g < groups_; ++g) {
      const Eigen::Index i = Eigen::Index(g);
      programme.cost[i] = scene_.watts[g];
      programme.low[i] = scene_.is_free[g] ? 0 : scene_.shares[g];
      programme.high[i] = scene_.is_free[g] ? 1 : scene_.shares[g];
    }
    for (const Condition* condition : conditions)
      programme.rows.insert(programme.rows.end(), condition->rows.begin(), condition->rows.end());
    return programme;
  }

  std::optional<Eigen::VectorXd> shares_of(const std::vector<const Condition*>& conditions) const {
    return solve(programme_of(conditions));
  }

  std::vector<const Condition*> impossible_alone(const std::vector<const Condition*>& conditions) const {
    std::vector<const Condition*> alone;
    for (const Condition* condition : conditions)
      if (!shares_of({condition})) alone.push_back(condition);
    return alone;
  }

  /// Leaves out one after the other of those without which it is impossible still.
  std::vector<const Condition*> contradicting(std::vector<const Condition*> conditions) const {
    for (std::size_t k = 0; k < conditions.size();) {
      std::vector<const Condition*> fewer = conditions;
      fewer.erase(fewer.begin() + std::ptrdiff_t(k));
      if (shares_of(fewer))
        ++k;
      else
        conditions = std::move(fewer);
    }
    return conditions;
  }

  /// The same with something in hand for each condition, which costs more than all power.
  std::optional<Eigen::VectorXd> nearest() const {
    std::vector<const Condition*> all;
    for (const Condition& condition : conditions_) all.push_back(&condition);
    LinearProgramme programme = programme_of(all);
    const Eigen::Index wide = Eigen::Index(groups_ + conditions_.size());
    for (Eigen::VectorXd* list : {&programme.cost, &programme.low, &programme.high})
      list->conservativeResize(wide);
    std::size_t row = 0;
    for (std::size_t k = 0; k < conditions_.size(); ++k) {
      const Eigen::Index lacking = Eigen::Index(groups_ + k);
      programme.cost[lacking] = kLacking;
      programme.low[lacking] = 0;
      programme.high[lacking] = 1e9;
      for (std::size_t i = 0; i < conditions_[k].rows.size(); ++i, ++row) {
        Eigen::VectorXd& factors = programme.rows[row].factors;
        const double scale = std::max(programme.rows[row].least, factors.cwiseAbs().maxCoeff());
        factors.conservativeResize(wide);
        factors.tail(wide - Eigen::Index(groups_)).setZero();
        factors[lacking] = std::max(scale, 1e-9);
      }
    }
    auto solved = solve(programme);
    if (solved) solved->conservativeResize(Eigen::Index(groups_));
    return solved;
  }

  const SceneToSolve& scene_;
  std::size_t groups_;
  std::vector<Condition> conditions_;
};

}  // namespace

SolvedScene least_watts(const SceneToSolve& scene) {
  return Solver(scene).run();
}

}  // namespace glow::studies
