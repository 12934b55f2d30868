#pragma once

#include "core/sources/direct/direct_light.hpp"
#include "core/transport/transport.hpp"

namespace glow::sources {

/// Luminaires as they shine straight through a room, with shadows where something may lie in between. Both
/// arguments must outlive it.
class StraightSources {
 public:
  StraightSources(const transport::Transport& transport,
                  const std::vector<photometry::PlacedLuminaire>& luminaires);

  std::size_t size() const { return open_.size(); }
  /// Whether sight lines from the place to the luminaire of this number have to be looked along.
  bool may_be_hidden(std::size_t luminaire, const Vec3& place) const;
  const DirectLight& seen_from(const Vec3& place, std::size_t luminaire) const {
    return may_be_hidden(luminaire, place) ? shaded_[luminaire] : open_[luminaire];
  }
  const DirectLight& open(std::size_t luminaire) const { return open_[luminaire]; }
  const DirectLight& shaded(std::size_t luminaire) const { return shaded_[luminaire]; }

 private:
  const transport::Transport& transport_;
  const std::vector<photometry::PlacedLuminaire>& luminaires_;
  std::vector<DirectLight> open_, shaded_;
};

/// lx that luminaires give straight at each of the places, shadows included, mirrors not: as the direct light
/// of receivers, but good to a few per cent only, where that is enough. Throws Cancelled.
std::vector<double> straight_light(const transport::Transport& transport,
                                   const std::vector<photometry::PlacedLuminaire>& luminaires,
                                   const std::vector<readings::Receiver>& places, const Watch& watch);

}  // namespace glow::sources
