#pragma once

#include "core/results/room_result.hpp"
#include "files/json_number.hpp"

namespace glow::files {

/// A grid with its place, its statistics and its values; and back. `grid_of` throws nlohmann's exceptions, or
/// std::runtime_error, on what is not as `grid_json` writes it.
json grid_json(const results::GridResult& grid, const std::string& csv);
results::GridResult grid_of(const json& j);

json points_json(const std::vector<Vec2>& points);
json point_json(const Vec3& point);
std::vector<Vec2> points_of(const json& j);
Vec3 point_of(const json& j);
/// A finite number of moderate size.
double number_of(const json& j);

}  // namespace glow::files
