#include "words/families.hpp"

#include <algorithm>
#include <sstream>

namespace glow::words {
namespace {

bool is_number(const std::string& word) {
  return !word.empty() && std::all_of(word.begin(), word.end(), [](char c) { return c >= '0' && c <= '9'; });
}

std::string joined(const std::string& name, bool numbers) {
  std::istringstream words(name);
  std::string found;
  for (std::string word; words >> word;)
    if (is_number(word) == numbers) found += (found.empty() ? "" : " ") + word;
  return found;
}

}  // namespace

std::string family_of(const std::string& name) {
  return number_in(name).empty() ? std::string() : joined(name, false);
}

std::string family_of(const assess::GridReading& grid) {
  return grid.role == space::GridRole::wall ? "walls" : family_of(grid.name);
}

std::string number_in(const std::string& name) {
  return joined(name, true);
}

}  // namespace glow::words
