#pragma once

#include "core/plans/line_work.hpp"
#include "files/plans/ifc/placement.hpp"

namespace glow::files::ifc {

/// Outlines that are pushed into bodies. All in the file's own units of length, curves as chords within 1 mm.
class Profiles {
 public:
  Profiles(IfcFile& file, Placements& placements) : file_(file), placements_(placements) {}

  /// Of an IfcProfileDef; nothing, told, where it is of a kind that is not read or encloses nothing.
  std::optional<plans::Face> profile(const Item& item);
  /// Points along an IfcCurve of the plane; of what is not read none.
  std::vector<Vec2> curve(const Item& item, int depth = 0);

 private:
  std::optional<plans::Face> outline(const Item& item);
  std::vector<Vec2> polyline(const Item& item);
  std::vector<Vec2> indexed(const Item& item);
  std::vector<Vec2> composite(const Item& item, int depth);
  std::vector<Vec2> trimmed(const Item& item);
  /// A part of a circle or ellipse, from an angle to another (radians).
  std::vector<Vec2> arc(const Item& conic, double from, double to);
  /// Through three points.
  std::vector<Vec2> arc(const Vec2& a, const Vec2& b, const Vec2& c) const;
  int chords(double radius, double angle) const;
  geometry::Polygon placed(geometry::Polygon polygon, const Item& placement);

  IfcFile& file_;
  Placements& placements_;
};

}  // namespace glow::files::ifc
