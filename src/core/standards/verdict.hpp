#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/readings/statistics.hpp"

namespace glow::standards {

enum class Quantity {
  mean_illuminance,
  uniformity,
  minimum_illuminance,
  colour_rendering,
  unified_glare,        ///< UGR: an upper limit, as are the next two
  glare_rating,         ///< GR
  luminaire_luminance,  ///< in directions that screens mirror
  shielding_angle       ///< of lamps: a lower limit again
};

/// "mean illuminance", "uniformity U0", "minimum illuminance", "colour rendering Ra", "glare UGR", "glare
/// rating GR", "luminance of luminaires", "shielding angle".
std::string to_string(Quantity quantity);
/// Nothing for other words.
std::optional<Quantity> quantity_of(const std::string& words);
/// "lx", "cd/m2", "deg", or "" for a ratio or an index.
std::string unit_of(Quantity quantity);
/// Whether the required value is the most that is allowed.
bool is_upper_limit(Quantity quantity);
/// Whether it is said of eyes or luminaires, not of the points of a grid.
bool is_glare(Quantity quantity);

/// What is asked of one area, or of a room: a lower limit, or an upper one of glare.
struct Demand {
  Quantity quantity = Quantity::mean_illuminance;
  double required = 0;
  std::string standard;   ///< "EN 12464-1:2021"
  std::string source;     ///< standard, edition and row or rule
  std::string certainty;  ///< how surely the required value is held: "agreed", "single", "disputed", ...
  std::string reason;     ///< why it is not the table's required value; empty: it is
};

/// `undecided`: the value is nearer to its limit than it is certain.
enum class Verdict { met, not_met, undecided };

/// "met", "not met", "undecided".
std::string to_string(Verdict verdict);

/// A check over many possible built rooms.
struct CheckTolerance {
  double share = 0;          ///< of them that meet it
  double low = 0, high = 0;  ///< 90 % of them lie between
};

/// One value held against one demand; both unrounded, so nothing is rounded into passing.
struct Check {
  Demand demand;
  std::string where;  ///< the grid's name
  std::string area;   ///< what the grid is: "task area", "wall", ...
  double actual = 0;
  double uncertainty = 0;  ///< half width of the 95 % interval of `actual`
  bool binding = true;     ///< false: said for information, another check verifies the demand
  Verdict verdict = Verdict::undecided;
  std::optional<CheckTolerance> spread;   ///< when it was asked for
  std::vector<std::string> why, help;  ///< of a check that is not met, or met by far: sentences for people

  double margin() const {
    return is_upper_limit(demand.quantity) ? demand.required - actual : actual - demand.required;
  }
  bool would_meet(double value) const {
    return is_upper_limit(demand.quantity) ? value <= demand.required : value >= demand.required;
  }
  std::string unit() const { return unit_of(demand.quantity); }
};

/// The demand against what a grid holds, maintained.
Check judge(const Demand& demand, const readings::Statistics& maintained,
            const readings::Uncertainty& uncertainty);
/// Against a value of its own.
Check judge(const Demand& demand, double actual, double uncertainty = 0);

}  // namespace glow::standards
