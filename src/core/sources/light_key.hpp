#pragma once

#include <string>
#include <vector>

#include "core/photometry/placed_luminaire.hpp"

namespace glow::sources {

/// A checksum of all that luminaires' light in one transport depends on: intensities, luminous areas, places.
/// Two that differ have different ones.
std::string light_key(const std::vector<photometry::PlacedLuminaire>& luminaires);

}  // namespace glow::sources
