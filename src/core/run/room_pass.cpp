#include "core/run/room_pass.hpp"

#include "core/transport/content_key.hpp"

namespace glow::run {
namespace {

/// Held, or made of what was traced before, or traced. `in_room`: takes its key, where something is held.
std::shared_ptr<const transport::Transport> transport_for(const space::Space& space,
                                                          const std::vector<readings::Receiver>& receivers,
                                                          const transport::Effort& effort,
                                                          TransportStore* store, const Watch& watch,
                                                          std::string& in_room) {
  using transport::Transport;
  if (!store) return std::make_shared<const Transport>(space.geometry, receivers, effort, watch);
  const std::string key = transport::content_key(space.geometry, receivers, effort);
  in_room = key + "/" + space.name;  // what is told of it has the names of this room
  if (auto held = store->held(in_room)) return held;
  auto made = std::make_shared<const Transport>(store->find(key), space.geometry, receivers, effort, watch);
  if (made->traced()) store->keep(key, made->hits());
  store->hold(in_room, made);
  return made;
}

}  // namespace

Pass pass_over(const space::Space& space, const space::Brief& brief, const lighting::Weights& weights,
               assess::ReadingPlan plan, const transport::Effort& effort, TransportStore* store,
               const Watch& watch) {
  Pass pass;
  pass.plan = std::make_unique<const assess::ReadingPlan>(std::move(plan));
  std::string key;
  pass.transport = transport_for(space, pass.plan->receivers, effort, store, watch, key);
  pass.setting = std::make_unique<const assess::Setting>(space, brief, *pass.plan, *pass.transport);
  pass.lighting = std::make_unique<const lighting::Lighting>(
      space, *pass.transport, watch, store, key + "/" + std::to_string(effort.direct_tolerance));
  pass.lit = {&space.groups, weights, pass.lighting->weighted(weights)};
  return pass;
}

}  // namespace glow::run
