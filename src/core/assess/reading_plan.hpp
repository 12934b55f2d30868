#pragma once

#include <map>
#include <vector>

#include "core/readings/receiver.hpp"
#include "core/space/brief.hpp"
#include "core/space/space.hpp"

namespace glow::assess {

/// Views of sets of eyes, by the numbers of the sets.
using ViewChoice = std::map<std::size_t, std::vector<std::size_t>>;

/// What is read in one pass over a room: which receivers of a transport are whose.
struct ReadingPlan {
  static constexpr std::size_t kNone = std::size_t(-1);

  std::vector<readings::Receiver> receivers;
  std::vector<std::size_t> first_of_grid;       ///< by Space::grids; kNone: not read
  std::vector<std::size_t> points;              ///< receiver of each point; empty: not read
  std::vector<std::vector<std::size_t>> views;  ///< receiver of each view, by sets of eyes; kNone: not read

  /// All grids, points and, where UGR is rated, all eyes.
  static ReadingPlan whole(const space::Space& space, const space::Brief& brief);
  /// Some grids and views, to be known better; views then get all their rays.
  static ReadingPlan part(const space::Space& space, const std::vector<std::size_t>& grids,
                          const ViewChoice& views);

  /// Whether the plan reads this grid at all.
  bool reads_grid(std::size_t grid) const { return first_of_grid[grid] != kNone; }
};

}  // namespace glow::assess
