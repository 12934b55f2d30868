#include "core/model/view.hpp"

#include <array>

namespace glow::model {
namespace {

using Kind = ViewWish::Kind;
constexpr std::array<std::pair<Kind, const char*>, 5> kKinds = {{{Kind::perspective, "perspective"},
                                                                 {Kind::plan, "plan"},
                                                                 {Kind::elevation, "elevation"},
                                                                 {Kind::cutaway, "cutaway"},
                                                                 {Kind::panorama, "panorama"}}};

}  // namespace

std::optional<Kind> view_kind(const std::string& words) {
  for (const auto& [kind, name] : kKinds)
    if (words == name) return kind;
  return std::nullopt;
}

std::string to_string(Kind kind) {
  for (const auto& [known, name] : kKinds)
    if (kind == known) return name;
  return {};
}

}  // namespace glow::model
