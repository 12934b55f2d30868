#pragma once

#include <memory>
#include <pugixml.hpp>
#include <set>
#include <string>
#include <vector>

#include "core/geometry/vec.hpp"

namespace glow::figures {

/// One SVG drawing, in pixels, y downwards. Text stays text; the same calls give the same bytes.
class SvgCanvas {
 public:
  SvgCanvas(double width, double height);

  struct Text {
    double size = 13;
    const char* anchor = "start";  ///< start, middle, end
    const char* colour = "#1c1c1c";
    bool bold = false;
    const char* halo = nullptr;  ///< colour of an outline behind the letters
    double turn_deg = 0;
  };

  /// Everything that follows goes into a group clipped to the path, until `end_group`.
  void begin_clip(const std::string& path_data);
  void begin_group(const Vec2& at, double turn_deg);
  void end_group();

  void path(const std::string& data, const char* fill, const char* stroke = "none", double stroke_width = 1,
            const char* dash = nullptr);
  void rectangle(const Vec2& low, const Vec2& size, const char* fill, const char* stroke = "none",
                 double stroke_width = 1);
  void circle(const Vec2& centre, double radius, const char* fill, const char* stroke,
              double stroke_width = 1);
  void line(const Vec2& a, const Vec2& b, const char* stroke, double stroke_width = 1);
  void text(const Vec2& at, const std::string& words, const Text& style);
  /// A fill of slanting stripes, by its name: the first call with a name makes it.
  std::string stripes(const std::string& name, const char* background, const char* colour);
  /// Likewise of crossing lines, and of dots.
  std::string crossed(const std::string& name, const char* background, const char* colour);
  std::string dotted(const std::string& name, const char* background, const char* colour);
  void opacity_of_last(double opacity);
  /// Says for other programs where metres lie: px of (0, 0), and px to the metre.
  void note_metres(const Vec2& origin, double pixels_per_m);
  /// A picture: the bytes of a PNG file.
  void image(const Vec2& low, const Vec2& size, const std::string& png);

  std::string bytes() const;

 private:
  pugi::xml_node add(const char* name);
  pugi::xml_node new_pattern(const std::string& name, const char* background);
  pugi::xml_document document_;
  pugi::xml_node root_, here_, last_;
  int clips_ = 0;
  std::set<std::string> patterns_;
};

/// Path data through the points, in pixels; `closed` joins the last to the first.
std::string path_data(const std::vector<Vec2>& points, bool closed = false);
/// "12.34": two digits after the point, no trailing zeros; enough for a pixel.
std::string pixels(double value);
/// Text width in px of the drawings' font, good to some 10 %: for keeping labels apart.
double text_width(const std::string& words, double size);
/// Cut to the width, with two dots in place of what is left out; never inside a letter.
std::string fitted_text(const std::string& words, double width, double size, bool bold = false);

}  // namespace glow::figures
