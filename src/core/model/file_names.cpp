#include "core/model/file_names.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace glow::model {
namespace {

constexpr std::size_t kLongestPart = 100;  // bytes

}  // namespace

std::string file_name_part(const std::string& name) {
  std::string part;
  for (const char c : name) {
    const bool upper = c >= 'A' && c <= 'Z';
    const bool keep =
        upper || (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || (static_cast<unsigned char>(c) >= 0x80);
    if (keep)
      part += upper ? static_cast<char>(c - 'A' + 'a') : c;
    else if (!part.empty() && part.back() != '-')
      part += '-';
  }
  while (!part.empty() && part.back() == '-') part.pop_back();
  // Not in the middle of a letter of several bytes.
  std::size_t length = std::min(part.size(), kLongestPart);
  while (length < part.size() && length > 0 && (static_cast<unsigned char>(part[length]) & 0xc0) == 0x80)
    --length;
  return part.substr(0, length);
}

std::string grid_file(const std::string& folder, const std::string& room, const std::string& grid,
                      const std::string& suffix) {
  return fmt::format(FMT_STRING("{}/{}--{}.{}"), folder, file_name_part(room), file_name_part(grid), suffix);
}

}  // namespace glow::model
