#pragma once

#include <string>
#include <vector>

#include "core/plans/found.hpp"

namespace glow::words {

/// A floor that was taken from a drawing.
struct PlanWords {
  std::string floor, file;
  const plans::FoundPlan* plan = nullptr;
  std::vector<std::string> names, tasks;  ///< of its rooms; tasks may be empty
};

/// Its rooms, a line each, and their sums.
std::string plan_table(const PlanWords& words);

}  // namespace glow::words
