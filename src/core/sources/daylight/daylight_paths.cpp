#include "core/sources/daylight/daylight_paths.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/parallel/side_by_side.hpp"
#include "core/readings/statistics.hpp"
#include "core/sources/daylight/even_paths.hpp"
#include "core/sources/daylight/spherical_rectangle.hpp"
#include "core/transport/tracing/sampling.hpp"

namespace glow::sources {
namespace {

using transport::kSets;

constexpr int kLeanPart = 4;     // of the rays, for receivers of which only the mean counts
constexpr int kPatchPaths = 16;  // of a patch, in each set, for each opening
constexpr int kPanePaths = 32;   // likewise outwards, of a pane that scatters
/// What stands outside is lit patch by patch, each even; held against ever finer patches, light from the
/// sides of a deep shaft was off by up to this share.
constexpr double kOfPatchesOutside = 0.03;
constexpr double kHair = 1e-6;

/// What seen shares give at these luminances (cd/m2): lx at a receiver.
double light_of(const SeenShare* first, const SeenShare* end, const std::vector<double>& luminance) {
  return sum_side_by_side(std::size_t(end - first), [&](std::size_t k) {
    return double(first[k].share) * luminance[std::size_t(first[k].target())];
  });
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
  return samples * sizeof(SeenShare);
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
  SeenShares seen(targets());
  for (const DaylightOpening& whole : openings_) {
    if ((whole.corner - eye).dot(whole.outwards) <= 0) continue;  // it is seen from outside
    const std::vector<DaylightOpening> pieces = cut_at_horizon(whole, eye);
    const int share = int(openings_.size() + 1) * (receiver.lean ? kLeanPart : 1) * int(pieces.size());
    const int rays = std::max(8, 2 * room_->effort().rays_per_receiver / share);
    for (const DaylightOpening& piece : pieces)
      sample_opening(receiver, transport::mixed(r, seeded(++number)), piece, rays,
                     [&](const SeenShare& ray, const Vec3&, double) { seen.add(ray); });
  }
  of_receivers_[r] = seen.all();
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
      if (target >= 0) visit(SeenShare{float(weight * passed * each), target, set}, way, each);
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
      sample_opening(place, seeded(++number), piece, rays, [&](const SeenShare& sample, const Vec3&, double) {
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
                     [&](const SeenShare& sample, const Vec3& way, double solid_angle) {
                       const double weight = place.weight(way);
                       visit(way, solid_angle, double(sample.share) / (weight * solid_angle),
                             sample.target());
                     });
  }
}

void DaylightPaths::sample_patch(std::size_t i) {
  const transport::Patch& patch = room_->patches().patches()[i];
  const geometry::Facet& facet = room_->patches().facet_of(patch);
  if (room_->exchange().visible_area_m2[Eigen::Index(i)] <= 0) return;
  SeenShares seen_outside(targets());
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
        if (target >= 0) seen_outside.add({float(weight * passed), target, set});
      }
    }
  }
  of_patches_[i] = seen_outside.all();
}

/// What falls on the outer side of a pane that scatters: it is passed on by the balance between patches.
void DaylightPaths::sample_pane(std::size_t o, std::size_t i) {
  const DaylightOpening& opening = openings_[o];
  const transport::Patch& patch = room_->patches().patches()[i];
  SeenShares seen(targets());
  for (int set = 0; set < kSets; ++set) {
    const std::uint64_t chance = transport::mixed(transport::mixed(i, seeded(104729)), std::uint64_t(set));
    for (std::uint32_t k = 0; k < kPanePaths; ++k) {
      const Eigen::Vector4d path = even_path(k, chance);
      const Vec3 towards = cosine_direction(opening.outwards, path[2], path[3]);
      const Vec3 from = room_->patches().point_on(int(i), path[0], path[1]) + kBehindPane * opening.outwards;
      const std::int32_t target = outdoors_->seen(from, towards);
      if (target >= 0)
        seen.add({float(opening.scatter_scale * kPi * patch.area_m2 / (kSets * kPanePaths)), target, set});
    }
  }
  of_patches_[i] = seen.all();
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
    for (const SeenShare& sample : of_patches_[i])
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
    const std::vector<SeenShare>& shares = of_receivers_[r];
    for (const SeenShare *first = shares.data(), *all = first + shares.size(); first != all;) {
      const std::size_t set = first->set();
      const SeenShare* end =
          std::partition_point(first, all, [&](const SeenShare& share) { return share.set() == set; });
      const auto below = [&](std::int32_t target) {
        return std::partition_point(first, end,
                                    [&](const SeenShare& seen) { return seen.target() < target; });
      };
      const SeenShare *ground = below(outdoors_->ground()), *built_from = below(outdoors_->ground() + 1);
      const double sky = light_of(first, ground, luminance), of_built = light_of(built_from, end, luminance);
      const double outside = light_of(ground, built_from, luminance) + of_built;
      own[set] += kSets * (sky + outside);
      parts.sky += sky;
      parts.outside += outside;
      built += of_built;
      first = end;
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
