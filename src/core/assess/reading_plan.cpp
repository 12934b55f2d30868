#include "core/assess/reading_plan.hpp"

namespace glow::assess {
namespace {

ReadingPlan nothing(const space::Space& space) {
  ReadingPlan plan;
  plan.first_of_grid.assign(space.grids.size(), ReadingPlan::kNone);
  for (const space::EyeSet& set : space.eyes) plan.views.emplace_back(set.size(), ReadingPlan::kNone);
  return plan;
}

void add_grid(const space::Space& space, std::size_t grid, ReadingPlan& plan) {
  plan.first_of_grid[grid] = plan.receivers.size();
  for (std::size_t i = 0; i < space.grids[grid].grid.points.size(); ++i)
    plan.receivers.push_back(space.grids[grid].receiver(i));
}

void add_view(const space::Space& space, std::size_t set, std::size_t view, bool lean, ReadingPlan& plan) {
  plan.views[set][view] = plan.receivers.size();
  readings::Receiver receiver{space.eyes[set].position(view), space.eyes[set].sight(view)};
  receiver.reflected_only = true;
  receiver.lean = lean;
  plan.receivers.push_back(receiver);
}

}  // namespace

ReadingPlan ReadingPlan::whole(const space::Space& space, const space::Brief& brief) {
  ReadingPlan plan = nothing(space);
  for (std::size_t g = 0; g < space.grids.size(); ++g) add_grid(space, g, plan);
  for (const space::Point& point : space.points) {
    plan.points.push_back(plan.receivers.size());
    plan.receivers.push_back(point.receiver);
  }
  for (std::size_t s = 0; brief.glare.rates_ugr && s < space.eyes.size(); ++s)
    for (std::size_t v = 0; v < space.eyes[s].size(); ++v)
      add_view(space, s, v, space.eyes[s].cell_m.has_value(), plan);
  return plan;
}

ReadingPlan ReadingPlan::part(const space::Space& space, const std::vector<std::size_t>& grids,
                              const ViewChoice& views) {
  ReadingPlan plan = nothing(space);
  for (const std::size_t grid : grids) add_grid(space, grid, plan);
  for (const auto& [set, of_set] : views)
    for (const std::size_t view : of_set) add_view(space, set, view, false, plan);
  return plan;
}

}  // namespace glow::assess
