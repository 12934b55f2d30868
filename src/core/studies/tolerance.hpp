#pragma once

#include <cstdint>

#include "core/studies/explanation.hpp"

namespace glow::studies {

/// Fills in, for every check on a grid, in what share of possible built rooms it is met, and RoomTolerance of
/// the result. Each of `wish.samples` rooms draws, from normal distributions cut at three standard
/// deviations,
///   flux          one factor for each mark: a batch of luminaires;
///   maintenance   one factor for the room;
///   reflectance   one shift each for ceiling, walls and floor, within 0.02 to 0.95;
///   mounting      a shift along x, y and z for each luminaire.
/// Flux, maintenance and reflectance are relights; mounting changes the light that comes straight, to first
/// order and with shadows where they are. Same seed, same shares, whatever the number of threads.
void study_tolerance(const space::Space& space, const transport::Transport& transport,
                  const std::vector<GridReceivers>& receivers, const model::ToleranceWish& wish,
                  const Watch& watch, assess::RoomResult& result);

}  // namespace glow::studies
