#pragma once

#include <algorithm>
#include <chrono>

namespace glow::bench {

/// Least of several times, s.
template <class Work>
double seconds(int times, const Work& work) {
  double least = 1e9;
  for (int k = 0; k < times; ++k) {
    const auto begin = std::chrono::steady_clock::now();
    work();
    least = std::min(least, std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count());
  }
  return least;
}

}  // namespace glow::bench
