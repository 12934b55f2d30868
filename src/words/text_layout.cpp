#include "words/text_layout.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <string_view>

namespace glow::words {
namespace {

/// Behind the word that begins at `start`; a number and its unit are one.
std::size_t end_of_word(const std::string& words, std::size_t start) {
  constexpr std::array<std::string_view, 12> kUnits = {"%",   "lx", "fc", "m",  "ft", "W",
                                                       "deg", "K",  "h",  "lm", "cd", "cd/m2"};
  const std::size_t end = std::min(words.find(' ', start), words.size());
  if (end == words.size() || !std::isdigit(static_cast<unsigned char>(words[end - 1]))) return end;
  const std::size_t end_of_next = std::min(words.find(' ', end + 1), words.size());
  std::string_view unit(words.data() + end + 1, end_of_next - end - 1);
  while (!unit.empty() &&
         (unit.back() == ',' || unit.back() == ';' || unit.back() == ':' || unit.back() == '.'))
    unit.remove_suffix(1);
  return std::find(kUnits.begin(), kUnits.end(), unit) == kUnits.end() ? end : end_of_next;
}

}  // namespace

std::size_t columns_of(const std::string& words) {
  return std::size_t(std::count_if(words.begin(), words.end(), [](char c) { return (c & 0xc0) != 0x80; }));
}

void wrap(std::string& text, const std::string& lead, const std::string& words, std::size_t indent) {
  std::string current = lead;
  bool fresh = true;  // nothing but the lead on this line yet
  for (std::size_t start = 0; start < words.size();) {
    const std::size_t end = end_of_word(words, start);
    const std::string word = words.substr(start, end - start);
    if (!fresh && columns_of(current) + columns_of(word) + 1 > kTerminalWidth) {
      text += current + "\n";
      current = std::string(indent, ' ');
      fresh = true;
    }
    current += (fresh ? "" : " ") + word;
    fresh = false;
    start = end + 1;
  }
  text += current + "\n";
}

std::string fitted(const std::string& words, std::size_t width) {
  if (columns_of(words) <= width) return words;
  std::size_t end = 0;
  for (std::size_t columns = 0; end < words.size(); ++end)
    if ((words[end] & 0xc0) != 0x80 && ++columns + 2 > width) break;
  return words.substr(0, end) + "..";
}

std::string counted(std::size_t number, const char* thing) {
  return fmt::format(FMT_STRING("{} {}{}"), number, thing, number == 1 ? "" : "s");
}

std::string some_of(const std::vector<std::string>& names) {
  constexpr std::size_t kMost = 4;
  if (names.size() <= kMost + 1) return fmt::format(FMT_STRING("{}"), fmt::join(names, ", "));
  return fmt::format(FMT_STRING("{} and {} more"), fmt::join(names.begin(), names.begin() + kMost, ", "),
                     names.size() - kMost);
}

}  // namespace glow::words
