#pragma once

#include <algorithm>
#include <chrono>
#include <functional>
#include <vector>

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

/// The same of several works that take turns, so that a busy machine is as hard on one as on the other.
inline std::vector<double> seconds_in_turn(int times, const std::vector<std::function<void()>>& works) {
  std::vector<double> least(works.size(), 1e9);
  for (int k = 0; k < times; ++k)
    for (std::size_t w = 0; w < works.size(); ++w) least[w] = std::min(least[w], seconds(1, works[w]));
  return least;
}

}  // namespace glow::bench
