#pragma once

#include <string>
#include <vector>

#include "core/standards/requirement_table.hpp"

namespace glow::standards {

/// A row that was found, and how well the words fit it: higher is better.
struct FoundTask {
  const Requirement* row = nullptr;
  int fit = 0;
};

/// Rows that every one of `words` (any case) occurs in: in the key, the task, its area or its search words;
/// the best fit first, then the table's order. All rows when there are no words.
std::vector<FoundTask> find_tasks(const RequirementTable& table, const std::vector<std::string>& words);

/// The same where no row has every word: rows with as many of them as any row has.
std::vector<FoundTask> nearest_tasks(const RequirementTable& table, const std::vector<std::string>& words);

}  // namespace glow::standards
