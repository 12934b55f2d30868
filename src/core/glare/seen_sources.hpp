#pragma once

#include <cmath>
#include <vector>

#include "core/geometry/occluders.hpp"
#include "core/geometry/ray_tracer.hpp"
#include "core/photometry/luminous_faces.hpp"
#include "core/photometry/placed_luminaire.hpp"

namespace glow::glare {

/// Luminaires at one place, as an eye sees them, whichever way it looks.
struct SeenSource {
  std::size_t source = 0;  ///< number among GlareSources::sources()
  Vec3 middle = Vec3::Zero();
  double distance_m = 0;
  double intensity_cd = 0;       ///< towards the eye, as if nothing lay between
  double projected_area_m2 = 0;  ///< of the luminous parts, sides with them; 0: the file states no size
  double seen_share = 1;         ///< of that area, by what lies between
  double passed = 1;             ///< mean transmittance of the panes that the rest is seen through

  double luminance_cd_m2() const { return passed * intensity_cd / projected_area_m2; }
  double solid_angle_sr() const { return seen_share * projected_area_m2 / (distance_m * distance_m); }
};

/// How much of a source an eye sees past what lies between.
struct Visibility {
  double seen_share = -1;  ///< of the luminous area; negative: not looked at
  double passed = 1;       ///< mean transmittance of the panes that it is seen through
};

/// What is known of sources from one place, whatever they are dimmed to.
struct KnownFromPlace {
  /// One luminaire at full output; NaN: not known.
  struct Luminaire {
    double intensity_cd = NAN, projected_area_m2 = NAN;
  };
  KnownFromPlace() = default;
  KnownFromPlace(std::size_t sources, std::size_t count) : seen(sources), luminaires(count) {}

  std::vector<Visibility> seen;       ///< by sources
  std::vector<Luminaire> luminaires;  ///< as they were added
};

/// The luminaires of a room as sources of glare.
///
/// Luminaires whose luminous middles coincide are one source: their luminances add, which a sum over sources
/// must not see as two (the formulas go with the square of the luminance).
class GlareSources {
 public:
  struct Part {
    std::size_t luminaire;  ///< as they were added
    photometry::PlacedLuminaire placed;
    double share;  ///< of full output
  };
  struct Source {
    std::vector<Part> parts;
    photometry::LuminousSurface surface;  ///< of the first part
    Vec3 middle() const { return parts.front().placed.frame.origin; }
  };

  /// Takes a luminaire at `share` of its output; returns its number.
  std::size_t add(const photometry::PlacedLuminaire& luminaire, double share);

  const std::vector<Source>& sources() const { return sources_; }
  std::size_t luminaires() const { return luminaires_; }
  /// What sends light towards the eye. `tracer` null: nothing can hide anything. `known`: what is known of
  /// all sources and luminaires from there; what is not is found, and noted in it.
  std::vector<SeenSource> seen_from(const Vec3& eye, const geometry::RayTracer* tracer,
                                    const geometry::Occluders* occluders,
                                    KnownFromPlace* known = nullptr) const;

 private:
  static Visibility look(const Source& source, const Vec3& eye, const geometry::RayTracer& tracer);
  /// `way`: from the luminaire to the eye, unit length.
  static KnownFromPlace::Luminaire look(const photometry::PlacedLuminaire& placed, const Vec3& way);

  std::vector<Source> sources_;
  std::size_t luminaires_ = 0;
};

}  // namespace glow::glare
