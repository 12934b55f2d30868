#pragma once

namespace glow::sources {

/// Light that comes straight, and how far its sum over a luminous area may be off: lx. Sums and multiples of
/// it carry their errors along, as if all went the same way.
struct DirectLux {
  double lux = 0;
  double error = 0;  ///< 0 or more

  DirectLux& operator+=(const DirectLux& other) {
    lux += other.lux;
    error += other.error;
    return *this;
  }
  DirectLux& operator*=(double factor) {
    lux *= factor;
    error *= factor;
    return *this;
  }
};

inline DirectLux operator*(double factor, DirectLux light) {
  return light *= factor;
}
inline DirectLux operator+(DirectLux a, const DirectLux& b) {
  return a += b;
}

/// Whether nothing comes.
inline bool is_dark(const DirectLux& light) {
  return light.lux <= 0 && light.error <= 0;
}

}  // namespace glow::sources
