#pragma once

#include "core/model/maintenance.hpp"
#include "core/studies/findings.hpp"
#include "core/studies/studied_room.hpp"

namespace glow::studies {

/// In what share of possible built rooms every check is met, and all of them. Each of `wish.samples` rooms
/// draws, from normal distributions cut at three standard deviations,
///   flux          one factor for each mark: a batch of luminaires;
///   maintenance   one factor for the room;
///   reflectance   one shift each for ceiling, walls and floor, within 0.02 to 0.95;
///   mounting      a shift along x, y and z for each luminaire.
/// Flux, maintenance and reflectance are relights; mounting changes the light that comes straight, to first
/// order and with shadows where they are. Each room is judged as the planned one is, UGR at the views that
/// come within 3 of the worst; GR and what hangs on no light stay as planned. Same seed, same shares,
/// whatever the number of threads. Throws Cancelled.
RoomTolerance study_tolerance(const StudiedRoom& room, const model::ToleranceWish& wish);

}  // namespace glow::studies
