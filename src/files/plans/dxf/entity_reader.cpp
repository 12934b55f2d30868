#include "files/plans/dxf/entity_reader.hpp"

#include <fmt/format.h>

#include <cmath>

#include "files/text/text_scanner.hpp"

namespace glow::files::dxf {
namespace {

Line read_line(const Fields& fields) {
  return {fields.point(10), fields.point(11)};
}

/// Corners of a filled triangle or quadrangle come in zigzag.
Polyline read_solid(const Fields& fields, bool in_space) {
  Polyline shape;
  shape.closed = true;
  shape.in_space = in_space;
  constexpr int kInOrder[] = {10, 11, 12, 13}, kInZigzag[] = {10, 11, 13, 12};
  for (const int code : in_space ? kInOrder : kInZigzag)
    if (fields.has(code)) shape.vertices.push_back({fields.point(code), 0});
  return shape;
}

Polyline read_light_polyline(const Fields& fields) {
  Polyline shape;
  shape.closed = (fields.whole(70, 0) & 1) != 0;
  const double elevation = fields.real(38, 0);
  for (FieldWalk walk(fields); !walk.done();) {
    if (walk.code() == 10) {
      Vec3 at = walk.point();
      at.z() = elevation;
      shape.vertices.push_back({at, 0});
    } else if (walk.code() == 42 && !shape.vertices.empty()) {
      shape.vertices.back().bulge = walk.real();
    } else {
      walk.skip();
    }
  }
  const std::int64_t said = fields.whole(90, std::int64_t(shape.vertices.size()));
  if (said != std::int64_t(shape.vertices.size()) && !fields.reader().failed())
    fields.reader().problems().warning(
        "count-wrong", fields.reader().place(fields.pairs().front().line),
        fmt::format(FMT_STRING("a polyline says {} corners and has {}; those that are there were taken"),
                    said, shape.vertices.size()));
  return shape;
}

Arc read_circle(const Fields& fields, bool is_arc) {
  Arc arc;
  arc.centre = fields.point(10);
  arc.axis = Vec3(fields.real(40, 0), 0, 0);
  arc.full = !is_arc;
  arc.from = fields.real(50, 0) * kDegree;
  arc.to = is_arc ? fields.real(51, 360) * kDegree : 2 * M_PI;
  return arc;
}

Arc read_ellipse(const Fields& fields) {
  Arc arc;
  arc.in_space = true;
  arc.centre = fields.point(10);
  arc.axis = fields.point(11, Vec3::Zero());
  arc.ratio = fields.real(40, 1);
  arc.from = fields.real(41, 0);
  arc.to = fields.real(42, 2 * M_PI);
  arc.full = std::abs(arc.to - arc.from) > 2 * M_PI - 1e-6;
  return arc;
}

Spline read_spline(const Fields& fields) {
  Spline spline;
  spline.degree = int(std::clamp<std::int64_t>(fields.whole(71, 3), 1, 20));
  spline.closed = (fields.whole(70, 0) & 1) != 0;
  for (FieldWalk walk(fields); !walk.done();) switch (walk.code()) {
      case 10:
        spline.control.push_back(walk.point());
        break;
      case 11:
        spline.fit.push_back(walk.point());
        break;
      case 40:
        spline.knots.push_back(walk.real());
        break;
      case 41:
        spline.weights.push_back(walk.real());
        break;
      default:
        walk.skip();
    }
  return spline;
}

std::shared_ptr<const std::pair<std::string, std::string>> called(const Fields& fields,
                                                                  const Letters& letters) {
  const std::string name = letters.decoded(trimmed(fields.text(2)));
  return std::make_shared<const std::pair<std::string, std::string>>(name, folded(name));
}

Insert read_insert(const Fields& fields, const Letters& letters) {
  Insert insert;
  insert.called = called(fields, letters);
  insert.at = fields.point(10);
  insert.scale = Vec3(fields.real(41, 1), fields.real(42, 1), fields.real(43, 1));
  insert.rotation = fields.real(50, 0) * kDegree;
  insert.columns = fields.whole(70, 1);
  insert.rows = fields.whole(71, 1);
  insert.column_step = fields.real(44, 0);
  insert.row_step = fields.real(45, 0);
  return insert;
}

/// What a dimension looks like stands in a block of its own.
Insert read_dimension(const Fields& fields, const Letters& letters) {
  Insert insert;
  insert.called = called(fields, letters);
  insert.is_dimension = true;
  return insert;
}

Text read_text(const Fields& fields, const Letters& letters) {
  Text text;
  text.words = plain_line(letters.decoded(fields.text(1)));
  const bool is_aligned = fields.whole(72, 0) != 0 || fields.whole(73, 0) != 0 || fields.whole(74, 0) != 0;
  text.at = fields.point(is_aligned && fields.has(11) ? 11 : 10);
  text.height = fields.real(40, 0);
  text.tag = letters.decoded(trimmed(fields.text(2)));
  return text;
}

Text read_paragraph(const Fields& fields, const Letters& letters) {
  std::string bytes;
  for (const Pair& pair : fields.pairs())
    if (pair.code == 3) bytes += pair.text;
  bytes += fields.text(1);
  Text text;
  text.in_space = true;
  text.words = plain_paragraph(letters.decoded(bytes));
  text.at = fields.point(10);
  text.height = fields.real(40, 0);
  return text;
}

/// Parallel lines along a way: each of them a polyline, one after the other.
Polyline read_lines_of_way(const Fields& fields) {
  struct Corner {
    Vec3 at, across;
    std::vector<double> offsets;
  };
  std::vector<Corner> corners;
  for (FieldWalk walk(fields); !walk.done();) {
    if (walk.code() == 11) {
      corners.push_back({walk.point(), Vec3::Zero(), {}});
    } else if (walk.code() == 13 && !corners.empty()) {
      corners.back().across = walk.point();
    } else if (walk.code() == 74 && !corners.empty()) {
      const std::int64_t values = walk.whole();
      corners.back().offsets.push_back(values > 0 && walk.code() == 41 ? walk.real() : 0);
    } else {
      walk.skip();
    }
  }
  Polyline shape;
  shape.in_space = true;
  const bool closed = (fields.whole(71, 0) & 2) != 0;
  std::size_t lines = corners.empty() ? 0 : corners.front().offsets.size();
  for (const Corner& corner : corners) lines = std::min(lines, corner.offsets.size());
  constexpr double kCut = HUGE_VAL;  // a vertex that parts one line from the next
  for (std::size_t k = 0; k < lines; ++k) {
    if (k > 0) shape.vertices.push_back({Vec3::Zero(), kCut});
    for (std::size_t c = 0; c < corners.size() + (closed ? 1 : 0); ++c) {
      const Corner& corner = corners[c % corners.size()];
      shape.vertices.push_back({corner.at + corner.offsets[k] * corner.across, 0});
    }
  }
  return shape;
}

}  // namespace

const Pair* Fields::find(int code) const {
  for (const Pair& pair : pairs_)
    if (pair.code == code) return &pair;
  return nullptr;
}

double Fields::real(int code, double otherwise) const {
  const Pair* pair = find(code);
  double value = otherwise;
  return pair && reader_.number(*pair, value) ? value : otherwise;
}

std::int64_t Fields::whole(int code, std::int64_t otherwise) const {
  const Pair* pair = find(code);
  std::int64_t value = otherwise;
  return pair && reader_.whole(*pair, value) ? value : otherwise;
}

std::string_view Fields::text(int code) const {
  const Pair* pair = find(code);
  return pair ? pair->text : std::string_view{};
}

Vec3 Fields::point(int code, const Vec3& otherwise) const {
  return Vec3(real(code, otherwise.x()), real(code + 10, otherwise.y()), real(code + 20, otherwise.z()));
}

bool FieldWalk::skip_to(int wanted) {
  while (!done() && code() != wanted) skip();
  return !done();
}

double FieldWalk::real() {
  double value = 0;
  if (!done()) fields_.reader().number(fields_.pairs()[at_++], value);
  return value;
}

std::int64_t FieldWalk::whole() {
  std::int64_t value = 0;
  if (!done()) fields_.reader().whole(fields_.pairs()[at_++], value);
  return value;
}

Vec3 FieldWalk::point() {
  const int first = code();
  Vec3 at = Vec3::Zero();
  at.x() = real();
  if (code() == first + 10) at.y() = real();
  if (code() == first + 20) at.z() = real();
  return at;
}

std::optional<Shape> read_shape(std::string_view kind, const Fields& fields, const Letters& letters) {
  if (kind == "LINE") return read_line(fields);
  if (kind == "LWPOLYLINE") return read_light_polyline(fields);
  if (kind == "CIRCLE" || kind == "ARC") return read_circle(fields, kind == "ARC");
  if (kind == "ELLIPSE") return read_ellipse(fields);
  if (kind == "SPLINE") return read_spline(fields);
  if (kind == "INSERT") return read_insert(fields, letters);
  if (kind == "DIMENSION" || kind == "ARC_DIMENSION") return read_dimension(fields, letters);
  if (kind == "TEXT" || kind == "ATTRIB") return read_text(fields, letters);
  if (kind == "MTEXT") return read_paragraph(fields, letters);
  if (kind == "SOLID" || kind == "TRACE") return read_solid(fields, false);
  if (kind == "3DFACE") return read_solid(fields, true);
  if (kind == "MLINE") return read_lines_of_way(fields);
  if (kind == "HATCH") return read_hatch(fields);
  return std::nullopt;
}

}  // namespace glow::files::dxf
