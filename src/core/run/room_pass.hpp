#pragma once

#include <memory>
#include <optional>
#include <string>

#include "core/assess/setting.hpp"
#include "core/transport/transport.hpp"
#include "core/transport/transport_store.hpp"

namespace glow::run {

using transport::TransportStore;

/// One pass over a room: how light travels to what is read, and the light.
struct Pass {
  std::unique_ptr<const assess::ReadingPlan> plan;
  std::shared_ptr<const transport::Transport> transport;
  std::unique_ptr<const assess::Setting> setting;
  std::unique_ptr<const lighting::Lighting> lighting;
  assess::LitRoom lit;
};

/// Traces, or takes what `store` (may be null) holds of it, and lights. All that is referred to must outlive
/// the pass. Throws Cancelled.
Pass pass_over(const space::Space& space, const space::Brief& brief, const lighting::Weights& weights,
               assess::ReadingPlan plan, const transport::Effort& effort, TransportStore* store,
               const Watch& watch);

}  // namespace glow::run
