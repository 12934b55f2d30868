#pragma once

#include <string>
#include <vector>

#include "figures/canvas/svg_canvas.hpp"

namespace glow::figures {

/// How one verdict looks: word, fill and ink, so that none of them is needed to tell it.
struct StatusLook {
  std::string word;
  const char* ink;
  std::string (*fill)(SvgCanvas&);
  const char* dash;
};

/// Of "met", "not met", "undecided", "no target" and "not computed".
StatusLook look_of(const std::string& status);

/// Each verdict with how many rooms have it, in a line.
void draw_status_key(SvgCanvas& canvas, const std::vector<std::string>& statuses, const Vec2& at);

}  // namespace glow::figures
