#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/readings/statistics.hpp"
#include "core/scene/room_scene.hpp"
#include "core/standards/verdict.hpp"
#include "core/transport/transport.hpp"

namespace glow::results {

enum class Status { met, not_met, no_target };

/// "met", "not met", "no target".
std::string to_string(Status status);

/// One grid with its values. All illuminances are maintained: initial values times the maintenance factor,
/// once.
struct GridResult {
  std::string name;
  std::string kind;  ///< "horizontal plane"
  readings::PlaneGrid grid;
  std::vector<double> direct_lx, interreflected_lx, total_lx;  ///< per point
  readings::Statistics statistics;
  readings::Statistics initial;  ///< before the maintenance factor
  readings::Uncertainty uncertainty;
};

struct Power {
  std::optional<double> installed_w;  ///< nothing when a luminaire's file states no watts
  std::optional<double> w_per_m2;
  std::optional<double> w_per_m2_100lx;
};

struct RoomResult {
  const scene::RoomScene* scene = nullptr;
  Status status = Status::no_target;
  std::vector<GridResult> grids;
  std::vector<standards::Check> checks;
  std::vector<std::string> not_checked;
  Power power;
  transport::FluxBalance balance;
  std::size_t patches = 0, rays = 0;
};

/// Computes one room. `scene` must outlive the result. Throws Cancelled.
RoomResult compute_room(const scene::RoomScene& scene, const transport::Effort& effort, const Watch& watch);

}  // namespace glow::results
