#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/record/record.hpp"

namespace glow::record {

/// Rooms of several runs side by side, each held against the first one.

enum class ComparedMeasure {
  checks_met,       ///< of those that bind
  mean_lx,          ///< of the work plane
  uniformity,       ///< U0 of it
  glare,            ///< the highest UGR at eyes
  neighbour_glare,  ///< the highest k at neighbours of an outdoor area
  daylight_factor,  ///< its mean over the work plane, per cent
  watts,            ///< drawn, all groups as they are set
  watts_per_m2,
  watts_per_m2_100lx,  ///< installed, per 100 lx of the work plane's mean
  autonomy,            ///< of the year of daylight: mean of the first grid, per cent
  kwh,                 ///< energy of the year, as deep as it was found
  energy_cost,         ///< of that
  investment,          ///< luminaires and controls
  payback_years        ///< of what is invested more than in the first run, by what energy costs less
};

/// What became of a value; what lies within the numerical uncertainty of both is no change.
enum class Change { none, within_doubt, better, worse, other };

struct Compared {
  std::optional<double> value;
  double uncertainty = 0;  ///< half width of its 95 % interval
  double of = 0;           ///< of checks: how many bind
  Change change = Change::none;
};

struct ComparedRow {
  ComparedMeasure measure = ComparedMeasure::checks_met;
  std::vector<Compared> values;  ///< by run
};

struct ComparedRoom {
  std::string name;
  std::vector<const RoomRecord*> rooms;  ///< by run; null: the run does not have it
  std::vector<ComparedRow> rows;         ///< measures that at least one run has
  bool is_worse() const;                 ///< than in the first run, in anything
};

/// Rooms by name, in the order of the first run that has each. A mean by itself is neither better nor worse,
/// but where a check of it is no longer missed, or is now; fewer watts are better.
std::vector<ComparedRoom> compared(const std::vector<const RunRecord*>& runs);

}  // namespace glow::record
