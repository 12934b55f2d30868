#include "core/assess/setting.hpp"

namespace glow::assess {
namespace {

constexpr double kSurfaceBorder = 0.5;  // m along the edges of walls and ceiling; EN 12464-1

}  // namespace

Setting::Setting(const space::Space& space, const space::Brief& brief, const ReadingPlan& plan,
                 const transport::Transport& transport)
    : space_(&space), brief_(&brief), plan_(&plan), transport_(&transport) {
  const auto misplaced = transport.misplaced();
  is_misplaced_.assign(transport.receivers().size(), false);
  if (!misplaced.empty()) lies_in_.resize(transport.receivers().size());
  for (const transport::MisplacedReceiver& m : misplaced) {
    is_misplaced_[m.receiver] = true;
    lies_in_[m.receiver] = m.inside;
  }
  readable_.resize(space.grids.size());
  judged_.resize(space.grids.size());
  for (std::size_t g = 0; g < space.grids.size(); ++g) {
    if (!plan.reads_grid(g)) continue;
    for (std::size_t i = 0; i < space.grids[g].grid.points.size(); ++i)
      if (const std::size_t r = plan.first_of_grid[g] + i; !is_misplaced_[r]) readable_[g].push_back(r);
    if (!brief.grids[g].demands.empty()) find_judged(g);
  }
  for (std::size_t s = 0; s < space.eyes.size(); ++s) {
    std::vector<bool>& buried = buried_.emplace_back(space.eyes[s].positions.size(), false);
    for (std::size_t v = 0; v < plan.views[s].size(); ++v)
      if (plan.views[s][v] != ReadingPlan::kNone && is_misplaced_[plan.views[s][v]])
        buried[v / space.eyes[s].directions()] = true;
  }
}

void Setting::find_judged(std::size_t g) {
  const space::Grid& grid = space_->grids[g];
  JudgedPoints& judged = judged_[g];
  judged.receivers = readable_[g];
  if (grid.role != space::GridRole::wall && grid.role != space::GridRole::ceiling) return;
  std::vector<std::size_t> inner;
  for (const std::size_t r : readable_[g]) {
    const Vec2 at = grid.grid.plane.local(grid.grid.points[r - plan_->first_of_grid[g]]);
    if (geometry::distance_to_edges(grid.grid.outline, at) >= kSurfaceBorder) inner.push_back(r);
  }
  if (inner.empty() || inner.size() == readable_[g].size()) return;
  judged = {std::move(inner), kSurfaceBorder};
}

transport::ReceiverChoice Setting::that_count() const {
  transport::ReceiverChoice choice(transport_->receivers().size(), false);
  for (const JudgedPoints& judged : judged_)
    for (const std::size_t r : judged.receivers) choice[r] = true;
  for (const auto& views : plan_->views)
    for (const std::size_t r : views)
      if (r != ReadingPlan::kNone) choice[r] = true;
  return choice;
}

}  // namespace glow::assess
