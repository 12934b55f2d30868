#pragma once

#include "core/run/accuracy.hpp"
#include "core/space/build_space.hpp"

namespace glow::run {

/// What computing a room consists of.
struct Workload {
  double receivers = 0;    ///< points and views that are read; those with fewer rays count less
  std::size_t points = 0;  ///< of grids
  std::size_t skies = 0;   ///< moments
  std::size_t verified_skies =
      0;                  ///< of these, those that daylight is verified by: what would help is looked for
  std::size_t steps = 0;  ///< of courses of a day
  std::size_t years = 0;  ///< of daylight
  std::size_t year_points = 0;  ///< of grids that years are read on
  std::size_t asked_years = 0;  ///< of these, those that something is asked of
  std::size_t pictures = 0;     ///< views in each scene that shows in them
};

Workload workload_of(const space::PlannedRoom& room);

/// Rays of a first pass over the room.
double rays_of(const Workload& work, const Accuracy& accuracy);

/// Bytes of memory that computing the room takes at most, about.
double memory_of(const Workload& work, const Accuracy& accuracy);

/// What a run will take, told before it begins.
struct Cost {
  std::size_t rooms = 0, points = 0;
  std::size_t after = 0;       ///< rooms of variants that follow
  double rays = 0;             ///< of first passes
  double seconds = 0;          ///< on as many threads as calculations may use
  std::vector<double> shares;  ///< of it, by the plan's rooms; less than 1 together where more follows
};

struct RunPlan;

/// From the speed of a short trial of rays in the largest room, and from how much else comes with them by
/// measure (docs/performance.md): right within a factor of two where nothing was kept from earlier runs, else
/// too much.
Cost expected_cost(const RunPlan& plan);

}  // namespace glow::run
