#pragma once

#include <vector>

#include "core/studies/trials.hpp"

namespace glow::studies {

/// Why checks are not met and what would mend it, and of levels that are met by far, what that wastes: by the
/// checks of the room's assessment. Everything in it is computed: by relight in this very room, or, where
/// light adds up, by arithmetic; each mend says which other checks it would break, glare included. Throws
/// Cancelled.
std::vector<Explanation> explain(const StudiedRoom& room);

/// Changes to what glares most at the worst view, and at the worst GR, of every set of eyes: into
/// `glare.sets[].changes` and `rating_changes`, where `glare` is the room's. Throws Cancelled.
void try_sources(const StudiedRoom& room, assess::RoomGlare& glare);

/// Why limits of glare are not kept, and what would help: for one check of `room`.
Explanation explain_glare(const StudiedRoom& room, const Trials& trials, const standards::Check& check);
/// Of light that goes astray outdoors.
Explanation explain_spill(const StudiedRoom& room, const Trials& trials, const standards::Check& check);

/// Puts first what meets the check without anything else and breaks no other.
void put_first_what_does_alone(std::vector<Mend>& mends);

}  // namespace glow::studies
