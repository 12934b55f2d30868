#pragma once

#include <vector>

#include "core/studies/findings.hpp"
#include "core/studies/studied_room.hpp"

namespace glow::studies {

/// The lowest tenth of some receivers, at least one: those near the lowest, the lowest first.
struct LowReceivers {
  std::vector<std::size_t> receivers;
  LowestPoints points;
};

/// Of the receivers `judged`, by the room's maintained light.
LowReceivers lowest_points(const StudiedRoom& room, const std::vector<std::size_t>& judged);

/// The luminaire nearest to the low points and what it gives them straight, with the one that gives most.
LuminairesThere luminaires_there(const StudiedRoom& room, const LowReceivers& low);

}  // namespace glow::studies
