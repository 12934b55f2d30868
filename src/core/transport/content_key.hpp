#pragma once

#include <memory>
#include <string>
#include <vector>

#include "core/readings/receiver.hpp"
#include "core/transport/effort.hpp"

namespace glow::transport {

/// 32 hexadecimal digits for all that the traced hits depend on: geometry, materials, receivers, effort, and
/// the way of tracing itself. Names do not count. XXH3, 128 bits.
std::string content_key(const geometry::Geometry& geometry, const std::vector<readings::Receiver>& receivers,
                        const Effort& effort);

/// Checksum of bytes, in the same form; they may come in parts.
class ContentChecksum {
 public:
  ContentChecksum();
  ~ContentChecksum();
  ContentChecksum(const ContentChecksum&) = delete;
  ContentChecksum& operator=(const ContentChecksum&) = delete;

  /// The next part.
  void add(const void* bytes, std::size_t count);
  /// Of all so far.
  std::string text() const;

 private:
  struct State;
  std::unique_ptr<State> state_;
};

}  // namespace glow::transport
