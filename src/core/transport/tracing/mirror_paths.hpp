#pragma once

#include <vector>

#include "core/geometry/ray_tracer.hpp"

namespace glow::transport {

/// A way of light over flat mirrors: the facets that it meets, from the source to the eye.
using MirrorPath = std::vector<int>;

/// Ways over up to kMostMirrors mirrors from any source, as long as their number stays below kMostPaths for
/// one place. Rougher or more numerous mirrors are not followed to receivers (their light still reaches the
/// patches).
class MirrorPaths {
 public:
  static constexpr int kMostMirrors = 3;
  static constexpr std::size_t kMostPaths = 120;

  /// Finds the mirrors among the facets. The geometry must outlive this.
  explicit MirrorPaths(const geometry::Geometry& geometry);
  /// Whether there is a mirror that is followed.
  bool any() const { return orders_ > 0; }

  /// All ways that light from `source` can take: those whose mirrors face what they mirror.
  std::vector<MirrorPath> from(const Vec3& source) const;
  /// Where a point of the source seems to be for who looks at it over the mirrors, and which way a direction
  /// then seems to go: frames come out left-handed after an odd number of mirrors.
  Vec3 image_of_point(const MirrorPath& path, const Vec3& point) const;
  /// Likewise of a direction.
  Vec3 image_of_direction(const MirrorPath& path, const Vec3& direction) const;
  /// Whether anything within `reach_m` of an image may be seen from `eye` in the last mirror of the way; what
  /// is ruled out passes nothing.
  bool may_show(const MirrorPath& path, const Vec3& eye, const Vec3& image, double reach_m) const;
  /// Share of the light from a point's image that reaches `eye` by that way, past all that lies between.
  /// Facets of `owner` do not hide anything.
  double passed(const MirrorPath& path, const geometry::RayTracer& tracer, const Vec3& eye, const Vec3& image,
                int owner) const;

 private:
  const geometry::Facet& facet(int number) const { return geometry_->facets()[std::size_t(number)]; }

  /// A ball round a mirror.
  struct Ball {
    Vec3 middle = Vec3::Zero();
    double radius_m = 0;
  };
  static Ball ball_round(const geometry::Facet& facet);

  const geometry::Geometry* geometry_;
  std::vector<int> mirrors_;  // facets
  std::vector<Ball> balls_;   // by facets; round those that are mirrors
  int orders_ = 0;            // mirrors after one another that are followed
};

}  // namespace glow::transport
