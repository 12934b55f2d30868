#include <algorithm>
#include <cmath>

#include "core/daylight/sun.hpp"
#include "core/sources/daylight/daylight_paths.hpp"
#include "core/sources/daylight/even_paths.hpp"

namespace glow::sources {
namespace {

using transport::kSets;

constexpr int kSunPaths = 16;      // of a patch to the sun, in each set
constexpr int kSunDirections = 4;  // of a receiver to the sun's disc, in each set
constexpr double kAlike = 1e-3;    // of the sun's disc through one pane at places side by side

/// A direction within the sun's disc.
Vec3 in_disc(const Vec3& sun, const Vec2& place) {
  const Vec3 x = sun.unitOrthogonal(), y = sun.cross(x);
  const double r = daylight::kSunRadius * std::sqrt(place.x()), a = 2 * kPi * place.y();
  return (sun + r * std::cos(a) * x + r * std::sin(a) * y).normalized();
}

}  // namespace

/// False only where none of the sun's disc reaches a place within `reach_m` of this one.
bool DaylightPaths::may_get_sun(const Vec3& middle, double reach_m, const Vec3& sun) const {
  return std::any_of(openings_.begin(), openings_.end(), [&](const DaylightOpening& opening) {
    return opening.may_be_met(middle, reach_m + 2 * geometry::kStartOffset, sun, 2 * daylight::kSunRadius);
  });
}

/// Of the sun's disc, what reaches a point inside, glass counted; mean over directions.
double DaylightPaths::sun_share(const Vec3& from, const Vec3& sun, std::uint64_t chance, int directions,
                                const Vec3& inside) const {
  double sum = 0;
  for (std::size_t o = 0; o < openings_.size(); ++o) {
    const DaylightOpening& opening = openings_[o];
    Vec3 at;
    if (!opening.is_met(from, sun, 2 * daylight::kSunRadius, at)) continue;
    const Vec2 shift = chance_shift(transport::mixed(chance, o));
    for (int k = 0; k < directions; ++k) {
      const Vec3 way = in_disc(sun, transport::even_point(std::uint32_t(k), shift));
      if (inside.dot(way) <= 0 || !opening.is_met(from, way, 0, at) || !opening.is_clear_at(at)) continue;
      const double glass = opening.glazing.transmittance(way.dot(opening.outwards));
      double passed = glass > 0 ? 1 : 0;
      if (hides_ && glass > 0) passed = room_->tracer().passed(from, at - kBehindPane * opening.outwards);
      if (passed > 0 && outdoors_->sees_sun(at + kBehindPane * opening.outwards, way))
        sum += glass * passed / directions;
    }
  }
  return sum;
}

/// The sun on a patch, lm, by sets.
void DaylightPaths::add_sun(const OutdoorLight& light, std::size_t i, float* sets) const {
  const transport::Patch& patch = room_->patches().patches()[i];
  const geometry::Facet& facet = room_->patches().facet_of(patch);
  const int pane = pane_of_patch_[i];
  const double falls = facet.normal.dot(light.sun);
  if (falls <= 0 || room_->exchange().visible_area_m2[Eigen::Index(i)] <= 0) return;
  if (pane < 0 && !may_get_sun(patch.centre, (patch.high - patch.low).norm() / 2, light.sun)) return;
  for (int set = 0; set < kSets; ++set) {
    const std::uint64_t chance = transport::mixed(transport::mixed(i, seeded(15485863)), std::uint64_t(set));
    const Vec2 shift = chance_shift(chance);
    double lit = 0;
    for (std::uint32_t k = 0; k < kSunPaths; ++k) {
      const Vec2 on = transport::even_point(k, shift);
      const Vec3 from =
          room_->patches().point_on(int(i), on.x(), on.y()) + geometry::kStartOffset * facet.normal;
      lit += pane >= 0
                 ? openings_[std::size_t(pane)].scatter_scale * double(outdoors_->sees_sun(from, light.sun))
                 : sun_share(from, light.sun, transport::mixed(chance, k + 10), 1, facet.normal);
    }
    sets[set] += float(light.sun_normal_lx * falls * patch.area_m2 * lit / kSunPaths);
  }
}

std::vector<double> DaylightPaths::sun_over(const std::vector<readings::Receiver>& places, const Vec3& u,
                                            const Vec3& v, const Vec3& sun, double sun_normal_lx,
                                            const Watch& watch) const {
  constexpr int kPieces = 6;  // of each side, shaken within
  std::vector<double> lux(places.size(), 0.0);
  parallel_for(places.size(), watch, "sun", [&](std::size_t p) {
    const readings::Receiver& place = places[p];
    const double weight = place.weight(sun);
    if (weight <= 0 || !may_get_sun(place.position, (u.norm() + v.norm()) / 2, sun)) return;
    double share = 0;
    for (int k = 0; k < kPieces * kPieces; ++k) {
      const std::uint64_t chance = transport::mixed(transport::mixed(p, 49979687), std::uint64_t(k));
      const Vec2 shift = chance_shift(chance);
      readings::Receiver shaken = place;
      shaken.position +=
          ((k % kPieces + shift.x()) / kPieces - 0.5) * u + ((k / kPieces + shift.y()) / kPieces - 0.5) * v;
      share += sun_share(shaken.ray_start(), sun, chance, 1, place.normal);
    }
    lux[p] = sun_normal_lx * weight * share / (kPieces * kPieces);
  });
  return lux;
}

/// Of the sun's disc, what reaches a receiver, or its cell on average.
double DaylightPaths::sun_on(const readings::Receiver& receiver, const SunCell& cell, const Vec3& sun,
                             std::uint64_t chance) const {
  const Vec3 facing = receiver.kernel == readings::Kernel::plane ? receiver.normal : sun;
  if (cell.is_point()) return sun_share(receiver.ray_start(), sun, chance, kSunDirections, facing);
  const Vec2 shift = chance_shift(transport::mixed(chance, 3));
  double sum = 0, least = 1, most = 0;
  for (std::uint32_t k = 0; k < SunCell::kPlaces; ++k) {
    if (k == cell.enough && most - least <= kAlike * most) return sum / k;
    const Vec2 place = transport::even_point(k, shift);
    readings::Receiver there = receiver;
    there.position += (place.x() - 0.5) * cell.u + (place.y() - 0.5) * cell.v;
    const double own = sun_share(there.ray_start(), sun, transport::mixed(chance, 10 + k), 1, facing);
    sum += own;
    least = std::min(least, own);
    most = std::max(most, own);
  }
  return sum / SunCell::kPlaces;
}

void DaylightPaths::add_sun(const readings::Receiver& place, const SunCell& cell,
                            const std::vector<Moment>& moments, double* lux) const {
  for (std::size_t m = 0; m < moments.size(); ++m) {
    const double weight = place.weight(moments[m].sun);
    if (moments[m].sun_normal_lx > 0 && weight > 0)
      lux[m] += moments[m].sun_normal_lx * weight * sun_on(place, cell, moments[m].sun, seeded(32452843));
  }
}

}  // namespace glow::sources
