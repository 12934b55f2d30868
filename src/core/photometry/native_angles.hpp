#pragma once

#include <vector>

#include "core/photometry/intensity_table.hpp"

namespace glow::photometry {

/// The other two coordinate systems of goniophotometers (CIE 121). Both cover the front half space only.
enum class NativeKind {
  b,  ///< polar axis along C0-C180: horizontal angle H is the latitude, V turns about that axis
  a   ///< polar axis along C90-C270: vertical angle Y is the latitude, X turns about that axis
};

/// The same light in C-gamma, resampled every 0.25 degrees in gamma and 1 degree in C: bilinear in the file's
/// own angles at each node. Against the file's own table flux moves by less than 0.1 %, intensities by less
/// than 0.5 % of the peak where its steps are 1 degree or more.
///
/// `horizontal_deg` and `vertical_deg` rise within -90..90, two or more of each; candela[h * vertical.size()
/// + v]. gamma 0 is the aim; H and X grow towards C0, V and Y towards C90. No light outside the tabulated
/// angles.
IntensityTable resampled(NativeKind kind, const std::vector<double>& horizontal_deg,
                         const std::vector<double>& vertical_deg, const std::vector<double>& candela);

}  // namespace glow::photometry
