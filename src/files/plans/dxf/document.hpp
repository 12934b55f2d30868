#pragma once

#include <cstdint>
#include <deque>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/geometry/vec.hpp"

namespace glow::files::dxf {

/// A drawing as its file holds it: nothing inserted, nothing turned, in drawing units.

struct Layer {
  std::string name, key;  ///< key: letters folded, for comparing
  bool frozen = false, off = false;
  bool is_visible() const { return !frozen && !off; }
  bool is_listed = false;  ///< in the table of layers; else only named by an entity
  std::size_t entities = 0;
};

struct Line {
  Vec3 from = Vec3::Zero(), to = Vec3::Zero();
};
struct Vertex {
  Vec3 at = Vec3::Zero();
  double bulge = 0;  ///< tangent of a quarter of the angle that the way to the next vertex turns
};
struct Polyline {
  std::vector<Vertex> vertices;
  bool closed = false;
  bool in_space = false;  ///< in world coordinates, whatever the normal
};
/// Of an ellipse, circle or arc: angles from the long axis, counter-clockwise about the normal, radians.
struct Arc {
  Vec3 centre = Vec3::Zero(), axis = Vec3::UnitX();
  double ratio = 1, from = 0, to = 0;
  bool full = false;
  bool in_space = false;
};
struct Spline {
  int degree = 3;
  bool closed = false;
  std::vector<double> knots, weights;
  std::vector<Vec3> control, fit;
};
struct Insert {
  /// Name of the block, and that folded. Apart, so that lines are small: there are millions of them.
  std::shared_ptr<const std::pair<std::string, std::string>> called;
  const std::string& name() const { return called->first; }
  const std::string& block() const { return called->second; }
  Vec3 at = Vec3::Zero(), scale = Vec3::Ones();
  double rotation = 0;  ///< radians
  std::int64_t columns = 1, rows = 1;
  double column_step = 0, row_step = 0;
  bool is_dimension = false;
};
struct Text {
  std::string words;
  Vec3 at = Vec3::Zero();
  double height = 0;
  std::string tag;  ///< of an attribute
  bool in_space = false;
  std::int64_t insert = -1;  ///< of an attribute: entity that it belongs to, within its list
};
/// Loops, outer ones and holes in any order.
struct Hatch {
  std::vector<std::vector<std::variant<Line, Arc, Spline, Polyline>>> loops;
  double elevation = 0;
  bool solid = false;
};

using Shape = std::variant<Line, Polyline, Arc, Spline, Insert, Text, Hatch>;

struct Entity {
  Shape shape;
  Eigen::Vector3f normal = Eigen::Vector3f::UnitZ();
  std::uint32_t layer = 0, line = 0;
  std::uint64_t handle = 0;  ///< 0: none
};

using Entities = std::deque<Entity>;

struct Block {
  std::string name;
  Vec3 base = Vec3::Zero();
  std::string reference;  ///< path of the file that it stands for; empty: a block of its own
  bool is_reference = false;
  Entities entities;
};

struct Document {
  std::string version;           ///< "AC1015"; empty: not stated
  std::optional<int> unit_code;  ///< $INSUNITS
  bool is_binary = false;
  std::vector<Layer> layers;                    ///< layer "0" first
  std::map<std::string, Block> blocks;          ///< by key
  Entities entities;                            ///< of model space
  std::map<std::string, std::size_t> left_out;  ///< by kind: how many of kinds that plans do without
  std::size_t on_paper = 0, invisible = 0;
};

}  // namespace glow::files::dxf
