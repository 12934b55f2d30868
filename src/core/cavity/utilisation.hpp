#pragma once

#include <array>
#include <optional>
#include <vector>

#include "core/cavity/cavity.hpp"
#include "core/photometry/photometry.hpp"

namespace glow::cavity {

/// Utilisation factors: flux that lands on the working plane over lamp flux (over the luminaire's own flux
/// where its photometry is absolute), by room index and reflectances, for square rooms with evenly spread
/// luminaires; the cavity's top is the plane of the luminaires.
struct UtilisationTable {
  static const std::vector<double>& indices();             ///< 0.60 to 5.00
  static const std::vector<Reflectances>& reflectances();  ///< usual sets, the last all black
  std::vector<std::vector<double>> factors;                ///< [index][set]
  double output_ratio = 1;                                 ///< of the luminaire; 1 for absolute photometry
};
UtilisationTable utilisation_table(const photometry::Photometry& photometry);

/// Light that leaves the luminaire over the flux of its lamps; 1 where that is not stated apart.
double output_ratio(const photometry::Photometry& photometry);

}  // namespace glow::cavity
