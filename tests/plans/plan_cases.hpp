#pragma once

#include <nlohmann/json.hpp>
#include <ostream>
#include <string>
#include <vector>

#include "core/plans/models/take_model.hpp"
#include "files/plans/plan_taker.hpp"

namespace glow::cases {

/// A drawing with what a person asks of it, and what must come of it (tests/plans/truth.json).
struct PlanCase {
  std::string file;  ///< "dxf/o01-mill-ground.dxf"
  std::string name;  ///< of the question
  const nlohmann::json* truth = nullptr;
  const nlohmann::json& asked() const { return truth->at("import"); }
};

std::vector<PlanCase> plan_cases();
inline void PrintTo(const PlanCase& one, std::ostream* out) {
  *out << one.file << " " << one.name;
}

/// What the program makes of it.
struct PlanOutcome {
  std::string outcome;  ///< "ok", "warn", "refuse"
  Problems problems;
  std::vector<std::string> floors;       ///< names
  std::vector<files::TakenFloor> taken;  ///< in the same order
  std::optional<plans::TakenModel> model;
};
PlanOutcome outcome_of(const PlanCase& asked);

}  // namespace glow::cases
