#pragma once

#include <vector>

#include "core/geometry/ray_tracer.hpp"
#include "core/photometry/placed_luminaire.hpp"

namespace glow::transport {

/// A luminaire as it is seen in flat mirrors.
struct MirrorImage {
  photometry::PlacedLuminaire
      luminaire;            ///< mirrored: its frame is left-handed after an odd number of mirrors
  std::vector<int> facets;  ///< mirrors on the way from the luminaire to the eye
};

/// Images over up to kMostMirrors mirrors, as long as their number stays below kMostImages for a luminaire.
/// Rougher or more numerous mirrors are not followed to receivers (their light still reaches the patches).
class MirrorImages {
 public:
  static constexpr int kMostMirrors = 3;
  static constexpr std::size_t kMostImages = 120;

  explicit MirrorImages(const geometry::Geometry& geometry);
  bool any() const { return orders_ > 0; }
  /// Mirrors after one another that are followed; 0 also when there are too many facets that mirror.
  int orders() const { return orders_; }
  std::vector<MirrorImage> of(const photometry::PlacedLuminaire& luminaire) const;

  /// Share of the light from the image's `spot` that reaches `from` by way of the mirrors.
  double passed(const MirrorImage& image, const geometry::RayTracer& tracer, const Vec3& from,
                const Vec3& spot) const;

 private:
  const geometry::Geometry* geometry_;
  std::vector<int> mirrors_;  // facets
  int orders_ = 0;
};

}  // namespace glow::transport
