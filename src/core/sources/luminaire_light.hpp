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
  /// Whether an image may be seen from a place; most are seen from few.
  bool may_show(std::size_t image, const Vec3& place) const;

  StraightSources straight_;
  const transport::Transport* transport_;
  std::vector<std::unique_ptr<const photometry::PlacedLuminaire>> images_;
  std::vector<transport::MirrorPath> ways_;  ///< of each image
  std::vector<DirectLight::Passed> passed_;  ///< by that way
  std::vector<DirectLight> mirrored_;
  std::vector<DirectLight> images_open_;  ///< as if nothing were in between
};

}  // namespace glow::sources
