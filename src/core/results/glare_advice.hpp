#pragma once

#include "core/results/glare_reading.hpp"

namespace glow::results {

/// Tries changes at the worst eye of every set, and says why limits are not kept and what would help.
void advise_on_glare(const scene::RoomScene& scene, const GlareReader& reader, RoomResult& result);

}  // namespace glow::results
