#include "figures/canvas/svg_canvas.hpp"

#include <fmt/format.h>

#include <sstream>

#include "figures/raster/png_bytes.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::figures {

std::string pixels(double value) {
  std::string text = fmt::format(FMT_STRING("{:.2f}"), value);
  while (text.back() == '0') text.pop_back();
  if (text.back() == '.') text.pop_back();
  return text == "-0" ? "0" : text;
}

std::string path_data(const std::vector<Vec2>& points, bool closed) {
  std::string data;
  for (const Vec2& p : points)
    data += fmt::format(FMT_STRING("{}{} {}"), data.empty() ? "M" : "L", pixels(p.x()), pixels(p.y()));
  return closed ? data + "Z" : data;
}

double text_width(const std::string& words, double size) {
  double ems = 0;
  for (const char c : words) {
    const auto byte = static_cast<unsigned char>(c);
    if ((byte & 0xC0) != 0x80) ems += byte < 0xE0 ? 0.56 : 1;  // of three bytes: most are as wide as high
  }
  return ems * size;
}

namespace {

void add_bar(pugi::xml_node& pattern, const char* width, const char* height, const char* fill) {
  pugi::xml_node node = pattern.append_child("rect");
  node.append_attribute("width") = width;
  node.append_attribute("height") = height;
  node.append_attribute("fill") = fill;
}

}  // namespace

SvgCanvas::SvgCanvas(double width, double height) {
  root_ = document_.append_child("svg");
  root_.append_attribute("xmlns") = "http://www.w3.org/2000/svg";
  root_.append_attribute("width") = pixels(width).c_str();
  root_.append_attribute("height") = pixels(height).c_str();
  root_.append_attribute("viewBox") =
      fmt::format(FMT_STRING("0 0 {} {}"), pixels(width), pixels(height)).c_str();
  root_.append_attribute("font-family") = "Open Sans, DejaVu Sans, sans-serif";
  root_.append_attribute("fill-rule") = "evenodd";  // regions with holes are several loops of one path
  here_ = root_;
  rectangle({0, 0}, {width, height}, "#ffffff");
}

pugi::xml_node SvgCanvas::add(const char* name) {
  return last_ = here_.append_child(name);
}

void SvgCanvas::begin_clip(const std::string& path_data) {
  const std::string id = fmt::format(FMT_STRING("clip{}"), ++clips_);
  pugi::xml_node clip = add("clipPath");
  clip.append_attribute("id") = id.c_str();
  clip.append_child("path").append_attribute("d") = path_data.c_str();
  here_ = add("g");
  here_.append_attribute("clip-path") = fmt::format(FMT_STRING("url(#{})"), id).c_str();
}

void SvgCanvas::begin_group(const Vec2& at, double turn_deg) {
  here_ = add("g");
  here_.append_attribute("transform") =
      fmt::format(FMT_STRING("translate({} {}) rotate({})"), pixels(at.x()), pixels(at.y()), pixels(turn_deg))
          .c_str();
}

void SvgCanvas::end_group() {
  here_ = here_.parent();
}

void SvgCanvas::path(const std::string& data, const char* fill, const char* stroke, double stroke_width,
                     const char* dash) {
  pugi::xml_node node = add("path");
  node.append_attribute("d") = data.c_str();
  node.append_attribute("fill") = fill;
  node.append_attribute("stroke") = stroke;
  node.append_attribute("stroke-width") = pixels(stroke_width).c_str();
  node.append_attribute("stroke-linejoin") = "round";
  if (dash) node.append_attribute("stroke-dasharray") = dash;
}

void SvgCanvas::rectangle(const Vec2& low, const Vec2& size, const char* fill, const char* stroke,
                          double stroke_width) {
  pugi::xml_node node = add("rect");
  node.append_attribute("x") = pixels(low.x()).c_str();
  node.append_attribute("y") = pixels(low.y()).c_str();
  node.append_attribute("width") = pixels(size.x()).c_str();
  node.append_attribute("height") = pixels(size.y()).c_str();
  node.append_attribute("fill") = fill;
  node.append_attribute("stroke") = stroke;
  node.append_attribute("stroke-width") = pixels(stroke_width).c_str();
}

void SvgCanvas::circle(const Vec2& centre, double radius, const char* fill, const char* stroke,
                       double stroke_width) {
  pugi::xml_node node = add("circle");
  node.append_attribute("cx") = pixels(centre.x()).c_str();
  node.append_attribute("cy") = pixels(centre.y()).c_str();
  node.append_attribute("r") = pixels(radius).c_str();
  node.append_attribute("fill") = fill;
  node.append_attribute("stroke") = stroke;
  node.append_attribute("stroke-width") = pixels(stroke_width).c_str();
}

void SvgCanvas::line(const Vec2& a, const Vec2& b, const char* stroke, double stroke_width) {
  path(path_data({a, b}), "none", stroke, stroke_width);
}

void SvgCanvas::text(const Vec2& at, const std::string& words, const Text& style) {
  pugi::xml_node node = add("text");
  node.append_attribute("x") = pixels(at.x()).c_str();
  node.append_attribute("y") = pixels(at.y()).c_str();
  node.append_attribute("font-size") = pixels(style.size).c_str();
  node.append_attribute("text-anchor") = style.anchor;
  node.append_attribute("fill") = style.colour;
  if (style.bold) node.append_attribute("font-weight") = "600";
  if (style.halo) {
    node.append_attribute("stroke") = style.halo;
    node.append_attribute("stroke-width") = "3";
    node.append_attribute("stroke-linejoin") = "round";
    node.append_attribute("paint-order") = "stroke";
  }
  if (style.turn_deg != 0)
    node.append_attribute("transform") =
        fmt::format(FMT_STRING("rotate({} {} {})"), pixels(style.turn_deg), pixels(at.x()), pixels(at.y()))
            .c_str();
  node.text().set(files::to_utf8(words).c_str());
}

/// A tile of 7 x 7 px, turned by 45 degrees; null when there is one of that name.
pugi::xml_node SvgCanvas::new_pattern(const std::string& name, const char* background) {
  if (!patterns_.insert(name).second) return {};
  pugi::xml_node pattern = root_.append_child("pattern");
  pattern.append_attribute("id") = name.c_str();
  for (const char* side : {"width", "height"}) pattern.append_attribute(side) = "7";
  pattern.append_attribute("patternUnits") = "userSpaceOnUse";
  pattern.append_attribute("patternTransform") = "rotate(45)";
  add_bar(pattern, "7", "7", background);
  return pattern;
}

std::string SvgCanvas::stripes(const std::string& name, const char* background, const char* colour) {
  if (pugi::xml_node pattern = new_pattern(name, background)) add_bar(pattern, "2", "7", colour);
  return fmt::format(FMT_STRING("url(#{})"), name);
}

std::string SvgCanvas::crossed(const std::string& name, const char* background, const char* colour) {
  if (pugi::xml_node pattern = new_pattern(name, background)) {
    add_bar(pattern, "1.6", "7", colour);
    add_bar(pattern, "7", "1.6", colour);
  }
  return fmt::format(FMT_STRING("url(#{})"), name);
}

std::string SvgCanvas::dotted(const std::string& name, const char* background, const char* colour) {
  if (pugi::xml_node pattern = new_pattern(name, background)) {
    pugi::xml_node dot = pattern.append_child("circle");
    for (const char* centre : {"cx", "cy"}) dot.append_attribute(centre) = "3.5";
    dot.append_attribute("r") = "1.3";
    dot.append_attribute("fill") = colour;
  }
  return fmt::format(FMT_STRING("url(#{})"), name);
}

void SvgCanvas::image(const Vec2& low, const Vec2& size, const std::string& png) {
  pugi::xml_node node = add("image");
  node.append_attribute("x") = pixels(low.x()).c_str();
  node.append_attribute("y") = pixels(low.y()).c_str();
  node.append_attribute("width") = pixels(size.x()).c_str();
  node.append_attribute("height") = pixels(size.y()).c_str();
  node.append_attribute("href") = ("data:image/png;base64," + base64(png)).c_str();
}

void SvgCanvas::note_metres(const Vec2& origin, double pixels_per_m) {
  root_.append_attribute("data-x0") = pixels(origin.x()).c_str();
  root_.append_attribute("data-y0") = pixels(origin.y()).c_str();
  root_.append_attribute("data-per-m") = fmt::format(FMT_STRING("{:.6g}"), pixels_per_m).c_str();
}

void SvgCanvas::opacity_of_last(double opacity) {
  // Of fill and line each: the opacity of a whole element makes its renderer compose pages.
  for (const char* part : {"fill", "stroke"})
    if (std::string(last_.attribute(part).as_string("none")) != "none")
      last_.append_attribute((std::string(part) + "-opacity").c_str()) = pixels(opacity).c_str();
}

std::string SvgCanvas::bytes() const {
  std::ostringstream stream;
  document_.save(stream, " ", pugi::format_indent, pugi::encoding_utf8);
  return stream.str();
}

std::string fitted_text(const std::string& words, double width, double size, bool bold) {
  constexpr double kBold = 1.08;
  if (bold) width /= kBold;
  if (text_width(words, size) <= width) return words;
  std::string cut = words;
  while (!cut.empty() && text_width(cut + "..", size) > width) {
    while (!cut.empty() && (cut.back() & 0xc0) == 0x80) cut.pop_back();
    if (!cut.empty()) cut.pop_back();
  }
  return cut + "..";
}

}  // namespace glow::figures
