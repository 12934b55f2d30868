#include "core/standards/verdict.hpp"

#include <cmath>

namespace glow::standards {
namespace {

constexpr double kNoRatio = 1e6;  // where it is dark, any light is more than any number of times that

Check judged(const Demand& demand, double actual, double uncertainty) {
  Check check;
  check.demand = demand;
  check.actual = actual;
  check.uncertainty = uncertainty;
  const double margin = check.margin();
  check.verdict = std::abs(margin) < uncertainty ? Verdict::undecided
                  : margin >= 0                  ? Verdict::met
                                                 : Verdict::not_met;
  return check;
}

}  // namespace

std::string to_string(Verdict verdict) {
  switch (verdict) {
    case Verdict::met:
      return "met";
    case Verdict::not_met:
      return "not met";
    case Verdict::undecided:
      return "undecided";
  }
  return "";
}

Check judge(const Demand& demand, const readings::Statistics& maintained,
            const readings::Uncertainty& uncertainty) {
  switch (demand.quantity) {
    case Quantity::mean_illuminance:
      return judged(demand, maintained.mean_lx, uncertainty.mean_lx);
    case Quantity::minimum_illuminance:
      return judged(demand, maintained.min_lx, uncertainty.min_lx);
    case Quantity::uniformity:
      return judged(demand, maintained.u0.value_or(0), uncertainty.u0);
    case Quantity::illuminance_ratio: {
      if (maintained.min_lx <= 0) return judged(demand, kNoRatio, 0);
      const double ratio = maintained.max_lx / maintained.min_lx;
      return judged(demand, ratio, ratio * uncertainty.min_lx / maintained.min_lx);
    }
    case Quantity::window_illuminance:
      return judged(demand, maintained.mean_lx, uncertainty.mean_lx);
    case Quantity::property_illuminance:
      return judged(
          demand, maintained.max_lx,
          maintained.mean_lx > 0 ? uncertainty.mean_lx * maintained.max_lx / maintained.mean_lx : 0);
    default:  // of no points
      return judged(demand, 0, 0);
  }
}

Check judge(const Demand& demand, double actual, double uncertainty) {
  return judged(demand, actual, uncertainty);
}

}  // namespace glow::standards
