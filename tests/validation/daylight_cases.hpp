#pragma once

#include <string>
#include <vector>

#include "validation/reference_cases.hpp"

namespace glow::validation {

/// Ids of the reference's daylight cases: openings (class i of transport.json) and single moments (P of
/// daylight.json).
std::vector<std::string> daylight_case_ids();

/// One of them, by the engine. Light that a pane scatters counts as interreflected, so that "pane" and
/// "internal" are held against the reference together, as "internal".
CaseResult run_daylight_case(const std::string& id, const transport::Effort& effort);

}  // namespace glow::validation
