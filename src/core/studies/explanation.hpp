#pragma once

#include "core/studies/trials.hpp"
#include "core/units/shown_units.hpp"

namespace glow::studies {

/// Receivers of one grid in the pass that all grids were read in.
struct GridReceivers {
  std::vector<std::size_t> judged;  ///< that the grid's demands are held against
};

/// Fills in, for every check of the result that is not met, why it is not and what would help, and for levels
/// that are met by far, what that wastes. Everything said is computed: by relight, or, where light adds up,
/// by arithmetic. `receivers` by the space's grids.
void explain(const space::Space& space, const transport::Transport& transport, const assess::RoomLight& light,
             const std::vector<GridReceivers>& receivers, const Watch& watch, assess::RoomResult& result);

/// Of what would help, puts first what meets the check without anything else and breaks no other.
void put_first_what_does_alone(standards::Check& check);

}  // namespace glow::studies
