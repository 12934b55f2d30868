#pragma once

#include <Eigen/Core>
#include <optional>
#include <vector>

namespace glow::studies {

/// The least of cost . x over low <= x <= high, where each row . x is at least its own limit.
struct LinearProgramme {
  struct Row {
    Eigen::VectorXd factors;  ///< by variables
    double least = 0;
  };
  Eigen::VectorXd cost, low, high;
  std::vector<Row> rows;
};

/// A corner of all that is allowed at which the cost is least, by the dual simplex method; nothing where
/// nothing is allowed. The same for the same programme.
std::optional<Eigen::VectorXd> solve(const LinearProgramme& programme);

}  // namespace glow::studies
