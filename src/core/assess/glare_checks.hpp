#pragma once

#include "core/assess/room_result.hpp"

namespace glow::assess {

/// Holds glare against what limits it: adds to `result.checks`, and to `result.not_checked` what cannot be
/// verified. UGR is verified as space.glare.method says; what else is known of it is added as checks that do
/// not bind.
void verify_glare(const space::Space& space, RoomResult& result);

}  // namespace glow::assess
