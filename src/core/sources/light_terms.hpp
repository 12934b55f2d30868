#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <vector>

#include "core/geometry/vec.hpp"

namespace glow::sources {

/// One direction in which a luminaire is looked at, and how much its intensity there counts.
struct LightTerm {
  float c_deg = 0, gamma_deg = 0;
  float weight = 0;  ///< lx, or lm, for each cd
};

class LightTerms;

/// A stretch of a tape. Sums and multiples of stretches that were recorded one after the other are again
/// stretches, so the arithmetic that adds up light, done with these instead of numbers, leaves its weights on
/// the tape.
class LightStretch {
 public:
  LightStretch() = default;
  LightStretch(LightTerms* tape, std::size_t begin, std::size_t end)
      : tape_(tape), begin_(begin), end_(end) {}
  bool empty() const { return begin_ == end_; }
  LightStretch& operator*=(double factor);
  LightStretch& operator+=(const LightStretch& other) {
    if (other.empty()) return *this;
    if (empty()) return *this = other;
    begin_ = std::min(begin_, other.begin_);
    end_ = std::max(end_, other.end_);
    return *this;
  }

 private:
  LightTerms* tape_ = nullptr;
  std::size_t begin_ = 0, end_ = 0;
};

inline LightStretch operator*(double factor, LightStretch stretch) {
  return stretch *= factor;
}
inline LightStretch operator+(LightStretch a, const LightStretch& b) {
  return a += b;
}

/// Directions and weights, in the order they were looked at.
class LightTerms {
 public:
  /// One cd in a direction with these components along C0, C90 and gamma 0.
  LightStretch record(const Vec3& along) {
    const double across = std::hypot(along.x(), along.y());
    double c = std::atan2(along.y(), along.x()) / kDegree;
    if (c < 0) c += 360;
    const double gamma = std::atan2(across, along.z()) / kDegree;
    terms_.push_back({c < 360 ? float(c) : 0.0f, std::min(float(gamma), 180.0f), 1.0f});
    return {this, terms_.size() - 1, terms_.size()};
  }
  const std::vector<LightTerm>& terms() const { return terms_; }
  std::size_t size() const { return terms_.size(); }

 private:
  friend class LightStretch;
  std::vector<LightTerm> terms_;
};

inline LightStretch& LightStretch::operator*=(double factor) {
  for (std::size_t i = begin_; i < end_; ++i) tape_->terms_[i].weight *= float(factor);
  return *this;
}

/// Whether nothing comes: the same question of a number and of a stretch.
inline bool is_dark(double light) {
  return light <= 0;
}
inline bool is_dark(const LightStretch& light) {
  return light.empty();
}

}  // namespace glow::sources
