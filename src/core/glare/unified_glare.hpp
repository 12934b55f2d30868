#pragma once

#include <optional>
#include <vector>

#include "core/glare/position_index.hpp"
#include "core/glare/seen_sources.hpp"

namespace glow::glare {

/// CIE 147: what is seen smaller than this is rated by its intensity. m2.
inline constexpr double kSmallSource = 0.005;
/// Solid angles that the formula of CIE 117 was made for, sr.
inline constexpr double kLeastSolidAngle = 0.0003, kMostSolidAngle = 0.1;

/// Whether a source counts for a line of sight.
enum class Standing {
  counts,
  behind,   ///< behind the eye
  outside,  ///< in front, but beyond the printed table of position indices
  hidden    ///< nothing of it is seen
};

/// One source in the sum of UGR.
struct UgrTerm {
  SeenSource seen;
  Standing standing = Standing::counts;
  double position_index = 1;  ///< of sources in front
  double term = 0;            ///< cd2/m4 sr: L^2 omega / p^2; small sources 200 I^2 / (r p)^2 (CIE 147)
  double plain_term = 0;      ///< L^2 omega / p^2 for small sources too; 0 where no size is stated
  bool small = false;         ///< rated by CIE 147
  bool below = false;         ///< below the line of sight: its index is not of CIE 117
  bool tiny = false, large = false;  ///< solid angle outside the formula's range
};

/// UGR at one eye: 8 lg(0.25 / Lb * sum of terms), CIE 117:1995.
struct Ugr {
  double background_cd_m2 = 0;           ///< Lb = indirect illuminance at the eye / pi
  std::optional<double> value;           ///< nothing: no source counts, or the background is black
  std::optional<double> all_in_front;    ///< with the sources outside the field of view as well
  std::optional<double> without_cie147;  ///< small sources by the plain formula
  std::vector<UgrTerm> terms;            ///< one for each source that shines this way

  double sum() const;  ///< of the terms that count
};

/// Of one source for a line of sight (unit length, level).
UgrTerm ugr_term(const SeenSource& seen, const Vec3& eye, const Vec3& sight);
/// `indirect_lx`: on the plane through the eye at right angles to the line of sight, luminaires left out.
Ugr unified_glare(const std::vector<SeenSource>& seen, const Vec3& eye, const Vec3& sight,
                  double indirect_lx);
/// The value alone; nothing as above.
std::optional<double> ugr_value(double sum, double background_cd_m2);

}  // namespace glow::glare
