#pragma once

#include <Eigen/Core>
#include <map>
#include <memory>
#include <mutex>
#include <utility>
#include <vector>

#include "core/transport/exchange/exchange.hpp"

namespace glow::transport {

/// A sum over receivers, by their numbers: what each counts in it, 0 or more (light is solved for as such).
using WeightedSum = std::vector<std::pair<std::size_t, double>>;

/// How much each patch counts in a sum over receivers.
struct Importance {
  Eigen::VectorXd leaving;  ///< lx of the sum for each lm/m2 that leaves the patch, as receivers see it
  Eigen::VectorXd landing;  ///< for each lm that lands on it, with all that follows: the adjoint solution
};

/// Importances for the sums that were asked for, as many of them kept as a bound of memory allows: variants
/// and moments ask for the same. Safe to call from any thread.
class Importances {
 public:
  /// All must outlive it.
  Importances(const PatchSet& patches, const TracedHits& hits, const Exchange& exchange)
      : patches_(&patches), hits_(&hits), exchange_(&exchange) {}

  /// By patches; never null.
  std::shared_ptr<const Importance> of(const WeightedSum& sum) const;

 private:
  const PatchSet* patches_;
  const TracedHits* hits_;
  const Exchange* exchange_;
  mutable std::mutex mutex_;
  mutable std::map<WeightedSum, std::shared_ptr<const Importance>> known_;
  mutable std::size_t numbers_ = 0;  // in what is known
};

}  // namespace glow::transport
