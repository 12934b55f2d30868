#pragma once

#include <string>
#include <vector>

#include "core/readings/statistics.hpp"
#include "core/standards/requirement_table.hpp"

namespace glow::standards {

enum class Quantity { mean_illuminance, uniformity };

/// "mean illuminance", "uniformity U0".
std::string to_string(Quantity quantity);

/// `undecided`: the value is nearer to its limit than it is certain.
enum class Verdict { met, not_met, undecided };

/// "met", "not met", "undecided".
std::string to_string(Verdict verdict);

/// One value held against one requirement; both unrounded, so nothing is rounded into passing.
struct Check {
  Quantity quantity = Quantity::mean_illuminance;
  std::string where;  ///< the grid's name
  double required = 0, actual = 0;
  std::string unit;  ///< "lx", or empty for a ratio
  Verdict verdict = Verdict::undecided;
  double margin = 0;       ///< actual - required
  double uncertainty = 0;  ///< half width of the 95 % interval of `actual`
  std::string source;      ///< standard, edition and row
  std::string certainty;   ///< how surely the required value is held: "agreed", "single" or "disputed"
};

/// Mean and U0 of the grid, maintained, against the row. Columns that the table leaves empty give no check.
std::vector<Check> verify(const Requirement& requirement, const std::string& where,
                          const readings::Statistics& maintained, const readings::Uncertainty& uncertainty);

/// What the row asks for that `verify` does not look at, in words ("colour rendering Ra 80", ...).
std::vector<std::string> not_checked(const Requirement& requirement);

}  // namespace glow::standards
