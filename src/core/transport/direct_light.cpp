#include "core/transport/direct_light.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/transport/shadow_pieces.hpp"

namespace glow::transport {
namespace {

constexpr double kDivision = 0.8;          // largest diagonal of an element over its distance
constexpr double kCoarseDivision = 1.0;    // the same for patches, where it need not be right to the permille
constexpr double kPointLike = 0.06;        // below this share of the distance one point will do
constexpr double kHorizonDivision = 0.15;  // where the receiving plane cuts through the element
constexpr double kCoarseHorizon = 0.2;
constexpr int kMostAlong = 8;          // points along a side before parts are made by halving
constexpr int kDeepestDivision = 40;   // halvings; reached only by points that touch the luminous area
constexpr int kLevelOfMeshes = 2;      // a mesh counts as so many quarterings
constexpr int kDeepestPenumbra = 5;    // further quarterings where an edge of shadow crosses an element
constexpr int kDiscSides = 32;         // of a disc that something hides a part of
constexpr double kMesh = 0.067;        // of the net of sight lines, over the distance
constexpr int kMostMeshes = 6;         // along each side of an element
constexpr double kCornerInset = 0.01;  // share of the element by which a corner is moved in
constexpr double kSameShare = 1e-4;
constexpr double kGauss =
    0.28867513459481287;  // 1 / (2 sqrt 3): Gauss's two points on an interval of length 1
constexpr double kDiscSquare = 0.8660254037844386;  // sqrt(3) / 2
constexpr double kTouching = 1e-7;                  // m; nearer than this the point lies in the luminous area

}  // namespace

struct DirectLight::Sight {
  const photometry::LuminousFace* face;
  Receiver receiver;  ///< position, normal and axis along the face's x, y, z from its middle
  Vec3 start;         ///< world; where shadow rays begin
  bool coarse;        ///< for a patch
  bool hidden;        ///< whether sight lines are to be looked along
  LightTape* tape;    ///< to be recorded on, or null

  Vec3 way_from(const Vec2& spot) const {
    const Vec3& p = receiver.position;
    return {p.x() - spot.x(), p.y() - spot.y(), p.z()};
  }
  /// Above 0 where a plane receiver sees the spot from its front; other receivers see all around.
  double facing(const Vec2& spot) const {
    return receiver.kernel == Kernel::plane ? -receiver.normal.dot(way_from(spot)) : 1.0;
  }
  /// A cylinder sees what lies along its axis with a kink: whether that may be within `radius` of the spot.
  bool on_axis(const Vec2& spot, double radius) const {
    if (receiver.kernel != Kernel::cylinder && receiver.kernel != Kernel::semicylinder) return false;
    return receiver.axis.cross(way_from(spot)).norm() < radius;
  }
  /// The same as components along the luminaire's C0, C90, gamma 0.
  Vec3 in_luminaire(const Vec3& v) const { return v.x() * face->x + v.y() * face->y + v.z() * face->z; }
};

DirectLight::DirectLight(const photometry::PlacedLuminaire& luminaire, const geometry::RayTracer* tracer,
                         const Occluders* occluders)
    : luminaire_(&luminaire),
      surface_(luminaire.area),
      flat_rectangle_(luminaire.area.shape == photometry::LuminousShape::rectangle && !surface_.point()),
      occluders_(tracer ? occluders : nullptr) {
  if (tracer)
    passed_ = [tracer, owner = luminaire.owner](const Vec3& from, const Vec3& spot) {
      return double(tracer->passed(from, spot, owner));
    };
}

DirectLight::DirectLight(const photometry::PlacedLuminaire& luminaire, Passed passed)
    : luminaire_(&luminaire), surface_(luminaire.area), passed_(std::move(passed)) {}

double DirectLight::passed(const Sight& sight, const Vec2& spot) const {
  const geometry::Frame& frame = luminaire_->frame;
  const Vec3 p = sight.face->centre + sight.in_luminaire({spot.x(), spot.y(), 0});
  return passed_(sight.start, frame.origin + p.x() * frame.c0 + p.y() * frame.c90 + p.z() * frame.g0);
}

/// Intensity along the components in the luminaire: from its table, or to be filled in.
template <>
double DirectLight::candela<double>(const Vec3& along, LightTape*) const {
  return luminaire_->table->intensity_along(along.x(), along.y(), along.z());
}

template <>
LightStretch DirectLight::candela<LightStretch>(const Vec3& along, LightTape* tape) const {
  return tape->record(along);
}

/// lx from a face with all its light at one spot, if nothing hides it.
template <class Value>
Value DirectLight::unhidden(const Sight& sight, const Vec2& spot) const {
  const Vec3 way = sight.way_from(spot);
  const double distance2 = way.squaredNorm();
  if (distance2 < kTouching * kTouching) return {};
  const bool plane = sight.receiver.kernel == Kernel::plane;
  const double facing = plane ? -sight.receiver.normal.dot(way) : 1.0;
  if (facing <= 0) return {};
  if (surface_.closed() && way.z() <= 0) return {};
  const Vec3 along = sight.in_luminaire(way);
  const Value intensity = candela<Value>(along, sight.tape);
  if (is_dark(intensity)) return {};
  const double distance = std::sqrt(distance2);
  double share = 1;
  if (surface_.closed())
    share = way.z() / distance * sight.face->area_m2() / surface_.projected_area_m2(along / distance);
  if (plane) return share * facing / (distance2 * distance) * intensity;
  return share * sight.receiver.weight(-way / distance) / distance2 * intensity;
}

/// Whether a corner of the element is seen unlike its four points: Gauss's points leave out a fifth of the
/// element on each side.
bool DirectLight::corners_differ(const Sight& sight, const Element& element, double share) const {
  for (const double s : {kCornerInset, 1 - kCornerInset})
    for (const double t : {kCornerInset, 1 - kCornerInset}) {
      const Vec2 spot = element.spot(s, t);
      if (sight.facing(spot) > 0 && std::abs(passed(sight, spot) - share) > kSameShare) return true;
    }
  return false;
}

template <class Value>
Value DirectLight::gauss(const Sight& sight, const Element& element, int penumbra_level) const {
  // Along a side that is short against the distance one point does as well as two; not so where shadows are.
  const double distance = sight.way_from(element.spot(0.5, 0.5)).norm();
  const Vec2 extent = element.extent();
  const bool thin_s = !sight.hidden && !element.polar && extent.x() < kPointLike * distance;
  const bool thin_t = !sight.hidden && !element.polar && extent.y() < kPointLike * distance;
  const double along_s[] = {thin_s ? 0.5 : 0.5 - kGauss, 0.5 + kGauss};
  const double along_t[] = {thin_t ? 0.5 : 0.5 - kGauss, 0.5 + kGauss};
  const int count_s = thin_s ? 1 : 2, count_t = thin_t ? 1 : 2;
  Value sum{};
  double least = 2, most = -1;
  for (int i = 0; i < count_s; ++i)
    for (int j = 0; j < count_t; ++j) {
      const Vec2 spot = element.spot(along_s[i], along_t[j]);
      const Value lux = unhidden<Value>(sight, spot);
      if (is_dark(lux)) continue;
      const double share = sight.hidden ? passed(sight, spot) : 1.0;
      least = std::min(least, share);
      most = std::max(most, share);
      sum += element.weight(along_s[i]) * share / (count_s * count_t) * lux;
    }
  if (sight.hidden && most >= 0 && penumbra_level < kDeepestPenumbra &&
      (most - least > kSameShare || corners_differ(sight, element, most))) {
    const auto [a, b] = element.halves();
    const auto [a1, a2] = a.halves();
    const auto [b1, b2] = b.halves();
    const int next = penumbra_level + 1;
    sum *= 0;  // what was recorded is done anew, finer
    return gauss<Value>(sight, a1, next) + gauss<Value>(sight, a2, next) + gauss<Value>(sight, b1, next) +
           gauss<Value>(sight, b2, next);
  }
  return element.share * sum;
}

/// A convex part of the face that is seen in full. In parts that are small against the distance, cut into
/// triangles with three points each: exact for quadratics.
template <class Value>
Value DirectLight::open_part(const Sight& sight, const geometry::Polygon& part, int level) const {
  const geometry::Box2 box = geometry::bounding_box(part);
  const Vec2 size = box.size();
  const Vec3& point = sight.receiver.position;
  const double distance = sight.way_from(point.head<2>().cwiseMax(box.low).cwiseMin(box.high)).norm();
  const bool kink = sight.on_axis((box.low + box.high) / 2, size.norm());
  if (size.norm() > (kink ? kHorizonDivision : kDivision) * distance && level < kDeepestDivision) {
    const Vec2 axis = size.x() >= size.y() ? Vec2(1, 0) : Vec2(0, 1);
    const double middle = axis.dot(box.low + box.high) / 2;
    Value sum{};
    for (const double side : {1.0, -1.0}) {
      const geometry::Polygon half = geometry::clip_convex(part, side * axis, side * middle);
      if (half.size() > 2) sum += open_part<Value>(sight, half, level + 1);
    }
    return sum;
  }
  if (size.maxCoeff() < kPointLike * distance)
    return geometry::signed_area(part) * unhidden<Value>(sight, middle_of(part));
  Value sum{};
  for (std::size_t k = 2; k < part.size(); ++k) {
    const Vec2 &a = part[0], &b = part[k - 1], &c = part[k];
    const double third = geometry::signed_area({a, b, c}) / 3;
    for (const Vec2& spot : {Vec2((4 * a + b + c) / 6), Vec2((a + 4 * b + c) / 6), Vec2((a + b + 4 * c) / 6)})
      sum += third * unhidden<Value>(sight, spot);
  }
  return sum;
}

namespace {

/// A face, in its own x and y; a disc as an even polygon that is as large.
geometry::Polygon outline_of(const photometry::LuminousFace& face) {
  const Vec2& half = face.half;
  if (!face.disc) return {-half, {half.x(), -half.y()}, half, {-half.x(), half.y()}};
  geometry::Polygon outline;
  const double radius = std::sqrt(kPi / (kDiscSides / 2.0 * std::sin(2 * kPi / kDiscSides)));
  for (int k = 0; k < kDiscSides; ++k) {
    const double angle = 2 * kPi * k / kDiscSides;
    outline.push_back(radius * half.cwiseProduct(Vec2(std::cos(angle), std::sin(angle))));
  }
  return outline;
}

}  // namespace

/// What of the face lies before the receiver's plane: the rest gives it nothing.
geometry::Polygon DirectLight::front_of(const Sight& sight) const {
  const geometry::Polygon outline = outline_of(*sight.face);
  if (sight.receiver.kernel != Kernel::plane) return outline;
  const Vec3& normal = sight.receiver.normal;
  return geometry::clip_convex(outline, -normal.head<2>(), -normal.dot(sight.receiver.position));
}

/// Where the edges of all that may hide the face are known: in parts that none runs through one sight line
/// tells.
template <class Value>
Value DirectLight::between_edges(const Sight& sight, const std::vector<ShadowEdge>& edges) const {
  const geometry::Polygon front = front_of(sight);
  if (front.size() < 3) return {};
  const double area = geometry::signed_area(outline_of(*sight.face));
  Sight open = sight;
  open.hidden = false;
  Value sum{};
  for (const geometry::Polygon& part : pieces_between(front, edges)) {
    const double share = passed(sight, middle_of(part));
    if (share > 0) sum += share / area * open_part<Value>(open, part, 0);
  }
  return sum;
}

/// An element whose light is smooth. Sight lines through the middles of a net's meshes and the corners; where
/// they agree, what they found holds for the element, else mesh by mesh.
template <class Value>
Value DirectLight::probed(const Sight& sight, const Element& element) const {
  const double distance = sight.way_from(element.spot(0.5, 0.5)).norm();
  const Vec2 extent = element.extent();
  const auto meshes = [&](double side) {
    return std::clamp(static_cast<int>(std::ceil(side / (kMesh * distance))), 2, kMostMeshes);
  };
  const int count_s = meshes(extent.x()), count_t = meshes(extent.y());
  double least = 2, most = -1;
  for (int i = 0; i < count_s; ++i)
    for (int j = 0; j < count_t; ++j) {
      const Vec2 spot = element.spot((i + 0.5) / count_s, (j + 0.5) / count_t);
      if (sight.facing(spot) <= 0) continue;
      const double share = passed(sight, spot);
      least = std::min(least, share);
      most = std::max(most, share);
    }
  if (most < 0) return gauss<Value>(sight, element, 0);  // all but a corner lies behind the receiver
  if (most - least <= kSameShare && !corners_differ(sight, element, most)) {
    Sight open = sight;
    open.hidden = false;
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

template <class Value>
Value DirectLight::divided(const Sight& sight, const Element& element, int level) const {
  const double diagonal = element.extent().norm();
  const Vec3& point = sight.receiver.position;
  double distance;
  if (element.polar) {
    distance = (point.head<2>() - element.spot(0.5, 0.5)).norm();
    distance = std::hypot(std::max(0.0, distance - diagonal / 2), point.z());
  } else {
    distance = sight.way_from(point.head<2>().cwiseMax(element.low).cwiseMin(element.high)).norm();
  }
  double least = 0, most = 0;
  for (const auto& [s, t] : {std::pair{0.0, 0.0}, {1.0, 0.0}, {0.0, 1.0}, {1.0, 1.0}}) {
    const double facing = sight.facing(element.spot(s, t));
    least = std::min(least, facing);
    most = std::max(most, facing);
  }
  if (most <= 0 && !element.polar) return {};
  const bool kink = (least < 0 && most > 0) || sight.on_axis(element.spot(0.5, 0.5), diagonal);
  const double division = kink ? (sight.coarse ? kCoarseHorizon : kHorizonDivision)
                               : (sight.coarse ? kCoarseDivision : kDivision);
  if (diagonal <= division * distance || level >= kDeepestDivision)
    return sight.hidden ? probed<Value>(sight, element) : gauss<Value>(sight, element, 0);
  const auto [a, b] = element.halves();
  return divided<Value>(sight, a, level + 1) + divided<Value>(sight, b, level + 1);
}

template <class Value>
Value DirectLight::disc(const Sight& sight) const {
  Value sum{};
  for (int quarter = 0; quarter < 4; ++quarter)
    sum += divided<Value>(
        sight, {{0, quarter * kPi / 2}, {1, (quarter + 1) * kPi / 2}, 0.25, true, sight.face->half}, 0);
  return sum;
}

template <class Value>
Value DirectLight::face_light(const Sight& sight) const {
  const photometry::LuminousFace& face = *sight.face;
  const double reach = face.half.norm(), distance = sight.receiver.position.norm();
  const bool plane = sight.receiver.kernel == Kernel::plane;
  const double behind = plane ? sight.receiver.normal.dot(sight.receiver.position) : -distance;
  // Far off and wholly in front: the usual case, without looking any closer. Gauss's four points in the
  // square of half side sqrt(3)/2 radius are exact for cubics over the disc as well.
  if (2 * reach <= kDivision * (distance - reach) && behind <= -reach && !sight.on_axis({0, 0}, 2 * reach)) {
    const Vec2 half = face.disc ? Vec2(kDiscSquare * face.half) : face.half;
    const Element whole{-half, half, 1.0, false, face.half};
    if (!sight.hidden) return gauss<Value>(sight, whole, 0);
    if (!face.disc) return probed<Value>(sight, whole);
  }
  if (face.disc) return disc<Value>(sight);
  return divided<Value>(sight, {-face.half, face.half, 1.0, false, face.half}, 0);
}

template <class Value>
Value DirectLight::on_face(const Receiver& receiver, const photometry::LuminousFace& face, bool coarse,
                           LightTape* tape) const {
  const geometry::Frame& frame = luminaire_->frame;
  const auto in_face = [&](const Vec3& v) {
    const Vec3 p(v.dot(frame.c0), v.dot(frame.c90), v.dot(frame.g0));
    return Vec3(p.dot(face.x), p.dot(face.y), p.dot(face.z));
  };
  Receiver own = receiver;
  own.position = in_face(receiver.position - frame.origin) -
                 Vec3(face.centre.dot(face.x), face.centre.dot(face.y), face.centre.dot(face.z));
  own.normal = in_face(receiver.normal);
  if (receiver.kernel != Kernel::plane) own.axis = in_face(receiver.axis);
  std::vector<ShadowEdge> edges;
  const bool known = occluders_ && shadow_edges(*occluders_, frame, surface_.reach_m(), face,
                                                receiver.position, own.position, edges);
  Sight sight{&face, own, receiver.ray_start(), coarse, bool(passed_), tape};
  if (surface_.closed() && own.position.z() <= 0) return {};
  const bool plane = receiver.kernel == Kernel::plane;
  if (plane && own.normal.dot(own.position) >= face.half.norm()) return {};
  if (!known) return face_light<Value>(sight);
  if (!edges.empty()) return between_edges<Value>(sight, edges);
  // Nothing begins or ends before the face: one sight line tells for all of it.
  const geometry::Polygon front = front_of(sight);
  const double share = front.size() > 2 ? passed(sight, middle_of(front)) : 0;
  sight.hidden = false;
  return share > 0 ? share * face_light<Value>(sight) : Value{};
}

/// What divided and gauss come to for the usual case, a flat rectangle in front of the receiver's plane, in
/// one loop: Gauss's two points in each of as many parts along both sides as the distance asks for.
template <class Value>
Value DirectLight::on_plane(const Vec3& point, const Vec3& normal, LightTape* tape) const {
  const geometry::Frame& frame = luminaire_->frame;
  const Vec3 way = point - frame.origin;
  const double behind = normal.dot(way);
  if (behind >= surface_.reach_m()) return {};
  if (!flat_rectangle_) return summed<Value>({point, normal}, true, tape);
  const Vec2 facing(normal.dot(frame.c0), normal.dot(frame.c90));
  const double depth = surface_.faces()[0].half.dot(facing.cwiseAbs());  // of the area along the normal
  if (behind > -depth) return behind >= depth ? Value{} : summed<Value>({point, normal}, true, tape);
  const Vec3 along(way.dot(frame.c0), way.dot(frame.c90), way.dot(frame.g0));
  const Vec2 half = surface_.faces()[0].half;
  const Vec2 beside = (along.head<2>().cwiseAbs() - half).cwiseMax(0.0);
  const double distance = std::sqrt(beside.squaredNorm() + along.z() * along.z());
  std::array<double, kMostAlong> at[2];
  int count[2];
  for (const int axis : {0, 1}) {
    const double side = 2 * half[axis];
    if (side < kPointLike * distance) {
      count[axis] = 1;
      at[axis][0] = 0;
      continue;
    }
    const double parts = std::ceil(side / (kCoarseDivision * distance));
    if (!(2 * parts <= kMostAlong)) return summed<Value>({point, normal}, true, tape);
    count[axis] = 2 * int(parts);
    for (int k = 0; k < int(parts); ++k) {
      const double middle = -half[axis] + (k + 0.5) * side / parts;
      at[axis][std::size_t(2 * k)] = middle - kGauss * side / parts;
      at[axis][std::size_t(2 * k + 1)] = middle + kGauss * side / parts;
    }
  }
  Value sum{};
  for (int i = 0; i < count[0]; ++i)
    for (int j = 0; j < count[1]; ++j) {
      const double s = at[0][std::size_t(i)], t = at[1][std::size_t(j)];
      const double x = along.x() - s, y = along.y() - t;
      const double d2 = x * x + y * y + along.z() * along.z();
      const double cosine = -(behind - s * facing.x() - t * facing.y());
      sum += cosine / (d2 * std::sqrt(d2)) * candela<Value>({x, y, along.z()}, tape);
    }
  return 1.0 / (count[0] * count[1]) * sum;
}

template <class Value>
Value DirectLight::summed(const Receiver& receiver, bool coarse, LightTape* tape) const {
  const geometry::Frame& frame = luminaire_->frame;
  const Vec3 way = receiver.position - frame.origin;
  const double reach = surface_.reach_m();
  if (receiver.kernel == Kernel::plane && receiver.normal.dot(way) > reach) return {};  // wholly behind
  const double distance = way.norm();
  if (surface_.point() || (!passed_ && 2 * reach < kPointLike * distance)) {
    // One spot for all of it, with all of the intensity.
    const Vec3 along(way.dot(frame.c0), way.dot(frame.c90), way.dot(frame.g0));
    if (distance < kTouching) return {};
    const double weight = receiver.weight(-way / distance);
    if (weight <= 0) return {};
    const Value lux = weight / (distance * distance) * candela<Value>(along, tape);
    return !is_dark(lux) && passed_ ? passed_(receiver.ray_start(), frame.origin) * lux : lux;
  }
  if (surface_.sphere_radius_m() > 0) {
    // What is seen of a sphere is the disc within the circle where sight lines touch it.
    const double r = surface_.sphere_radius_m();
    if (distance <= r) return {};
    const Vec3 along = Vec3(way.dot(frame.c0), way.dot(frame.c90), way.dot(frame.g0)) / distance;
    photometry::LuminousFace seen;
    seen.z = along;
    seen.x = along.unitOrthogonal();
    seen.y = seen.z.cross(seen.x);
    seen.centre = r * r / distance * along;
    seen.half = Vec2::Constant(r * std::sqrt(1 - r * r / (distance * distance)));
    seen.disc = true;
    return on_face<Value>(receiver, seen, coarse, tape);
  }
  Value sum{};
  for (const photometry::LuminousFace& face : surface_.faces())
    sum += on_face<Value>(receiver, face, coarse, tape);
  return sum;
}

double DirectLight::illuminance(const Receiver& receiver) const {
  return summed<double>(receiver, false, nullptr);
}

void DirectLight::illuminance(const Receiver& receiver, LightTape& tape) const {
  summed<LightStretch>(receiver, false, &tape);
}

double DirectLight::plane_illuminance(const Vec3& point, const Vec3& normal) const {
  return on_plane<double>(point, normal, nullptr);
}

LightStretch DirectLight::plane_illuminance(const Vec3& point, const Vec3& normal, LightTape& tape) const {
  return on_plane<LightStretch>(point, normal, &tape);
}

}  // namespace glow::transport
