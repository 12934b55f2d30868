#pragma once

#include <optional>
#include <utility>
#include <vector>

#include "core/geometry/ray_tracer.hpp"
#include "core/photometry/luminous_faces.hpp"
#include "core/space/space.hpp"

namespace glow::views {

/// The luminous areas of a room's luminaires, as they are seen.
class SeenLuminaires {
 public:
  explicit SeenLuminaires(const space::Space& space);

  /// A luminous area on a line of sight. Luminaires at one place are one.
  struct Seen {
    int body = -1;
    double distance_m = 0;
  };
  std::size_t bodies() const { return bodies_.size(); }
  /// The middle of a luminous area, and where it looks.
  std::pair<Vec3, Vec3> middle_of(std::size_t body) const {
    const geometry::Frame& frame = bodies_[body].parts.front().luminaire->frame;
    return {frame.origin, frame.g0};
  }
  /// The nearest one within `reach` m; nothing: there is none.
  std::optional<Seen> nearest(const Vec3& from, const Vec3& along, double reach) const;
  /// Adds what each group shows of it towards an eye, cd/m2 at full output, times `share`, to
  /// luminance[group]. Gives whether it shows any light.
  bool add(int body, const Vec3& towards_eye, double share, double* luminance) const;

 private:
  struct Part {
    std::size_t group;
    const photometry::PlacedLuminaire* luminaire;
  };
  struct Body {
    photometry::LuminousSurface surface;
    std::vector<Part> parts;
  };
  std::vector<Body> bodies_;
  geometry::Geometry geometry_;  ///< a surface for each body
  Eigen::AlignedBox3d box_;      ///< around all of it: most lines of sight stay outside
  std::optional<geometry::RayTracer> tracer_;
};

}  // namespace glow::views
