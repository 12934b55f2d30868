#pragma once

#include <array>
#include <atomic>
#include <map>
#include <mutex>
#include <vector>

#include "core/transport/transport.hpp"

namespace glow::transport {

/// How sure one number is that adds up from interreflected light at receivers: what it would be with each of
/// the independent sample sets alone, less what it is, and what the correction for the size of the patches
/// comes to: it may be off by as much. lx.
struct Deviations {
  std::array<double, kSets> of_sets{};
  double of_coarse_patches = 0;
};

/// A single point hangs on fewer patches than a mean: their sizes' errors do not even out in it. By so much
/// its correction for them may be off.
inline constexpr double kSizesAtOnePoint = 1.5;

/// How far the interreflected light of a whole space may be off. Safe to call from any thread.
class NumericalError {
 public:
  virtual ~NumericalError() = default;
  /// Of such a sum of interreflected light.
  virtual Deviations deviations(const WeightedSum& sum) const = 0;
  /// Interreflected light at one receiver in each set, by what it sees alone; lx.
  virtual std::array<double, kSets> sets_at(std::size_t receiver) const = 0;
  /// Whether single receivers are not worth a solution of their own.
  virtual bool is_lean(std::size_t receiver) const = 0;
};

/// Covers chance in what receivers see,
/// in the exchange between patches and in the shadows on patches, each from the same sets of rays that gave
/// the result; and the size of the patches. The effect of chance in the exchange areas on a sum is found to
/// first order through the adjoint solution (Importance), with the closing of the exchange taken along.
class LightError : public NumericalError {
 public:
  /// Both must outlive this.
  LightError(const Transport& transport, const GroupLight& light);

  /// It looks with a quarter of the rays.
  bool is_lean(std::size_t receiver) const override { return transport_->receivers()[receiver].lean; }
  Deviations deviations(const WeightedSum& sum) const override;
  std::array<double, kSets> sets_at(std::size_t receiver) const override;

 private:
  const Transport* transport_;
  const GroupLight* light_;
  Eigen::VectorXd exitance_, coarse_exitance_;
  Eigen::MatrixXd landing_lm_;  ///< by patch and set: what would land beside what does, by that set alone
};

/// Of light of which none is reflected.
class NothingReflected : public NumericalError {
 public:
  bool is_lean(std::size_t) const override { return false; }
  Deviations deviations(const WeightedSum&) const override { return {}; }
  std::array<double, kSets> sets_at(std::size_t) const override { return {}; }
};

/// The same as another, which must outlive it, found once for each question. Of single receivers, of which
/// there are many, it is asked without waiting for other threads.
class RememberedError : public NumericalError {
 public:
  RememberedError(const NumericalError& error, std::size_t receivers)
      : error_(&error), states_(receivers), sets_(receivers) {}
  bool is_lean(std::size_t receiver) const override { return error_->is_lean(receiver); }
  Deviations deviations(const WeightedSum& sum) const override;
  std::array<double, kSets> sets_at(std::size_t receiver) const override;

 private:
  const NumericalError* error_;
  enum State : char { unknown, being_written, known };
  mutable std::mutex mutex_;
  mutable std::map<WeightedSum, Deviations> deviations_;
  mutable std::vector<std::atomic<char>> states_;  ///< by receivers
  mutable std::vector<std::array<double, kSets>> sets_;
};

}  // namespace glow::transport
