#pragma once

namespace glow::glare {

/// One luminaire as it glares into a window.
struct WindowGlare {
  double solid_angle_sr = 0, luminance_cd_m2 = 0;  ///< as they count
  double k = 0;                                    ///< L sqrt(omega / Lu)
  bool outside_range = false;  ///< of 1e-6 to 1e-2 sr and 0.1 to 10 cd/m2, for which the formula was made
};

/// The least luminance of surroundings that counts, cd/m2.
inline constexpr double kLeastBackground = 0.1;

/// k of residential glare: L_s <= k sqrt(Lu / omega) (LAI guidance, 2012; after EN 12464-2's field).
/// `intensity_cd` towards the window, `area_m2` luminous as seen from there; 0: the file states no size.
/// `least_angle_sr`: smaller solid angles count as this one, with the luminance that gives the same
/// intensity.
WindowGlare window_glare(double intensity_cd, double area_m2, double distance_m, double background_cd_m2,
                         double least_angle_sr);

/// What a source adds to the veil before the eye of a road user, cd/m2: E lx on the eye, theta degrees off
/// the line of sight.  10 E / theta^2 (CIE 31), or by age 9.86 (1 + (A / 66.4)^4) E / theta^2 (CIE 140).
double veil(double eye_lx, double theta_deg);
double veil_of_age(double eye_lx, double theta_deg, double age);
/// TI in %: 65 Lv / L^0.8 up to 5 cd/m2 of the road, 95 Lv / L^1.05 above (CIE 31; CIE 140).
double threshold_increment(double veil_cd_m2, double road_cd_m2);

/// Upward flux ratio from first principles: (E / E_required) (ULOR + DLOR (u rho_area + (1 - u)
/// rho_surround)) / (DLOR u rho_area). `share`: u, of the downward flux that falls on the area. Held with low
/// certainty to be CIE 150's exact definition. 0 where nothing falls on the area.
double upward_flux_ratio(double upward, double downward, double share, double area_reflectance,
                         double surround_reflectance, double initial_over_required);

}  // namespace glow::glare
