#pragma once

#include <optional>
#include <string>

#include "core/transport/tracing/traced_hits.hpp"

namespace glow::transport {

/// Keeps traced hits for later; may forget and may fail, in silence. Called from several threads at once.
class TransportStore {
 public:
  virtual ~TransportStore() = default;
  virtual std::optional<TracedHits> find(const std::string& key) = 0;
  virtual void keep(const std::string& key, const TracedHits& hits) = 0;
};

}  // namespace glow::transport
