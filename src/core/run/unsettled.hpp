#pragma once

#include <vector>

#include "core/assess/assess.hpp"
#include "core/run/accuracy.hpp"

namespace glow::run {

/// What a finer pass has to look at again.

/// Whether it misses the accuracy that is asked for.
bool is_rough(const assess::GridReading& grid, const Accuracy& accuracy);

/// Adds the grids, in order and each once, on which a check is undecided or the accuracy is not reached.
void add_unsettled_grids(const assess::Assessment& found, const Accuracy& accuracy,
                         std::vector<std::size_t>& grids);

/// Adds the sets of eyes whose UGR is undecided, with the views that it hangs on.
void add_unsettled_views(const assess::Assessment& found, assess::ViewChoice& views);

}  // namespace glow::run
