#pragma once

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
    if (tally.hits_.size() < patch_count) {
      tally.hits_.resize(patch_count, 0);
      tally.met_.resize(patch_count / 64 + 1, 0);
    }
    return tally;
  }

  void add(int patch) {
    ++hits_[std::size_t(patch)];
    met_[std::size_t(patch) / 64] |= std::uint64_t{1} << (std::size_t(patch) % 64);
  }

  /// Calls visit(patch, hits) by rising patch number and empties the tally.
  template <class Visit>
  void take(Visit&& visit) {
    for (std::size_t word = 0; word < met_.size(); ++word)
      for (; met_[word] != 0; met_[word] &= met_[word] - 1) {
        const std::size_t patch = word * 64 + std::size_t(__builtin_ctzll(met_[word]));
        visit(static_cast<std::int32_t>(patch), hits_[patch]);
        hits_[patch] = 0;
      }
  }

 private:
  std::vector<std::int32_t> hits_;  // all 0 between uses
  std::vector<std::uint64_t> met_;  // a bit for each patch with hits
};

}  // namespace glow::transport
