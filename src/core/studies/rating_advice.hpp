#pragma once

#include "core/assess/rating_reader.hpp"

namespace glow::studies {

/// Tries changes to what glares most at the worst GR of every set of eyes, and says why limits of GR are not
/// kept and what would help. `plane`: receivers of the plane that is looked at.
void advise_on_ratings(const space::Space& space, const assess::RatingReader& reader,
                       const std::vector<std::size_t>& plane, assess::RoomResult& result);

}  // namespace glow::studies
