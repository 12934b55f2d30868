#pragma once

#include "core/results/room_result.hpp"

namespace glow::results {

/// Holds glare against what limits it: adds to `result.checks`, and to `result.not_checked` what cannot be
/// verified. UGR is verified as scene.glare.method says; what else is known of it is added as checks that do
/// not bind.
void verify_glare(const scene::RoomScene& scene, RoomResult& result);

}  // namespace glow::results
