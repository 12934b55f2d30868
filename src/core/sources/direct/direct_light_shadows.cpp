// What of a face is seen: between known edges, or by a net of sight lines.
#include <algorithm>
#include <cmath>

#include "core/sources/direct/direct_light_sight.hpp"
#include "core/sources/direct/shadow_pieces.hpp"

namespace glow::sources {
namespace {

constexpr int kLevelOfMeshes = 2;      // a mesh counts as so many quarterings
constexpr int kDiscSides = 32;         // of a disc that something hides a part of
constexpr double kMesh = 0.067;        // of the net of sight lines, over the distance
constexpr int kMostMeshes = 6;         // along each side of an element
constexpr double kCornerInset = 0.01;  // share of the element by which a corner is moved in

}  // namespace

/// Whether a corner of the element is seen unlike its four points: Gauss's points leave out a fifth of the
/// element on each side.
bool DirectLight::corners_differ(const Sight& sight, const Element& element, double share) const {
  for (const double s : {kCornerInset, 1 - kCornerInset})
    for (const double t : {kCornerInset, 1 - kCornerInset}) {
      const Vec2 place = element.at(s, t);
      if (sight.facing(place) > 0 && std::abs(passed(sight, place) - share) > kSameShare) return true;
    }
  return false;
}

/// A convex part of the face that is seen in full, in parts that are small against the distance.
template <class Value>
Value DirectLight::open_part(const Sight& sight, const geometry::Polygon& part, int level) const {
  const geometry::Box2 box = geometry::bounding_box(part);
  const Vec2 size = box.size();
  const Vec3& point = sight.receiver.position;
  const double distance = sight.way_from(point.xy().cwiseMax(box.low).cwiseMin(box.high)).norm();
  const bool kink = sight.on_axis((box.low + box.high) / 2, size.norm());
  if (size.norm() > (kink ? kHorizonDivision : sight.division()) * distance && level < kDeepestDivision) {
    const Vec2 axis = size.x() >= size.y() ? Vec2(1, 0) : Vec2(0, 1);
    const double middle = axis.dot(box.low + box.high) / 2;
    Value sum{};
    for (const double side : {1.0, -1.0}) {
      const geometry::Polygon half = geometry::clip_convex(part, side * axis, side * middle);
      if (half.size() > 2) sum += open_part<Value>(sight, half, level + 1);
    }
    return sum;
  }
  return triangles<Value>(sight, part);
}

namespace {

/// A face, in its own x and y; a disc as an even polygon that is as large.
geometry::Polygon outline_of(const photometry::LuminousFace& face) {
  const Vec2& half = face.half;
  if (!face.disc) return {-half, {half.x(), -half.y()}, half, {-half.x(), half.y()}};
  static const geometry::Polygon kRound = [] {
    geometry::Polygon round;
    const double radius = std::sqrt(kPi / (kDiscSides / 2.0 * std::sin(2 * kPi / kDiscSides)));
    for (int k = 0; k < kDiscSides; ++k) {
      const double angle = 2 * kPi * k / kDiscSides;
      round.push_back(radius * Vec2(std::cos(angle), std::sin(angle)));
    }
    return round;
  }();
  geometry::Polygon outline = kRound;
  for (Vec2& corner : outline) corner = corner.cwiseProduct(half);
  return outline;
}

}  // namespace

/// Whether none of it lies behind the receiver's plane, which would give nothing. A polygon that stands for a
/// disc reaches a little farther than it.
bool DirectLight::is_all_in_front(const Sight& sight) const {
  constexpr double kFarther = 1.01;
  if (sight.receiver.kernel != readings::Kernel::plane) return true;
  const Vec3& normal = sight.receiver.normal;
  return normal.dot(sight.receiver.position) <
         -kFarther * sight.face->half.cwiseProduct(normal.xy()).cwiseAbs().sum();
}

/// What of the face lies before the receiver's plane.
geometry::Polygon DirectLight::front_of(const Sight& sight) const {
  const geometry::Polygon outline = outline_of(*sight.face);
  if (is_all_in_front(sight)) return outline;
  const Vec3& normal = sight.receiver.normal;
  return geometry::clip_convex(outline, -normal.xy(), -normal.dot(sight.receiver.position));
}

/// Of what is seen if anything is: one sight line to the middle of what lies in front.
double DirectLight::share_of_all(const Sight& sight) const {
  if (is_all_in_front(sight)) return passed(sight, Vec2::Zero());
  const geometry::Polygon front = front_of(sight);
  return front.size() > 2 ? passed(sight, middle_of(front)) : 0;
}

/// Where the edges of all that may hide the face are known: in parts that none runs through one sight line
/// tells.
template <class Value>
Value DirectLight::between_edges(const Sight& sight, const std::vector<ShadowEdge>& edges) const {
  const geometry::Polygon front = front_of(sight);
  if (front.size() < 3) return {};
  const double area = sight.face->area_m2();
  Sight open = sight;
  open.hidden = false;
  Value sum{};
  for (const geometry::Polygon& part : pieces_between(front, edges)) {
    const double share = passed(sight, middle_of(part));
    open.share = share / area;
    if (share > 0) sum += open.share * open_part<Value>(open, part, 0);
  }
  return sum;
}

/// An element whose light is smooth. Sight lines through the middles of a net's meshes and the corners; where
/// they agree, what they found holds for the element, else mesh by mesh.
template <class Value>
Value DirectLight::probed(const Sight& sight, const Element& element) const {
  const double distance = sight.way_from(element.at(0.5, 0.5)).norm();
  const Vec2 extent = element.extent();
  const auto meshes = [&](double side) {
    return std::clamp(static_cast<int>(std::ceil(side / (kMesh * distance))), 2, kMostMeshes);
  };
  const int count_s = meshes(extent.x()), count_t = meshes(extent.y());
  double least = 2, most = -1;
  for (int i = 0; i < count_s; ++i)
    for (int j = 0; j < count_t; ++j) {
      const Vec2 place = element.at((i + 0.5) / count_s, (j + 0.5) / count_t);
      if (sight.facing(place) <= 0) continue;
      const double share = passed(sight, place);
      least = std::min(least, share);
      most = std::max(most, share);
    }
  if (most < 0) return gauss<Value>(sight, element, 0);  // all but a corner lies behind the receiver
  if (most - least <= kSameShare && !corners_differ(sight, element, most)) {
    Sight open = sight;
    open.hidden = false;
    open.share *= most;
    return most > 0 ? most * gauss<Value>(open, element, kDeepestPenumbra) : Value{};
  }
  Value sum{};
  for (int i = 0; i < count_s; ++i)
    for (int j = 0; j < count_t; ++j) {
      Element mesh = element;
      const Vec2 size = (element.high - element.low).cwiseQuotient(Vec2(count_s, count_t));
      mesh.low = element.low + size.cwiseProduct(Vec2(i, j));
      mesh.high = mesh.low + size;
      mesh.share = element.share / (count_s * count_t);
      if (element.polar) mesh.share *= mesh.mean_radius() / element.mean_radius();
      sum += gauss<Value>(sight, mesh, kLevelOfMeshes);
    }
  return sum;
}

template double DirectLight::between_edges<double>(const Sight&, const std::vector<ShadowEdge>&) const;
template DirectLux DirectLight::between_edges<DirectLux>(const Sight&, const std::vector<ShadowEdge>&) const;
template LightStretch DirectLight::between_edges<LightStretch>(const Sight&,
                                                               const std::vector<ShadowEdge>&) const;
template double DirectLight::probed<double>(const Sight&, const Element&) const;
template DirectLux DirectLight::probed<DirectLux>(const Sight&, const Element&) const;
template LightStretch DirectLight::probed<LightStretch>(const Sight&, const Element&) const;

}  // namespace glow::sources
