#pragma once

#include <optional>

namespace glow::model {

/// What is left of a luminaire type's light when it is next looked after, CIE 97. The room's surfaces have a
/// factor of their own.
struct LuminaireMaintenance {
  double lamp_flux = 1;                              ///< LLMF: of the lamps still burning
  double lamp_survival = 1;                          ///< LSF: share of lamps still burning
  double luminaire = 1;                              ///< LMF: dirt in and on the luminaire
  std::optional<double> lamp_hours, cleaning_years;  ///< intervals that the factors hold for
};

/// RSMF: what dirt on the room's surfaces leaves.
struct SurfaceMaintenance {
  double factor = 1;
  std::optional<double> cleaning_years;
};

/// MF = LLMF LSF LMF RSMF (CIE 97, EN 12464-1). Applied once, to initial values.
inline double maintenance_factor(const LuminaireMaintenance& luminaire, double room_surfaces) {
  return luminaire.lamp_flux * luminaire.lamp_survival * luminaire.luminaire * room_surfaces;
}

/// How far the built room may be from the planned one: standard deviations.
struct ToleranceWish {
  int samples = 300;
  unsigned seed = 1;
  double flux = 0.05;         ///< of a luminaire type's flux, relative
  double maintenance = 0.05;  ///< of the maintenance factor, relative
  double reflectance = 0.05;  ///< of ceiling, walls and floor, absolute
  double mounting_m = 0.03;   ///< of each luminaire's place, along x, y and z
};

}  // namespace glow::model
