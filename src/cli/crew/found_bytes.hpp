#pragma once

#include <string>

#include "core/run/rank_luminaires.hpp"
#include "core/run/run_rooms.hpp"

namespace glow::cli {

/// Results on their way from one process of a crew to another: all of them, every digit. Reading throws
/// std::exception on what was not written so.

std::string bytes_of(const run::FinishedRoom& room);
run::FinishedRoom finished_room(const std::string& bytes);

std::string bytes_of(const run::RankedCandidate& ranked);
run::RankedCandidate ranked_candidate(const std::string& bytes);

/// What is found for each placement of a room that is yet to be found: fields, and why not where there is
/// none.
std::string bytes_of(const run::SettledFields& settled);
run::SettledFields settled_fields(const std::string& bytes);

std::string bytes_of(const run::ArrangedRoom& arranged);
/// The placement is an empty one: it follows from the best field.
run::ArrangedRoom arranged_room(const std::string& bytes);

}  // namespace glow::cli
