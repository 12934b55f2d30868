#pragma once

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace glow::bench {

/// How often a truth lies inside stated intervals, and how far values are off.
struct Tally {
  const char* name;
  int inside = 0, count = 0;
  double error = 0, bias = 0, largest = 0, width = 0;
  void add(double value, double truth, double half_width) {
    const double off = value / truth - 1, half = half_width / truth;
    ++count;
    inside += std::abs(off) <= half;
    error += off * off;
    bias += off;
    largest = std::max(largest, std::abs(off));
    width += half;
  }
  void print() const {
    fmt::print(FMT_STRING("| {} | {:.1f} % | {:+.3f} % | {:.3f} % | {:.3f} % | {:.3f} % |\n"), name,
               100.0 * inside / count, 100 * bias / count, 100 * std::sqrt(error / count), 100 * largest,
               100 * width / count);
  }
  static void print_head(int repetitions) {
    fmt::print(
        FMT_STRING("| of {} | truth inside | bias | error, root mean square | largest | stated half width, "
                   "mean |\n| --- | ---: | ---: | ---: | ---: | ---: |\n"),
        repetitions);
  }
};

}  // namespace glow::bench
