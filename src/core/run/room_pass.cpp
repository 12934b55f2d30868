#include "core/run/room_pass.hpp"

#include "core/transport/content_key.hpp"

namespace glow::run {

Pass pass_over(const space::Space& space, const space::Brief& brief, const lighting::Weights& weights,
               assess::ReadingPlan plan, const transport::Effort& effort, TransportStore* store,
               const Watch& watch) {
  Pass pass;
  pass.plan = std::make_unique<const assess::ReadingPlan>(std::move(plan));
  std::optional<transport::TracedHits> known;
  std::string key;
  if (store) {
    key = transport::content_key(space.geometry, pass.plan->receivers, effort);
    known = store->find(key);
  }
  pass.transport = std::make_unique<const transport::Transport>(std::move(known), space.geometry,
                                                                pass.plan->receivers, effort, watch);
  if (store && pass.transport->traced()) store->keep(key, pass.transport->hits());
  pass.setting = std::make_unique<const assess::Setting>(space, brief, *pass.plan, *pass.transport);
  pass.lighting = std::make_unique<const lighting::Lighting>(space, *pass.transport, watch);
  pass.lit = {&space.groups, weights, pass.lighting->weighted(weights)};
  return pass;
}

}  // namespace glow::run
