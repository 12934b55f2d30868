#include "core/standards/verdict.hpp"

#include <array>
#include <cmath>

namespace glow::standards {
namespace {

constexpr std::array<std::pair<Quantity, const char*>, 4> kQuantities = {
    {{Quantity::mean_illuminance, "mean illuminance"},
     {Quantity::uniformity, "uniformity U0"},
     {Quantity::minimum_illuminance, "minimum illuminance"},
     {Quantity::colour_rendering, "colour rendering Ra"}}};

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

std::string to_string(Quantity quantity) {
  for (const auto& [known, words] : kQuantities)
    if (known == quantity) return words;
  return "";
}

std::optional<Quantity> quantity_of(const std::string& words) {
  for (const auto& [quantity, known] : kQuantities)
    if (known == words) return quantity;
  return std::nullopt;
}

std::string unit_of(Quantity quantity) {
  return quantity == Quantity::mean_illuminance || quantity == Quantity::minimum_illuminance ? "lx" : "";
}

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
    case Quantity::colour_rendering:
      break;
  }
  return judged(demand, 0, 0);
}

Check judge(const Demand& demand, double actual) {
  return judged(demand, actual, 0);
}

}  // namespace glow::standards
