#pragma once

#include <memory>

#include "core/geometry/geometry.hpp"
#include "core/geometry/ray_block.hpp"

namespace glow::geometry {

/// Distance by which a ray starts off the surface it leaves, m. Found by experiment: with a local origin,
/// 1e-4 keeps every ray of a 1 km space off its own surface, and 1e-6 is enough near the origin.
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
  /// First thing met from `origin` (local) along `direction` (unit length); two-sided surfaces are met on the
  /// side that is looked at. Facets of `owner` are passed through.
  Hit nearest(const Vec3f& origin, const Vec3f& direction, int owner = kNobody) const;
  /// The same for all rays of a block, quicker than one by one; hits[i] is of ray i.
  void nearest(const RayBlock& rays, Hit* hits) const;
  /// The same for rays that go side by side, as those of neighbouring pixels do: several at a time, quicker
  /// for these. Where two facets are met at the very same distance, either may be told.
  void nearest_side_by_side(const RayBlock& rays, Hit* hits) const;
  /// Share of light, 0 to 1, that passes straight from one world point to the other: 0 where something opaque
  /// lies strictly between, else the product of the panes' clear transmittances. kStartOffset before `to`
  /// does not count; facets of `owner` do not either.
  float passed(const Vec3& from, const Vec3& to, int owner = kNobody) const;
  /// Traces and tells only whether anything was met: for measuring what the tracer alone costs.
  bool bare_nearest(const Vec3f& origin, const Vec3f& direction) const;

 private:
  struct Scene;
  struct Query;
  struct Arrays;
  void attach(const Arrays& arrays, unsigned number);
  void settle_sides(const RayBlock& rays, Hit* hits) const;

  std::unique_ptr<Scene> space_;
};

}  // namespace glow::geometry
