#include "words/paint.hpp"

#include <fmt/format.h>

namespace glow::words {

std::string painted(const std::string& word, bool colour) {
  const char* code = word == "met" ? "32" : word == "not met" ? "1;31" : "1;33";
  return colour ? fmt::format(FMT_STRING("\x1b[{}m{}\x1b[0m"), code, word) : word;
}

}  // namespace glow::words
