// Keys that a file has and its reader does not know.
#include <fmt/format.h>
#include <toml++/toml.h>

#include <algorithm>

#include "files/text/toml_table.hpp"

namespace glow::files {
namespace {

/// What others call our keys.
constexpr std::pair<const char*, const char*> kOtherNames[] = {{"cri", "ra"},
                                                               {"colour_rendering", "ra"},
                                                               {"kelvin", "cct"},
                                                               {"colour_temperature", "cct"},
                                                               {"lumens", "flux"},
                                                               {"lm", "flux"},
                                                               {"color", "colour"},
                                                               {"dim", "dimming"},
                                                               {"output", "dimming"},
                                                               {"angle", "rotation"},
                                                               {"orientation", "rotation"},
                                                               {"position", "at"},
                                                               {"target", "aim"},
                                                               {"z", "mounting_height"},
                                                               {"height", "mounting_height"},
                                                               {"dimensions", "size"},
                                                               {"count", "columns"},
                                                               {"ceiling_height", "height"},
                                                               {"finish", "material"},
                                                               {"mf", "maintenance_factor"},
                                                               {"type", "kind"}};

bool is_in(const std::vector<std::string>& words, const std::string& word) {
  return std::find(words.begin(), words.end(), word) != words.end();
}

/// The known key that was probably meant; empty: none is near.
std::string likely_key(const std::string& name, const std::vector<std::string>& known) {
  for (const auto& [other, ours] : kOtherNames)
    if (name == other && is_in(known, ours)) return ours;
  return nearest_word(name, known);
}

}  // namespace

Place TomlTable::place_of(const toml::key& key) const {
  return {file_, static_cast<int>(key.source().begin.line), static_cast<int>(key.source().begin.column)};
}

bool TomlTable::tell_misspelt(const std::string& key) {
  for (const auto& [other, node] : *table_) {
    const std::string name(other.str());
    if (is_in(known_, name) || likely_key(name, {key}).empty()) continue;
    told_.push_back(name);
    problems_->error("P004", place_of(other),
                     fmt::format(FMT_STRING("{}: \"{}\" is missing; is it meant by \"{}\"?"), name_, key,
                                 name.substr(0, 60)));
    return true;
  }
  return false;
}

void TomlTable::tell_missing(const std::string& key) {
  if (tell_misspelt(key)) return;
  problems_->error("P004", place(), fmt::format(FMT_STRING("{}: \"{}\" is missing"), name_, key));
}

bool TomlTable::has_one_of(std::initializer_list<const char*> keys) {
  const auto there = std::count_if(keys.begin(), keys.end(), [&](const char* key) { return has(key); });
  if (there > 0) return there == 1;
  return std::any_of(keys.begin(), keys.end(), [&](const char* key) { return tell_misspelt(key); });
}

void TomlTable::finish() {
  for (const auto& [key, node] : *table_) {
    if (problems_->is_full()) return;
    const std::string name(key.str());
    if (is_in(known_, name) || is_in(told_, name)) continue;
    const std::string near = likely_key(name, known_);
    std::string hint;
    if (!near.empty()) {
      hint = fmt::format(FMT_STRING("did you mean \"{}\"?"), near);
    } else {
      std::vector<std::string> sorted = known_;
      std::sort(sorted.begin(), sorted.end());
      sorted.erase(std::unique(sorted.begin(), sorted.end()), sorted.end());
      hint = fmt::format(FMT_STRING("known keys: {}"), fmt::join(sorted, ", "));
    }
    problems_->error(
        "P002", place_of(key),
        fmt::format(FMT_STRING("unknown key \"{}\" in {}; {}"), name.substr(0, 60), name_, hint));
  }
}

}  // namespace glow::files
