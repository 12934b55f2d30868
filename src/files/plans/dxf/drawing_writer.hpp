#pragma once

#include <string>
#include <utility>
#include <vector>

#include "core/geometry/vec.hpp"

namespace glow::files::dxf {

/// Writes a drawing exchange file of the oldest version in use (R12, text), which everything opens. In
/// drawing units; letters beyond ASCII as \U+XXXX.
class DrawingWriter {
 public:
  static constexpr int kByLayer = 256;  ///< an entity's colour: its layer's

  /// `metres_per_unit`: told in the header where it has a code.
  explicit DrawingWriter(double metres_per_unit);

  void layer(const std::string& name, int colour);
  /// What follows is part of the block, until `end_block`.
  void begin_block(const std::string& name);
  void end_block();
  /// What follows stands on this layer.
  void on(const std::string& layer) { layer_ = layer; }

  void line(const Vec2& a, const Vec2& b);
  void polyline(const std::vector<Vec2>& points, bool closed, int colour = kByLayer);
  void circle(const Vec2& centre, double radius);
  /// Filled; corners in order.
  void solid(const Vec2& a, const Vec2& b, const Vec2& c, const Vec2& d, int colour);
  enum class Anchor { middle, left };
  /// Upright about the middle of its height.
  void text(const Vec2& at, double height, const std::string& words, double turn_deg = 0,
            Anchor anchor = Anchor::middle);
  /// A value that inserts of the block carry, by its tag.
  void attribute_definition(const std::string& tag, const Vec2& at, double height);
  void insert(const std::string& block, const Vec2& at, double turn_deg,
              const std::vector<std::pair<std::string, std::string>>& attributes, double text_height);

  /// The whole file.
  std::string bytes() const;

 private:
  void pair(int code, const std::string& value);
  void pair(int code, double value);
  void point(int code, const Vec2& p);
  void begin(const char* kind);

  double metres_per_unit_;
  std::string layers_, blocks_, entities_;
  bool in_block_ = false;
  std::string layer_ = "0";
  int layer_count_ = 0;
};

/// A name as blocks and layers may have it: letters, digits, - and _.
std::string drawing_name(const std::string& words);

}  // namespace glow::files::dxf
