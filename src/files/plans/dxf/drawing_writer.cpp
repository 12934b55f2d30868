#include "files/plans/dxf/drawing_writer.hpp"

#include <fmt/format.h>
#include <glib.h>

#include <cmath>

namespace glow::files::dxf {
namespace {

/// Codes of units in the header.
int unit_code(double metres) {
  constexpr std::pair<int, double> kCodes[] = {{1, 0.0254}, {2, 0.3048},  {4, 0.001}, {5, 0.01},
                                               {6, 1},      {10, 0.9144}, {14, 0.1}};
  for (const auto& [code, unit] : kCodes)
    if (std::abs(metres / unit - 1) < 1e-9) return code;
  return 0;
}

std::string escaped(const std::string& words) {
  std::string out;
  for (const char* at = words.c_str(); *at; at = g_utf8_next_char(at)) {
    const gunichar letter = g_utf8_get_char_validated(at, -1);
    if (letter == gunichar(-1) || letter == gunichar(-2)) break;
    if (letter < 0x20)
      out += ' ';
    else if (letter < 0x80)
      out += char(letter);
    else
      out += letter < 0x10000 ? fmt::format(FMT_STRING("\\U+{:04X}"), letter) : std::string("?");
  }
  return out;
}

std::string number(double value) {
  std::string text = fmt::format(FMT_STRING("{:.6f}"), value);
  return text == "-0.000000" ? "0.000000" : text;
}

}  // namespace

DrawingWriter::DrawingWriter(double metres_per_unit) : metres_per_unit_(metres_per_unit) {}

void DrawingWriter::pair(int code, const std::string& value) {
  (in_block_ ? blocks_ : entities_) += fmt::format(FMT_STRING("{:>3}\n{}\n"), code, value);
}

void DrawingWriter::pair(int code, double value) {
  pair(code, number(value));
}

void DrawingWriter::point(int code, const Vec2& p) {
  pair(code, p.x());
  pair(code + 10, p.y());
}

void DrawingWriter::begin(const char* kind) {
  pair(0, std::string(kind));
  pair(8, layer_);
}

void DrawingWriter::layer(const std::string& name, int colour) {
  layers_ += fmt::format(FMT_STRING("  0\nLAYER\n  2\n{}\n 70\n0\n 62\n{}\n  6\nCONTINUOUS\n"), name, colour);
  ++layer_count_;
}

void DrawingWriter::begin_block(const std::string& name) {
  in_block_ = true;
  begin("BLOCK");
  pair(2, name);
  pair(70, std::string("2"));  // with attributes
  point(10, Vec2::Zero());
}

void DrawingWriter::end_block() {
  begin("ENDBLK");
  in_block_ = false;
}

void DrawingWriter::line(const Vec2& a, const Vec2& b) {
  begin("LINE");
  point(10, a);
  point(11, b);
}

void DrawingWriter::polyline(const std::vector<Vec2>& points, bool closed, int colour) {
  begin("POLYLINE");
  pair(62, std::to_string(colour));
  pair(66, std::string("1"));
  point(10, Vec2::Zero());
  pair(70, std::string(closed ? "1" : "0"));
  for (const Vec2& p : points) {
    begin("VERTEX");
    point(10, p);
  }
  begin("SEQEND");
}

void DrawingWriter::circle(const Vec2& centre, double radius) {
  begin("CIRCLE");
  point(10, centre);
  pair(40, radius);
}

void DrawingWriter::solid(const Vec2& a, const Vec2& b, const Vec2& c, const Vec2& d, int colour) {
  begin("SOLID");
  pair(62, std::to_string(colour));
  point(10, a);
  point(11, b);
  point(12, d);  // in zigzag
  point(13, c);
}

void DrawingWriter::text(const Vec2& at, double height, const std::string& words, double turn_deg,
                         Anchor anchor) {
  begin("TEXT");
  point(10, at);
  pair(40, height);
  pair(1, escaped(words));
  if (turn_deg != 0) pair(50, turn_deg);
  pair(72, std::string(anchor == Anchor::middle ? "1" : "0"));
  pair(73, std::string("2"));
  point(11, at);
}

void DrawingWriter::attribute_definition(const std::string& tag, const Vec2& at, double height) {
  begin("ATTDEF");
  point(10, at);
  pair(40, height);
  pair(1, std::string());
  pair(3, tag);
  pair(2, tag);
  pair(70, std::string("1"));  // not to be seen
}

void DrawingWriter::insert(const std::string& block, const Vec2& at, double turn_deg,
                           const std::vector<std::pair<std::string, std::string>>& attributes,
                           double text_height) {
  begin("INSERT");
  if (!attributes.empty()) pair(66, std::string("1"));
  pair(2, block);
  point(10, at);
  pair(50, turn_deg);
  if (attributes.empty()) return;
  for (const auto& [tag, value] : attributes) {
    begin("ATTRIB");
    point(10, at);
    pair(40, text_height);
    pair(1, escaped(value));
    pair(2, tag);
    pair(70, std::string("1"));
  }
  begin("SEQEND");
}

std::string DrawingWriter::bytes() const {
  return fmt::format(
      FMT_STRING(
          "  0\nSECTION\n  2\nHEADER\n  9\n$ACADVER\n  1\nAC1009\n  9\n$INSUNITS\n 70\n{}\n  0\nENDSEC\n"
          "  0\nSECTION\n  2\nTABLES\n"
          "  0\nTABLE\n  2\nLTYPE\n 70\n1\n  0\nLTYPE\n  2\nCONTINUOUS\n 70\n0\n  3\nSolid line\n 72\n65\n "
          "73\n0\n "
          "40\n0.0\n  0\nENDTAB\n"
          "  0\nTABLE\n  2\nLAYER\n 70\n{}\n{}  0\nENDTAB\n  0\nENDSEC\n"
          "  0\nSECTION\n  2\nBLOCKS\n{}  0\nENDSEC\n  0\nSECTION\n  2\nENTITIES\n{}  0\nENDSEC\n  0\nEOF\n"),
      unit_code(metres_per_unit_), layer_count_, layers_, blocks_, entities_);
}

std::string drawing_name(const std::string& words) {
  std::string name;
  for (const char c : words) {
    const bool plain = (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '-' || c == '_';
    if (c >= 'a' && c <= 'z')
      name += char(c - 'a' + 'A');
    else if ((static_cast<unsigned char>(c) & 0xc0) != 0x80)  // a letter of several bytes is one
      name += plain ? c : '_';
  }
  return name.empty() ? "_" : name;
}

}  // namespace glow::files::dxf
