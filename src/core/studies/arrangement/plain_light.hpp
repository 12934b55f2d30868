#pragma once

#include "core/geometry/occluders.hpp"
#include "core/sources/direct/direct_light.hpp"

namespace glow::studies {

/// Straight light of one luminaire as that of a few points spread over its luminous part, each with the same
/// share of its intensity. Where something may be in the way, sight lines to its middle and its corners tell
/// whether all of it is seen or nothing; in penumbras light is that of DirectLight. For looking only: within
/// some per cent of DirectLight, at a fifth of its cost or less.
class PlainLight {
 public:
  /// All must outlive it.
  PlainLight(const photometry::PlacedLuminaire& luminaire, const geometry::RayTracer& tracer,
             const geometry::Occluders& occluders);

  /// lx at the receiver.
  double illuminance(const readings::Receiver& receiver) const;

 private:
  enum class Seen { all, part, nothing };
  Seen seen_from(const readings::Receiver& receiver) const;
  double from_points(const readings::Receiver& receiver, double distance) const;
  double from_point(const readings::Receiver& receiver, const Vec3& point) const;
  Vec3 at(double along_c0, double along_c90, double down) const;

  const photometry::PlacedLuminaire* luminaire_;
  const geometry::RayTracer* tracer_;
  const geometry::Occluders* occluders_;
  sources::DirectLight shaded_;
  Vec3 size_;  ///< along C0, C90 and gamma 0, of a block that has as much of everything, m
};

}  // namespace glow::studies
