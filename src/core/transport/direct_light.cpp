#include "core/transport/direct_light.hpp"

#include <algorithm>
#include <cmath>

namespace glow::transport {
namespace {

constexpr double kDivision = 0.8;          // largest diagonal of an element over its distance
constexpr double kPointLike = 0.06;        // below this share of the distance one point will do
constexpr double kHorizonDivision = 0.15;  // the same where the receiving plane cuts through the element
constexpr int kDeepestDivision = 40;       // halvings; reached only by points that touch the luminous area
constexpr int kDeepestPenumbra = 4;        // further quarterings where an edge of shadow crosses an element
constexpr int kCornersToLevel = 2;         // quarterings down to which corners are looked at, too
constexpr double kCornerInset = 0.01;      // share of the element by which a corner is moved in
constexpr double kGauss =
    0.28867513459481287;  // 1 / (2 sqrt 3): Gauss's two points on an interval of length 1
constexpr double kDiscSquare = 0.8660254037844386;  // sqrt(3) / 2
constexpr double kTouching = 1e-7;                  // m; nearer than this the point lies in the luminous area

}  // namespace

/// Rectangle: x along C0, y along C90, m. Disc: x = radius, y = angle.
struct DirectLight::Element {
  Vec2 low, high;
  double share;  ///< of the luminous area
  bool polar;

  Vec2 spot(double s, double t) const {
    const Vec2 p(low.x() + s * (high.x() - low.x()), low.y() + t * (high.y() - low.y()));
    return polar ? Vec2(p.x() * std::cos(p.y()), p.x() * std::sin(p.y())) : p;
  }
  double mean_radius() const { return (low.x() + high.x()) / 2; }
  Vec2 extent() const {
    const Vec2 size = high - low;
    return polar ? Vec2(size.x(), size.y() * high.x()) : size;
  }
  /// Weight of Gauss's point at radius share s: a ring sector has more area outside than inside.
  double weight(double s) const {
    if (!polar) return 1;
    return (low.x() + s * (high.x() - low.x())) / mean_radius();
  }
  std::pair<Element, Element> halves() const {
    Element a = *this, b = *this;
    const Vec2 size = extent();
    const int axis = size.x() >= size.y() ? 0 : 1;
    const double middle = (low[axis] + high[axis]) / 2;
    a.high[axis] = middle;
    b.low[axis] = middle;
    const auto area = [](const Element& e) {
      const Vec2 s = e.high - e.low;
      return e.polar ? s.prod() * e.mean_radius() : s.prod();
    };
    a.share = share * area(a) / area(*this);
    b.share = share - a.share;
    return {a, b};
  }
};

struct DirectLight::Sight {
  Vec3 world;   ///< start of shadow rays
  Vec3 point;   ///< components along c0, c90, g0 from the middle of the luminous area
  Vec3 normal;  ///< the same for the receiving plane's normal

  Vec3 way_from(const Vec2& spot) const { return {point.x() - spot.x(), point.y() - spot.y(), point.z()}; }
  double facing(const Vec2& spot) const { return -normal.dot(way_from(spot)); }
};

double DirectLight::at(const Sight& sight, const Vec2& spot, bool& hidden) const {
  const Vec3 way = sight.way_from(spot);
  const double distance2 = way.squaredNorm();
  if (distance2 < kTouching * kTouching) return 0;
  const double facing = -sight.normal.dot(way);
  if (facing <= 0) return 0;
  const double candela = luminaire_->table->intensity_along(way.x(), way.y(), way.z());
  if (candela <= 0) return 0;
  if (tracer_) {
    const geometry::Frame& frame = luminaire_->frame;
    hidden = tracer_->blocked(sight.world, frame.origin + spot.x() * frame.c0 + spot.y() * frame.c90);
    if (hidden) return 0;
  }
  return candela * facing / (distance2 * std::sqrt(distance2));
}

/// Whether a corner of the element is seen where its four points are not, or the other way round: Gauss's
/// points leave out a fifth of the element on each side.
bool DirectLight::corners_differ(const Sight& sight, const Element& element, bool points_hidden) const {
  for (const double s : {kCornerInset, 1 - kCornerInset})
    for (const double t : {kCornerInset, 1 - kCornerInset}) {
      const Vec2 spot = element.spot(s, t);
      if (sight.facing(spot) <= 0) continue;
      const geometry::Frame& frame = luminaire_->frame;
      const bool hidden =
          tracer_->blocked(sight.world, frame.origin + spot.x() * frame.c0 + spot.y() * frame.c90);
      if (hidden != points_hidden) return true;
    }
  return false;
}

double DirectLight::gauss(const Sight& sight, const Element& element, int penumbra_level) const {
  // Along a side that is short against the distance one point does as well as two; not so where shadows are.
  const double distance = sight.way_from(element.spot(0.5, 0.5)).norm();
  const Vec2 extent = element.extent();
  const bool thin_s = !tracer_ && !element.polar && extent.x() < kPointLike * distance;
  const bool thin_t = !tracer_ && !element.polar && extent.y() < kPointLike * distance;
  const double along_s[] = {thin_s ? 0.5 : 0.5 - kGauss, 0.5 + kGauss};
  const double along_t[] = {thin_t ? 0.5 : 0.5 - kGauss, 0.5 + kGauss};
  const int count_s = thin_s ? 1 : 2, count_t = thin_t ? 1 : 2;
  double sum = 0;
  int hidden_count = 0, lit_count = 0;
  for (int i = 0; i < count_s; ++i)
    for (int j = 0; j < count_t; ++j) {
      bool hidden = false;
      const double lux = at(sight, element.spot(along_s[i], along_t[j]), hidden);
      hidden_count += hidden;
      lit_count += lux > 0;
      sum += element.weight(along_s[i]) * lux / (count_s * count_t);
    }
  const bool all_hidden = lit_count == 0, all_lit = hidden_count == 0;
  const bool edge_between = !all_hidden && !all_lit;
  const bool edge_outside = tracer_ && !edge_between && penumbra_level < kCornersToLevel &&
                            corners_differ(sight, element, all_hidden);
  if ((edge_between || edge_outside) && penumbra_level < kDeepestPenumbra) {
    const auto [a, b] = element.halves();
    const auto [a1, a2] = a.halves();
    const auto [b1, b2] = b.halves();
    const int next = penumbra_level + 1;
    return gauss(sight, a1, next) + gauss(sight, a2, next) + gauss(sight, b1, next) + gauss(sight, b2, next);
  }
  return element.share * sum;
}

double DirectLight::divided(const Sight& sight, const Element& element, int level) const {
  const double diagonal = element.extent().norm();
  double distance;
  if (element.polar) {
    distance = (sight.point.head<2>() - element.spot(0.5, 0.5)).norm();
    distance = std::hypot(std::max(0.0, distance - diagonal / 2), sight.point.z());
  } else {
    const Vec2 nearest = sight.point.head<2>().cwiseMax(element.low).cwiseMin(element.high);
    distance = sight.way_from(nearest).norm();
  }
  double least = 0, most = 0;
  for (const auto& [s, t] : {std::pair{0.0, 0.0}, {1.0, 0.0}, {0.0, 1.0}, {1.0, 1.0}}) {
    const double facing = sight.facing(element.spot(s, t));
    least = std::min(least, facing);
    most = std::max(most, facing);
  }
  if (most <= 0 && !element.polar) return 0;
  const double division = least < 0 && most > 0 ? kHorizonDivision : kDivision;
  if (diagonal <= division * distance || level >= kDeepestDivision) return gauss(sight, element, 0);
  const auto [a, b] = element.halves();
  return divided(sight, a, level + 1) + divided(sight, b, level + 1);
}

double DirectLight::disc(const Sight& sight) const {
  // An ellipse is taken as the circle of the same area; makers' files hold circles.
  const double radius = std::sqrt(luminaire_->area.extent_c0_m * luminaire_->area.extent_c90_m) / 2;
  double sum = 0;
  for (int quarter = 0; quarter < 4; ++quarter)
    sum += divided(sight, {{0, quarter * kPi / 2}, {radius, (quarter + 1) * kPi / 2}, 0.25, true}, 0);
  return sum;
}

double DirectLight::illuminance(const Vec3& point, const Vec3& normal) const {
  const geometry::Frame& frame = luminaire_->frame;
  const photometry::LuminousArea& area = luminaire_->area;
  const Vec3 way = point - frame.origin;
  const Sight sight{point + geometry::kStartOffset * normal,
                    {way.dot(frame.c0), way.dot(frame.c90), way.dot(frame.g0)},
                    {normal.dot(frame.c0), normal.dot(frame.c90), normal.dot(frame.g0)}};
  const Vec2 half(area.extent_c0_m / 2, area.extent_c90_m / 2);
  const double reach = half.norm();
  // Wholly behind the receiving plane.
  if (normal.dot(way) >= reach) return 0;
  const double distance = way.norm();
  bool hidden = false;
  if (area.shape == photometry::LuminousShape::point || (!tracer_ && 2 * reach < kPointLike * distance))
    return at(sight, Vec2::Zero(), hidden);
  const bool is_disc = photometry::is_round(area.shape);
  // Far off and wholly in front: the usual case, without looking any closer. Gauss's four points in the
  // square of half side sqrt(3)/2 radius are exact for cubics over the disc as well.
  if (2 * reach <= kDivision * (distance - reach) && normal.dot(way) <= -reach)
    return gauss(sight,
                 is_disc ? Element{-kDiscSquare * half, kDiscSquare * half, 1.0, false}
                         : Element{-half, half, 1.0, false},
                 0);
  if (is_disc) return disc(sight);
  return divided(sight, {-half, half, 1.0, false}, 0);
}

}  // namespace glow::transport
