#include "core/standards/requirement_table.hpp"

#include <algorithm>

namespace glow::standards {

std::string RequirementTable::name() const {
  return rows_.empty() ? std::string() : rows_.front().standard + ":" + rows_.front().edition;
}

const Requirement* RequirementTable::find(const std::string& key) const {
  const auto row =
      std::find_if(rows_.begin(), rows_.end(), [&](const Requirement& r) { return r.key == key; });
  return row == rows_.end() ? nullptr : &*row;
}

std::vector<std::string> RequirementTable::keys() const {
  std::vector<std::string> keys;
  for (const Requirement& row : rows_) keys.push_back(row.key);
  return keys;
}

}  // namespace glow::standards
