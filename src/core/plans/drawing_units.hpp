#pragma once

#include <optional>
#include <string>

namespace glow::plans {

/// Units that drawings are made in.

/// "mm", "ft" ...; "units of 0.02 m" where it has no name.
std::string unit_name(double metres_per_unit);
/// m of a unit's name; nothing: unknown.
std::optional<double> unit_of(const std::string& name);
/// "mm, cm, m, in or ft", for messages.
inline constexpr const char* kUnitNames = "mm, cm, dm, m, in, ft or yd";
/// The unit in which rooms of such an area, in drawing units squared, are the likeliest, m.
double likely_unit(double area);

}  // namespace glow::plans
