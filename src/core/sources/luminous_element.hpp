#pragma once

#include <cmath>
#include <utility>

#include "core/geometry/vec.hpp"

namespace glow::sources {

/// A part of a luminous face. Rectangle: along the face's x and y, m. Disc: x = radius as a share, y = angle.
struct LuminousElement {
  Vec2 low, high;
  double share;  ///< of the face
  bool polar;
  Vec2 half;  ///< half axes of the disc

  Vec2 at(double s, double t) const {
    const Vec2 p(low.x() + s * (high.x() - low.x()), low.y() + t * (high.y() - low.y()));
    return polar ? Vec2(half.x() * p.x() * std::cos(p.y()), half.y() * p.x() * std::sin(p.y())) : p;
  }
  double mean_radius() const { return (low.x() + high.x()) / 2; }
  Vec2 extent() const {
    const Vec2 size = high - low;
    return polar ? Vec2(half.maxCoeff() * size.x(), half.maxCoeff() * size.y() * high.x()) : size;
  }
  /// Weight of Gauss's point at radius share s: a ring sector has more area outside than inside.
  double weight(double s) const {
    if (!polar) return 1;
    return (low.x() + s * (high.x() - low.x())) / mean_radius();
  }
  std::pair<LuminousElement, LuminousElement> halves() const {
    LuminousElement a = *this, b = *this;
    const Vec2 size = extent();
    const int axis = size.x() >= size.y() ? 0 : 1;
    const double middle = (low[axis] + high[axis]) / 2;
    a.high[axis] = middle;
    b.low[axis] = middle;
    const auto area = [](const LuminousElement& e) {
      const Vec2 s = e.high - e.low;
      return e.polar ? s.prod() * e.mean_radius() : s.prod();
    };
    a.share = share * area(a) / area(*this);
    b.share = share - a.share;
    return {a, b};
  }
};

}  // namespace glow::sources
