#pragma once

#include "core/model/lamp_colour.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

inline constexpr Range kColourTemperature{colour::kLowestTemperature, colour::kHighestTemperature};  ///< K

/// `cct`, a temperature or the range of a tunable luminaire, with `duv` or `locus`.
model::LampColour read_lamp_colour(TomlTable& table);

}  // namespace glow::files
