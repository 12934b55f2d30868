#pragma once

#include <string>

#include "files/results/results_json.hpp"

namespace glow::cli {

/// The answer for people: per room and grid the values with the required ones under them and a plain word for
/// each, at most 80 columns wide, readable without colour.
std::string result_table(const files::RunResult& run, bool colour);

}  // namespace glow::cli
