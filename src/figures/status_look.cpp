#include "figures/status_look.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace glow::figures {

StatusLook look_of(const std::string& status) {
  if (status == "met") return {"met", "#1d5f6e", [](SvgCanvas&) { return std::string("#cfe6ea"); }, nullptr};
  if (status == "not met")
    return {"not met", "#a3341f", [](SvgCanvas& c) { return c.crossed("cross", "#f6d9c9", "#c8694a"); },
            nullptr};
  if (status == "undecided")
    return {"undecided", "#7a5a00", [](SvgCanvas& c) { return c.dotted("dots", "#f7ecc4", "#b08a1e"); },
            nullptr};
  if (status == "no target")
    return {"no target set", "#55534c", [](SvgCanvas& c) { return c.stripes("slant", "#f4f3f0", "#d3d0c8"); },
            nullptr};
  return {"not computed", "#6b6b6b", [](SvgCanvas&) { return std::string("#ffffff"); }, "6 5"};
}

void draw_status_key(SvgCanvas& canvas, const std::vector<std::string>& statuses, const Vec2& at) {
  double x = at.x();
  const double y = at.y();
  for (const char* status : {"met", "not met", "undecided", "no target", "not computed"}) {
    const auto count = std::count(statuses.begin(), statuses.end(), status);
    const StatusLook look = look_of(status);
    const std::string fill = look.fill(canvas);
    canvas.path(path_data({{x, y}, {x + 22, y}, {x + 22, y + 16}, {x, y + 16}}, true), fill.c_str(), look.ink,
                1.5, look.dash);
    const std::string words = fmt::format(FMT_STRING("{}: {}"), look.word, count);
    canvas.text({x + 30, y + 13}, words, {13, "start", look.ink, count > 0});
    x += 30 + text_width(words, 13) + 34;
  }
}

}  // namespace glow::figures
