#pragma once

#include "core/assess/room_result.hpp"
#include "files/text/json_number.hpp"

namespace glow::files {

/// A grid with its place, its statistics and its values; and back. `grid_of` throws nlohmann's exceptions, or
/// std::runtime_error, on what is not as `grid_json` writes it.
json grid_json(const assess::GridReading& grid, const std::string& csv);
assess::GridReading grid_of(const json& j);

json points_json(const std::vector<Vec2>& points);
json point_json(const Vec3& point);
std::vector<Vec2> points_of(const json& j);
Vec3 point_of(const json& j);
/// A finite number of moderate size.
double number_of(const json& j);

}  // namespace glow::files
