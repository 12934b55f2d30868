#include "core/sources/luminaire_inflow.hpp"

#include <memory>

#include "core/sources/direct_light.hpp"
#include "core/sources/patch_light.hpp"
#include "core/sources/received_light.hpp"
#include "core/sources/straight_light.hpp"

namespace glow::sources {
namespace {

/// The luminaire as it is seen over mirrors: its frame is left-handed after an odd number of them.
photometry::PlacedLuminaire image_of(const photometry::PlacedLuminaire& luminaire,
                                     const transport::MirrorPaths& mirrors,
                                     const transport::MirrorPath& path) {
  photometry::PlacedLuminaire image = luminaire;
  image.frame.origin = mirrors.image_of_point(path, luminaire.frame.origin);
  for (Vec3* axis : {&image.frame.c0, &image.frame.c90, &image.frame.g0})
    *axis = mirrors.image_of_direction(path, *axis);
  return image;
}

/// Straight, and over mirrors.
void read_direct(const transport::Transport& transport,
                 const std::vector<photometry::PlacedLuminaire>& luminaires, double tolerance,
                 const Watch& watch, const transport::ReceiverChoice& choice, transport::Inflow& inflow) {
  const transport::MirrorPaths& mirrors = transport.mirrors();
  const StraightSources direct_sources(transport, luminaires);
  std::vector<DirectLight> mirrored;
  std::vector<std::unique_ptr<const photometry::PlacedLuminaire>> images;
  for (const photometry::PlacedLuminaire& luminaire : luminaires) {
    for (const transport::MirrorPath& path : mirrors.from(luminaire.frame.origin)) {
      images.push_back(
          std::make_unique<const photometry::PlacedLuminaire>(image_of(luminaire, mirrors, path)));
      mirrored.emplace_back(*images.back(),
                            [&transport, path, owner = luminaire.owner](const Vec3& eye, const Vec3& image) {
                              return transport.mirrors().passed(path, transport.tracer(), eye, image, owner);
                            });
    }
  }
  const std::vector<readings::Receiver>& receivers = transport.receivers();
  inflow.direct_lx.assign(receivers.size(), 0.0);
  inflow.error_lx = inflow.direct_lx;
  if (!mirrored.empty()) inflow.mirrored_lx = inflow.direct_lx;
  parallel_for(receivers.size(), watch, "direct light", [&](std::size_t r) {
    if (!transport::is_chosen(choice, r)) return;
    std::vector<const DirectLight*> straight, by_mirrors;
    for (std::size_t l = 0; l < luminaires.size() && !receivers[r].reflected_only; ++l)
      straight.push_back(&direct_sources.seen_from(receivers[r].position, l));
    for (const DirectLight& source : mirrored) by_mirrors.push_back(&source);
    const DirectLux direct = received(straight, receivers[r], tolerance);
    inflow.direct_lx[r] = direct.lux;
    inflow.error_lx[r] = direct.error;
    if (by_mirrors.empty()) return;
    const DirectLux image = received(by_mirrors, receivers[r], tolerance);
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
