#pragma once

#include <memory>

#include "core/geometry/geometry.hpp"

namespace glow::geometry {

/// Distance by which a ray starts off the surface it leaves, m. Found by experiment: with a local origin,
/// 1e-4 keeps every ray of a 1 km scene off its own surface, and 1e-6 is enough near the origin.
inline constexpr double kStartOffset = 1e-4;

struct Hit {
  int facet = -1;      ///< -1: nothing was met
  float distance = 0;  ///< m
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

  /// World point in the coordinates of rays.
  Vec3f local(const Vec3& world) const;
  /// First thing met from `origin` (local) along `direction` (unit length).
  Hit nearest(const Vec3f& origin, const Vec3f& direction) const;
  /// Whether anything lies strictly between the two world points; kStartOffset before `to` does not count.
  bool blocked(const Vec3& from, const Vec3& to) const;
  /// Traces and tells only whether anything was met: for measuring what the tracer alone costs.
  bool bare_nearest(const Vec3f& origin, const Vec3f& direction) const;

 private:
  struct Scene;
  std::unique_ptr<Scene> scene_;
};

}  // namespace glow::geometry
