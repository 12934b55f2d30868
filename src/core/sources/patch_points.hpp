#pragma once

#include <array>

#include "core/sources/direct/direct_light.hpp"
#include "core/transport/tracing/patches.hpp"
#include "core/transport/tracing/traced_hits.hpp"

namespace glow::sources {

/// Light of one luminaire on patches, found at points on them and along sight lines to them.
struct PatchPoints {
  const transport::PatchSet& patches;
  const DirectLight& light;  ///< as if nothing were hidden
  std::uint64_t seed;

  /// Whether the whole patch lies above a flat luminous area that shines downwards only (as it hangs at
  /// rest).
  bool above_downlight(std::size_t patch) const;
  /// lm, if nothing is hidden; or, with LightStretch, for any intensity table, recorded on the tape.
  template <class Value>
  Value flux_on(std::size_t patch, LightTerms* tape) const;
  /// Share that is not hidden in each sample set. Where the first sight lines agree the patch is taken as all
  /// lit or all hidden.
  std::array<float, transport::kSets> seen_in_sets(const geometry::RayTracer& tracer,
                                                   const geometry::Occluders& occluders,
                                                   std::size_t patch) const;

 private:
  template <class Value>
  Value plane(const Vec3& point, const Vec3& normal, LightTerms* tape) const;
  template <class Value>
  Value on_cell(const transport::Patch& patch, const geometry::Facet& facet, int parts,
                LightTerms* tape) const;
  template <class Value>
  Value on_triangles(const transport::Patch& patch, const geometry::Facet& facet, int parts,
                     LightTerms* tape) const;
  double distance_to(const transport::Patch& patch, const geometry::Facet& facet) const;
  float seen(const geometry::RayTracer& tracer, std::size_t patch, int set) const;
};

extern template double PatchPoints::flux_on<double>(std::size_t, LightTerms*) const;
extern template LightStretch PatchPoints::flux_on<LightStretch>(std::size_t, LightTerms*) const;

}  // namespace glow::sources
