#include "core/plans/signs.hpp"

#include <algorithm>
#include <cmath>
#include <map>

namespace glow::plans {
namespace {

constexpr double kNarrowestDoor = 0.4, kWidestLeaf = 2.6;  // m

/// Middle of a swing's way, its hinge and its two ends.
std::vector<Segment> ways_of(const Stroke& swing) {
  return {{swing.arc->centre, swing.points.front()}, {swing.arc->centre, swing.points.back()}};
}

void append_segments(const Stroke& stroke, double least_m, std::vector<Segment>& out) {
  const std::size_t n = stroke.points.size();
  for (std::size_t k = 0; k + 1 < n + (stroke.closed ? 1 : 0); ++k) {
    const Segment s{stroke.points[k], stroke.points[(k + 1) % n]};
    if (s.length() >= least_m) out.push_back(s);
  }
}

/// A block's part is known by where the block is inserted.
Drawn drawn_as(const Drawing& drawing, const Drawn& drawn) {
  Drawn whole = drawn;
  if (drawn.symbol >= 0) whole.handle = drawing.symbols[std::size_t(drawn.symbol)].drawn.handle;
  return whole;
}

/// The named block that holds it, or the layers that it stands on, as a kind of opening.
std::optional<FoundOpening::Kind> kind_of(const Drawing& drawing, const Drawn& drawn,
                                          const Request& request) {
  if (const BlockUse* use = use_of(drawing, drawn, request.blocks)) {
    if (use->kind == BlockUse::Kind::door) return FoundOpening::Kind::door;
    if (use->kind == BlockUse::Kind::window) return FoundOpening::Kind::window;
    return std::nullopt;
  }
  const std::string& layer = drawing.layers[drawn.layer].key;
  // A layer that walls stand on as well says nothing.
  if (fits(layer, request.wall_layers) || fits(layer, request.room_layers)) return std::nullopt;
  if (fits(layer, request.window_layers)) return FoundOpening::Kind::window;
  if (fits(layer, request.door_layers)) return FoundOpening::Kind::door;
  return std::nullopt;
}

/// The symbol that is named, or the outermost one.
int thing_of(const Drawing& drawing, const Drawn& drawn, const std::vector<BlockUse>& blocks) {
  int found = -1;
  for (int s = drawn.symbol; s >= 0; s = drawing.symbols[std::size_t(s)].drawn.symbol)
    if (use_of(drawing.symbols[std::size_t(s)].key, blocks)) found = s;
  return found;
}

geometry::Polygon footprint_of(const std::vector<const Stroke*>& strokes) {
  std::vector<Vec2> all;
  geometry::Polygon largest;
  for (const Stroke* stroke : strokes) {
    all.insert(all.end(), stroke->points.begin(), stroke->points.end());
    if (!stroke->closed || stroke->points.size() < 3) continue;
    const geometry::Polygon closed = geometry::tidied(stroke->points);
    if (closed.size() >= 3 &&
        (largest.empty() || geometry::signed_area(closed) > geometry::signed_area(largest)))
      largest = closed;
  }
  const geometry::Polygon hull = convex_hull(all);
  if (hull.size() < 3) return {};
  constexpr double kMost = 0.6;  // of the hull: an L has about that; less is an ornament inside
  return !largest.empty() && geometry::signed_area(largest) > kMost * geometry::signed_area(hull) &&
                 !geometry::fault_of_outline(largest)
             ? largest
             : hull;
}

/// Where walls and windows share a layer: lines of one length, three or more within the depth of a wall.
std::vector<OpeningSign> windows_among_walls(const Drawing& drawing, const Request& request) {
  constexpr double kAlike = 0.012, kNarrowest = 0.35;  // m
  struct Line {
    double across, along;
    Vec2 direction;
    const Stroke* stroke;
    Segment segment;
  };
  std::vector<Line> lines;
  for (const Stroke& stroke : drawing.strokes) {
    const std::string& layer = drawing.layers[stroke.drawn.layer].key;
    if (stroke.points.size() != 2 || !fits(layer, request.window_layers) ||
        !fits(layer, request.wall_layers) || stroke.drawn.symbol >= 0)
      continue;
    const Segment s{stroke.points[0], stroke.points[1]};
    if (s.length() < kNarrowest) continue;
    Vec2 d = s.along();
    if (d.x() < -1e-6 || (std::abs(d.x()) <= 1e-6 && d.y() < 0)) d = -d;
    lines.push_back({cross(d, s.middle()), d.dot(s.middle()), d, &stroke, s});
  }
  std::sort(lines.begin(), lines.end(), [](const Line& a, const Line& b) { return a.across < b.across; });
  std::vector<OpeningSign> signs;
  std::vector<bool> used(lines.size(), false);
  for (std::size_t k = 0; k < lines.size(); ++k) {
    std::vector<std::size_t> alike = {k};
    for (std::size_t j = k + 1;
         j < lines.size() && lines[j].across - lines[k].across <= request.thickest_wall_m; ++j)
      if (!used[j] && std::abs(cross(lines[k].direction, lines[j].direction)) < 0.01 &&
          std::abs(lines[k].along - lines[j].along) < kAlike &&
          std::abs(lines[k].segment.length() - lines[j].segment.length()) < kAlike &&
          lines[j].across - lines[alike.back()].across > kAlike)
        alike.push_back(j);
    const double depth = lines[alike.back()].across - lines[k].across;
    if (used[k] || alike.size() < 3 || depth < request.thinnest_wall_m) continue;
    OpeningSign sign{FoundOpening::Kind::window, {}, false, lines[k].stroke->drawn};
    for (const std::size_t j : alike) {
      used[j] = true;
      sign.along.push_back(lines[j].segment);
    }
    signs.push_back(std::move(sign));
  }
  return signs;
}

}  // namespace

bool is_swing(const Stroke& stroke) {
  if (!stroke.arc || stroke.closed || stroke.arc->radius_m < kNarrowestDoor ||
      stroke.arc->radius_m > kWidestLeaf)
    return false;
  const Vec2 a = (stroke.points.front() - stroke.arc->centre) / stroke.arc->radius_m,
             b = (stroke.points.back() - stroke.arc->centre) / stroke.arc->radius_m;
  const double angle = std::acos(std::clamp(a.dot(b), -1.0, 1.0));
  double turned = 0;  // also tells a quarter from three
  for (std::size_t k = 1; k < stroke.points.size(); ++k)
    turned += (stroke.points[k] - stroke.points[k - 1]).norm();
  turned /= stroke.arc->radius_m;
  return angle > 0.5 && turned < 2.2;  // 30 to 125 degrees
}

const BlockUse* use_of(const Drawing& drawing, const Drawn& drawn, const std::vector<BlockUse>& blocks) {
  const BlockUse* found = nullptr;
  for (int s = drawn.symbol; s >= 0; s = drawing.symbols[std::size_t(s)].drawn.symbol)
    if (const BlockUse* use = use_of(drawing.symbols[std::size_t(s)].key, blocks)) found = use;
  return found;
}

bool is_dimension(const Drawing& drawing, const Drawn& drawn) {
  for (int s = drawn.symbol; s >= 0; s = drawing.symbols[std::size_t(s)].drawn.symbol)
    if (drawing.symbols[std::size_t(s)].is_dimension) return true;
  return false;
}

std::vector<OpeningSign> opening_signs(const Drawing& drawing, const Request& request) {
  constexpr double kLeastLine = 0.2;  // m: shorter ones are ends and hinges
  std::vector<OpeningSign> signs = windows_among_walls(drawing, request);
  std::map<int, bool> has_swing;  // by symbol
  for (const Stroke& stroke : drawing.strokes) {
    if (!is_swing(stroke)) continue;
    const std::string& layer = drawing.layers[stroke.drawn.layer].key;
    const auto kind = kind_of(drawing, stroke.drawn, request);
    const bool is_door = kind ? *kind == FoundOpening::Kind::door : fits(layer, request.door_layers);
    if (!is_door) continue;
    if (stroke.drawn.symbol >= 0) has_swing[stroke.drawn.symbol] = true;
    signs.push_back({FoundOpening::Kind::door, ways_of(stroke), true, drawn_as(drawing, stroke.drawn)});
  }
  std::vector<const Stroke*> swings;
  for (const Stroke& stroke : drawing.strokes)
    if (is_swing(stroke)) swings.push_back(&stroke);
  for (const Stroke& stroke : drawing.strokes) {
    const auto kind = kind_of(drawing, stroke.drawn, request);
    if (!kind || stroke.arc || is_dimension(drawing, stroke.drawn)) continue;
    if (*kind == FoundOpening::Kind::door && has_swing.count(stroke.drawn.symbol)) continue;
    OpeningSign sign{*kind, {}, false, drawn_as(drawing, stroke.drawn)};
    append_segments(stroke, kLeastLine, sign.along);
    if (*kind == FoundOpening::Kind::door)
      sign.along.erase(std::remove_if(sign.along.begin(), sign.along.end(),
                                      [&](const Segment& s) { return is_leaf(s, swings); }),
                       sign.along.end());
    if (!sign.along.empty()) signs.push_back(std::move(sign));
  }
  return signs;
}

bool is_leaf(const Segment& line, const std::vector<const Stroke*>& swings) {
  constexpr double kNear = 0.08;  // of the radius: leaves have a thickness
  for (const Stroke* swing : swings) {
    const ArcOf& arc = *swing->arc;
    const double near = kNear * arc.radius_m;
    if (std::abs(line.length() - arc.radius_m) > near) continue;
    for (const Vec2& hinge : {line.from, line.to}) {
      const Vec2 tip = hinge == line.from ? line.to : line.from;
      if ((hinge - arc.centre).norm() <= near &&
          std::min((tip - swing->points.front()).norm(), (tip - swing->points.back()).norm()) <= near)
        return true;
    }
  }
  return false;
}

void find_things(const Drawing& drawing, const Request& request, FoundPlan& plan) {
  std::map<int, std::vector<const Stroke*>> things;
  for (const Stroke& stroke : drawing.strokes) {
    const int thing = thing_of(drawing, stroke.drawn, request.blocks);
    if (thing >= 0) things[thing].push_back(&stroke);
  }
  for (const auto& [thing, strokes] : things) {
    const Symbol& symbol = drawing.symbols[std::size_t(thing)];
    const BlockUse* use = use_of(symbol.key, request.blocks);
    const geometry::Polygon footprint = footprint_of(strokes);
    constexpr double kLeast = 1e-4;  // m2
    const bool has_area = footprint.size() >= 3 && geometry::signed_area(footprint) > kLeast;
    if (use->kind == BlockUse::Kind::luminaire) {
      const geometry::Box2 box = geometry::bounding_box(footprint);
      plan.luminaires.push_back({use->furniture, has_area ? Vec2((box.low + box.high) / 2) : symbol.at,
                                 symbol.rotation_deg, -1, handle_word(symbol.drawn.handle)});
    }
    if (has_area && (use->kind == BlockUse::Kind::column || use->kind == BlockUse::Kind::furniture))
      plan.objects.push_back({symbol.name, use->furniture, use->kind == BlockUse::Kind::column, footprint, -1,
                              handle_word(symbol.drawn.handle)});
  }
}

}  // namespace glow::plans
