#pragma once

#include <cstdint>
#include <cstdlib>
#include <string_view>

#include "core/problems/problems.hpp"

/// One fuzz target for each reader of outside files. A reader must give a value or an error, never both and
/// never neither, whatever the bytes.
namespace glow::fuzz {

inline void must(bool holds) {
  if (!holds) std::abort();
}

/// What a target does with the bytes.
void read(std::string_view bytes);

}  // namespace glow::fuzz

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  glow::fuzz::read({reinterpret_cast<const char*>(data), size});
  return 0;
}
