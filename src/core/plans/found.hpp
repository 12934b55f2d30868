#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/plans/drawing.hpp"

namespace glow::plans {

/// What was found in a drawing, whatever its format.

struct FoundOpening {
  enum class Kind { door, window, gap };
  Kind kind = Kind::door;
  std::size_t edge = 0;  ///< of the room's outline, from corner `edge` to the next
  double from_m = 0;     ///< along that edge to the opening's nearer end
  double width_m = 0;
  int leads_to = -1;  ///< number of the room behind it; -1: outside, or not known
  std::uint64_t handle = 0;
};

struct FoundObject {
  std::string block;      ///< its name
  std::string furniture;  ///< plain name; empty: a column or plain box
  bool is_column = false;
  geometry::Polygon footprint;  ///< m, counter-clockwise
  int room = -1;
  std::uint64_t handle = 0;
};

/// A luminaire that the drawing shows.
struct FoundLuminaire {
  std::string mark;
  Vec2 at = Vec2::Zero();  ///< the middle of what its block draws
  double rotation_deg = 0;
  int room = -1;
  std::uint64_t handle = 0;
};

struct FoundRoom {
  std::string name, number;
  geometry::Polygon outline;             ///< inner faces of the walls, m, counter-clockwise
  std::vector<geometry::Polygon> holes;  ///< piers that stand free in it
  std::vector<FoundOpening> openings;
  std::uint64_t handle = 0;  ///< 0: made of several lines
};

/// Something that a person has to look at.
struct Doubt {
  std::string code;  ///< stable: "outline-open"
  std::string text;
  Vec2 at = Vec2::Zero();  ///< m
  bool has_place = false;
  Drawn drawn;
};

struct FoundPlan {
  std::vector<FoundRoom> rooms;  ///< in reading order
  std::vector<FoundObject> objects;
  std::vector<FoundLuminaire> luminaires;
  std::vector<Doubt> doubts;
};

}  // namespace glow::plans
