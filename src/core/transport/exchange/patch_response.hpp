#pragma once

#include <memory>

#include "core/transport/exchange/light_balance.hpp"

namespace glow::transport {

/// What leaves each patch for light that falls straight on any of them, for many such lights at once: the
/// balance of LightBalance, taken apart once and solved directly. Symmetric: what a lumen on patch i makes
/// leave patch j is what one on j makes leave i, so that it answers backwards as well.
class PatchResponse {
 public:
  /// `corrected`: for the size of the patches, as LightBalance::leaving does. All must outlive it.
  PatchResponse(const PatchSet& patches, const Exchange& exchange, bool corrected);
  ~PatchResponse();

  /// lm/m2 that leave each patch, for each column of lm straight on each.
  Eigen::MatrixXf leaving(const Eigen::MatrixXf& onto_lm, const Watch& watch) const;

  /// Of more patches each light is solved by itself: taking the balance apart would cost more.
  static constexpr std::size_t kMostAtOnce = 4000;

 private:
  class Direct;
  Eigen::MatrixXf leaving_at_once(const Eigen::MatrixXf& onto_lm) const;

  const PatchSet* patches_;
  const Exchange* exchange_;
  bool corrected_;
  std::unique_ptr<const Direct> fine_, coarse_;  ///< null: each light is solved by itself
};

}  // namespace glow::transport
