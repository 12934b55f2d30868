#pragma once

/// What numbers of a project file may be, where several readers ask for the same kind of number.

#include "files/text/toml_table.hpp"

namespace glow::files::range {

inline constexpr Range kShare{0, 1};
inline constexpr Range kFactor{0.01, 1};       ///< a share of nothing would leave nothing
inline constexpr Range kReflectance{0, 0.98};  ///< a surface that takes nothing lets light go round for ever
inline constexpr Range kHeight{0, 200};        ///< m above the floor
inline constexpr Range kRoomHeight{0, 200, true};  ///< m
inline constexpr Range kLength{0, 2000, true};     ///< m
inline constexpr Range kAlong{0, 2000};            ///< m along a wall or path
inline constexpr Range kAngle{-3600, 3600};        ///< degrees: ten turns either way are a person's sums
inline constexpr Range kInset{0, 50};              ///< m between a boundary and the points of a grid
inline constexpr Range kPointSpacing{0.005, 50};   ///< m between points of a grid

}  // namespace glow::files::range
