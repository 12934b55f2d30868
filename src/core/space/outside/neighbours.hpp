#pragma once

#include "core/space/build_space.hpp"

namespace glow::space {

/// Puts the project's neighbours of an outdoor area, and its road users, into the space, with a grid on each
/// window or facade, and what is asked of light that goes astray into the brief. Faults: a neighbour inside
/// something, a facade of too many points.
void place_neighbours(const model::Project& project, const model::Room& room, Space& space, Brief& brief,
                      Problems& problems);

/// Asks of a scene that is set in these hours what is asked then; nothing: in all hours of the night.
void ask_of_spill(const model::Project& project, const Space& space,
                  const std::optional<model::UseHours>& hours, Brief& brief);
/// Takes out all that is asked of it.
void ask_nothing_of_spill(Brief& brief);

}  // namespace glow::space
