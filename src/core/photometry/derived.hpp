#pragma once

#include <array>
#include <optional>
#include <string>

#include "core/photometry/photometry.hpp"

namespace glow::photometry {

/// lm between two gammas (degrees), all C; exact for the bilinear table.
double flux_between(const IntensityTable& table, double gamma_low_deg, double gamma_high_deg);

/// CIE flux code (CIE 52): N1..N3 = share of the downward flux in cones of pi/2, pi and 3 pi/2 sr (41.4, 60
/// and 75.5 degrees), N4 = downward share of the luminaire's flux, N5 = light output ratio; all in %. N5 is
/// nothing where no lamp flux is stated; nothing at all comes back for a luminaire without downward light.
struct FluxCode {
  double n1 = 0, n2 = 0, n3 = 0, n4 = 0;
  std::optional<double> n5;
};
std::optional<FluxCode> flux_code(const Photometry& photometry);

/// Where the intensity in the planes C and C + 180 falls to a share of the peak in that pair, walking
/// outwards from the peak, below the horizontal only. Angles in degrees from straight down, positive towards
/// C.
struct BeamEdges {
  double peak_cd = 0, peak_deg = 0;
  double left_deg = 0, right_deg = 0;
  double width_deg() const { return right_deg - left_deg; }
};
/// Nothing when an edge lies above the horizontal. share: 0.5 = beam angle, 0.1 = field angle.
std::optional<BeamEdges> beam_edges(const IntensityTable& table, double c_deg, double share);

/// m2 of the luminous area seen from the direction; flat faces, sides, cylinders and spheres by their
/// outlines.
double projected_area(const LuminousArea& area, double c_deg, double gamma_deg);
/// cd/m2, mean over the projected luminous area; nothing for a point source or where no area is seen.
std::optional<double> mean_luminance(const Photometry& photometry, double c_deg, double gamma_deg);
/// Largest of C every 15 and gamma 65 to 85 every 5 degrees.
std::optional<double> max_luminance_above_65(const Photometry& photometry);

/// Spacing over mounting height above the plane at which the point midway between two luminaires gets just as
/// much from both as a point below one gets from that one. The row runs along C0-C180 for c_deg = 0. Nothing
/// without light straight down or when no spacing up to 6 does so.
std::optional<double> spacing_criterion(const IntensityTable& table, double c_deg);

/// What symmetry the numbers have, whatever the file declares; planes that differ by less than 1 % of the
/// peak are alike.
Symmetry symmetry_found(const IntensityTable& table);

/// How far the light leans to one side: the horizontal part of the mean direction of all its light, 0 for
/// what is symmetric, 1 for a beam to the side; 0.2 is a beam aimed 12 degrees off.
double lean_of(const IntensityTable& table);

/// What a luminaire is for, by where its light goes.
enum class LightKind { direct, direct_indirect, indirect, one_sided };
/// One-sided when it leans by 0.2 or more; else by the share that goes up: a tenth and nine tenths part them.
LightKind light_kind(const IntensityTable& table);
/// "direct", "direct-indirect", "indirect", "one-sided".
std::string to_string(LightKind kind);

/// Whether so much of its light goes up (a tenth) that it is not put into a ceiling.
bool gives_uplight(const Photometry& photometry);

/// In words, from the CIE classes by upward share and the beam: "direct, medium beam", "direct-indirect,
/// batwing", ...
std::string kind_of_distribution(const IntensityTable& table);

}  // namespace glow::photometry
