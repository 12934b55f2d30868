#pragma once

#include <string>
#include <vector>

#include "core/readings/receiver.hpp"
#include "core/transport/effort.hpp"

namespace glow::transport {

/// 32 hexadecimal digits for all that the traced hits depend on: geometry, materials, receivers, effort, and
/// the way of tracing itself. Names do not count. XXH3, 128 bits.
std::string content_key(const geometry::Geometry& geometry, const std::vector<readings::Receiver>& receivers,
                        const Effort& effort);

/// Checksum of bytes, in the same form.
std::string content_checksum(const void* bytes, std::size_t count);

}  // namespace glow::transport
