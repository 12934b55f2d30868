#pragma once

namespace glow::space {

/// m: what is nearer than this is at the same place; projects are written in millimetres.
constexpr double kHair = 1e-6;
/// m: strip along the walls that a work plane, level grids and eyes keep free (EN 12464-1).
constexpr double kDefaultInset = 0.5;

}  // namespace glow::space
