#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/standards/requirement_table.hpp"

namespace glow::standards {

/// Rules of the standards that hold for many tasks at once. What is held, and how surely, is in
/// docs/requirements.md.

/// What the areas next to a task area have to reach.
struct Surroundings {
  double surrounding_lx = 0, surrounding_u0 = 0;
  double band_m = 0;  ///< width of the immediate surrounding area
  /// Of the background area; nothing where the standard knows none.
  std::optional<double> background_lx, background_u0;
  double background_band_m = 0;
  std::string source, certainty;
  std::string remark;  ///< what had to be chosen, in words
};

/// For a task level in force of `task_lx`. Nothing for standards without such a rule (EN 12193, EN 1838, own
/// tables under a name of their own) and for outdoor levels below 50 lx.
/// Sources: EN 12464-1:2021 and 2011, surrounding and background areas; ISO 8995-1:2002; EN 12464-2:2014.
std::optional<Surroundings> surroundings_of(const Requirement& requirement, double task_lx);

/// The level `steps` up (or down) the scale of recommended illuminances, EN 12464-1 clause 4.3; nothing where
/// the scale ends. A level between two of the scale counts as the lower one when going up, the higher one
/// when going down: the first step lands on the next level.
std::optional<double> stepped(double level_lx, int steps);

/// Illuminance of walls, ceiling and cylinders that an edition asks for in general, where the row states
/// none: EN 12464-1:2011 has them in its clauses instead of its tables.
void add_general_surfaces(Requirement& requirement);

inline constexpr double kSurfaceU0 = 0.10;  ///< of walls, ceiling and cylinders, EN 12464-1 (both editions)
inline constexpr double kSeatedEye = 1.2, kStandingEye = 1.6;         ///< m, EN 12464-1
inline constexpr double kModellingLow = 0.30, kModellingHigh = 0.60;  ///< Ez / Eh, EN 12464-1

/// Useful reflectances of a surface.
struct ReflectanceRange {
  std::string surface;  ///< "ceiling", "walls", "floor"
  double low = 0, high = 1;
};

/// EN 12464-1:2021 and 2011, ISO 8995-1:2002; empty for standards without such ranges.
std::vector<ReflectanceRange> reflectance_ranges(const std::string& standard);

}  // namespace glow::standards
