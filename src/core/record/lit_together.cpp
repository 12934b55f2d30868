#include "core/record/lit_together.hpp"

#include <algorithm>

#include "core/record/record.hpp"

namespace glow::record {
namespace {

using standards::Check;
using standards::Quantity;

bool adds_up(const Check& check) {
  return check.binding && check.target.kind == standards::Target::Kind::grid &&
         (check.demand.quantity == Quantity::window_illuminance ||
          check.demand.quantity == Quantity::property_illuminance);
}

/// One more area's check of a neighbour, to those that were found.
void add(std::vector<LitTogether>& found, const std::string& neighbour, const std::string& area,
         const Check& check) {
  auto own = std::find_if(found.begin(), found.end(), [&](const LitTogether& each) {
    return each.neighbour == neighbour && each.check.demand.quantity == check.demand.quantity &&
           each.check.demand.standard == check.demand.standard;
  });
  if (own == found.end()) {
    found.push_back({neighbour, {}, standards::judge(check.demand, 0)});
    own = found.end() - 1;
  }
  if (check.demand.required < own->check.demand.required) own->check.demand = check.demand;
  if (check.actual > 0) own->areas.emplace_back(area, check.actual);
  own->check = standards::judge(own->check.demand, own->check.actual + check.actual,
                                own->check.uncertainty + check.uncertainty);
}

}  // namespace

std::vector<LitTogether> lit_together(const RunRecord& run) {
  std::vector<LitTogether> found;
  for (const RoomRecord& room : run.rooms)
    for (const Check& check : room.assessment.checks)
      if (adds_up(check)) add(found, room.assessment.grids[check.target.id].name, room.name, check);
  found.erase(std::remove_if(found.begin(), found.end(),
                             [](const LitTogether& each) { return each.areas.size() < 2; }),
              found.end());
  return found;
}

}  // namespace glow::record
