#pragma once

#include <string>
#include <vector>

namespace glow::photometry {

/// What the maker says about the planes that the file does not list.
enum class Symmetry {
  none,        ///< 0..360 listed
  rotational,  ///< one plane for all
  about_c0,    ///< mirror in the plane C0-C180; C 0..180 listed
  about_c90,   ///< mirror in the plane C90-C270; C 90..270, or 270 through 0 to 90, listed
  quadrant     ///< both; C 0..90 listed
};

/// In words: "rotational", "about C0-C180", ...
std::string to_string(Symmetry symmetry);

/// Planes of the full circle, C rising from 0 to 360 with both ends present (just {0} when rotational), and
/// for each the index of the listed plane that it repeats.
struct FullCircle {
  std::vector<double> c_deg;
  std::vector<std::size_t> listed;
};

/// `listed_c_deg`: the planes that the file lists, any order, within [0, 360].
FullCircle full_circle(const std::vector<double>& listed_c_deg, Symmetry symmetry);

/// candela[plane * gamma_count + g] of the full circle from that of the listed planes.
std::vector<double> spread(const FullCircle& circle, const std::vector<double>& listed_candela,
                           std::size_t gamma_count);

}  // namespace glow::photometry
