// How far the light of a piece may be off, and pieces divided until that is little.
#include <algorithm>
#include <cmath>
#include <queue>

#include "core/sources/direct/direct_light_sight.hpp"
#include "core/sources/direct/shadow_pieces.hpp"

namespace glow::sources {
namespace {

constexpr int kMostHalvings = 1000;  // of one luminaire for one receiver
constexpr double kNotWorth = 1e-3;   // of what is allowed: a piece with less error is left as it is
constexpr double kOfChange = 1.5;    // error of each half over what halving changed
constexpr double kKeptDoubt = 0.4;   // of an error that halving did not show

}  // namespace

/// A convex part of a face that is seen in full, small against the distance: cut into triangles with three
/// points each, exact for quadratics. A single point where it is very small.
template <class Value>
Value DirectLight::triangles(const Sight& sight, const geometry::Polygon& part) const {
  const geometry::Box2 box = geometry::bounding_box(part);
  const Vec2 size = box.size(), middle = middle_of(part);
  const double distance = sight.way_from(middle).norm(), width = size.maxCoeff() / distance;
  const double area = geometry::signed_area(part);
  const bool single = width < kPointLike;
  Value light{};
  if (single) {
    light = area * unhidden<Value>(sight, middle, width);
  } else {
    for (std::size_t k = 2; k < part.size(); ++k) {
      const Vec2 &a = part[0], &b = part[k - 1], &c = part[k];
      const double third = geometry::signed_area({a, b, c}) / 3;
      for (const Vec2& place :
           {Vec2((4 * a + b + c) / 6), Vec2((a + 4 * b + c) / 6), Vec2((a + b + 4 * c) / 6)})
        light += third * unhidden<Value>(sight, place, width);
    }
  }
  if constexpr (std::is_same_v<Value, DirectLux>) {
    const double both = size.sum() / distance;
    light.error *= (single ? kBendOfOne : kBendOfTriangle) * both;
    light.error +=
        (single ? kSmoothOfOne * width * width : kSmoothOfTriangle * width * width * width) * light.lux;
    light.error += area * kink_error(sight, middle, size);
    if (sight.parts) sight.parts->list.push_back({sight, part, light});
  }
  return light;
}

/// What Gauss's points may miss of an element: `light.error` comes in as lx per radian of its width.
/// `thin_s`, `thin_t`: along which of its sides there is only one.
void DirectLight::tell_error(const Sight& sight, const Element& element, bool thin_s, bool thin_t,
                             DirectLux& light) const {
  const Vec2 middle = element.at(0.5, 0.5), extent = element.extent();
  const Vec3 way = sight.way_from(middle);
  const double distance = way.norm();
  double bends = 0, smooth = 0;
  for (const int axis : {0, 1}) {
    const bool thin = axis == 0 ? thin_s : thin_t;
    const double width = extent[axis] / distance, cosine = element.polar ? 0 : way[axis] / distance;
    // Seen from the side an element is narrower, but its distance changes as much.
    bends += (thin ? kBendOfOne : kBendOfTwo) * width * std::sqrt(std::max(0.0, 1 - cosine * cosine));
    smooth += thin ? kSmoothOfOne * width * width : kSmoothOfTwo * width * width * width * width;
  }
  light.error = bends * light.error + smooth * light.lux + element.share * kink_error(sight, middle, extent);
}

/// lx that Gauss's points may miss, of a face with all its light about `middle`, because a plane's horizon or
/// a cylinder's axis runs through a piece of this extent.
double DirectLight::kink_error(const Sight& sight, const Vec2& middle, const Vec2& extent) const {
  const Vec3 way = sight.way_from(middle);
  const double distance = way.norm();
  double jump = 0;  // of the slope of the receiver's weight, times the width
  if (sight.receiver.kernel == readings::Kernel::plane) {
    const double change = sight.receiver.normal.xy().cwiseAbs().dot(extent) / distance;
    if (std::abs(sight.facing(middle)) < distance * change / 2) jump = change;
  } else if (sight.on_axis(middle, extent.norm())) {
    jump = 2 * extent.norm() / distance;
  }
  if (distance <= 0 || (jump <= 0 && !surface_.closed())) return 0;
  const Vec3 along = sight.in_luminaire(way);
  double share = 1;
  if (surface_.closed()) {
    if (way.z() <= 0) return 0;
    const double area = surface_.projected_area_m2(along / distance);
    share = way.z() / distance * sight.face->area_m2() / area;
    jump += body_kink(sight, way, extent) / area;
  }
  if (jump <= 0) return 0;
  return kBendOfTwo * jump * share / (distance * distance) *
         luminaire_->table->intensity_along(along.x(), along.y(), along.z());
}

/// m2: how much the slope of a body's projected area jumps within a piece of this extent, times its width: it
/// does so in directions along its other faces. Opposite ones jump together, others as chance has it.
double DirectLight::body_kink(const Sight& sight, const Vec3& way, const Vec2& extent) const {
  double jump2 = 0;
  for (const photometry::LuminousFace& other : surface_.faces()) {
    const Vec3 normal(other.z.dot(sight.face->x), other.z.dot(sight.face->y), other.z.dot(sight.face->z));
    const double change = normal.xy().cwiseAbs().dot(extent);
    if (std::abs(normal.dot(way)) < change / 2) jump2 += 2 * std::pow(other.area_m2() * change, 2);
  }
  return std::sqrt(jump2) / way.norm();
}

/// The two halves of a piece. What they change together tells about the error of the whole, and so of theirs.
std::array<DirectLight::Part, 2> DirectLight::halves(const Part& part) const {
  std::array<Part, 2> both{part, part};
  for (Part& half : both) half.sight.parts = nullptr;
  if (const Element* element = std::get_if<Element>(&part.shape)) {
    const auto [a, b] = element->halves();
    both[0].shape = a;
    both[1].shape = b;
    both[0].light = gauss<DirectLux>(both[0].sight, a, kDeepestPenumbra);
    both[1].light = gauss<DirectLux>(both[1].sight, b, kDeepestPenumbra);
  } else {
    const geometry::Polygon& whole = std::get<geometry::Polygon>(part.shape);
    const geometry::Box2 box = geometry::bounding_box(whole);
    const Vec2 axis = box.size().x() >= box.size().y() ? Vec2(1, 0) : Vec2(0, 1);
    const double middle = axis.dot(box.low + box.high) / 2;
    for (const int k : {0, 1}) {
      const double side = k ? -1 : 1;
      const geometry::Polygon half = geometry::clip_convex(whole, side * axis, side * middle);
      both[std::size_t(k)].light =
          half.size() > 2 ? triangles<DirectLux>(both[std::size_t(k)].sight, half) : DirectLux{};
      both[std::size_t(k)].shape = half;
    }
  }
  const double change = std::abs(both[0].light.lux + both[1].light.lux - part.light.lux);
  for (Part& half : both)
    half.light.error = std::min(
        half.light.error, kOfChange * change + kKeptDoubt * std::min(half.light.error, part.light.error / 2));
  return both;
}

/// Halves the piece with the greatest error until the sum of errors is no more than what is allowed.
void DirectLight::refine(Parts& pieces, DirectLux& light, double allowed_lx) const {
  std::vector<Part>& parts = pieces.list;
  std::priority_queue<std::pair<double, std::size_t>> by_error;
  const auto queue = [&](std::size_t p) { by_error.emplace(parts[p].sight.share * parts[p].light.error, p); };
  for (std::size_t p = 0; p < parts.size(); ++p) queue(p);
  for (int halving = 0; halving < kMostHalvings && light.error > allowed_lx && !by_error.empty(); ++halving) {
    const auto [error, p] = by_error.top();
    by_error.pop();
    if (error <= kNotWorth * allowed_lx) return;
    const double share = parts[p].sight.share;
    light += -share * parts[p].light;
    auto [a, b] = halves(parts[p]);
    light += share * (a.light + b.light);
    light.error = std::max(light.error, 0.0);
    parts[p] = std::move(a);
    parts.push_back(std::move(b));
    queue(p);
    queue(parts.size() - 1);
  }
}

template double DirectLight::triangles<double>(const Sight&, const geometry::Polygon&) const;
template DirectLux DirectLight::triangles<DirectLux>(const Sight&, const geometry::Polygon&) const;
template LightStretch DirectLight::triangles<LightStretch>(const Sight&, const geometry::Polygon&) const;

}  // namespace glow::sources
