#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/geometry/polygon.hpp"

namespace glow::plans {

/// How a drawing lies in the building: metres = metres_per_unit * turn(drawing - origin, rotate), turned
/// counter-clockwise.
struct Frame {
  double metres_per_unit = 1;
  Vec2 origin = Vec2::Zero();  ///< drawing units
  double rotate_deg = 0;
  Vec2 to_metres(const Vec2& drawing) const;
  Vec2 to_drawing(const Vec2& metres) const;
};

struct Layer {
  std::string name, key;  ///< key: letters folded, for comparing
  bool frozen = false, off = false;
  std::size_t entities = 0;
};

/// Where something stands in the drawing.
struct Drawn {
  std::uint32_t layer = 0;
  std::uint64_t handle = 0;  ///< 0: none
  std::uint32_t line = 0;    ///< of the file
  int symbol = -1;           ///< the block that it is part of; -1: none
};

/// A handle as drawings write it; empty: none.
std::string handle_word(std::uint64_t handle);

/// A circle's part, where a stroke is one.
struct ArcOf {
  Vec2 centre = Vec2::Zero();
  double radius_m = 0;
};

/// A line, polyline or curve, curves as chords.
struct Stroke {
  std::vector<Vec2> points;  ///< m
  bool closed = false;
  std::optional<ArcOf> arc;
  Drawn drawn;
};

/// A filled or hatched area: outer loops and holes in any order.
struct Fill {
  std::vector<geometry::Polygon> loops;
  Drawn drawn;
};

struct Label {
  std::string words;  ///< lines apart by line breaks
  Vec2 at = Vec2::Zero();
  double height_m = 0;
  std::string tag;  ///< of an attribute, letters folded
  Drawn drawn;
};

/// A block where it is inserted.
struct Symbol {
  std::string name, key;
  Vec2 at = Vec2::Zero();
  double rotation_deg = 0;
  bool is_dimension = false;
  Drawn drawn;  ///< its `symbol`: the block that this one is part of
};

/// What of a drawing stands on some layers, in the building's metres.
struct Drawing {
  std::vector<Layer> layers;
  std::vector<Stroke> strokes;
  std::vector<Fill> fills;
  std::vector<Label> labels;
  std::vector<Symbol> symbols;
};

}  // namespace glow::plans
