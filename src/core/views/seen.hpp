#pragma once

#include <vector>

#include "core/geometry/camera.hpp"
#include "core/views/reflected_field.hpp"
#include "core/views/seen_luminaires.hpp"

namespace glow::views {

/// A surface that scatters, seen straight or over mirrors and through glass.
struct SeenSurface {
  std::uint64_t key = 0;     ///< alike for neighbours that see the same facet by the same way; 0: none
  Place place;               ///< from Sight::follow, its pixel_m is the way there
  double share = 0;          ///< of its exitance over pi that arrives: reflectance and what lies between
  Vec3 tint = Vec3::Ones();  ///< of what it throws back, in bands
};

/// All that a line of sight meets.
struct Seen {
  bool with_light = true;  ///< asked for: false, where the surfaces alone matter, leaves `light` dark
  std::vector<SeenSurface> surfaces;  ///< the one that is met first, first
  std::vector<double> light;  ///< cd/m2 that need no more light to be found: luminaires, what is outside,
                              ///< gloss; by RoomSources::layers(), empty: none of it
  double depth_m = 0;         ///< infinite: nothing is met
  Vec3 normal = Vec3::Zero();
  int surface = -1;
};

/// Follows lines of sight through a room: to surfaces, over mirrors and gloss, through glass, to luminaires
/// and what is outside.
class Sight {
 public:
  static constexpr std::size_t kMostSurfaces = 4;  ///< along one line of sight

  /// All must outlive it. `from_outside`: see Camera. `gloss_rays`: into a lobe.
  Sight(const RoomSources& sources, const SeenLuminaires& luminaires, bool from_outside, int gloss_rays);

  void follow(const geometry::SightLine& sight, Seen& seen) const;
  /// The same where it is known what of the room is met first.
  void follow(const geometry::SightLine& sight, const geometry::Hit& first, Seen& seen) const;
  const geometry::RayTracer& tracer() const { return tracer_; }

 private:
  struct Way {
    Vec3 from, along;
    double share = 1, length_m = 0;
    std::uint64_t key = 0;
    int turns = 0;
  };
  void follow(const Way& way, Seen& seen) const;
  void follow(Way way, geometry::Hit hit, Seen& seen) const;
  void meet(const Way& way, const geometry::Hit& hit, Seen& seen) const;
  void look_out(const Way& way, const Vec3& at, const space::Opening& opening, Seen& seen) const;
  void add_surface(const Way& way, int facet, const Vec3& at, const Vec3& normal, double share,
                   const Vec3& tint, Seen& seen) const;
  void glance(const Vec3& from, const Vec3& along, double share, Seen& seen) const;
  void add_gloss(const Way& way, const Vec3& at, const Vec3& normal, const geometry::Material& material,
                 double share, Seen& seen) const;
  std::vector<double>& dark() const;
  double* light_of(Seen& seen) const;
  void add_light(const double* of_sources, Seen& seen) const;
  bool is_seen_through(const geometry::Hit& hit) const;

  const RoomSources& sources_;
  const SeenLuminaires& luminaires_;
  const geometry::Geometry& geometry_;
  const geometry::RayTracer& tracer_;
  std::vector<int> opening_of_facet_;               ///< -1: no pane of one
  std::vector<std::vector<double>> on_luminaires_;  ///< by bodies: lx by layers that fall on them
  bool from_outside_;
  int gloss_rays_;
};

}  // namespace glow::views
