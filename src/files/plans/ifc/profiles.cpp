#include "files/plans/ifc/profiles.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace glow::files::ifc {
namespace {

using geometry::Polygon;

constexpr double kChord = 0.001;  // m: how far a curve may lie from its chords
constexpr int kDeepestCurve = 16;
constexpr std::size_t kMostPoints = 200'000;

std::optional<Vec2> pair_of(const Value& list) {
  if (list.items.size() < 2) return std::nullopt;
  const auto x = number_of(list.items[0]), y = number_of(list.items[1]);
  return x && y ? std::optional(Vec2(*x, *y)) : std::nullopt;
}

void append(std::vector<Vec2>& points, const std::vector<Vec2>& more) {
  for (const Vec2& p : more)
    if ((points.empty() || (p - points.back()).norm() > 0) && points.size() < kMostPoints)
      points.push_back(p);
}

Polygon rectangle(double x, double y) {
  return {{-x / 2, -y / 2}, {x / 2, -y / 2}, {x / 2, y / 2}, {-x / 2, y / 2}};
}

}  // namespace

int Profiles::chords(double radius, double angle) const {
  const double off = std::min(1.0, kChord / file_.metre / std::max(radius, 1e-12));
  const double step = 2 * std::acos(1 - off);
  return std::clamp(int(std::ceil(std::abs(angle) / std::max(step, 1e-3))), 2, 2000);
}

std::vector<Vec2> Profiles::arc(const Item& conic, double from, double to) {
  const bool ellipse = conic.is("IFCELLIPSE");
  const double a = conic.number(1).value_or(0), b = ellipse ? conic.number(2).value_or(0) : a;
  if (!(a > 0) || !(b > 0)) return {};
  const Eigen::Affine3d place = placements_.axes(file_.item(conic, 0));
  const int n = chords(std::max(a, b), to - from);
  std::vector<Vec2> points;
  for (int k = 0; k <= n; ++k) {
    const double t = from + (to - from) * k / n;
    points.push_back((place * Vec3(a * std::cos(t), b * std::sin(t), 0)).head<2>());
  }
  return points;
}

std::vector<Vec2> Profiles::arc(const Vec2& a, const Vec2& b, const Vec2& c) const {
  const Vec2 p = b - a, q = c - a;
  const double d = 2 * plans::cross(p, q);
  if (std::abs(d) < 1e-12 * p.norm() * q.norm()) return {a, b, c};
  const Vec2 centre = a + Vec2(q.y() * p.squaredNorm() - p.y() * q.squaredNorm(),
                               p.x() * q.squaredNorm() - q.x() * p.squaredNorm()) /
                              d;
  const double radius = (a - centre).norm();
  const auto angle = [&](const Vec2& v) { return std::atan2(v.y() - centre.y(), v.x() - centre.x()); };
  const double from = angle(a);
  double sweep = angle(c) - from;
  const bool left = d > 0;  // counter-clockwise
  if (left && sweep <= 0) sweep += 2 * M_PI;
  if (!left && sweep >= 0) sweep -= 2 * M_PI;
  const int n = chords(radius, sweep);
  std::vector<Vec2> points = {a};
  for (int k = 1; k < n; ++k) {
    const double t = from + sweep * k / n;
    points.push_back(centre + radius * Vec2(std::cos(t), std::sin(t)));
  }
  points.push_back(c);
  return points;
}

std::vector<Vec2> Profiles::polyline(const Item& item) {
  std::vector<Vec2> points;
  for (const std::uint64_t number : item.references(0)) {
    const auto p = placements_.point(file_.item(number));
    if (!p) return {};
    append(points, {p->head<2>()});
  }
  return points;
}

std::vector<Vec2> Profiles::indexed(const Item& item) {
  const Item list = file_.item(item, 0);
  std::vector<Vec2> all;
  for (const Value& row : list.at(0).items) {
    const auto p = pair_of(row);
    if (!p) return {};
    all.push_back(*p);
  }
  const Value& segments = item.at(1);
  if (!segments.is_list()) return all;
  std::vector<Vec2> points;
  for (const Value& segment : segments.items) {
    std::vector<Vec2> own;
    if (segment.kind != Value::Kind::typed || segment.items.size() != 1) return {};
    for (const Value& index : segment.items.front().items) {
      const double k = number_of(index).value_or(0);
      if (!(k >= 1) || k > double(all.size())) return {};
      own.push_back(all[std::size_t(k) - 1]);
    }
    append(points, segment.raw == "IFCARCINDEX" && own.size() == 3 ? arc(own[0], own[1], own[2]) : own);
  }
  return points;
}

std::vector<Vec2> Profiles::composite(const Item& item, int depth) {
  std::vector<Vec2> points;
  for (const std::uint64_t number : item.references(0)) {
    const Item segment = file_.item(number);
    std::vector<Vec2> part = segment ? curve(file_.item(segment, 2), depth + 1) : std::vector<Vec2>();
    if (part.empty()) return {};
    if (segment.word(1) == "F") std::reverse(part.begin(), part.end());
    append(points, part);
  }
  return points;
}

std::vector<Vec2> Profiles::trimmed(const Item& item) {
  const Item basis = file_.item(item, 0);
  const bool conic = basis.is("IFCCIRCLE") || basis.is("IFCELLIPSE");
  const bool forward = item.word(3) != "F";
  const auto trim = [&](std::size_t k) {
    std::pair<std::optional<double>, std::optional<Vec2>> found;
    for (const Value& value : item.at(k).items) {
      if (value.kind == Value::Kind::reference) {
        if (const auto p = placements_.point(file_.item(value.reference))) found.second = p->head<2>();
      } else if (const auto number = number_of(value)) {
        found.first = number;
      }
    }
    return found;
  };
  auto [from, from_point] = trim(1);
  auto [to, to_point] = trim(2);
  if (basis.is("IFCLINE")) {
    const auto at = placements_.point(file_.item(basis, 0));
    const Item vector = file_.item(basis, 1);
    const auto way = vector ? placements_.direction(file_.item(vector, 0)) : std::nullopt;
    const double length = vector ? vector.number(1).value_or(1) : 1;
    const auto end = [&](const auto& number, const auto& point) -> std::optional<Vec2> {
      if (point) return point;
      if (number && at && way) return Vec2((*at + *way * length * *number).xy());
      return std::nullopt;
    };
    const auto a = end(from, from_point), b = end(to, to_point);
    if (!a || !b) return {};
    return {*a, *b};
  }
  if (!conic) return {};
  const Eigen::Affine3d place = placements_.axes(file_.item(basis, 0));
  const double a = basis.number(1).value_or(1), b = basis.is("IFCELLIPSE") ? basis.number(2).value_or(1) : a;
  const auto angle = [&](const std::optional<double>& number, const std::optional<Vec2>& point) {
    const bool by_point = point && (!number || item.word(4) == "CARTESIAN");
    if (!by_point) return number.value_or(0) * file_.radian;
    const Vec3 own = place.inverse() * Vec3(point->x(), point->y(), 0);
    return std::atan2(own.y() / b, own.x() / a);
  };
  double begin = angle(from, from_point), end = angle(to, to_point);
  if (forward && end <= begin + 1e-12) end += 2 * M_PI;
  if (!forward && end >= begin - 1e-12) end -= 2 * M_PI;
  return arc(basis, begin, end);
}

std::vector<Vec2> Profiles::curve(const Item& item, int depth) {
  if (!item || depth > kDeepestCurve) return {};
  if (item.is("IFCPOLYLINE")) return polyline(item);
  if (item.is("IFCINDEXEDPOLYCURVE")) return indexed(item);
  if (item.is("IFCCOMPOSITECURVE") || item.is("IFC2DCOMPOSITECURVE")) return composite(item, depth);
  if (item.is("IFCTRIMMEDCURVE")) return trimmed(item);
  if (item.is("IFCCIRCLE") || item.is("IFCELLIPSE")) return arc(item, 0, 2 * M_PI);
  file_.doubt("curve-kind", *item.record,
              fmt::format(FMT_STRING("{} is an {}, which is not read; what it bounds was left out"),
                          number_word(*item.record), *item.type));
  return {};
}

Polygon Profiles::placed(Polygon polygon, const Item& placement) {
  const Eigen::Affine3d motion = placements_.axes(placement);
  for (Vec2& p : polygon) p = (motion * Vec3(p.x(), p.y(), 0)).head<2>();
  return polygon;
}

std::optional<plans::Face> Profiles::outline(const Item& item) {
  const auto size = [&](std::size_t k) { return item.number(k).value_or(0); };
  const auto at_place = [&](Polygon polygon) {
    return plans::Face{placed(std::move(polygon), file_.item(item, 2)), {}};
  };
  if (item.is("IFCRECTANGLEPROFILEDEF") || item.is("IFCROUNDEDRECTANGLEPROFILEDEF"))
    return at_place(rectangle(size(3), size(4)));
  if (item.is("IFCRECTANGLEHOLLOWPROFILEDEF")) {
    plans::Face face = at_place(rectangle(size(3), size(4)));
    face.holes.push_back(
        placed(rectangle(size(3) - 2 * size(5), size(4) - 2 * size(5)), file_.item(item, 2)));
    return face;
  }
  if (item.is("IFCCIRCLEPROFILEDEF") || item.is("IFCCIRCLEHOLLOWPROFILEDEF") ||
      item.is("IFCELLIPSEPROFILEDEF")) {
    const double a = size(3), b = item.is("IFCELLIPSEPROFILEDEF") ? size(4) : a;
    const int n = chords(std::max(a, b), 2 * M_PI);
    Polygon ring;
    for (int k = 0; k < n; ++k)
      ring.emplace_back(a * std::cos(2 * M_PI * k / n), b * std::sin(2 * M_PI * k / n));
    return at_place(ring);
  }
  if (item.is("IFCLSHAPEPROFILEDEF")) {
    const double d = size(3), w = item.number(4).value_or(d), t = size(5);
    return at_place({{-w / 2, -d / 2},
                     {w / 2, -d / 2},
                     {w / 2, t - d / 2},
                     {t - w / 2, t - d / 2},
                     {t - w / 2, d / 2},
                     {-w / 2, d / 2}});
  }
  if (item.is("IFCTRAPEZIUMPROFILEDEF")) {
    const double low = size(3), high = size(4), h = size(5), shift = size(6);
    return at_place(
        {{-low / 2, -h / 2}, {low / 2, -h / 2}, {shift + high - low / 2, h / 2}, {shift - low / 2, h / 2}});
  }
  if (item.is("IFCISHAPEPROFILEDEF")) return at_place(rectangle(size(3), size(4)));  // its box: a column
  if (item.is("IFCARBITRARYCLOSEDPROFILEDEF")) return plans::Face{curve(file_.item(item, 2)), {}};
  if (item.is("IFCARBITRARYPROFILEDEFWITHVOIDS")) {
    plans::Face face{curve(file_.item(item, 2)), {}};
    for (const std::uint64_t number : item.references(3)) {
      Polygon hole = curve(file_.item(number));
      if (hole.size() > 2) face.holes.push_back(std::move(hole));
    }
    return face;
  }
  return std::nullopt;
}

std::optional<plans::Face> Profiles::profile(const Item& item) {
  if (!item) return std::nullopt;
  auto face = outline(item);
  if (!face)
    file_.doubt("profile-kind", *item.record,
                fmt::format(FMT_STRING("{} is an {}, which is not read; the body made of it was left out"),
                            number_word(*item.record), *item.type));
  if (!face) return face;
  const auto tidy = [](Polygon& ring) {
    while (ring.size() > 1 && (ring.front() - ring.back()).norm() < 1e-9) ring.pop_back();
    if (geometry::signed_area(ring) < 0) std::reverse(ring.begin(), ring.end());
  };
  tidy(face->outline);
  for (Polygon& hole : face->holes) tidy(hole);
  if (face->outline.size() > 2 && geometry::signed_area(face->outline) > 0) return face;
  return std::nullopt;
}

}  // namespace glow::files::ifc
