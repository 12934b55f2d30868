#include "words/tables/check_rows.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "words/families.hpp"
#include "words/values.hpp"

namespace glow::words {
namespace {

using standards::Check;
using standards::Target;
using standards::Verdict;

/// One thing and quantity.
struct Item {
  std::string name, family;  ///< empty: stands alone
  bool walls = false;
  std::vector<const Check*> checks;
};

const Check& first_of(const std::vector<const Check*>& checks) {
  return **std::find_if(checks.begin(), checks.end(), [](const Check* check) { return check != nullptr; });
}

/// Whether it is met by all standards that ask for it.
bool is_met(const Item& item) {
  return std::all_of(item.checks.begin(), item.checks.end(), [](const Check* check) {
    return !check || (check->verdict == Verdict::met && check->binding);
  });
}

double margin_of(const Item& item) {
  double least = INFINITY;
  for (const Check* check : item.checks)
    if (check) least = std::min(least, check->margin());
  return least;
}

bool asks_the_same(const Item& a, const Item& b) {
  if (first_of(a.checks).demand.quantity != first_of(b.checks).demand.quantity) return false;
  return std::equal(a.checks.begin(), a.checks.end(), b.checks.begin(), [](const Check* x, const Check* y) {
    return (!x && !y) || (x && y && x->demand.required == y->demand.required);
  });
}

std::vector<Item> items_of(const record::RoomRecord& room, const std::vector<std::string>& standards) {
  std::vector<Item> items;
  for (const Check& check : room.assessment.checks) {
    const std::size_t by =
        std::size_t(std::find(standards.begin(), standards.end(), check.demand.standard) - standards.begin());
    auto same = std::find_if(items.begin(), items.end(), [&](const Item& item) {
      const Check& first = first_of(item.checks);
      return first.target == check.target && first.demand.quantity == check.demand.quantity &&
             first.actual == check.actual && !item.checks[by];
    });
    if (same == items.end()) {
      same = items.insert(items.end(), Item{name_of(check.target, room), {}, false, {}});
      same->checks.resize(standards.size());
      const bool grid = check.target.kind == Target::Kind::grid;
      const auto* reading = grid ? &room.assessment.grids[check.target.id] : nullptr;
      same->walls = reading && reading->role == space::GridRole::wall;
      same->family = reading ? family_of(*reading) : family_of(same->name);
    }
    same->checks[by] = &check;
  }
  return items;
}

/// The members of an item's family in one line.
CheckRow row_of(const std::vector<const Item*>& members) {
  const Item& least = **std::min_element(members.begin(), members.end(), [](const Item* a, const Item* b) {
    return margin_of(*a) < margin_of(*b);
  });
  CheckRow row{least.name, least.checks, INFINITY, -INFINITY};
  for (const Item* member : members) {
    row.low = std::min(row.low, first_of(member->checks).actual);
    row.high = std::max(row.high, first_of(member->checks).actual);
  }
  if (members.size() == 1) return row;
  row.name = least.walls ? fmt::format(FMT_STRING("{} walls, least {}"), members.size(), least.name)
                         : fmt::format(FMT_STRING("{} x {}, least {}"), members.size(), least.family,
                                       number_in(least.name));
  return row;
}

}  // namespace

const Check& CheckRow::first() const {
  return first_of(checks);
}

std::vector<std::string> standards_of(const record::RoomRecord& room) {
  std::vector<std::string> standards;
  for (const Check& check : room.assessment.checks)
    if (std::find(standards.begin(), standards.end(), check.demand.standard) == standards.end())
      standards.push_back(check.demand.standard);
  return standards;
}

std::vector<CheckRow> check_rows(const record::RoomRecord& room, const std::vector<std::string>& standards) {
  const std::vector<Item> items = items_of(room, standards);
  std::vector<CheckRow> rows;
  std::vector<bool> told(items.size());
  for (std::size_t i = 0; i < items.size(); ++i) {
    if (told[i]) continue;
    std::vector<const Item*> members = {&items[i]};
    std::vector<std::size_t> numbers = {i};
    if (!items[i].family.empty() && is_met(items[i]))
      for (std::size_t k = i + 1; k < items.size(); ++k)
        if (!told[k] && items[k].family == items[i].family && is_met(items[k]) &&
            asks_the_same(items[i], items[k])) {
          members.push_back(&items[k]);
          numbers.push_back(k);
        }
    if (members.size() < kWorthALine && !items[i].walls) {
      members.resize(1);
      numbers.resize(1);
    }
    for (const std::size_t k : numbers) told[k] = true;
    rows.push_back(row_of(members));
  }
  return rows;
}

}  // namespace glow::words
