#include "core/views/seen.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/transport/tracing/sampling.hpp"

namespace glow::views {
namespace {

using geometry::Facet;
using geometry::Material;
using geometry::SurfaceRole;

constexpr double kStart = geometry::kStartOffset;  // m
constexpr double kInPlane = 1e-5;                  // m
constexpr double kFar = 1e6;                       // m
constexpr double kLeastShare = 0.002;              // of what is seen: less is as good as nothing
constexpr int kMostTurns = 8;                      // mirrors and panes after one another
constexpr double kFlush = 5e-3;     // m: a luminous area this close behind a surface lies in it
constexpr double kLuminaire = 0.5;  // reflectance of luminous areas, which are seen when they are off
constexpr int kLuminaireRays = 128;
constexpr double kFrame = 0.4;   // reflectance of frames and bars
constexpr double kGlass = 1.52;  // index of refraction of what is only said to be clear

/// Which opening's pane each facet is.
std::vector<int> openings_of(const space::Space& space) {
  std::vector<int> openings(space.geometry.facets().size(), -1);
  for (std::size_t f = 0; f < openings.size(); ++f) {
    const Facet& facet = space.geometry.facets()[f];
    if (space.geometry.surfaces()[std::size_t(facet.surface)].role != SurfaceRole::pane) continue;
    for (std::size_t o = 0; o < space.openings.size(); ++o) {
      const Vec3 middle = space.openings[o].middle();
      if (std::abs((middle - facet.origin).dot(facet.normal)) < kInPlane &&
          geometry::contains(facet.loops.front(), facet.local(middle)))
        openings[f] = int(o);
    }
  }
  return openings;
}

/// Place on an opening, m from its corner along and up.
Vec2 place_on(const space::Opening& opening, const Vec3& at) {
  const Vec3 along = opening.corners[1] - opening.corners[0], up = opening.corners[3] - opening.corners[0];
  return {(at - opening.corners[0]).dot(along.normalized()), (at - opening.corners[0]).dot(up.normalized())};
}

Vec2 size_of(const space::Opening& opening) {
  return {(opening.corners[1] - opening.corners[0]).norm(), (opening.corners[3] - opening.corners[0]).norm()};
}

/// The opening that a line of sight leaves by; null: none.
const space::Opening* left_by(const space::Space& space, const Vec3& from, const Vec3& along, Vec3& at) {
  for (const space::Opening& opening : space.openings) {
    const double towards = along.dot(opening.outwards);
    if (towards <= 0) continue;
    at = from + (opening.corners[0] - from).dot(opening.outwards) / towards * along;
    const Vec2 place = place_on(opening, at), size = size_of(opening);
    if (place.minCoeff() > -kInPlane && (size - place).minCoeff() > -kInPlane) return &opening;
  }
  return nullptr;
}

}  // namespace

Sight::Sight(const RoomSources& sources, const SeenLuminaires& luminaires, bool from_outside, int gloss_rays)
    : sources_(sources),
      luminaires_(luminaires),
      geometry_(sources.lit().transport->geometry()),
      tracer_(sources.lit().transport->tracer()),
      opening_of_facet_(openings_of(*sources.lit().space)),
      from_outside_(from_outside),
      gloss_rays_(gloss_rays) {
  for (std::size_t b = 0; b < luminaires.bodies(); ++b) {
    const auto [middle, facing] = luminaires.middle_of(b);
    on_luminaires_.emplace_back(sources.layers());
    ReflectedField::look(sources, {-1, middle + kFlush * facing, facing, 0}, kLuminaireRays,
                         on_luminaires_.back().data());
  }
}

void Sight::follow(const geometry::SightLine& sight, Seen& seen) const {
  follow(sight, tracer_.nearest(tracer_.local(sight.from), sight.along.cast<float>()), seen);
}

void Sight::follow(const geometry::SightLine& sight, const geometry::Hit& first, Seen& seen) const {
  seen.surfaces.clear();
  seen.light.clear();
  seen.depth_m = std::numeric_limits<double>::infinity();
  seen.normal = Vec3::Zero();
  seen.surface = -1;
  follow(Way{sight.from, sight.along}, first, seen);
}

/// Of the room's own shell, from outside.
bool Sight::is_seen_through(const geometry::Hit& hit) const {
  const Facet& facet = geometry_.facets()[std::size_t(hit.facet)];
  const SurfaceRole role = geometry_.surfaces()[std::size_t(facet.surface)].role;
  if (role == SurfaceRole::object || role == SurfaceRole::luminaire) return false;
  if (role == SurfaceRole::pane) {
    const int opening = opening_of_facet_[std::size_t(hit.facet)];
    return opening >= 0 &&
           facet.normal.dot(sources_.lit().space->openings[std::size_t(opening)].outwards) > 0;
  }
  return hit.from_behind;
}

void Sight::follow(const Way& way, Seen& seen) const {
  follow(way, tracer_.nearest(tracer_.local(way.from), way.along.cast<float>()), seen);
}

void Sight::follow(Way way, geometry::Hit hit, Seen& seen) const {
  while (from_outside_ && way.turns == 0 && hit.facet >= 0 && is_seen_through(hit)) {
    way.length_m += double(hit.distance) + kStart;
    way.from += (double(hit.distance) + kStart) * way.along;
    hit = tracer_.nearest(tracer_.local(way.from), way.along.cast<float>());
  }
  const double reach = hit.facet >= 0 ? double(hit.distance) + kFlush : kFar;
  if (const auto luminaire = luminaires_.nearest(way.from, way.along, reach)) {
    std::vector<double>& shown = dark();
    const bool shines = luminaires_.add(luminaire->body, -way.along, way.share, shown.data());
    if (shines || !from_outside_ || way.turns > 0) {
      add_light(shown.data(), seen);
      const std::vector<double>& falls = on_luminaires_[std::size_t(luminaire->body)];
      double* light = seen.with_light ? light_of(seen) : nullptr;
      for (std::size_t k = 0; light && k < falls.size(); ++k)
        light[k] += way.share * kLuminaire / kPi * falls[k];
      if (way.turns == 0) {
        seen.depth_m = way.length_m + luminaire->distance_m;
        seen.normal = -way.along;
      }
      return;
    }
  }
  if (hit.facet < 0) {
    Vec3 at;
    const space::Opening* opening = left_by(*sources_.lit().space, way.from, way.along, at);
    if (opening) return look_out(way, at, *opening, seen);
    if (seen.with_light && !sources_.lit().space->roofed && way.along.z() > 0) {
      std::vector<double>& shown = dark();
      sources_.add_outside(way.from, way.along, way.share, shown.data());
      add_light(shown.data(), seen);
    }
    return;
  }
  if (!hit.from_behind) meet(way, hit, seen);
}

/// What is outside, through glass or a hole.
void Sight::look_out(const Way& way, const Vec3& at, const space::Opening& opening, Seen& seen) const {
  if (!seen.with_light) return;
  const double cosine = way.along.dot(opening.outwards);
  std::vector<double>& shown = dark();
  const double share = way.share * opening.glazing.transmittance(cosine);
  if (share > 0) sources_.add_outside(at + 2 * kStart * opening.outwards, way.along, share, shown.data());
  add_light(shown.data(), seen);
}

/// Nothing of every source yet: to be added to by one who hands it on before anybody else asks.
std::vector<double>& Sight::dark() const {
  thread_local std::vector<double> of_sources;
  of_sources.assign(sources_.count(), 0.0);
  return of_sources;
}

double* Sight::light_of(Seen& seen) const {
  if (seen.light.empty()) seen.light.assign(sources_.layers(), 0.0);
  return seen.light.data();
}

void Sight::add_light(const double* of_sources, Seen& seen) const {
  if (!seen.with_light) return;
  const std::size_t bands = std::size_t(sources_.bands());
  double* light = light_of(seen);
  for (std::size_t s = 0; s < sources_.count(); ++s)
    for (std::size_t b = 0; b < bands; ++b) light[s * bands + b] += of_sources[s];
}

void Sight::add_surface(const Way& way, int facet, const Vec3& at, const Vec3& normal, double share,
                        const Vec3& tint, Seen& seen) const {
  if (share <= 0 || seen.surfaces.size() >= kMostSurfaces) return;
  const std::uint64_t key = transport::mixed(way.key + 1, std::uint64_t(facet)) | 1;
  const double length = way.length_m + (at - way.from).norm();
  seen.surfaces.push_back({key, {facet, at, normal, length}, share, tint});
}

void Sight::meet(const Way& way, const geometry::Hit& hit, Seen& seen) const {
  const Facet& facet = geometry_.facets()[std::size_t(hit.facet)];
  const Material& material = geometry_.material_of(facet);
  const Vec3 met = way.from + double(hit.distance) * way.along;
  const Vec3 at = met - (met - facet.origin).dot(facet.normal) * facet.normal;
  const double cosine = std::abs(way.along.dot(facet.normal));
  if (way.turns == 0) {
    seen.depth_m = way.length_m + double(hit.distance);
    seen.normal = facet.normal;
    seen.surface = facet.surface;
  }
  const int number = opening_of_facet_[std::size_t(hit.facet)];
  const space::Opening* opening =
      number >= 0 ? &sources_.lit().space->openings[std::size_t(number)] : nullptr;
  if (opening && opening->bars.any() && !opening->bars.is_glass(place_on(*opening, at), size_of(*opening)))
    return add_surface({way.from, way.along, way.share, 0, way.key + 7, way.turns}, hit.facet, at,
                       facet.normal, way.share * kFrame, Vec3::Ones(), seen);
  double even = material.diffuse, lobe = 0;
  if (material.gloss > 0) {  // Schlick: all of it at a grazing angle
    lobe = material.gloss + (1 - material.gloss) * std::pow(1 - cosine, 5) * (1 - material.roughness);
    even = (material.diffuse - material.gloss) * (1 - lobe) / (1 - material.gloss);
  }
  if (opening && material.scattering > 0) {  // lit from outside: as bright as the balance has it
    if (seen.with_light) sources_.add_leaving(hit.facet, at, way.share / kPi, light_of(seen));
  } else {
    add_surface(way, hit.facet, at, facet.normal, way.share * even, material.tint, seen);
    if (material.scattering > 0 && facet.back >= 0)
      add_surface(way, facet.back, at, -facet.normal, way.share * material.scattering, Vec3::Ones(), seen);
  }
  if (seen.with_light && lobe * way.share > kLeastShare)
    add_gloss(way, at, facet.normal, material, way.share * lobe, seen);
  if (way.turns >= kMostTurns) return;
  const int panes = opening ? opening->glazing.panes : 1;
  double mirror = material.mirror, clear = material.clear;
  if (clear > 0 && !opening) clear *= daylight::clear_panes(cosine, panes, kGlass);
  if (material.clear > 0 && mirror <= 0)
    mirror = std::min(1 - clear, daylight::panes_reflect(cosine, panes, kGlass));
  if (mirror * way.share > kLeastShare) {
    const Vec3 along = way.along - 2 * way.along.dot(facet.normal) * facet.normal;
    follow({at + kStart * facet.normal, along, way.share * mirror, way.length_m + double(hit.distance),
            transport::mixed(way.key, 2 * std::uint64_t(hit.facet) + 3), way.turns + 1},
           seen);
  }
  if (material.clear <= 0) return;
  if (opening) return look_out(way, at, *opening, seen);
  if (clear * way.share > kLeastShare)
    follow({at + kStart * way.along, way.along, way.share * clear, way.length_m + double(hit.distance),
            transport::mixed(way.key, 2 * std::uint64_t(hit.facet) + 4), way.turns + 1},
           seen);
}

/// What a ray of a lobe meets, as bright as the balance between patches has it.
void Sight::glance(const Vec3& from, const Vec3& along, double share, Seen& seen) const {
  const geometry::Hit hit = tracer_.nearest(tracer_.local(from), along.cast<float>());
  const double reach = hit.facet >= 0 ? double(hit.distance) + kFlush : kFar;
  if (const auto luminaire = luminaires_.nearest(from, along, reach)) {
    std::vector<double>& shown = dark();
    luminaires_.add(luminaire->body, -along, share, shown.data());
    return add_light(shown.data(), seen);
  }
  const int number = hit.facet >= 0 ? opening_of_facet_[std::size_t(hit.facet)] : -1;
  Vec3 at = from + double(hit.distance) * along;
  if (number >= 0 || hit.facet < 0) {
    const space::Opening* opening = number >= 0 ? &sources_.lit().space->openings[std::size_t(number)]
                                                : left_by(*sources_.lit().space, from, along, at);
    if (opening) look_out({from, along, share}, at, *opening, seen);
    if (number < 0 || !opening) return;
  }
  if (!hit.from_behind) sources_.add_leaving(hit.facet, at, share / kPi, light_of(seen));
}

/// Microfacets whose slopes are spread as roughness squared has it (Trowbridge and Reitz 1975), the same ones
/// at every place.
void Sight::add_gloss(const Way& way, const Vec3& at, const Vec3& normal, const Material& material,
                      double share, Seen& seen) const {
  const Vec3 x = normal.unitOrthogonal(), y = normal.cross(x);
  const double width = material.roughness * material.roughness;
  int good = 0;
  std::vector<Vec3> ways;
  for (int k = 0; k < gloss_rays_; ++k) {
    const Vec2 even = transport::even_point(std::uint32_t(k), {0.5, 0.5});
    const double slope = width * std::sqrt(even.x() / std::max(1e-6, 1 - even.x()));
    const double a = 2 * kPi * even.y();
    const Vec3 facing = (normal + slope * std::cos(a) * x + slope * std::sin(a) * y).normalized();
    const Vec3 along = way.along - 2 * way.along.dot(facing) * facing;
    if (along.dot(normal) <= 0) continue;
    ++good;
    ways.push_back(along);
    if (width <= 0) break;
  }
  for (const Vec3& along : ways) glance(at + kStart * normal, along, share / good, seen);
}

}  // namespace glow::views
