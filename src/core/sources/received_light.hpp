#pragma once

#include <vector>

#include "core/sources/direct/direct_light.hpp"

namespace glow::sources {

/// Light of several luminaires at a receiver, with an error of no more than `tolerance` (a share) of it, or
/// of a hundredth of what they would give if they shone evenly, but for what lies in penumbras: those that
/// are near or steep enough to matter are divided further, the others are not.
DirectLux received(const std::vector<const DirectLight*>& sources, const readings::Receiver& receiver,
                   double tolerance);

}  // namespace glow::sources
