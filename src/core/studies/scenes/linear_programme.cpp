#include "core/studies/scenes/linear_programme.hpp"

#include <coin/ClpSimplex.hpp>

namespace glow::studies {

std::optional<Eigen::VectorXd> solve(const LinearProgramme& programme) {
  const int columns = int(programme.cost.size()), rows = int(programme.rows.size());
  std::vector<int> row_of, column_of;
  std::vector<double> factors, least, most(std::size_t(rows), COIN_DBL_MAX);
  for (int r = 0; r < rows; ++r) {
    const LinearProgramme::Row& row = programme.rows[std::size_t(r)];
    least.push_back(row.least);
    for (int c = 0; c < columns; ++c) {
      row_of.push_back(r);
      column_of.push_back(c);
      factors.push_back(row.factors[c]);
    }
  }
  const CoinPackedMatrix matrix(false, row_of.data(), column_of.data(), factors.data(),
                                CoinBigIndex(factors.size()));
  ClpSimplex simplex;
  simplex.setLogLevel(0);
  simplex.loadProblem(matrix, programme.low.data(), programme.high.data(), programme.cost.data(),
                      least.data(), most.data());
  simplex.dual();
  if (simplex.status() != 0) return std::nullopt;
  return Eigen::Map<const Eigen::VectorXd>(simplex.primalColumnSolution(), columns)
      .cwiseMax(programme.low)
      .cwiseMin(programme.high);
}

}  // namespace glow::studies
