#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::words {

/// Rooms floor by floor, a line each: verdict, mean and U0 of the work plane, its target, the share of it
/// that reaches that, watts; sums of each floor and of all. At most 80 columns wide.
std::string building_table(const record::RunRecord& run, bool colour);

}  // namespace glow::words
