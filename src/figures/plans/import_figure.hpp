#pragma once

#include <string>
#include <vector>

#include "core/plans/found.hpp"

namespace glow::figures {

/// A floor as it was taken from its drawing.
struct ImportPicture {
  std::string title, subtitle;
  const plans::Drawing* drawing = nullptr;  ///< all of it that can be seen, in the building's metres
  const plans::FoundPlan* plan = nullptr;
  std::vector<std::string> room_names;  ///< as in the project
  std::vector<bool> taken;              ///< by layer of the drawing: looked at
  std::vector<std::string> warnings;    ///< what concerns all of it
};

/// SVG: the drawing in grey, rooms filled and named, openings, things, doubts with a number each, and beside
/// it what was not looked at.
std::string import_svg(const ImportPicture& picture);

}  // namespace glow::figures
