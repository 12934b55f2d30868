#pragma once

#include <cmath>
#include <random>
#include <vector>

#include "core/plans/drawing.hpp"

namespace glow::cases {

/// Walls that somebody could have drawn, and the rooms between them. Layer 0 of the drawing has the walls.
struct DrawnWalls {
  plans::Drawing drawing;
  std::vector<geometry::Polygon> rooms;
  std::size_t doors = 0;
};

/// A block of rooms in columns and rows, as two lines a wall with gaps for doors, some of them flush with a
/// corner, some with a column in a room, turned, somewhere. `sloppy`: ends up to 4 mm short or over, lines
/// double or in pieces.
class RandomWalls {
 public:
  RandomWalls(unsigned seed, bool sloppy) : random_(seed), sloppy_(sloppy) {}

  DrawnWalls make() {
    const double turns[] = {0, 0, 90, 7.5, -23}, inner[] = {0.1, 0.115, 0.125, 0.175, 0.24},
                 outer[] = {0.24, 0.3, 0.42};
    turn_ = pick(turns) * M_PI / 180;
    shift_ = Vec2(between(-50, 50), between(-50, 50));
    inner_ = pick(inner);
    walls_.drawing.layers.push_back({"W", "w", false, false, 0});
    lay(xs_, 2 + int(random_() % 3), 2.5, 6.5);
    lay(ys_, 2 + int(random_() % 2), 2.4, 5.5);
    cut_doors();
    for (std::size_t i = 0; i + 1 < xs_.size(); i += 2)
      for (std::size_t j = 0; j + 1 < ys_.size(); j += 2) draw_room(i, j);
    const double t = pick(outer), x = xs_.back(), y = ys_.back();
    draw_loop({{-t, -t}, {x + t, -t}, {x + t, y + t}, {-t, y + t}});
    if (random_() % 2) draw_loop({{1.2, 1.1}, {1.5, 1.1}, {1.5, 1.4}, {1.2, 1.4}});
    return std::move(walls_);
  }

 private:
  struct Door {
    std::size_t wall, along;  ///< face that it is in; room that it lies beside
    double from, to;
  };

  template <std::size_t N>
  double pick(const double (&values)[N]) {
    return values[random_() % N];
  }
  double between(double low, double high) { return low + (high - low) * double(random_() % 10007) / 10006; }
  void lay(std::vector<double>& lines, int count, double least, double most) {
    double at = 0;
    for (int k = 0; k < count; ++k) {
      lines.push_back(at);
      lines.push_back(at += between(least, most));
      at += inner_;
    }
  }
  Door door(std::size_t wall, std::size_t along, const std::vector<double>& lines) {
    const double widths[] = {0.76, 0.885, 1.01, 1.2};
    const double width = pick(widths), free = lines[along + 1] - lines[along] - width - 0.3;
    const double from = lines[along] + (random_() % 4 == 0 ? 0 : between(0.15, 0.15 + free));
    ++walls_.doors;
    return {wall, along, from, from + width};
  }
  void cut_doors() {
    for (std::size_t i = 1; i + 1 < xs_.size(); i += 2)
      for (std::size_t j = 0; j + 1 < ys_.size(); j += 2)
        if (random_() % 5) in_x_.push_back(door(i, j, ys_));
    for (std::size_t j = 1; j + 1 < ys_.size(); j += 2)
      for (std::size_t i = 0; i + 1 < xs_.size(); i += 2)
        if (random_() % 5 > 1) in_y_.push_back(door(j, i, xs_));
  }

  Vec2 placed(const Vec2& p) const {
    return Vec2(std::cos(turn_) * p.x() - std::sin(turn_) * p.y(),
                std::sin(turn_) * p.x() + std::cos(turn_) * p.y()) +
           shift_;
  }
  void put(const Vec2& a, const Vec2& b) {
    plans::Stroke stroke;
    stroke.points = {placed(a), placed(b)};
    walls_.drawing.strokes.push_back(stroke);
  }
  void draw(Vec2 a, Vec2 b) {
    const double length = (b - a).norm();
    if (length < 1e-3) return;
    if (sloppy_) {
      const Vec2 along = (b - a) / length;
      a += along * between(-0.004, 0.004);
      b += along * between(-0.004, 0.004);
      const auto how = random_() % 6;
      if (how == 0) put(b, a);
      if (how == 1 && length > 0.6) {
        const Vec2 middle = a + 0.4 * (b - a);
        put(a, middle);
        a = middle + 0.002 * along;
      }
    }
    put(a, b);
  }
  void draw_loop(const std::vector<Vec2>& corners) {
    for (std::size_t k = 0; k < corners.size(); ++k) draw(corners[k], corners[(k + 1) % corners.size()]);
  }
  /// A face of a room, less the doors in it; `point` gives the plan's point at a place along it.
  template <class Point>
  void draw_face(double from, double to, std::size_t wall, std::size_t along, const std::vector<Door>& doors,
                 const Point& point) {
    for (const Door& door : doors) {
      if (door.along != along || (door.wall != wall && door.wall + 1 != wall)) continue;
      draw(point(from), point(door.from));
      from = door.to;
    }
    draw(point(from), point(to));
  }
  void draw_room(std::size_t i, std::size_t j) {
    const double x0 = xs_[i], x1 = xs_[i + 1], y0 = ys_[j], y1 = ys_[j + 1];
    draw_face(y0, y1, i, j, in_x_, [&](double y) { return Vec2(x0, y); });
    draw_face(y0, y1, i + 1, j, in_x_, [&](double y) { return Vec2(x1, y); });
    draw_face(x0, x1, j, i, in_y_, [&](double x) { return Vec2(x, y0); });
    draw_face(x0, x1, j + 1, i, in_y_, [&](double x) { return Vec2(x, y1); });
    for (const Door& door : in_x_)
      if (door.wall == i + 1 && door.along == j)
        for (const double y : {door.from, door.to}) draw({x1, y}, {x1 + inner_, y});
    for (const Door& door : in_y_)
      if (door.wall == j + 1 && door.along == i)
        for (const double x : {door.from, door.to}) draw({x, y1}, {x, y1 + inner_});
    walls_.rooms.push_back({placed({x0, y0}), placed({x1, y0}), placed({x1, y1}), placed({x0, y1})});
  }

  std::minstd_rand random_;
  const bool sloppy_;
  DrawnWalls walls_;
  std::vector<double> xs_, ys_;  ///< faces of walls: room, wall, room, ...
  std::vector<Door> in_x_, in_y_;
  double turn_ = 0, inner_ = 0.1;
  Vec2 shift_ = Vec2::Zero();
};

}  // namespace glow::cases
