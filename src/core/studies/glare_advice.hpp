#pragma once

#include "core/assess/glare_reader.hpp"

namespace glow::studies {

/// Tries changes at the worst eye of every set, and says why limits are not kept and what would help.
void advise_on_glare(const space::Space& space, const assess::GlareReader& reader, assess::RoomResult& result);

}  // namespace glow::studies
