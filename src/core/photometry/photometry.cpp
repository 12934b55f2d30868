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
      return "circle";
    case LuminousShape::ellipse:
      return "ellipse";
    case LuminousShape::box:
      return "box";
    case LuminousShape::vertical_cylinder:
      return "vertical cylinder";
    case LuminousShape::horizontal_cylinder_c0:
      return "horizontal cylinder along C0";
    case LuminousShape::horizontal_cylinder_c90:
      return "horizontal cylinder along C90";
    case LuminousShape::sphere:
      return "sphere";
    case LuminousShape::upright_disc:
      return "upright disc facing C0";
  }
  return "";
}

bool is_round(LuminousShape shape) {
  return shape == LuminousShape::disc || shape == LuminousShape::ellipse ||
         shape == LuminousShape::vertical_cylinder || shape == LuminousShape::sphere;
}

double LuminousArea::height_m() const {
  return *std::max_element(side_heights_m.begin(), side_heights_m.end());
}

}  // namespace glow::photometry
