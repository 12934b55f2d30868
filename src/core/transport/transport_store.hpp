#pragma once

#include <memory>
#include <optional>
#include <string>

#include "core/transport/tracing/traced_hits.hpp"

namespace glow::transport {

class Transport;
struct GroupLight;

/// Keeps traced hits for later; may forget and may fail, in silence. Called from several threads at once.
class TransportStore {
 public:
  virtual ~TransportStore() = default;
  virtual std::optional<TracedHits> find(const std::string& key) = 0;
  virtual void keep(const std::string& key, const TracedHits& hits) = 0;
  /// A whole transport that was made before in this program and is still held; null: none.
  virtual std::shared_ptr<const Transport> held(const std::string&) { return nullptr; }
  virtual void hold(const std::string&, const std::shared_ptr<const Transport>&) {}
  /// Likewise the light of one group of luminaires in one transport.
  virtual std::shared_ptr<const GroupLight> held_light(const std::string&) { return nullptr; }
  virtual void hold_light(const std::string&, const std::shared_ptr<const GroupLight>&) {}
};

}  // namespace glow::transport
