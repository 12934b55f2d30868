#pragma once

#include "core/daylight/glazing.hpp"
#include "core/geometry/ray_tracer.hpp"

namespace glow::sources {

inline constexpr double kBehindPane =
    2 * geometry::kStartOffset;  ///< m: rays through an opening start so far from it

/// A rectangle in a room's shell that daylight comes in by.
struct DaylightOpening {
  Vec3 corner, along, up;  ///< a corner and the sides from it, m, at right angles
  Vec3 outwards;           ///< unit length
  daylight::QuickGlazing glazing;
  int outer_facet = -1;      ///< of a pane that scatters: the facet that looks out; -1: none does
  double scatter_scale = 1;  ///< what it scatters, as multiples of what its material does
  daylight::Bars bars = {};  ///< that hide what is behind them
  Vec3 whole_corner = corner, whole_along = along, whole_up = up;  ///< of the opening that this is a piece of

  /// Whether there is glass at a point of it.
  bool is_clear_at(const Vec3& at) const;

  /// Where a ray meets it: nothing where it passes by; else the place.
  bool is_met(const Vec3& from, const Vec3& towards, double margin, Vec3& at) const;
  /// False only where no ray meets it from within `reach_m` of a place in directions within `margin` (rad).
  bool may_be_met(const Vec3& from, double reach_m, const Vec3& towards, double margin) const;
};

/// What shines outside at one moment.
struct OutdoorLight {
  std::vector<double> sky_cd_m2;  ///< by daylight::SkyPatches
  double diffuse_lx = 0;          ///< of the whole sky on the open ground
  Vec3 sun = Vec3::UnitZ();       ///< towards it, unit length
  double sun_normal_lx = 0;       ///< on a plane facing it; 0: none shines

  double sun_horizontal_lx() const { return sun_normal_lx * std::max(0.0, sun.z()); }
  double global_lx() const { return diffuse_lx + sun_horizontal_lx(); }
};

}  // namespace glow::sources
