#pragma once

#include <algorithm>
#include <cstdint>
#include <vector>

namespace glow::transport {

/// Counts how often each patch was met, and lists the counts by rising patch number. One for each thread;
/// counting goes on in the same memory.
class HitTally {
 public:
  /// The calling thread's own, empty, for patches 0..patch_count - 1.
  static HitTally& of_this_thread(std::size_t patch_count) {
    thread_local HitTally tally;
    tally.hits_.resize(std::max(tally.hits_.size(), patch_count), 0);
    return tally;
  }

  void add(int patch) {
    if (hits_[std::size_t(patch)]++ == 0) met_.push_back(patch);
  }

  /// Calls visit(patch, hits) by rising patch number and empties the tally.
  template <class Visit>
  void take(Visit&& visit) {
    std::sort(met_.begin(), met_.end());
    for (const std::int32_t patch : met_) {
      visit(patch, hits_[std::size_t(patch)]);
      hits_[std::size_t(patch)] = 0;
    }
    met_.clear();
  }
  std::size_t patches_met() const { return met_.size(); }

 private:
  std::vector<std::int32_t> hits_;  // all 0 between uses
  std::vector<std::int32_t> met_;
};

}  // namespace glow::transport
