#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/plans/drawing.hpp"

namespace glow::plans {

/// What a person says about a drawing. Names of layers and blocks are as written, large and small letters
/// alike, and may have * and ? in them.

enum class RoomsFrom { outlines, hatches, lines, walls };
/// "outlines", "hatches", "lines", "walls"; nothing for other words.
std::optional<RoomsFrom> rooms_from(const std::string& word);
const char* to_string(RoomsFrom from);

/// What a block stands for.
struct BlockUse {
  enum class Kind { door, window, column, furniture, luminaire, ignored };
  std::string block;  ///< name or pattern
  Kind kind = Kind::ignored;
  std::string furniture;  ///< plain name of the furniture, empty: a plain box; of luminaires their mark
};

/// Two points of the drawing and how far apart they are in truth.
struct KnownDistance {
  Vec2 from = Vec2::Zero(), to = Vec2::Zero();  ///< drawing units
  double metres = 0;
};

struct Request {
  RoomsFrom from = RoomsFrom::outlines;
  std::vector<std::string> room_layers, wall_layers, door_layers, window_layers;
  std::vector<std::string> text_layers;  ///< empty: all that can be seen
  std::vector<BlockUse> blocks;
  std::string name_tag, number_tag;  ///< of attributes; empty: by usual words
  double join_m = 0.01;              ///< ends nearer than this are one point
  double widest_gap_m = 1.25;        ///< of walls, closed as doors are
  double thinnest_wall_m = 0.05, thickest_wall_m = 0.45;
  std::optional<std::pair<Vec2, Vec2>> window;  ///< of the drawing, its units: what lies outside is not taken
};

/// How the drawing's numbers become metres; nothing: as the drawing says.
struct UnitWish {
  std::optional<double> metres_per_unit;
  std::optional<KnownDistance> known;
  bool is_stated() const { return metres_per_unit || known; }
  /// As it is stated; nothing where only the drawing tells.
  std::optional<double> metres() const;
};

/// One floor: what of a drawing it is, and how it comes into the building.
struct FloorWish {
  std::string file;          ///< of the drawing or building model, as written
  std::string storey;        ///< of a building model: its name there
  std::optional<bool> y_up;  ///< of a mesh: which axis points up; nothing: as its format says
  UnitWish unit;
  Request request;
  std::optional<Vec2> origin;     ///< drawing units; nothing: the drawing's own zero
  bool origin_at_corner = false;  ///< the lower left of what is taken, instead
  double rotate_deg = 0;          ///< counter-clockwise, about the origin
  /// How the drawing lies in the building; nothing where only the drawing itself tells.
  std::optional<Frame> frame() const;
};

/// Whether a folded name fits one of the folded patterns.
bool fits(const std::string& key, const std::vector<std::string>& patterns);
/// What a block stands for; null: nothing is said about it.
const BlockUse* use_of(const std::string& key, const std::vector<BlockUse>& blocks);

}  // namespace glow::plans
