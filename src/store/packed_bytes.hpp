#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace glow::store {

/// Bytes made small (zlib), and whole again; nothing where they are damaged or not of that size.
std::string packed_bytes(std::string_view bytes);
std::optional<std::string> unpacked_bytes(std::string_view packed, std::size_t size);

}  // namespace glow::store
