#include "core/assess/grid_reader.hpp"

#include <cmath>

#include "core/assess/grid_uncertainty.hpp"
#include "core/sources/luminaire_inflow.hpp"

namespace glow::assess {
namespace {

constexpr double kSurfaceBorder = 0.5;  // m along the edges of walls and ceiling; EN 12464-1

}  // namespace

RoomLight light_room(const space::Space& space, const transport::Transport& transport,
                     const Watch& watch) {
  RoomLight result;
  result.maintained = sources::relight(transport, {}, watch);
  result.initial_lx.assign(transport.receivers().size(), 0.0);
  result.initial_indirect_lx = result.initial_lx;
  for (const space::LuminaireGroup& group : space.groups) {
    const transport::GroupLight light = sources::relight(transport, group.luminaires, watch);
    result.maintained.add(light, group.dimming * group.maintenance_factor);
    result.initial_balance.add(light.balance, group.dimming);
    for (std::size_t r = 0; r < result.initial_lx.size(); ++r) {
      result.initial_lx[r] += group.dimming * (light.direct_lx[r] + light.interreflected_lx[r]);
      result.initial_indirect_lx[r] += group.dimming * light.interreflected_lx[r];
    }
  }
  return result;
}

GridReader::GridReader(const transport::Transport& transport, const RoomLight& light)
    : light_(light), error_(transport, light.maintained) {
  for (const transport::MisplacedReceiver& m : transport.misplaced()) misplaced_[m.receiver] = m.inside;
}

readings::Uncertainty GridReader::uncertainty(const std::vector<std::size_t>& receivers) const {
  return grid_uncertainty(error_, light_.maintained, receivers);
}

GridReading GridReader::next(const space::Grid& source) {
  judged_.clear();
  GridReading result;
  result.name = source.name;
  result.role = source.role;
  result.kernel = source.kernel;
  result.facing = source.facing;
  result.task = source.task;
  result.grid = source.grid;
  std::vector<std::size_t> receivers;
  std::vector<double> initial;
  readings::PlaneGrid& grid = result.grid;
  grid.points.clear();
  grid.normals.clear();
  grid.cells.clear();
  for (std::size_t i = 0; i < source.grid.points.size(); ++i, ++next_) {
    if (const auto found = misplaced_.find(next_); found != misplaced_.end()) {
      result.left_out.push_back({source.grid.points[i], found->second});
      continue;
    }
    receivers.push_back(next_);
    grid.points.push_back(source.grid.points[i]);
    if (!source.grid.normals.empty()) grid.normals.push_back(source.grid.normals[i]);
    grid.cells.push_back(source.grid.cells[i]);
    initial.push_back(light_.initial_lx[next_]);
    result.direct_lx.push_back(light_.maintained.direct_lx[next_]);
    result.interreflected_lx.push_back(light_.maintained.interreflected_lx[next_]);
    result.total_lx.push_back(result.direct_lx.back() + result.interreflected_lx.back());
  }
  if (initial.empty()) return result;
  result.initial = readings::statistics(initial);
  result.statistics = readings::statistics(result.total_lx);
  result.uncertainty = uncertainty(receivers);
  if (!source.demands.empty()) judge(source, receivers, result);
  return result;
}

void GridReader::judge(const space::Grid& source, const std::vector<std::size_t>& receivers,
                        GridReading& result) {
  result.judged = {result.statistics, result.uncertainty, receivers.size(), 0};
  judged_ = receivers;
  if (source.role != space::GridRole::wall && source.role != space::GridRole::ceiling) return;
  std::vector<std::size_t> inner;
  std::vector<double> values;
  for (std::size_t i = 0; i < receivers.size(); ++i) {
    const Vec2 at = result.grid.plane.local(result.grid.points[i]);
    if (geometry::distance_to_edges(result.grid.outline, at) < kSurfaceBorder) continue;
    inner.push_back(receivers[i]);
    values.push_back(result.total_lx[i]);
  }
  if (inner.empty() || inner.size() == receivers.size()) return;
  result.judged = {readings::statistics(values), uncertainty(inner), inner.size(), kSurfaceBorder};
  judged_ = std::move(inner);
}

PointReading GridReader::next(const space::Point& source) {
  PointReading result{source.name, source.receiver, 0, 0, 0, std::nullopt};
  const std::size_t r = next_++;
  if (const auto found = misplaced_.find(r); found != misplaced_.end()) {
    result.misplaced = MisplacedPoint{source.receiver.position, found->second};
    return result;
  }
  result.direct_lx = light_.maintained.direct_lx[r];
  result.interreflected_lx = light_.maintained.interreflected_lx[r];
  std::vector<double> weights(light_.maintained.direct_lx.size(), 0.0);
  weights[r] = 1;
  const transport::Deviations d = error_.deviations(weights);
  result.uncertainty_lx = readings::half_width_95(d.of_sets) + std::abs(d.of_coarse_patches);
  return result;
}

}  // namespace glow::assess
