#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/lighting/weights.hpp"
#include "core/transport/transport.hpp"
#include "core/transport/transport_store.hpp"

namespace glow::lighting {

/// The light of a room at the receivers of a transport, as weights make it of its sources.
struct RoomLight {
  transport::GroupLight maintained;
  std::vector<double> initial_lx;           ///< per receiver: dimmed, but as new
  std::vector<double> initial_indirect_lx;  ///< of that, what comes by way of surfaces
  transport::FluxBalance initial_balance;

  /// Adds a source's light. Maintenance is applied here and nowhere else.
  void add(const transport::GroupLight& source, const Weight& weight);
  /// Adds light that nothing dims and nothing dirties inside: of the day.
  void add_day(const transport::GroupLight& day) { add(day, {1, 1}); }
  /// Takes all light out that came by way of surfaces.
  void keep_direct();
};

/// The light of a space's sources, each lit once at full output as new and kept apart. Dimming, maintenance,
/// a control scene are weights on it, applied as late as possible: a weighted sum costs a thousandth of the
/// light. Immutable; share freely between threads. The transport and the store that it was made
/// with must outlive it.
class Lighting {
 public:
  /// Lights every group of the space, but those whose light `store` (may be null) holds under the transport's
  /// key. Throws Cancelled.
  Lighting(const space::Space& space, const transport::Transport& transport, const Watch& watch,
           transport::TransportStore* store = nullptr, const std::string& transport_key = {});

  /// The light of each, by the groups of the space, at full output as new.
  const std::vector<transport::GroupLight>& sources() const { return sources_; }
  /// All sources together. `weights`: one for each.
  RoomLight weighted(const Weights& weights) const;
  /// Light of luminaires that are not there, as trials ask for it. `find` finds it, unless the store holds
  /// what was found by the same `key` with this transport: in another variant of the project, or before a
  /// save.
  transport::GroupLight tried(const std::string& key,
                              const std::function<transport::GroupLight()>& find) const;
  /// sources::straight_light at places that are no receivers, kept as `tried` keeps its light.
  std::vector<double> straight_at(const std::vector<readings::Receiver>& places,
                                  const std::vector<photometry::PlacedLuminaire>& luminaires,
                                  const Watch& watch) const;

 private:
  transport::GroupLight known(const std::string& key,
                              const std::function<transport::GroupLight()>& find) const;

  const transport::Transport* transport_;
  transport::TransportStore* store_;
  std::string transport_key_;
  transport::GroupLight dark_;
  std::vector<transport::GroupLight> sources_;
};

}  // namespace glow::lighting
