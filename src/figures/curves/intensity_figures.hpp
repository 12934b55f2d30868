#pragma once

#include <memory>
#include <string>
#include <vector>

#include "core/photometry/photometry.hpp"

namespace glow::figures {

/// One luminaire to draw.
struct Curve {
  std::string name;
  std::shared_ptr<const photometry::Photometry> photometry;
};

struct IntensityScale {
  bool per_klm = false;                  ///< cd per 1000 lm of lamp flux, where one is stated; else cd
  std::vector<double> more_planes = {};  ///< C planes beside C0-C180 and C90-C270, degrees
};

/// Polar intensity curves as SVG, 1280 x 800: gamma 0 straight down, the plane C to the right and C + 180 to
/// the left, half-peak marked, the luminous area seen from above with C0 and C90. Several luminaires share
/// one scale and one legend.
std::string polar_svg(const std::vector<Curve>& curves, const IntensityScale& scale);

/// The same over the angle from straight down, in a straight grid fitted to the beam: for narrow beams.
std::string beam_svg(const std::vector<Curve>& curves, const IntensityScale& scale);

/// Isolux lines that one luminaire alone gives on a horizontal plane `height_m` below its luminous area.
std::string footprint_svg(const Curve& curve, double height_m);

}  // namespace glow::figures
