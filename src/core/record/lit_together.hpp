#pragma once

#include <string>
#include <utility>
#include <vector>

#include "core/standards/verdict.hpp"

namespace glow::record {

struct RunRecord;

/// A neighbour of several outdoor areas, each of which is verified by itself: what all of them give, as
/// placed.
struct LitTogether {
  std::string neighbour;
  std::vector<std::pair<std::string, double>> areas;  ///< name and lx, of those that give any
  /// The sum, held against the strictest of their limits. Of the highest illuminance on a property it is the
  /// most that can be, since each area may have its highest elsewhere; doubts are added up. What stands on
  /// one area does not shade the light of another.
  standards::Check check;
};

/// In the order of the first area's neighbours; none where no neighbour gets light of two areas.
std::vector<LitTogether> lit_together(const RunRecord& run);

}  // namespace glow::record
