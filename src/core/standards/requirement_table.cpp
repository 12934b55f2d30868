#include "core/standards/requirement_table.hpp"

#include <algorithm>

namespace glow::standards {

std::string Requirement::source() const {
  std::string name = standard_name();
  if (!reference.empty()) name += ", " + reference;
  return own ? name + " (own table)" : name;
}

PlaneOrientation Requirement::orientation() const {
  const auto begins = [&](const char* word) { return plane_note.rfind(word, 0) == 0; };
  if (begins("vertical")) return PlaneOrientation::vertical;
  if (begins("open")) return PlaneOrientation::open;
  return begins("on the slope") ? PlaneOrientation::slope : PlaneOrientation::horizontal;
}

bool Requirement::is_not_held(const std::string& column) const {
  for (std::size_t from = 0; from < not_held.size();) {
    const std::size_t end = std::min(not_held.find(';', from), not_held.size());
    if (not_held.substr(from, end - from) == column) return true;
    from = end + 1;
  }
  return false;
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

void RequirementTable::put(const Requirement& row) {
  const auto same =
      std::find_if(rows_.begin(), rows_.end(), [&](const Requirement& r) { return r.key == row.key; });
  if (same == rows_.end())
    rows_.push_back(row);
  else
    *same = row;
}

}  // namespace glow::standards
