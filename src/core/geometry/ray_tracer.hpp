#pragma once

#include <memory>

#include "core/geometry/geometry.hpp"

namespace glow::geometry {

/// Distance by which a ray starts off the surface it leaves, m. Found by experiment: with a local origin,
/// 1e-4 keeps every ray of a 1 km scene off its own surface, and 1e-6 is enough near the origin.
inline constexpr double kStartOffset = 1e-4;

struct Hit {
  int facet = -1;       ///< -1: nothing was met
  double distance = 0;  ///< m
  bool from_behind = false;
};

/// Finds what a ray meets. Thread-safe once made; the same answers on every machine (one instruction set is
/// used).
class RayTracer {
 public:
  explicit RayTracer(const Geometry& geometry);
  ~RayTracer();
  RayTracer(RayTracer&&) noexcept;
  RayTracer& operator=(RayTracer&&) noexcept;

  /// First thing met from `origin` along `direction` (unit length).
  Hit nearest(const Vec3& origin, const Vec3& direction) const;
  /// Whether anything lies strictly between the two points; kStartOffset before `to` does not count.
  bool blocked(const Vec3& from, const Vec3& to) const;

  /// Bare tracing of one prepared ray in the tracer's own coordinates, for measuring what the tracer alone
  /// costs. `origin` and `direction` as for nearest(); gives whether anything was met.
  bool bare_nearest(const float origin[3], const float direction[3]) const;
  /// World point in the tracer's own coordinates, single precision.
  void to_local(const Vec3& world, float local[3]) const;

 private:
  struct Scene;
  std::unique_ptr<Scene> scene_;
};

}  // namespace glow::geometry
