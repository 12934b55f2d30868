#pragma once

#include <vector>

#include "core/plans/drawing.hpp"
#include "core/plans/found.hpp"
#include "core/plans/line_work.hpp"
#include "core/plans/request.hpp"

namespace glow::plans {

/// What a drawing says of doors, windows and things.

/// A line in the depth of a wall along which it is open.
struct OpeningSign {
  FoundOpening::Kind kind = FoundOpening::Kind::door;
  std::vector<Segment> along;  ///< of which one lies along the wall
  bool one_way = true;         ///< of `along` only one is meant: a leaf's two ways to stand
  Drawn drawn;
};

/// A door's swing: a quarter circle about its hinge, more or less.
bool is_swing(const Stroke& stroke);

/// Which use the block has that a thing is part of; null: none that was named.
const BlockUse* use_of(const Drawing& drawing, const Drawn& drawn, const std::vector<BlockUse>& blocks);
bool is_dimension(const Drawing& drawing, const Drawn& drawn);

/// Doors by their swings and by what stands on door layers or in door blocks; windows by the lines on window
/// layers or in window blocks.
std::vector<OpeningSign> opening_signs(const Drawing& drawing, const Request& request);

/// Leaves: lines from a swing's hinge as long as its radius, which are no walls.
bool is_leaf(const Segment& line, const std::vector<const Stroke*>& swings);

/// Columns, furniture and luminaires by the blocks that were named.
void find_things(const Drawing& drawing, const Request& request, FoundPlan& plan);

}  // namespace glow::plans
