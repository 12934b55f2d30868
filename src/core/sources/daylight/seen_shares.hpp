#pragma once

#include <cstdint>
#include <vector>

#include "core/transport/effort.hpp"

namespace glow::sources {

/// What a place sees of one thing outside, in one set of rays. Small, as each moment reads all of them.
class SeenShare {
 public:
  SeenShare(float share_of_target, std::int32_t target, int set)
      : share(share_of_target), packed_(std::uint32_t(target) * transport::kSets + std::uint32_t(set)) {}
  float share;  ///< for each cd/m2 of the target: lx at a receiver, lm on a patch
  std::int32_t target() const { return std::int32_t(packed_ / transport::kSets); }
  std::size_t set() const { return packed_ % transport::kSets; }

 private:
  std::uint32_t packed_;
};

/// Adds up what many rays of one place see.
class SeenShares {
 public:
  explicit SeenShares(std::size_t targets)
      : targets_(targets), sums_(transport::kSets * targets), seen_(sums_.size() / kBits + 1) {}

  void add(const SeenShare& ray) {
    const std::size_t at = ray.set() * targets_ + std::size_t(ray.target());
    sums_[at] += ray.share;
    seen_[at / kBits] |= std::uint64_t(1) << at % kBits;
  }

  /// By sets, and in each by targets.
  std::vector<SeenShare> all() const {
    std::vector<SeenShare> shares;
    for (std::size_t word = 0; word < seen_.size(); ++word)
      for (std::uint64_t bits = seen_[word]; bits != 0; bits &= bits - 1) {
        const std::size_t at = word * kBits + std::size_t(__builtin_ctzll(bits));
        shares.emplace_back(sums_[at], std::int32_t(at % targets_), int(at / targets_));
      }
    shares.shrink_to_fit();
    return shares;
  }

 private:
  static constexpr std::size_t kBits = 64;
  std::size_t targets_;
  std::vector<float> sums_;
  std::vector<std::uint64_t> seen_;  ///< a bit for each sum
};

}  // namespace glow::sources
