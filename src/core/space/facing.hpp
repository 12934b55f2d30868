#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/space/space.hpp"

namespace glow::space {

/// A direction, or what was expected instead.
struct Facing {
  std::optional<Vec3> direction;  ///< unit length
  std::string expected;
};

/// "up", "down", "X,Y,Z"; or of one of `objects` "towards NAME" (or the bare name): from `at` to its middle;
/// "off NAME": straight away from its nearest side, as for the light on it.
Facing parse_facing(const std::string& words, const Vec3& at, const std::vector<PlanShape>& objects);

/// "2.5,1,0.85": three lengths, each of which may carry a unit; bare ones in `units`.
std::optional<Vec3> parse_point(const std::string& words, const units::ShownUnits& units);

}  // namespace glow::space
