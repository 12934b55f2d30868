#pragma once

#include <string>
#include <vector>

#include "core/record/comparison.hpp"

namespace glow::words {

/// What a measure is called, and its unit: "mean", "lx".
std::string measure_word(record::ComparedMeasure measure);
std::string measure_unit(record::ComparedMeasure measure, const units::ShownUnits& units);
/// A value of it, without the unit: "312", "7 of 9"; "-" where there is none.
std::string measure_value(record::ComparedMeasure measure, const record::Compared& value,
                          const units::ShownUnits& units);
/// What moved in a room by more than the uncertainty, of two runs: "mean 433 -> 388 lx, U0 0.25 -> 0.31
/// better"; empty: nothing.
std::string moved_words(const record::ComparedRoom& room, const units::ShownUnits& units);
/// Whether anything differs by more than the uncertainty, or a run does not have the room.
bool differs(const record::ComparedRoom& room);
/// "better", "worse", "same within the uncertainty", "other"; empty: no change.
std::string change_word(record::Change change);

/// Runs side by side, a table for each room, a column for each run by its letter: + better, - worse, ~ within
/// the numerical uncertainty, * other. `names`: of the runs, told first. Rooms in which nothing differs are
/// named together at the end.
std::string comparison_table(const std::vector<record::ComparedRoom>& rooms,
                             const std::vector<std::string>& names, const units::ShownUnits& units);

}  // namespace glow::words
