#pragma once

#include <optional>

#include "core/geometry/vec.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// The table's `colour`, "#rrggbb" or [red, green, blue] from 0 to 255 (sRGB, IEC 61966-2-1), as diffuse
/// reflectances in red, green and blue whose luminous reflectance is `reflectance`. Nothing when there is
/// none, or it cannot be had: black has no hue to scale, and no channel can reflect more than 1.
std::optional<Vec3> read_colour(TomlTable& table, double reflectance);

}  // namespace glow::files
