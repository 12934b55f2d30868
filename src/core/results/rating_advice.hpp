#pragma once

#include "core/results/eye_ratings.hpp"

namespace glow::results {

/// Tries changes to what glares most at the worst GR of every set of eyes, and says why limits of GR are not
/// kept and what would help. `plane`: receivers of the plane that is looked at.
void advise_on_ratings(const scene::RoomScene& scene, const RatingReader& reader,
                       const std::vector<std::size_t>& plane, RoomResult& result);

}  // namespace glow::results
