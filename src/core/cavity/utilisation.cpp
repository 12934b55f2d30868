#include "core/cavity/utilisation.hpp"

namespace glow::cavity {

const std::vector<double>& UtilisationTable::indices() {
  static const std::vector<double> list = {0.60, 0.80, 1.00, 1.25, 1.50, 2.00, 2.50, 3.00, 4.00, 5.00};
  return list;
}

const std::vector<Reflectances>& UtilisationTable::reflectances() {
  static const std::vector<Reflectances> list = {
      {0.8, 0.8, 0.3}, {0.8, 0.5, 0.3}, {0.8, 0.5, 0.1}, {0.7, 0.5, 0.2}, {0.7, 0.3, 0.2},
      {0.5, 0.5, 0.1}, {0.5, 0.3, 0.1}, {0.3, 0.3, 0.1}, {0.3, 0.1, 0.1}, {0.0, 0.0, 0.0}};
  return list;
}

double output_ratio(const photometry::Photometry& photometry) {
  const bool stated = !photometry.absolute && photometry.lamp_flux_lm && *photometry.lamp_flux_lm > 0;
  return stated ? photometry.flux_lm() / *photometry.lamp_flux_lm : 1.0;
}

UtilisationTable utilisation_table(const photometry::Photometry& photometry) {
  UtilisationTable table;
  table.output_ratio = output_ratio(photometry);
  for (const double index : UtilisationTable::indices()) {
    auto& row = table.factors.emplace_back();
    const Cavity square{2 * index, 2 * index, 1};
    const FluxShares direct = direct_shares(photometry.table, square);
    for (const Reflectances& r : UtilisationTable::reflectances())
      row.push_back(table.output_ratio * total_shares(direct, square, r).bottom);
  }
  return table;
}

}  // namespace glow::cavity
