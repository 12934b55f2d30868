#include "core/photometry/photometry.hpp"

#include <algorithm>

namespace glow::photometry {

std::string to_string(LuminousShape shape) {
  switch (shape) {
    case LuminousShape::point:
      return "point";
    case LuminousShape::rectangle:
      return "rectangle";
    case LuminousShape::disc:
      return "disc";
  }
  return "";
}

double LuminousArea::height_m() const {
  return *std::max_element(side_heights_m.begin(), side_heights_m.end());
}

}  // namespace glow::photometry
