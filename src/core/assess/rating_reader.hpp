#pragma once

#include "core/assess/grid_reader.hpp"
#include "core/assess/room_glare_sources.hpp"

namespace glow::assess {

/// GR of all eyes of a room, outdoors and in sports, with luminaires as new. All must outlive it.
class RatingReader {
 public:
  RatingReader(const space::Space& space, const transport::Transport& transport, const Watch& watch)
      : space_(space), transport_(transport), watch_(watch), sources_(space, transport) {}

  /// Fills in the ratings of all sets. `plane`: the plane that is looked at, whose mean is the light of the
  /// surroundings; its uncertainty is that of GR.
  void read(const GridReading& plane, RoomGlare& glare) const;

  /// The worst GR of every position of a set with a change; the light of the plane, whose points are these
  /// receivers, is computed anew.
  std::vector<EyeRating> changed(const EyeSetGlare& set, const RoomGlareSources::Change& change,
                                 const GridReading& plane, const std::vector<std::size_t>& receivers) const;

  const RoomGlareSources& sources() const { return sources_; }

 private:
  std::vector<EyeRating> rated(const space::EyeSet& set, const glare::GlareSources& sources,
                               double mean_lx) const;

  const space::Space& space_;
  const transport::Transport& transport_;
  const Watch& watch_;
  RoomGlareSources sources_;
};

}  // namespace glow::assess
