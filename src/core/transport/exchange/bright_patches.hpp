#pragma once

#include <vector>

#include "core/readings/receiver.hpp"
#include "core/transport/exchange/exchange.hpp"

namespace glow::transport {

/// lx at a receiver for each lm/m2 that leaves a patch, found by looking at it.
double lux_by_sight(const PatchSet& patches, const geometry::RayTracer& tracer,
                    const readings::Receiver& receiver, int patch);
/// Whether looking is good enough: near patches are met by rays enough.
bool is_far(const PatchSet& patches, const readings::Receiver& receiver, int patch);

/// lx at a receiver for each lm/m2 that leaves a patch: a far one by sight, a near one by what its rays hit.
double lux_of(const PatchSet& patches, const geometry::RayTracer& tracer, const readings::Receiver& receiver,
              const std::int32_t* hits, std::int64_t rays, int patch);

/// The few patches that are far brighter than the rest: places beside a luminaire, under a narrow beam. Too
/// few of a receiver's rays meet them to tell how much light they give, so that is found by looking at them.
class BrightPatches {
 public:
  static constexpr std::size_t kMost = 32;
  static constexpr double kBrighter = 8;  ///< than the mean exitance
  static constexpr double kFar = 2;       ///< patch diagonals; a nearer patch is met by rays enough

  /// `exitance` in lm/m2. Finds none where there are mirrors, since rays see patches over them and looking
  /// does not; unless `by_sight_only` says that what is seen over mirrors is cared for otherwise.
  BrightPatches(const PatchSet& patches, const Eigen::VectorXd& exitance, bool by_sight_only = false);

  /// Whether some patch is so bright that it is looked at on its own.
  bool any() const { return !hot_.empty(); }
  /// Exitance of the patches that are left to rays, the hot ones 0.
  const Eigen::VectorXd& left_to_rays() const { return left_to_rays_; }
  /// Their numbers, the brightest first.
  const std::vector<int>& hot() const { return hot_; }
  /// lx at the receiver from all hot patches; what its rays hit as of lux_of.
  double illuminance(const geometry::RayTracer& tracer, const readings::Receiver& receiver,
                     const std::int32_t* hits, std::int64_t rays) const;

 private:
  const PatchSet* patches_;
  const Eigen::VectorXd* exitance_;
  Eigen::VectorXd left_to_rays_;
  std::vector<int> hot_;
};

}  // namespace glow::transport
