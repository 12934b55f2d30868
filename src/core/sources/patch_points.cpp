#include "core/sources/patch_points.hpp"

#include <algorithm>
#include <cmath>

#include "core/transport/tracing/sampling.hpp"

namespace glow::sources {
namespace {

constexpr int kFinest = 8;            // most subdivisions of a patch along each side
constexpr double kNear = 1.0;         // a patch is divided until its parts are below this times the distance
constexpr double kSmallAndFar = 0.3;  // patch diagonal over distance below which one point stands for it
constexpr int kAttempts = 8;          // to find a place in front of a patch
constexpr int kProbes = 4;            // sight lines that tell whether a patch is partly hidden

}  // namespace

bool PatchPoints::above_downlight(std::size_t i) const {
  const transport::Patch& patch = patches.patches()[i];
  const geometry::Facet& facet = patches.facet_of(patch);
  const auto& faces = light.surface().faces();
  if (light.luminaire().table->upward_flux() > 0 || light.surface().closed()) return false;
  if (!faces.empty() && faces[0].z.z() != 1) return false;
  const geometry::Frame& f = light.luminaire().frame;
  const auto below = [&](double u, double v) { return (facet.at(u, v) - f.origin).dot(f.g0) > 0; };
  return !below(patch.low.x(), patch.low.y()) && !below(patch.high.x(), patch.low.y()) &&
         !below(patch.low.x(), patch.high.y()) && !below(patch.high.x(), patch.high.y());
}

template <>
double PatchPoints::plane<double>(const Vec3& point, const Vec3& normal, LightTerms*) const {
  return light.plane_illuminance(point, normal);
}

template <>
LightStretch PatchPoints::plane<LightStretch>(const Vec3& point, const Vec3& normal, LightTerms* tape) const {
  return light.plane_illuminance(point, normal, *tape);
}

/// About the shortest way between the patch and the luminous surface, m.
double PatchPoints::distance_to(const transport::Patch& patch, const geometry::Facet& facet) const {
  const photometry::PlacedLuminaire& luminaire = light.luminaire();
  const geometry::Frame& f = luminaire.frame;
  const Vec2 half(luminaire.area.extent_c0_m / 2, luminaire.area.extent_c90_m / 2);
  const Vec3 way = patch.centre - f.origin;
  const Vec2 place = Vec2(way.dot(f.c0), way.dot(f.c90)).cwiseMax(-half).cwiseMin(half);
  const Vec3 nearest = f.origin + place.x() * f.c0 + place.y() * f.c90;
  const Vec2 on_facet = facet.local(nearest);
  const Vec2 on_patch = on_facet.cwiseMax(patch.low).cwiseMin(patch.high);
  const double above = facet.normal.dot(nearest - facet.origin);
  return std::sqrt((on_facet - on_patch).squaredNorm() + above * above);
}

template <class Value>
Value PatchPoints::on_cell(const transport::Patch& patch, const geometry::Facet& facet, int parts,
                           LightTerms* tape) const {
  const Vec2 step = (patch.high - patch.low) / parts;
  Value sum{};
  for (int j = 0; j < parts; ++j)
    for (int i = 0; i < parts; ++i)
      for (const double s : {0.5 - kGauss, 0.5 + kGauss})
        for (const double t : {0.5 - kGauss, 0.5 + kGauss})
          sum +=
              plane<Value>(facet.at(patch.low.x() + (i + s) * step.x(), patch.low.y() + (j + t) * step.y()),
                           facet.normal, tape);
  return patch.area_m2 / (4.0 * parts * parts) * sum;
}

/// Three points at (2/3, 1/6, 1/6): exact for quadratics, as Gauss's points on a cell are for cubics.
template <class Value>
Value PatchPoints::on_triangles(const transport::Patch& patch, const geometry::Facet& facet, int parts,
                                LightTerms* tape) const {
  Value sum{};
  for (std::uint32_t k = patch.first_triangle; k < patch.first_triangle + patch.triangle_count; ++k) {
    const transport::PatchTriangle& triangle = patches.triangles()[k];
    const Vec2 u = (triangle.b - triangle.a) / parts, v = (triangle.c - triangle.a) / parts;
    Value mean{};
    const auto small = [&](const Vec2& corner, double sign) {
      for (const auto& [p, q] : {std::pair{1 / 6.0, 1 / 6.0}, {2 / 3.0, 1 / 6.0}, {1 / 6.0, 2 / 3.0}}) {
        const Vec2 at = corner + sign * (p * u + q * v);
        mean += plane<Value>(facet.at(at.x(), at.y()), facet.normal, tape);
      }
    };
    for (int j = 0; j < parts; ++j)
      for (int i = 0; i + j < parts; ++i) {
        small(triangle.a + i * u + j * v, 1);
        if (i + j + 1 < parts) small(triangle.a + (i + 1) * u + (j + 1) * v, -1);
      }
    sum += triangle.area_m2 / (3.0 * parts * parts) * mean;
  }
  return sum;
}

template <class Value>
Value PatchPoints::flux_on(std::size_t i, LightTerms* tape) const {
  const transport::Patch& patch = patches.patches()[i];
  const geometry::Facet& facet = patches.facet_of(patch);
  const Vec2 size = patch.high - patch.low;
  // A sight line to the middle is enough where the patch is small against its distance.
  const double diagonal = size.norm();
  const double far = (patch.centre - light.luminaire().frame.origin).norm() - light.surface().reach_m();
  if (patch.full_cell && diagonal < kSmallAndFar * (far - diagonal / 2))
    return patch.area_m2 * plane<Value>(patch.centre, facet.normal, tape);
  const double distance = distance_to(patch, facet);
  if (patch.full_cell && diagonal < kSmallAndFar * distance)
    return patch.area_m2 * plane<Value>(patch.centre, facet.normal, tape);
  const double wanted = size.maxCoeff() / (kNear * std::max(distance, 1e-3));
  const int parts = std::clamp(static_cast<int>(std::ceil(wanted)), 1, kFinest);
  return patch.full_cell ? on_cell<Value>(patch, facet, parts, tape)
                         : on_triangles<Value>(patch, facet, parts, tape);
}

template double PatchPoints::flux_on<double>(std::size_t, LightTerms*) const;
template LightStretch PatchPoints::flux_on<LightStretch>(std::size_t, LightTerms*) const;

std::array<float, transport::kSets> PatchPoints::seen_in_sets(const geometry::RayTracer& tracer,
                                                              const geometry::Occluders& occluders,
                                                              std::size_t i) const {
  std::array<float, transport::kSets> result;
  const transport::Patch& patch = patches.patches()[i];
  result.fill(1.0f);
  if (!occluders.may_block({patch.centre, (patch.high - patch.low).norm() / 2},
                           {light.luminaire().frame.origin, light.surface().reach_m()}))
    return result;
  bool agree = true;
  for (int set = 0; set < transport::kSets; ++set) {
    result[std::size_t(set)] = set < kProbes || !agree ? seen(tracer, i, set) : result[0];
    if (set < kProbes) agree = agree && result[std::size_t(set)] == result[0];
  }
  return result;
}

/// Share of the light that is not hidden, along one sight line between chance places in set `set`.
float PatchPoints::seen(const geometry::RayTracer& tracer, std::size_t i, int set) const {
  const transport::Patch& patch = patches.patches()[i];
  const geometry::Facet& facet = patches.facet_of(patch);
  const geometry::Frame& f = light.luminaire().frame;
  const std::uint64_t own = transport::mixed(seed ^ 0x7365656Eull, i);
  const Vec2 shift_patch(transport::unit_interval(transport::mixed(own, 1)),
                         transport::unit_interval(transport::mixed(own, 2)));
  const Vec2 shift_point(transport::unit_interval(transport::mixed(own, 3)),
                         transport::unit_interval(transport::mixed(own, 4)));
  const Vec2 st = transport::even_point(std::uint32_t(set), shift_patch);
  const Vec3 point =
      patches.point_on(static_cast<int>(i), st.x(), st.y()) + geometry::kStartOffset * facet.normal;
  const Vec3 way = (point - f.origin).normalized();
  const Vec3 along(way.dot(f.c0), way.dot(f.c90), way.dot(f.g0));
  for (int attempt = 0; attempt < kAttempts; ++attempt) {
    const Vec2 uv =
        transport::even_point(std::uint32_t(attempt * transport::kSets + set) * 5 + 2, shift_point);
    const Vec3 at = light.surface().point_seen(along, uv.x(), uv.y());
    const Vec3 place = f.origin + at.x() * f.c0 + at.y() * f.c90 + at.z() * f.g0;
    // What lies behind the patch's plane gives it nothing, and is not part of the share.
    if (facet.normal.dot(place - point) > 0) return tracer.passed(point, place, light.luminaire().owner);
  }
  return 1;
}

}  // namespace glow::sources
