#pragma once

#include <string>

#include "core/run/compute_room.hpp"

namespace glow::files {

/// How hourly values are written on request.
enum class HoursFormat { csv, binary };

/// Bytes that so many points take, about.
double hours_bytes(std::size_t points, HoursFormat format);

/// A year on a grid, a row for each hour of light: month, day and hour of standard time (1 to 24), then lx at
/// each point in the order of the grid's own CSV.
std::string hours_csv(const run::YearHours& hours);
/// The same as numbers; docs/results.md describes the bytes.
std::string hours_binary(const run::YearHours& hours);
/// Electric power, W, in all 8760 hours.
std::string power_csv(const std::vector<int>& power_w);

}  // namespace glow::files
