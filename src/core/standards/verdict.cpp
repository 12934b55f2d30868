#include "core/standards/verdict.hpp"

#include <fmt/format.h>

#include <cmath>

namespace glow::standards {

std::string to_string(Quantity quantity) {
  return quantity == Quantity::mean_illuminance ? "mean illuminance" : "uniformity U0";
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

std::vector<Check> verify(const Requirement& requirement, const std::string& where,
                          const readings::Statistics& maintained, const readings::Uncertainty& uncertainty) {
  std::vector<Check> checks;
  const auto add = [&](Quantity quantity, double required, double actual, const char* unit, double spread) {
    const double margin = actual - required;
    const Verdict verdict = std::abs(margin) < spread ? Verdict::undecided
                            : margin >= 0             ? Verdict::met
                                                      : Verdict::not_met;
    checks.push_back({quantity, where, required, actual, unit, verdict, margin, spread, requirement.source(),
                      requirement.certainty});
  };
  if (requirement.em_lx)
    add(Quantity::mean_illuminance, *requirement.em_lx, maintained.mean_lx, "lx", uncertainty.mean_lx);
  if (requirement.uo)
    add(Quantity::uniformity, *requirement.uo, maintained.u0.value_or(0), "", uncertainty.u0);
  return checks;
}

std::vector<std::string> not_checked(const Requirement& requirement) {
  std::vector<std::string> list;
  if (requirement.rugl) list.push_back(fmt::format(FMT_STRING("glare RUGL {}"), *requirement.rugl));
  if (requirement.ra) list.push_back(fmt::format(FMT_STRING("colour rendering Ra {}"), *requirement.ra));
  if (requirement.ez_lx) list.push_back(fmt::format(FMT_STRING("cylindrical Ez {} lx"), *requirement.ez_lx));
  if (requirement.ewall_lx) list.push_back(fmt::format(FMT_STRING("walls {} lx"), *requirement.ewall_lx));
  if (requirement.eceiling_lx)
    list.push_back(fmt::format(FMT_STRING("ceiling {} lx"), *requirement.eceiling_lx));
  for (const auto& [name, word] : {std::pair{"RUGL", "glare (limit not held)"},
                                   {"Ra", "colour rendering (not held)"},
                                   {"Em_lx", "mean illuminance (not held)"},
                                   {"Uo", "uniformity (not held)"}})
    if (requirement.not_held.find(name) != std::string::npos) list.push_back(word);
  return list;
}

}  // namespace glow::standards
