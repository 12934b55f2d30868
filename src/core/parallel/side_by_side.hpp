#pragma once

#include <cstddef>

namespace glow {

/// Sum of term(0) .. term(count - 1), as four sums side by side: each waits for its own last addition only.
/// Their order is fixed.
template <class Term>
double sum_side_by_side(std::size_t count, const Term& term) {
  double sums[4] = {0, 0, 0, 0};
  std::size_t k = 0;
  for (; k + 4 <= count; k += 4)
    for (std::size_t s = 0; s < 4; ++s) sums[s] += term(k + s);
  for (; k < count; ++k) sums[0] += term(k);
  return (sums[0] + sums[1]) + (sums[2] + sums[3]);
}

}  // namespace glow
