#include "files/photometry/ies_opening.hpp"

#include <cmath>

#include "files/text/text_scanner.hpp"

namespace glow::files {
namespace {

using photometry::LuminousArea;
using photometry::LuminousShape;

/// The editions of 1991 and 1995 leave zeros where later ones repeat the diameter; here they are filled in.
void fill_in(double& width, double& length, double& height) {
  if (width < 0 && length == 0 && height < 0 && width == height) {
    length = width;  // sphere
  } else if (width < 0 && length == 0) {
    length = width;  // circle, upright cylinder
  } else if (width == 0 && length > 0 && height < 0) {
    width = height;  // cylinder along the length
  } else if (width > 0 && length == 0 && height < 0) {
    length = height;  // cylinder along the width
  }
}

LuminousShape shape_of(double width, double length, double height) {
  if (width < 0 && length < 0 && height < 0) return LuminousShape::sphere;
  if (width < 0 && length > 0 && height < 0) return LuminousShape::horizontal_cylinder_c0;
  if (width > 0 && length < 0 && height < 0) return LuminousShape::horizontal_cylinder_c90;
  if (width < 0 && length == 0 && height < 0) return LuminousShape::upright_disc;
  if (width < 0 && length < 0 && height > 0) return LuminousShape::vertical_cylinder;
  if (width < 0 && length < 0) return width == length ? LuminousShape::disc : LuminousShape::ellipse;
  if (width < 0 || length < 0) return LuminousShape::ellipse;  // 1991, 1995: one of the two
  if (width == 0 && length == 0) return LuminousShape::point;
  return height > 0 ? LuminousShape::box : LuminousShape::rectangle;
}

}  // namespace

bool is_tilt_line(std::string_view line) {
  return in_capitals(trimmed(line).substr(0, 5)) == "TILT=";
}

LuminousArea luminous_opening(double width_m, double length_m, double height_m, bool one_extent) {
  // A round shape without its second extent is written so by the older rule, whatever the edition line says.
  const bool upright = !one_extent && width_m < 0 && length_m == 0 && height_m < 0;
  if (!upright) fill_in(width_m, length_m, height_m);
  LuminousArea area;
  area.shape = shape_of(width_m, length_m, height_m);
  area.extent_c90_m = std::abs(width_m);
  area.extent_c0_m = std::abs(length_m);
  area.side_heights_m.fill(std::abs(height_m));
  return area;
}

}  // namespace glow::files
