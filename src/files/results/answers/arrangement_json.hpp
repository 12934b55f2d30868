#pragma once

#include <string>

#include "core/run/rank_luminaires.hpp"
#include "files/text/json_number.hpp"

namespace glow::files {

/// What `arrange` found in one room: how many luminaires it takes at least and at most, what was tried, and
/// the best field, others, or the one that comes nearest, each with what its checks ask and read. SI units.
json arrangement_json(const std::string& room, const std::string& mark, const studies::Arrangement& found);

/// Photometric files weighed against each other in one room, as a JSON document: for each its best field, or
/// in words, in the project's units, why it has none.
std::string ranking_json(const std::string& room, const std::vector<run::RankedCandidate>& ranked,
                         const std::vector<run::Candidate>& candidates, const units::ShownUnits& units);

}  // namespace glow::files
