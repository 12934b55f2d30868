#include "core/sources/daylight/daylight_paths.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/daylight/sun.hpp"
#include "core/readings/statistics.hpp"
#include "core/sources/daylight/even_paths.hpp"
#include "core/sources/daylight/spherical_rectangle.hpp"
#include "core/transport/tracing/sampling.hpp"

namespace glow::sources {
namespace {

using transport::kSets;

constexpr int kLeanPart = 4;       // of the rays, for receivers of which only the mean counts
constexpr int kPatchPaths = 16;    // of a patch, in each set, for each opening
constexpr int kPanePaths = 32;     // likewise outwards, of a pane that scatters
constexpr int kSunPaths = 16;      // of a patch to the sun, in each set
constexpr int kSunDirections = 4;  // of a receiver to the sun's disc, in each set
/// What stands outside is lit patch by patch, each even; held against ever finer patches, light from the
/// sides of a deep shaft was off by up to this share.
constexpr double kOfPatchesOutside = 0.03;
constexpr double kHair = 1e-6;
constexpr double kAlike = 1e-3;  // of the sun's disc through one pane at places side by side

Vec2 chance_shift(std::uint64_t chance) {
  return {transport::unit_interval(chance), transport::unit_interval(transport::mixed(chance, 1))};
}

/// A direction within the sun's disc.
Vec3 in_disc(const Vec3& sun, const Vec2& place) {
  const Vec3 x = sun.unitOrthogonal(), y = sun.cross(x);
  const double r = daylight::kSunRadius * std::sqrt(place.x()), a = 2 * kPi * place.y();
  return (sun + r * std::cos(a) * x + r * std::sin(a) * y).normalized();
}

}  // namespace

DaylightPaths::DaylightPaths(const transport::Transport& room, const Outdoors& outdoors,
                             std::vector<DaylightOpening> openings, const Watch& watch)
    : room_(&room), outdoors_(&outdoors), openings_(std::move(openings)), hides_(room.occluders().any()) {
  const auto& patches = room.patches().patches();
  pane_of_patch_.assign(patches.size(), -1);
  for (std::size_t o = 0; o < openings_.size(); ++o)
    for (std::size_t i = 0; i < patches.size() && openings_[o].outer_facet >= 0; ++i)
      if (patches[i].facet == openings_[o].outer_facet) pane_of_patch_[i] = int(o);
  of_receivers_.resize(room.receivers().size());
  of_patches_.resize(patches.size());
  parallel_for(of_receivers_.size(), watch, "daylight", [&](std::size_t r) { sample_receiver(r); });
  parallel_for(of_patches_.size(), watch, "daylight on the surfaces", [&](std::size_t i) {
    if (pane_of_patch_[i] >= 0)
      sample_pane(std::size_t(pane_of_patch_[i]), i);
    else
      sample_patch(i);
  });
}

std::size_t DaylightPaths::memory() const {
  std::size_t samples = 0;
  for (const auto* all : {&of_receivers_, &of_patches_})
    for (const auto& own : *all) samples += own.capacity();
  return samples * sizeof(Sample);
}

/// The opening, cut along the eye's horizon, where sky turns into ground.
std::vector<DaylightOpening> DaylightPaths::cut_at_horizon(const DaylightOpening& opening, const Vec3& eye) {
  const double rise = opening.up.z(), to_eye = eye.z() - opening.corner.z();
  const bool level = std::abs(opening.along.z()) < 1e-9 * opening.along.norm();
  const double share = rise != 0 ? to_eye / rise : 0;
  if (!level || share <= kHair || share >= 1 - kHair) return {opening};
  DaylightOpening below = opening, above = opening;
  below.up *= share;
  above.corner += below.up;
  above.up *= 1 - share;
  return {below, above};
}

/// Through one opening as many paths as the receiver sends rays for reflected light; of several each gets
/// fewer, though all together get more.
void DaylightPaths::sample_receiver(std::size_t r) {
  const readings::Receiver& receiver = room_->receivers()[r];
  if (receiver.reflected_only) return;
  const Vec3 eye = receiver.ray_start();
  std::uint64_t number = 0;
  for (const DaylightOpening& whole : openings_) {
    if ((whole.corner - eye).dot(whole.outwards) <= 0) continue;  // it is seen from outside
    const std::vector<DaylightOpening> pieces = cut_at_horizon(whole, eye);
    const int share = int(openings_.size() + 1) * (receiver.lean ? kLeanPart : 1) * int(pieces.size());
    const int rays = std::max(8, 2 * room_->effort().rays_per_receiver / share);
    for (const DaylightOpening& piece : pieces)
      sample_opening(receiver, transport::mixed(r, seeded(++number)), piece, rays,
                     [&](const Sample& sample, const Vec3&, double) { of_receivers_[r].push_back(sample); });
  }
  of_receivers_[r].shrink_to_fit();
}

template <class Visit>
void DaylightPaths::sample_opening(const readings::Receiver& receiver, std::uint64_t chance,
                                   const DaylightOpening& opening, int rays, const Visit& visit) const {
  const Vec3 eye = receiver.ray_start();
  const SphericalRectangle seen(eye, opening.corner, opening.along, opening.up);
  if (!seen.is_seen()) return;
  for (int set = 0; set < kSets; ++set) {
    const Vec2 shift = chance_shift(transport::mixed(chance, std::uint64_t(set)));
    for (int k = 0; k < rays; ++k) {
      const Vec2 place = transport::even_point(std::uint32_t(k), shift);
      const auto [at, solid_angle] = seen.point(place.x(), place.y());
      const Vec3 way = (at - eye).normalized();
      const double each = solid_angle / (kSets * double(rays));
      const double weight = receiver.weight(way) * opening.glazing.transmittance(way.dot(opening.outwards));
      if (weight <= 0 || !opening.is_clear_at(at)) continue;
      const double passed = hides_ ? room_->tracer().passed(eye, at - kBehindPane * opening.outwards) : 1;
      if (passed <= 0) continue;
      const std::int32_t target = outdoors_->seen(at + kBehindPane * opening.outwards, way);
      if (target >= 0) visit(Sample{float(weight * passed * each), target, set}, way, each);
    }
  }
}

void DaylightPaths::add_sky(const readings::Receiver& place, const std::vector<Moment>& moments, int rays,
                            double* lux) const {
  const Vec3 eye = place.ray_start();
  std::uint64_t number = 0;
  for (const DaylightOpening& whole : openings_) {
    if ((whole.corner - eye).dot(whole.outwards) <= 0) continue;
    for (const DaylightOpening& piece : cut_at_horizon(whole, eye))
      sample_opening(place, seeded(++number), piece, rays, [&](const Sample& sample, const Vec3&, double) {
        for (std::size_t m = 0; m < moments.size(); ++m)
          lux[m] += double(sample.share) * (*moments[m].luminance)[std::size_t(sample.target())];
      });
  }
}

void DaylightPaths::look_out(const readings::Receiver& place, int rays, const SeenOutside& visit) const {
  const Vec3 eye = place.ray_start();
  std::uint64_t number = 0;
  for (const DaylightOpening& whole : openings_) {
    if ((whole.corner - eye).dot(whole.outwards) <= 0) continue;
    for (const DaylightOpening& piece : cut_at_horizon(whole, eye))
      sample_opening(place, seeded(++number), piece, rays,
                     [&](const Sample& sample, const Vec3& way, double solid_angle) {
                       const double weight = place.weight(way);
                       visit(way, solid_angle, double(sample.share) / (weight * solid_angle),
                             sample.target());
                     });
  }
}

void DaylightPaths::add_sun(const readings::Receiver& place, const SunCell& cell,
                            const std::vector<Moment>& moments, double* lux) const {
  for (std::size_t m = 0; m < moments.size(); ++m) {
    const double weight = place.weight(moments[m].sun);
    if (moments[m].sun_normal_lx > 0 && weight > 0)
      lux[m] += moments[m].sun_normal_lx * weight * sun_on(place, cell, moments[m].sun, seeded(32452843));
  }
}

void DaylightPaths::sample_patch(std::size_t i) {
  const transport::Patch& patch = room_->patches().patches()[i];
  const geometry::Facet& facet = room_->patches().facet_of(patch);
  if (room_->exchange().visible_area_m2[Eigen::Index(i)] <= 0) return;
  for (std::size_t o = 0; o < openings_.size(); ++o) {
    const DaylightOpening& opening = openings_[o];
    for (int set = 0; set < kSets; ++set) {
      const std::uint64_t chance =
          transport::mixed(transport::mixed(i, seeded(7919 + o)), std::uint64_t(set));
      for (std::uint32_t k = 0; k < kPatchPaths; ++k) {
        const Eigen::Vector4d path = even_path(k, chance);
        const Vec3 eye =
            room_->patches().point_on(int(i), path[0], path[1]) + geometry::kStartOffset * facet.normal;
        if ((opening.corner - eye).dot(opening.outwards) <= 0) continue;
        const SphericalRectangle seen(eye, opening.corner, opening.along, opening.up);
        if (!seen.is_seen()) continue;
        const auto [at, solid_angle] = seen.point(path[2], path[3]);
        const Vec3 way = (at - eye).normalized();
        const double weight = std::max(0.0, facet.normal.dot(way)) *
                              opening.glazing.transmittance(way.dot(opening.outwards)) * solid_angle *
                              patch.area_m2 / (kSets * kPatchPaths);
        if (weight <= 0 || !opening.is_clear_at(at)) continue;
        const double passed = hides_ ? room_->tracer().passed(eye, at - kBehindPane * opening.outwards) : 1;
        if (passed <= 0) continue;
        const std::int32_t target = outdoors_->seen(at + kBehindPane * opening.outwards, way);
        if (target >= 0) of_patches_[i].push_back({float(weight * passed), target, set});
      }
    }
  }
  of_patches_[i].shrink_to_fit();
}

/// What falls on the outer side of a pane that scatters: it is passed on by the balance between patches.
void DaylightPaths::sample_pane(std::size_t o, std::size_t i) {
  const DaylightOpening& opening = openings_[o];
  const transport::Patch& patch = room_->patches().patches()[i];
  for (int set = 0; set < kSets; ++set) {
    const std::uint64_t chance = transport::mixed(transport::mixed(i, seeded(104729)), std::uint64_t(set));
    for (std::uint32_t k = 0; k < kPanePaths; ++k) {
      const Eigen::Vector4d path = even_path(k, chance);
      const Vec3 towards = cosine_direction(opening.outwards, path[2], path[3]);
      const Vec3 from = room_->patches().point_on(int(i), path[0], path[1]) + kBehindPane * opening.outwards;
      const std::int32_t target = outdoors_->seen(from, towards);
      if (target >= 0)
        of_patches_[i].push_back(
            {float(opening.scatter_scale * kPi * patch.area_m2 / (kSets * kPanePaths)), target, set});
    }
  }
}

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

std::vector<char> DaylightPaths::sky_seen(const std::vector<readings::Receiver>& places,
                                          const Watch& watch) const {
  constexpr int kAside = 8;  // places on each side of an opening
  std::vector<char> seen(places.size(), 0);
  parallel_for(places.size(), watch, "sky", [&](std::size_t p) {
    const Vec3 eye = places[p].ray_start();
    for (const DaylightOpening& opening : openings_)
      for (int k = 0; k < kAside * kAside && !seen[p]; ++k) {
        const Vec3 at = opening.corner + (k % kAside + 0.5) / kAside * opening.along +
                        (k / kAside + 0.5) / kAside * opening.up;
        const Vec3 way = (at - eye).normalized();
        if (way.dot(opening.outwards) <= 0 || places[p].weight(way) <= 0 || way.z() <= 0) continue;
        if (hides_ && room_->tracer().passed(eye, at - kBehindPane * opening.outwards) <= 0) continue;
        const std::int32_t target = outdoors_->seen(at + kBehindPane * opening.outwards, way);
        seen[p] = target >= 0 && target < outdoors_->ground();
      }
  });
  return seen;
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

DayInflow DaylightPaths::at(const OutdoorLight& light, const std::vector<SunCell>& cells,
                            const Watch& watch) const {
  const std::vector<double> luminance = outdoors_->luminances(light, watch);
  return inflow_of(
      luminance,
      [&](std::size_t i, float* sets) {
        if (light.sun_normal_lx > 0) add_sun(light, i, sets);
      },
      [&](std::size_t r, double* sets) {
        const readings::Receiver& receiver = room_->receivers()[r];
        const double weight = receiver.reflected_only ? 0 : receiver.weight(light.sun);
        if (light.sun_normal_lx <= 0 || weight <= 0) return;
        const SunCell cell = cells.empty() ? SunCell{} : cells[r];
        if (!may_get_sun(receiver.position, (cell.u.norm() + cell.v.norm()) / 2, light.sun)) return;
        for (int set = 0; set < kSets; ++set) {
          const std::uint64_t chance =
              transport::mixed(transport::mixed(r, seeded(32452843)), std::uint64_t(set));
          sets[set] += light.sun_normal_lx * weight * sun_on(receiver, cell, light.sun, chance);
        }
      },
      watch);
}

DayInflow DaylightPaths::on_average(const std::vector<double>& luminance, const Eigen::VectorXf& sun_lm,
                                    const Eigen::VectorXf& sun_lx, const Watch& watch) const {
  return inflow_of(
      luminance,
      [&](std::size_t i, float* sets) {
        for (int set = 0; set < kSets; ++set) sets[set] += sun_lm[Eigen::Index(i)];
      },
      [&](std::size_t r, double* sets) {
        for (int set = 0; set < kSets; ++set) sets[set] += double(sun_lx[Eigen::Index(r)]);
      },
      watch);
}

template <class OnPatch, class AtReceiver>
DayInflow DaylightPaths::inflow_of(const std::vector<double>& luminance, const OnPatch& sun_on_patch,
                                   const AtReceiver& sun_at_receiver, const Watch& watch) const {
  DayInflow day;
  const std::size_t n = of_patches_.size();
  Eigen::MatrixXf sets(Eigen::Index(n), kSets);
  parallel_for(n, watch, "daylight on the surfaces", [&](std::size_t i) {
    std::array<float, kSets> own{};
    for (const Sample& sample : of_patches_[i])
      own[sample.set()] += float(kSets * double(sample.share) * luminance[std::size_t(sample.target())]);
    sun_on_patch(i, own.data());
    for (int set = 0; set < kSets; ++set) sets(Eigen::Index(i), set) = own[std::size_t(set)];
  });
  day.inflow.on_patches = transport::SampledFlux::of_sets(std::move(sets));
  const Eigen::VectorXd& landing = room_->exchange().straight.landing;
  if (landing.size() > 0) day.inflow.on_patches.reduce(landing);
  day.inflow.emitted_lm = day.inflow.on_patches.mean_lm.sum();
  day.parts.resize(of_receivers_.size());
  day.inflow.direct_lx.assign(of_receivers_.size(), 0.0);
  day.inflow.error_lx = day.inflow.direct_lx;
  parallel_for(of_receivers_.size(), watch, "daylight", [&](std::size_t r) {
    DayParts& parts = day.parts[r];
    std::array<double, kSets> own{}, sun{};
    double built = 0;
    // Samples of one set lie together; what is added up in one place is quick.
    for (auto sample = of_receivers_[r].begin(), end = of_receivers_[r].end(); sample != end;) {
      const std::size_t set = sample->set();
      double sky = 0, ground = 0, of_built = 0;
      for (; sample != end && sample->set() == set; ++sample) {
        const double lux = double(sample->share) * luminance[std::size_t(sample->target())];
        (sample->target() < outdoors_->ground()   ? sky
         : sample->target() > outdoors_->ground() ? of_built
                                                  : ground) += lux;
      }
      own[set] += kSets * (sky + ground + of_built);
      parts.sky += sky;
      parts.outside += ground + of_built;
      built += of_built;
    }
    sun_at_receiver(r, sun.data());
    for (std::size_t set = 0; set < kSets; ++set) {
      parts.sun += sun[set] / kSets;
      own[set] += sun[set];
    }
    day.inflow.direct_lx[r] = parts.sun + parts.sky + parts.outside;
    day.inflow.error_lx[r] = readings::half_width_95(own) + kOfPatchesOutside * built;
  });
  return day;
}

}  // namespace glow::sources
