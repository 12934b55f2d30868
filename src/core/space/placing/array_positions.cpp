#include "core/space/placing/array_positions.hpp"

#include <algorithm>
#include <cmath>

namespace glow::space {
namespace {

constexpr double kHalfInWall = 1e-3;  // m; nearer than this a luminaire would be half inside the wall
constexpr double kRounding = 1e-9;
constexpr double kMostAlong = 1000;

bool is_clear(const geometry::Polygon& outline, const Vec2& p) {
  return geometry::contains(outline, p) && geometry::distance_to_edges(outline, p) > kHalfInWall;
}

/// Even places along a line.
struct Line {
  int count = 0;
  double first = 0, step = 0;
  double at(int k) const { return first + k * step; }
};

/// What a line is asked for: a count, or a spacing. `shift`: by how many steps every second line is moved.
struct LineWish {
  int count = 1;
  std::optional<double> spacing, margin;
  double shift = 0;
};

Line laid(double low, double high, const LineWish& wish) {
  const double side = high - low, room = side - 2 * wish.margin.value_or(0);
  Line line;
  if (room < 0) return line;
  line.count = wish.count;
  if (wish.spacing) {
    const double wanted = wish.margin ? std::floor(room / *wish.spacing - wish.shift + kRounding) + 1
                                      : std::round(side / *wish.spacing - wish.shift);
    line.count = int(std::clamp(wanted, 1.0, kMostAlong));
    line.step = *wish.spacing;
  } else if (wish.margin) {
    const double steps = line.count - 1 + wish.shift;
    line.step = steps > 0 ? room / steps : side;
  } else {
    line.step = side / (line.count + wish.shift);
  }
  line.first = (low + high) / 2 - (line.count - 1 + wish.shift) * line.step / 2;
  return line;
}

/// Where the level line at `y` runs inside the polygon.
std::vector<std::pair<double, double>> inside_along(const geometry::Polygon& polygon, double y) {
  std::vector<double> crossings;
  for (std::size_t i = 0; i < polygon.size(); ++i) {
    const Vec2 &a = polygon[i], &b = polygon[(i + 1) % polygon.size()];
    if ((a.y() > y) == (b.y() > y)) continue;
    crossings.push_back(a.x() + (y - a.y()) / (b.y() - a.y()) * (b.x() - a.x()));
  }
  std::sort(crossings.begin(), crossings.end());
  std::vector<std::pair<double, double>> parts;
  for (std::size_t i = 0; i + 1 < crossings.size(); i += 2)
    parts.emplace_back(crossings[i], crossings[i + 1]);
  return parts;
}

/// One row of a fitted array, over what of it lies inside.
std::vector<Vec2> fitted_row(const geometry::Polygon& part, double y, const LineWish& wish, double side,
                             bool between) {
  std::vector<Vec2> row;
  for (const auto& [low, high] : inside_along(part, y)) {
    LineWish own = wish;
    own.shift = 0;
    own.count = std::max(1, int(std::lround(wish.count * (high - low) / side)));
    Line line = laid(low, high, own);
    if (between && line.count > 1) {
      line.first += line.step / 2;
      --line.count;
    }
    for (int k = 0; k < line.count; ++k) row.emplace_back(line.at(k), y);
  }
  return row;
}

}  // namespace

ArrayPositions array_positions(const geometry::Polygon& outline, const model::Array& array) {
  const geometry::Polygon& part = array.within.empty() ? outline : array.within;
  const Eigen::Rotation2Dd turn(array.turned_deg * kDegree), back = turn.inverse();
  geometry::Polygon own = part;  // in the array's own axes
  if (array.turned_deg != 0)
    for (Vec2& corner : own) corner = back * corner;
  const geometry::Box2 box = geometry::bounding_box(own);
  LineWish columns{array.columns, {}, array.margin_m, array.staggered ? 0.5 : 0.0};
  LineWish rows{array.rows, {}, array.margin_m, 0};
  if (array.spacing) {
    columns.spacing = array.spacing->x();
    rows.spacing = array.spacing->y();
  }
  const Line across = laid(box.low.x(), box.high.x(), columns), up = laid(box.low.y(), box.high.y(), rows);
  ArrayPositions result{{}, {}, up.count, across.count, {across.step, up.step}};
  for (int r = 0; r < up.count && across.count > 0; ++r) {
    const bool moved = array.staggered && r % 2 == 1;
    std::vector<Vec2> row;
    for (int c = 0; c < across.count && !array.fitted; ++c)
      row.emplace_back(across.at(c) + (moved ? across.step / 2 : 0), up.at(r));
    if (array.fitted) row = fitted_row(own, up.at(r), columns, box.size().x(), moved);
    for (Vec2 p : row) {
      if (array.turned_deg != 0) p = turn * p;
      const bool clear = is_clear(outline, p) && (array.within.empty() || is_clear(part, p));
      (clear ? result.inside : result.outside).push_back(p);
    }
  }
  return result;
}

std::vector<std::pair<Vec2, double>> path_positions(const model::Along& along) {
  double length = 0;
  for (std::size_t i = 1; i < along.path.size(); ++i) length += (along.path[i] - along.path[i - 1]).norm();
  Line line{along.count, 0, along.count > 1 ? length / (along.count - 1) : 0};
  if (along.spacing_m) {
    line.step = *along.spacing_m;
    line.count = int(std::min(std::floor(length / line.step + kRounding) + 1, kMostAlong));
    line.first = (length - (line.count - 1) * line.step) / 2;
  }
  std::vector<std::pair<Vec2, double>> places;
  std::size_t i = 1;
  double before = 0;  // of the path, up to the corner that piece i begins at
  for (int k = 0; k < line.count; ++k) {
    const auto piece = [&] { return (along.path[i] - along.path[i - 1]).norm(); };
    while (i + 1 < along.path.size() && line.at(k) > before + piece() + kRounding) before += piece(), ++i;
    const Vec2 way = (along.path[i] - along.path[i - 1]).normalized();
    places.emplace_back(along.path[i - 1] + (line.at(k) - before) * way,
                        std::atan2(way.y(), way.x()) / kDegree);
  }
  return places;
}

}  // namespace glow::space
