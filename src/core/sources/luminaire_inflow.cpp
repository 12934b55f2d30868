#include "core/sources/luminaire_inflow.hpp"

#include "core/sources/luminaire_light.hpp"
#include "core/sources/patch_light.hpp"

namespace glow::sources {
namespace {

/// Straight, and over mirrors.
void read_direct(const transport::Transport& transport,
                 const std::vector<photometry::PlacedLuminaire>& luminaires, double tolerance,
                 const Watch& watch, const transport::ReceiverChoice& choice, transport::Inflow& inflow) {
  const LuminaireLight light(transport, luminaires);
  const std::vector<readings::Receiver>& receivers = transport.receivers();
  inflow.direct_lx.assign(receivers.size(), 0.0);
  inflow.error_lx = inflow.direct_lx;
  if (light.has_mirrors()) inflow.mirrored_lx = inflow.direct_lx;
  parallel_for(receivers.size(), watch, "direct light", [&](std::size_t r) {
    if (!transport::is_chosen(choice, r)) return;
    if (!receivers[r].reflected_only) {
      const DirectLux direct = light.straight(receivers[r], tolerance);
      inflow.direct_lx[r] = direct.lux;
      inflow.error_lx[r] = direct.error;
    }
    if (!light.has_mirrors()) return;
    const DirectLux image = light.mirrored(receivers[r], tolerance);
    inflow.mirrored_lx[r] = image.lux;
    inflow.error_lx[r] += image.error;
  });
}

}  // namespace

transport::Inflow luminaire_inflow(const transport::Transport& transport,
                                   const std::vector<photometry::PlacedLuminaire>& luminaires,
                                   const Watch& watch, const transport::ReceiverChoice& choice,
                                   const std::optional<transport::Effort>& effort) {
  const transport::Effort own = effort.value_or(transport.effort());
  transport::Inflow inflow = light_on_patches(transport, luminaires, own, watch);
  read_direct(transport, luminaires, own.direct_tolerance, watch, choice, inflow);
  return inflow;
}

transport::GroupLight relight(const transport::Transport& transport,
                              const std::vector<photometry::PlacedLuminaire>& luminaires, const Watch& watch,
                              const transport::ReceiverChoice& choice,
                              const std::optional<transport::Effort>& effort) {
  return transport.carry(luminaire_inflow(transport, luminaires, watch, choice, effort), watch, nullptr,
                         choice);
}

}  // namespace glow::sources
