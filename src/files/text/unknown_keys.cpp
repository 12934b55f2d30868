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

/// The known key that was probably meant; empty: none is near.
std::string likely_key(const std::string& name, const std::vector<std::string>& known) {
  for (const auto& [other, ours] : kOtherNames)
    if (name == other && std::find(known.begin(), known.end(), ours) != known.end()) return ours;
  return nearest_word(name, known);
}

}  // namespace

void TomlTable::finish() {
  for (const auto& [key, node] : *table_) {
    if (problems_->is_full()) return;
    const std::string name(key.str());
    if (std::find(known_.begin(), known_.end(), name) != known_.end()) continue;
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
    const Place place{file_, static_cast<int>(key.source().begin.line),
                      static_cast<int>(key.source().begin.column)};
    problems_->error(
        "P002", place,
        fmt::format(FMT_STRING("unknown key \"{}\" in {}; {}"), name.substr(0, 60), name_, hint));
  }
}

}  // namespace glow::files
