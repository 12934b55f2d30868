#include "store/packed_bytes.hpp"

#include <zlib.h>

#include <stdexcept>

namespace glow::store {

std::string packed_bytes(std::string_view bytes) {
  constexpr int kLevel = 6;
  uLongf size = ::compressBound(uLong(bytes.size()));
  std::string packed(size, '\0');
  const int code = ::compress2(reinterpret_cast<Bytef*>(packed.data()), &size,
                               reinterpret_cast<const Bytef*>(bytes.data()), uLong(bytes.size()), kLevel);
  if (code != Z_OK) throw std::runtime_error("bytes could not be compressed");
  packed.resize(size);
  return packed;
}

std::optional<std::string> unpacked_bytes(std::string_view packed, std::size_t size) {
  constexpr std::size_t kLargest = std::size_t(1) << 31;
  if (size > kLargest) return std::nullopt;
  std::string bytes(size, '\0');
  uLongf written = uLongf(size);
  const int code = ::uncompress(reinterpret_cast<Bytef*>(bytes.data()), &written,
                                reinterpret_cast<const Bytef*>(packed.data()), uLong(packed.size()));
  if (code != Z_OK || written != size) return std::nullopt;
  return bytes;
}

}  // namespace glow::store
