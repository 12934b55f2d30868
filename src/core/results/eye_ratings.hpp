#pragma once

#include "core/results/grid_reading.hpp"
#include "core/results/room_sources.hpp"

namespace glow::results {

/// GR of all eyes of a room, outdoors and in sports, with luminaires as new. All must outlive it.
class RatingReader {
 public:
  RatingReader(const scene::RoomScene& scene, const transport::Transport& transport, const Watch& watch)
      : scene_(scene), transport_(transport), watch_(watch), sources_(scene, transport) {}

  /// Fills in the ratings of all sets. `plane`: the plane that is looked at, whose mean is the light of the
  /// surroundings; its uncertainty is that of GR.
  void read(const GridResult& plane, RoomGlare& glare) const;

  /// The worst GR of every position of a set with a change; the light of the plane, whose points are these
  /// receivers, is computed anew.
  std::vector<EyeRating> changed(const EyeSetGlare& set, const RoomSources::Change& change,
                                 const GridResult& plane, const std::vector<std::size_t>& receivers) const;

  const RoomSources& sources() const { return sources_; }

 private:
  std::vector<EyeRating> rated(const scene::EyeSet& set, const glare::GlareSources& sources,
                               double mean_lx) const;

  const scene::RoomScene& scene_;
  const transport::Transport& transport_;
  const Watch& watch_;
  RoomSources sources_;
};

}  // namespace glow::results
