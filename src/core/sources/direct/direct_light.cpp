// How a face is divided, and what each part of it gives.
#include <algorithm>
#include <array>
#include <cmath>

#include "core/sources/direct/direct_light_sight.hpp"
#include "core/sources/direct/shadow_pieces.hpp"

namespace glow::sources {
namespace {

constexpr double kCoarseDivision =
    1.0;                                // kDivision of patches, whose light need not be right to the permille
constexpr double kCoarseHorizon = 0.2;  // kHorizonDivision of patches
constexpr int kMostAlong = 8;           // points along a side before parts are made by halving
constexpr double kDiscSquare = 0.8660254037844386;  // sqrt(3) / 2
constexpr double kTouching = 1e-7;                  // m; nearer than this the point lies in the luminous area

}  // namespace

DirectLight::DirectLight(const photometry::PlacedLuminaire& luminaire, const geometry::RayTracer* tracer,
                         const geometry::Occluders* occluders)
    : luminaire_(&luminaire),
      surface_(luminaire.area),
      flat_rectangle_(luminaire.area.shape == photometry::LuminousShape::rectangle && !surface_.point()),
      occluders_(tracer ? occluders : nullptr) {
  if (tracer)
    passed_ = [tracer, owner = luminaire.owner](const Vec3& from, const Vec3& place) {
      return double(tracer->passed(from, place, owner));
    };
}

DirectLight::DirectLight(const photometry::PlacedLuminaire& luminaire, Passed passed)
    : luminaire_(&luminaire), surface_(luminaire.area), passed_(std::move(passed)) {}

double DirectLight::passed(const Sight& sight, const Vec2& place) const {
  const geometry::Frame& frame = luminaire_->frame;
  const Vec3 p = sight.face->centre + sight.in_luminaire({place.x(), place.y(), 0});
  return passed_(sight.start, frame.origin + p.x() * frame.c0 + p.y() * frame.c90 + p.z() * frame.g0);
}

/// Intensity along the components in the luminaire: from its table, or to be filled in.
template <>
double DirectLight::candela<double>(const Vec3& along, double, LightTerms*) const {
  return luminaire_->table->intensity_along(along.x(), along.y(), along.z());
}

/// The error is cd per radian here: what it comes to is for the rule to say.
template <>
DirectLux DirectLight::candela<DirectLux>(const Vec3& along, double width, LightTerms*) const {
  const photometry::BentIntensity intensity = luminaire_->table->bent_intensity_along(along, width);
  return {intensity.candela, intensity.bend};
}

template <>
LightStretch DirectLight::candela<LightStretch>(const Vec3& along, double, LightTerms* tape) const {
  return tape->record(along);
}

/// lx from a face with all its light at one place, if nothing hides it. `width`: radian, of what it stands
/// for.
template <class Value>
Value DirectLight::unhidden(const Sight& sight, const Vec2& place, double width) const {
  const Vec3 way = sight.way_from(place);
  const double distance2 = way.squaredNorm();
  if (distance2 < kTouching * kTouching) return {};
  const bool plane = sight.receiver.kernel == readings::Kernel::plane;
  const double facing = plane ? -sight.receiver.normal.dot(way) : 1.0;
  if (facing <= 0) return {};
  if (surface_.closed() && way.z() <= 0) return {};
  const Vec3 along = sight.in_luminaire(way);
  const Value intensity = candela<Value>(along, width, sight.tape);
  if (is_dark(intensity)) return {};
  const double distance = std::sqrt(distance2);
  double share = 1;
  if (surface_.closed())
    share = way.z() / distance * sight.face->area_m2() / surface_.projected_area_m2(along / distance);
  if (plane) return share * facing / (distance2 * distance) * intensity;
  return share * sight.receiver.weight(-way / distance) / distance2 * intensity;
}

template <class Value>
Value DirectLight::gauss(const Sight& sight, const Element& element, int penumbra_level) const {
  // Along a side that is short against the distance one point does as well as two; not so where shadows are.
  const Vec2 middle = element.at(0.5, 0.5);
  const Vec3 way = sight.way_from(middle);
  const double distance = way.norm();
  const Vec2 extent = element.extent();
  const double width = extent.maxCoeff() / distance;
  const bool thin_s = !sight.hidden && !element.polar && extent.x() < kPointLike * distance;
  const bool thin_t = !sight.hidden && !element.polar && extent.y() < kPointLike * distance;
  const double along_s[] = {thin_s ? 0.5 : 0.5 - kGauss, 0.5 + kGauss};
  const double along_t[] = {thin_t ? 0.5 : 0.5 - kGauss, 0.5 + kGauss};
  const int count_s = thin_s ? 1 : 2, count_t = thin_t ? 1 : 2;
  Value sum{};
  double least = 2, most = -1;
  for (int i = 0; i < count_s; ++i)
    for (int j = 0; j < count_t; ++j) {
      const Vec2 place = element.at(along_s[i], along_t[j]);
      const Value lux = unhidden<Value>(sight, place, width);
      if (is_dark(lux)) continue;
      const double share = sight.hidden ? passed(sight, place) : 1.0;
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
  Value light = element.share * sum;
  if constexpr (std::is_same_v<Value, DirectLux>) {
    tell_error(sight, element, thin_s, thin_t, light);
    if (sight.parts && !sight.hidden) sight.parts->list.push_back({sight, element, light});
  }
  return light;
}

template <class Value>
Value DirectLight::divided(const Sight& sight, const Element& element, int level) const {
  const double diagonal = element.extent().norm();
  const Vec3& point = sight.receiver.position;
  double distance;
  if (element.polar) {
    distance = (point.xy() - element.at(0.5, 0.5)).norm();
    distance = std::hypot(std::max(0.0, distance - diagonal / 2), point.z());
  } else {
    distance = sight.way_from(point.xy().cwiseMax(element.low).cwiseMin(element.high)).norm();
  }
  double least = 0, most = 0;
  for (const auto& [s, t] : {std::pair{0.0, 0.0}, {1.0, 0.0}, {0.0, 1.0}, {1.0, 1.0}}) {
    const double facing = sight.facing(element.at(s, t));
    least = std::min(least, facing);
    most = std::max(most, facing);
  }
  if (most <= 0 && !element.polar) return {};
  const bool kink = (least < 0 && most > 0) || sight.on_axis(element.at(0.5, 0.5), diagonal);
  const double division = kink ? (sight.coarse ? kCoarseHorizon : kHorizonDivision)
                               : (sight.coarse ? kCoarseDivision : sight.division());
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
  const bool plane = sight.receiver.kernel == readings::Kernel::plane;
  const double behind = plane ? sight.receiver.normal.dot(sight.receiver.position) : -distance;
  // Far off and wholly in front: the usual case, without looking any closer. Gauss's four points in the
  // square of half side sqrt(3)/2 radius are exact for cubics over the disc as well; its halves are none.
  if (!(face.disc && sight.parts) && 2 * reach <= sight.division() * (distance - reach) && behind <= -reach &&
      !sight.on_axis({0, 0}, 2 * reach)) {
    const Vec2 half = face.disc ? Vec2(kDiscSquare * face.half) : face.half;
    const Element whole{-half, half, 1.0, false, face.half};
    if (!sight.hidden) return gauss<Value>(sight, whole, 0);
    if (!face.disc) return probed<Value>(sight, whole);
  }
  if (face.disc) return disc<Value>(sight);
  return divided<Value>(sight, {-face.half, face.half, 1.0, false, face.half}, 0);
}

template <class Value>
Value DirectLight::on_face(const readings::Receiver& receiver, const photometry::LuminousFace& face,
                           bool coarse, LightTerms* tape, Parts* parts) const {
  const geometry::Frame& frame = luminaire_->frame;
  const auto in_face = [&](const Vec3& v) {
    const Vec3 p(v.dot(frame.c0), v.dot(frame.c90), v.dot(frame.g0));
    return Vec3(p.dot(face.x), p.dot(face.y), p.dot(face.z));
  };
  readings::Receiver own = receiver;
  own.position = in_face(receiver.position - frame.origin) -
                 Vec3(face.centre.dot(face.x), face.centre.dot(face.y), face.centre.dot(face.z));
  own.normal = in_face(receiver.normal);
  if (receiver.kernel != readings::Kernel::plane) own.axis = in_face(receiver.axis);
  std::vector<ShadowEdge> edges;
  const bool known = occluders_ && shadow_edges(*occluders_, frame, surface_.reach_m(), face,
                                                receiver.position, own.position, edges);
  Sight sight{&face, own, receiver.ray_start(), coarse, bool(passed_), tape, parts};
  if (surface_.closed() && own.position.z() <= 0) return {};
  const bool plane = receiver.kernel == readings::Kernel::plane;
  if (plane && own.normal.dot(own.position) >= face.half.norm()) return {};
  if (!known) return face_light<Value>(sight);
  if (!edges.empty()) return between_edges<Value>(sight, edges);
  // Nothing begins or ends before the face: one sight line tells for all of it.
  const double share = share_of_all(sight);
  sight.hidden = false;
  sight.share = share;
  return share > 0 ? share * face_light<Value>(sight) : Value{};
}

/// What divided and gauss come to for the usual case, a flat rectangle in front of the receiver's plane, in
/// one loop: Gauss's two points in each of as many parts along both sides as the distance asks for.
template <class Value>
Value DirectLight::on_plane(const Vec3& point, const Vec3& normal, LightTerms* tape) const {
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
  const Vec2 beside = (along.xy().cwiseAbs() - half).cwiseMax(0.0);
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
      sum += cosine / (d2 * std::sqrt(d2)) * candela<Value>({x, y, along.z()}, 0, tape);
    }
  return 1.0 / (count[0] * count[1]) * sum;
}

template <class Value>
Value DirectLight::summed(const readings::Receiver& receiver, bool coarse, LightTerms* tape,
                          Parts* parts) const {
  const geometry::Frame& frame = luminaire_->frame;
  const Vec3 way = receiver.position - frame.origin;
  const double reach = surface_.reach_m();
  if (receiver.kernel == readings::Kernel::plane && receiver.normal.dot(way) > reach)
    return {};  // wholly behind
  const double distance = way.norm();
  if (surface_.point() || (!passed_ && !parts && 2 * reach < kPointLike * distance)) {
    // One place for all of it, with all of the intensity.
    const Vec3 along(way.dot(frame.c0), way.dot(frame.c90), way.dot(frame.g0));
    if (distance < kTouching) return {};
    const double weight = receiver.weight(-way / distance);
    if (weight <= 0) return {};
    const double width = 2 * reach / distance;
    Value lux = weight / (distance * distance) * candela<Value>(along, width, tape);
    if constexpr (std::is_same_v<Value, DirectLux>)
      lux.error = kBendOfOne * width * lux.error + kSmoothOfOne * width * width * lux.lux;
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
    // Pieces of it are divided when it is gone.
    const photometry::LuminousFace& kept = parts ? parts->seen.emplace(seen) : seen;
    return on_face<Value>(receiver, kept, coarse, tape, parts);
  }
  Value sum{};
  for (const photometry::LuminousFace& face : surface_.faces())
    sum += on_face<Value>(receiver, face, coarse, tape, parts);
  return sum;
}

double DirectLight::illuminance(const readings::Receiver& receiver) const {
  return summed<double>(receiver, false, nullptr);
}

DirectLux DirectLight::with_error(const readings::Receiver& receiver) const {
  return summed<DirectLux>(receiver, false, nullptr);
}

DirectLux DirectLight::with_error(const readings::Receiver& receiver, double allowed_lx) const {
  Parts parts;
  DirectLux light = summed<DirectLux>(receiver, false, nullptr, &parts);
  refine(parts, light, allowed_lx);
  return light;
}

void DirectLight::illuminance(const readings::Receiver& receiver, LightTerms& tape) const {
  summed<LightStretch>(receiver, false, &tape);
}

double DirectLight::plane_illuminance(const Vec3& point, const Vec3& normal) const {
  return on_plane<double>(point, normal, nullptr);
}

LightStretch DirectLight::plane_illuminance(const Vec3& point, const Vec3& normal, LightTerms& tape) const {
  return on_plane<LightStretch>(point, normal, &tape);
}

template double DirectLight::unhidden<double>(const Sight&, const Vec2&, double) const;
template DirectLux DirectLight::unhidden<DirectLux>(const Sight&, const Vec2&, double) const;
template LightStretch DirectLight::unhidden<LightStretch>(const Sight&, const Vec2&, double) const;
template double DirectLight::gauss<double>(const Sight&, const Element&, int) const;
template DirectLux DirectLight::gauss<DirectLux>(const Sight&, const Element&, int) const;
template LightStretch DirectLight::gauss<LightStretch>(const Sight&, const Element&, int) const;

}  // namespace glow::sources
