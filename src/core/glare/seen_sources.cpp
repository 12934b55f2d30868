#include "core/glare/seen_sources.hpp"

#include <algorithm>
#include <cmath>

#include "core/photometry/derived.hpp"

namespace glow::glare {
namespace {

constexpr double kSamePlace = 1e-3;  // m
constexpr int kCoarse = 4;           // sight lines along each side of what is seen
constexpr int kFine = 12;            // the same where the coarse ones disagree

Vec3 in_luminaire(const geometry::Frame& frame, const Vec3& v) {
  return {v.dot(frame.c0), v.dot(frame.c90), v.dot(frame.g0)};
}

}  // namespace

std::size_t GlareSources::add(const photometry::PlacedLuminaire& luminaire, double share) {
  const std::size_t number = luminaires_++;
  const auto same = std::find_if(sources_.begin(), sources_.end(), [&](const Source& s) {
    return (s.middle() - luminaire.frame.origin).norm() < kSamePlace;
  });
  if (same != sources_.end())
    same->parts.push_back({number, luminaire, share});
  else
    sources_.push_back({{{number, luminaire, share}}, photometry::LuminousSurface(luminaire.area)});
  return number;
}

/// Sight lines to places that lie evenly over what is seen of the luminous surface.
Visibility GlareSources::look(const Source& source, const Vec3& eye, const geometry::RayTracer& tracer) {
  const photometry::PlacedLuminaire& placed = source.parts.front().placed;
  const geometry::Frame& frame = placed.frame;
  const Vec3 towards = in_luminaire(frame, (eye - frame.origin).normalized());
  Visibility seen;
  const auto try_net = [&](int count) {
    int open = 0;
    double passed = 0;
    for (int i = 0; i < count; ++i)
      for (int j = 0; j < count; ++j) {
        const Vec3 p = source.surface.point_seen(towards, (i + 0.5) / count, (j + 0.5) / count);
        const Vec3 place = frame.origin + p.x() * frame.c0 + p.y() * frame.c90 + p.z() * frame.g0;
        const float share = tracer.passed(eye, place, placed.owner);
        open += share > 0;
        passed += double(share);
      }
    seen.seen_share = double(open) / (count * count);
    seen.passed = open > 0 ? passed / open : 0;
    return open > 0 && open < count * count;
  };
  if (source.surface.point())
    try_net(1);
  else if (try_net(kCoarse))
    try_net(kFine);
  return seen;
}

KnownFromPlace::Luminaire GlareSources::look(const photometry::PlacedLuminaire& placed, const Vec3& way) {
  const Vec3 along = in_luminaire(placed.frame, way);
  const double gamma = std::acos(std::clamp(along.z(), -1.0, 1.0)) / kDegree;
  const double c = std::atan2(along.y(), along.x()) / kDegree;
  return {placed.table->intensity_along(along.x(), along.y(), along.z()),
          photometry::projected_area(placed.area, c, gamma)};
}

std::vector<SeenSource> GlareSources::seen_from(const Vec3& eye, const geometry::RayTracer* tracer,
                                                const geometry::Occluders* occluders,
                                                KnownFromPlace* known) const {
  std::vector<SeenSource> all;
  all.reserve(sources_.size());
  for (std::size_t s = 0; s < sources_.size(); ++s) {
    const Source& source = sources_[s];
    SeenSource seen;
    seen.source = s;
    seen.middle = source.middle();
    const Vec3 way = eye - seen.middle;
    seen.distance_m = way.norm();
    if (seen.distance_m < kSamePlace) continue;
    for (const GlareSources::Part& part : source.parts) {
      KnownFromPlace::Luminaire own = known ? known->luminaires[part.luminaire] : KnownFromPlace::Luminaire{};
      if (std::isnan(own.intensity_cd)) own = look(part.placed, way / seen.distance_m);
      if (known) known->luminaires[part.luminaire] = own;
      seen.intensity_cd += part.share * own.intensity_cd;
      seen.projected_area_m2 = std::max(seen.projected_area_m2, own.projected_area_m2);
    }
    if (seen.intensity_cd <= 0) continue;
    Visibility sight = known ? known->seen[s] : Visibility{};
    if (sight.seen_share < 0) {
      sight = {1, 1};
      if (tracer && (!occluders || occluders->may_block({eye}, {seen.middle, source.surface.reach_m()})))
        sight = look(source, eye, *tracer);
      if (known) known->seen[s] = sight;
    }
    seen.seen_share = sight.seen_share;
    seen.passed = sight.passed;
    all.push_back(seen);
  }
  return all;
}

}  // namespace glow::glare
