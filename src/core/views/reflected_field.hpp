#pragma once

#include <vector>

#include "core/views/room_sources.hpp"

namespace glow::views {

/// A place on a surface that is looked at.
struct Place {
  int facet = -1;
  Vec3 point = Vec3::Zero(), normal = Vec3::UnitZ();
  double pixel_m = 0;  ///< about the width of what a pixel shows of it
};

/// Light that surfaces throw back, and that of the sky, wherever it is asked for: found by a last look around
/// from some places, the nearer to others the more there is close by, and taken from these for all in
/// between, as a plane laid through them where nothing stands between. Places look the same way round, so
/// that what rays miss changes slowly from one to the next instead of speckling.
class ReflectedField {
 public:
  /// `rays` of each look; `reach`: how far one serves, as a share of the mean distance that it saw;
  /// `least_pixels`: that far at least.
  ReflectedField(const RoomSources& sources, int rays, double reach, double least_pixels)
      : sources_(&sources), rays_(rays), reach_(reach), least_pixels_(least_pixels) {}

  /// Looks around from those of the places that are not well served yet, all at once.
  void add(const std::vector<Place>& places, const Watch& watch);
  /// lx at a place, layer by layer as RoomSources::exitance has them.
  void at(const Place& place, double* lux) const;
  std::size_t size() const { return looks_; }
  /// Whether there is any look from this facet.
  bool knows(int facet) const { return of(facet) && !of(facet)->empty(); }

  /// One look around from a place: lx, layer by layer. Gives the harmonic mean of the distances it saw.
  /// `met_patches`: takes the patch that each ray saw; negative where it saw none.
  static double look(const RoomSources& sources, const Place& place, int rays, double* lux,
                     std::vector<std::int32_t>* met_patches = nullptr);

 private:
  struct Look {
    Vec3 point, normal;
    double radius_m = 0;
    std::vector<float> lux;
  };
  const std::vector<Look>* of(int facet) const {
    return std::size_t(facet) < by_facet_.size() ? &by_facet_[std::size_t(facet)] : nullptr;
  }
  bool is_served(const Place& place) const;
  void settle_radii(std::vector<Look>& looks) const;

  const RoomSources* sources_;
  int rays_;
  double reach_, least_pixels_;
  std::size_t looks_ = 0;
  std::vector<std::vector<Look>> by_facet_;
};

}  // namespace glow::views
