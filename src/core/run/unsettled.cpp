#include "core/run/unsettled.hpp"

#include <algorithm>

namespace glow::run {

using assess::Assessment;
using assess::GridReading;
using standards::Check;
using standards::Target;
using standards::Verdict;

bool is_rough(const GridReading& grid, const Accuracy& accuracy) {
  return accuracy.percent && 100 * grid.roughness() > *accuracy.percent;
}

void add_unsettled_grids(const Assessment& found, const Accuracy& accuracy, std::vector<std::size_t>& grids) {
  const auto undecided = [&](auto&& concerns) {
    return std::any_of(found.checks.begin(), found.checks.end(), [&](const Check& check) {
      return check.verdict == Verdict::undecided && concerns(check);
    });
  };
  for (std::size_t g = 0; g < found.grids.size(); ++g) {
    const GridReading& grid = found.grids[g];
    const bool open = undecided([&](const Check& check) {
      return check.target == Target{Target::Kind::grid, g};
    });
    // GR hangs on the light of the work plane.
    const bool rates = g == 0 && undecided([](const Check& check) {
                         return check.demand.quantity == standards::Quantity::glare_rating && check.binding;
                       });
    const auto place = std::lower_bound(grids.begin(), grids.end(), g);
    if ((open || rates || is_rough(grid, accuracy)) && (place == grids.end() || *place != g))
      grids.insert(place, g);
  }
}

void add_unsettled_views(const Assessment& found, assess::ViewChoice& views) {
  for (const Check& check : found.checks) {
    if (check.demand.quantity != standards::Quantity::unified_glare || !check.binding ||
        check.verdict != Verdict::undecided || check.target.kind != Target::Kind::eyes)
      continue;
    std::vector<std::size_t>& of_set = views[check.target.id];
    for (const std::size_t view : assess::critical_views(found.glare.sets[check.target.id]))
      if (std::find(of_set.begin(), of_set.end(), view) == of_set.end()) of_set.push_back(view);
  }
}

}  // namespace glow::run
