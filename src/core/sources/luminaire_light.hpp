#pragma once

#include <memory>
#include <vector>

#include "core/sources/straight_light.hpp"

namespace glow::sources {

/// Luminaires as they shine at any receiver: straight, and over mirrors. Both arguments must outlive it.
class LuminaireLight {
 public:
  LuminaireLight(const transport::Transport& transport,
                 const std::vector<photometry::PlacedLuminaire>& luminaires);

  /// lx, with no more than `tolerance` (a share) of error: see received().
  DirectLux straight(const readings::Receiver& receiver, double tolerance) const;
  /// Likewise, over mirrors.
  DirectLux mirrored(const readings::Receiver& receiver, double tolerance) const;
  bool has_mirrors() const { return !mirrored_.empty(); }
  /// lx on a plane, straight and over mirrors, for pictures: where `tolerance` allows for 1 %, quicker.
  double quickly(const readings::Receiver& plane, double tolerance) const;

 private:
  StraightSources straight_;
  const geometry::RayTracer* tracer_;
  std::vector<std::unique_ptr<const photometry::PlacedLuminaire>> images_;
  std::vector<DirectLight::Passed> passed_;  ///< of each image, by its way over mirrors
  std::vector<DirectLight> mirrored_;
  std::vector<DirectLight> images_open_;  ///< as if nothing were in between
};

}  // namespace glow::sources
