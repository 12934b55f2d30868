#include "files/photometry/photometry_findings.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace glow::files {
namespace {

constexpr double kMoreThanLamps =
    1.05;  // a luminaire cannot give more than its lamps; 5 % for steps and rounding
constexpr double kFarLessThanLamps = 0.2;  // below this share of the lamps' flux a slip of units is likelier
constexpr double kRatioAgreement = 0.1;    // relative, stated output ratio against the table
constexpr double kLargest = 10.0;  // m; larger luminous areas are millimetres or feet taken for metres
constexpr double kLargestPossible = 2000;  // m
constexpr double kMostFlux = 1e9;          // lm
constexpr double kSmallest = 0.005;        // m; smaller ones metres taken for millimetres
constexpr double kSameIntensity = 0.02;    // of the peak
constexpr double kSameAngle = 1e-6;
constexpr double kWidestStep = 15.0;  // degrees; wider ones hide the shape of a beam

void judge_flux(const photometry::Photometry& p, const FileClaims& claims, Problems& problems) {
  if (!p.lamp_flux_lm || *p.lamp_flux_lm <= 0) return;
  const double flux = p.flux_lm(), lamps = *p.lamp_flux_lm;
  if (flux > kMoreThanLamps * lamps || flux < kFarLessThanLamps * lamps) {
    problems.warning(
        "flux-mismatch", {claims.file, claims.flux_line, 0},
        fmt::format(
            FMT_STRING("the intensities add up to {:.0f} lm, the lamps are stated with {:.0f} lm; one "
                       "of the two is wrong. The intensities are used as they are"),
            flux, lamps));
  } else if (claims.output_ratio > 0 && std::abs(flux / lamps / claims.output_ratio - 1) > kRatioAgreement) {
    problems.warning(
        "flux-mismatch", {claims.file, claims.ratio_line, 0},
        fmt::format(
            FMT_STRING("the light output ratio is stated as {:.1f} %, the intensities give {:.1f} %. The "
                       "intensities are used as they are"),
            100 * claims.output_ratio, 100 * flux / lamps));
  }
}

void judge_size(const photometry::Photometry& p, const FileClaims& claims, Problems& problems) {
  const double largest = std::max({p.area.extent_c0_m, p.area.extent_c90_m, p.area.height_m()});
  if (largest > kLargest)
    problems.warning(
        "units-implausible", {claims.file, claims.size_line, 0},
        fmt::format(
            FMT_STRING("the luminous area is {:g} x {:g} m; that looks like millimetres or feet taken "
                       "for metres. It is used as it is"),
            p.area.extent_c0_m, p.area.extent_c90_m));
  if (largest > 0 && largest < kSmallest)
    problems.warning(
        "units-implausible", {claims.file, claims.size_line, 0},
        fmt::format(FMT_STRING("the luminous area is {:g} x {:g} mm; that looks like metres taken for "
                               "millimetres. It is used as it is"),
                    1000 * p.area.extent_c0_m, 1000 * p.area.extent_c90_m));
}

/// Beyond anything that was ever built: a slip that no calculation should meet.
bool is_possible(const photometry::Photometry& p, const FileClaims& claims, Problems& problems) {
  const double largest =
      std::max({p.area.extent_c0_m, p.area.extent_c90_m, p.area.height_m(),
                p.body ? std::max({p.body->extent_c0_m, p.body->extent_c90_m, p.body->height_m}) : 0});
  if (!(largest <= kLargestPossible))
    problems.error("out-of-range", {claims.file, claims.size_line, 0},
                   fmt::format(FMT_STRING("the luminaire is {:g} m long; expected up to {:.0f} m"), largest,
                               kLargestPossible));
  if (!(p.flux_lm() <= kMostFlux))
    problems.error(
        "out-of-range", {claims.file, claims.flux_line, 0},
        fmt::format(FMT_STRING("the luminaire gives {:.3g} lm; expected up to {:.0e} lm. Is a factor "
                               "or multiplier wrong?"),
                    p.flux_lm(), kMostFlux));
  return largest <= kLargestPossible && p.flux_lm() <= kMostFlux;
}

/// Notes on what the file leaves open; none of it is a fault.
void judge_gaps(const photometry::Photometry& p, const FileClaims& claims, Problems& problems) {
  const auto& gammas = p.table.gamma_deg();
  const auto lit = [&](std::size_t g) {
    for (std::size_t c = 0; c < p.table.c_deg().size(); ++c)
      if (p.table.node(c, g) > kSameIntensity * p.table.peak().candela) return true;
    return false;
  };
  for (std::size_t g = 1; g < gammas.size(); ++g) {
    if (gammas[g] - gammas[g - 1] <= kWidestStep || !(lit(g - 1) || lit(g))) continue;
    problems.note(
        "coarse-table", {claims.file, 0, 0},
        fmt::format(
            FMT_STRING(
                "between gamma {:g} and {:g} there is no value; the light is taken as a straight line"),
            gammas[g - 1], gammas[g]));
    break;
  }
  if (gammas.back() < 90)
    problems.warning(
        "gamma-ends-early", {claims.file, 0, 0},
        fmt::format(FMT_STRING("the table ends at gamma {:g}{}; up to 90 the direction of walls and eyes is "
                               "missing. Beyond the end it is taken as dark"),
                    gammas.back(), lit(gammas.size() - 1) ? " with light in it" : ""));
  else if (gammas.back() < 180 && lit(gammas.size() - 1))
    problems.note(
        "light-ends-abruptly", {claims.file, 0, 0},
        fmt::format(FMT_STRING("the table ends at gamma {:g} with light in it; beyond there is none"),
                    gammas.back()));
  if (p.area.shape == photometry::LuminousShape::point)
    problems.note(
        "no-size", {claims.file, claims.size_line, 0},
        "no luminous size is stated; the luminaire is taken as a point, and luminances are not known");
  if (p.luminaire.empty() && p.catalogue_number.empty())
    problems.note("no-name", {claims.file, 0, 0}, "neither the luminaire's name nor its number is stated");
}

}  // namespace

void judge(const photometry::Photometry& photometry, const FileClaims& claims, Problems& problems) {
  if (!is_possible(photometry, claims, problems)) return;
  judge_flux(photometry, claims, problems);
  judge_size(photometry, claims, problems);
  judge_gaps(photometry, claims, problems);
  if (!photometry.watts)
    problems.warning("no-watts", {claims.file, 0, 0},
                     "no input watts are stated; installed power stays unknown");
}

void judge_planes(const std::vector<double>& c_deg, const std::vector<double>& gamma_deg,
                  const std::vector<double>& candela, const Place& place, Problems& problems) {
  const std::size_t row = gamma_deg.size();
  const double peak = *std::max_element(candela.begin(), candela.end());
  if (c_deg.size() < 2) return;
  if (c_deg.front() < kSameAngle && c_deg.back() > 360 - kSameAngle) {
    double worst = 0;
    for (std::size_t g = 0; g < row; ++g)
      worst = std::max(worst, std::abs(candela[(c_deg.size() - 1) * row + g] - candela[g]));
    if (worst > kSameIntensity * peak)
      problems.warning(
          "symmetry-mismatch", place,
          fmt::format(
              FMT_STRING("the planes at 0 and 360 are the same direction but differ by up to {:.0f} % of "
                         "the peak; each is used on its own side"),
              100 * worst / peak));
  }
  for (const std::size_t g : {std::size_t{0}, row - 1}) {
    if (gamma_deg[g] > kSameAngle && gamma_deg[g] < 180 - kSameAngle) continue;
    double low = candela[g], high = candela[g];
    for (std::size_t c = 1; c < c_deg.size(); ++c) {
      low = std::min(low, candela[c * row + g]);
      high = std::max(high, candela[c * row + g]);
    }
    if (high - low > kSameIntensity * peak)
      problems.warning(
          "symmetry-mismatch", place,
          fmt::format(FMT_STRING("at gamma {:g} all planes are one direction, but their intensities run from "
                                 "{:g} to {:g}"),
                      gamma_deg[g], low, high));
  }
}

}  // namespace glow::files
