#pragma once

#include <memory>
#include <optional>
#include <string>

#include "core/geometry/occluders.hpp"
#include "core/transport/effort.hpp"
#include "core/transport/exchange/exchange_chance.hpp"
#include "core/transport/exchange/patch_sights.hpp"
#include "core/transport/group_light.hpp"
#include "core/transport/importance.hpp"
#include "core/transport/inflow.hpp"
#include "core/transport/tracing/mirror_paths.hpp"

namespace glow::transport {

/// A receiver that cannot be lit as it stands.
struct MisplacedReceiver {
  std::size_t receiver = 0;
  std::string inside;  ///< name of the surface whose inside it looks at; empty: it is outside the room
};

/// How light travels in one geometry, for one set of receivers. Knows geometry, reflectances and receivers,
/// not what sends the light: any inflow, from any sources, is carried on. Immutable once made; share freely
/// between threads. The same values whatever the number of threads.
class Transport {
 public:
  /// Traces. Throws Cancelled.
  Transport(geometry::Geometry geometry, std::vector<readings::Receiver> receivers, const Effort& effort,
            const Watch& watch);
  /// From what was traced before for the very same geometry, receivers and effort, if there is something.
  Transport(std::optional<TracedHits> known, geometry::Geometry geometry,
            std::vector<readings::Receiver> receivers, const Effort& effort, const Watch& watch);
  Transport(const Transport&) = delete;
  Transport& operator=(const Transport&) = delete;

  /// All light that follows from what sources send in. `like`: light of sources in the same places, from
  /// which it is found quicker. Receivers that are not chosen get no light by way of surfaces.
  GroupLight carry(Inflow inflow, const Watch& watch, const GroupLight* like = nullptr,
                   const ReceiverChoice& choice = {}) const;

  /// The same light with another diffuse reflectance of what lands on each patch (Exchange::reflectance):
  /// what a brighter or darker finish would do. The balance of flux is the one of `light`.
  GroupLight refinished(const GroupLight& light, const Eigen::VectorXd& reflectance, const Watch& watch,
                        const ReceiverChoice& choice = {}) const;

  /// What some of the receivers get from patches of this exitance (lm/m2), lx, in their order.
  std::vector<double> reflected_at(const std::vector<std::size_t>& receivers,
                                   const Eigen::VectorXd& exitance) const;

  /// What chance in its rays does to light, and how much patches count in sums over receivers: found when
  /// first asked for.
  std::shared_ptr<const ExchangeChance> chance() const;
  std::shared_ptr<const Importance> importance(const WeightedSum& sum) const { return importances_.of(sum); }

  /// Receivers that look at the inside of an object, or at nothing in an enclosed room, with more than a
  /// quarter of their rays: they lie inside something, or in a surface.
  std::vector<MisplacedReceiver> misplaced() const;

  /// What it was made of, and its parts for those who make light: patches, what rays met, the exchange
  /// between patches, sight lines, what may hide a source, and mirrors.
  const geometry::Geometry& geometry() const { return geometry_; }
  const std::vector<readings::Receiver>& receivers() const { return receivers_; }
  const PatchSet& patches() const { return patches_; }
  const TracedHits& hits() const { return hits_; }
  const Exchange& exchange() const { return exchange_; }
  const geometry::RayTracer& tracer() const { return tracer_; }
  const geometry::Occluders& occluders() const { return occluders_; }
  const MirrorPaths& mirrors() const { return mirrors_; }
  /// Whether rays were traced for it; false: what was known before could be used.
  bool traced() const { return traced_; }
  const Effort& effort() const { return effort_; }

 private:
  class Gathering;
  /// What receivers get from patches of this exitance, lx; `by_rays`: see GroupLight::exitance_by_rays.
  std::vector<double> gathered(const Eigen::VectorXd& exitance, Eigen::VectorXd& by_rays, const Watch& watch,
                               const ReceiverChoice& choice) const;

  geometry::Geometry geometry_;
  std::vector<readings::Receiver> receivers_;
  Effort effort_;
  geometry::RayTracer tracer_;
  PatchSet patches_;
  bool traced_;
  TracedHits hits_;
  Exchange exchange_;
  MirrorPaths mirrors_;
  geometry::Occluders occluders_;
  Importances importances_;
  PatchSights sights_;
  mutable std::shared_ptr<const ExchangeChance> chance_;  // by atomic operations
};

}  // namespace glow::transport
