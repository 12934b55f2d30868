#include "core/views/seen_luminaires.hpp"

#include <algorithm>
#include <cmath>

#include "core/geometry/beam.hpp"

namespace glow::views {
namespace {

constexpr double kSamePlace = 1e-3;  // m
constexpr int kDiscCorners = 48;
constexpr int kSphereBands = 16;
constexpr double kEdgeOn = 1e-6;  // m2

Vec3 in_room(const geometry::Frame& frame, const Vec3& own) {
  return frame.origin + own.x() * frame.c0 + own.y() * frame.c90 + own.z() * frame.g0;
}

std::vector<Vec3> corners_of(const photometry::LuminousFace& face, const geometry::Frame& frame) {
  std::vector<Vec3> corners;
  const auto add = [&](double s, double t) {
    corners.push_back(in_room(frame, face.centre + s * face.half.x() * face.x + t * face.half.y() * face.y));
  };
  for (int k = 0; k < (face.disc ? kDiscCorners : 4); ++k) {
    const double a = 2 * kPi * (k + 0.5) / (face.disc ? kDiscCorners : 4);
    if (face.disc)
      add(std::cos(a), std::sin(a));
    else
      add(k == 0 || k == 3 ? 1 : -1, k < 2 ? 1 : -1);
  }
  const Vec3 outwards = in_room(frame, face.z) - frame.origin;
  if ((corners[1] - corners[0]).cross(corners[2] - corners[1]).dot(outwards) < 0)
    std::reverse(corners.begin(), corners.end());
  return corners;
}

/// About the middle, of flat pieces.
void add_sphere(geometry::Geometry& geometry, int surface, const Vec3& middle, double radius) {
  const auto at = [&](int band, int side) {
    const double a = kPi * band / kSphereBands, b = kPi * side / kSphereBands;
    return Vec3(middle + radius * Vec3(std::sin(a) * std::cos(b), std::sin(a) * std::sin(b), std::cos(a)));
  };
  for (int band = 0; band < kSphereBands; ++band)
    for (int side = 0; side < 2 * kSphereBands; ++side) {
      std::vector<Vec3> corners = {at(band, side), at(band + 1, side), at(band + 1, side + 1),
                                   at(band, side + 1)};
      if (band == 0) corners.erase(corners.begin() + 3);
      if (band == kSphereBands - 1) corners.erase(corners.begin() + 2);
      geometry.add_polygon(surface, corners);
    }
}

}  // namespace

SeenLuminaires::SeenLuminaires(const space::Space& space) {
  for (std::size_t g = 0; g < space.groups.size(); ++g)
    for (const photometry::PlacedLuminaire& luminaire : space.groups[g].luminaires) {
      const auto same = std::find_if(bodies_.begin(), bodies_.end(), [&](const Body& body) {
        return (body.parts.front().luminaire->frame.origin - luminaire.frame.origin).norm() < kSamePlace;
      });
      if (same != bodies_.end()) {
        same->parts.push_back({g, &luminaire});
        continue;
      }
      bodies_.push_back({photometry::LuminousSurface(luminaire.area), {{g, &luminaire}}});
    }
  bool any = false;
  for (const Body& body : bodies_) {
    geometry::Material material;
    material.two_sided = !body.surface.closed();
    const int surface = geometry_.add_surface("", material, geometry::SurfaceRole::luminaire);
    const geometry::Frame& frame = body.parts.front().luminaire->frame;
    any = any || !body.surface.point();
    if (body.surface.sphere_radius_m() > 0)
      add_sphere(geometry_, surface, frame.origin, body.surface.sphere_radius_m());
    else
      for (const photometry::LuminousFace& face : body.surface.faces())
        if (face.area_m2() > kEdgeOn) geometry_.add_polygon(surface, corners_of(face, frame));
  }
  if (!any || geometry_.facets().empty()) return;
  tracer_.emplace(geometry_);
  for (const geometry::Facet& facet : geometry_.facets())
    for (const Vec2& corner : facet.vertices) box_.extend(facet.at(corner));
}

std::optional<SeenLuminaires::Seen> SeenLuminaires::nearest(const Vec3& from, const Vec3& along,
                                                            double reach) const {
  if (!tracer_ || !geometry::Beam({from}, {from + reach * along}).meets(box_)) return std::nullopt;
  const geometry::Hit hit = tracer_->nearest(tracer_->local(from), along.cast<float>());
  if (hit.facet < 0 || double(hit.distance) > reach) return std::nullopt;
  return Seen{geometry_.facets()[std::size_t(hit.facet)].surface, double(hit.distance)};
}

bool SeenLuminaires::add(int body, const Vec3& towards_eye, double share, double* luminance) const {
  const Body& seen = bodies_[std::size_t(body)];
  bool shines = false;
  for (const Part& part : seen.parts) {
    const geometry::Frame& frame = part.luminaire->frame;
    const Vec3 own(towards_eye.dot(frame.c0), towards_eye.dot(frame.c90), towards_eye.dot(frame.g0));
    const photometry::LuminousFace& face = seen.surface.faces().front();
    const double area = seen.surface.closed() ? seen.surface.projected_area_m2(own)
                                              : face.area_m2() * std::abs(own.dot(face.z));
    if (area <= kEdgeOn) continue;
    const double cd = part.luminaire->table->intensity_along(own.x(), own.y(), own.z());
    luminance[part.group] += share * cd / area;
    shines = shines || cd > 0;
  }
  return shines;
}

}  // namespace glow::views
