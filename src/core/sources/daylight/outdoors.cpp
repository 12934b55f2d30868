#include "core/sources/daylight/outdoors.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "core/sources/daylight/even_paths.hpp"

namespace glow::sources {
namespace {

constexpr int kRaysOutdoors = 512;              // from a patch outside, over its half of space
constexpr std::uint32_t kSunPoints = 64;        // on it
constexpr std::uint32_t kSunPointsEnough = 16;  // where all of them are in the sun, or none
constexpr double kHorizon = 1e4;                // m: nothing that hides the sun stands farther away

/// Places just inside the corners of a cell.
const std::array<Vec2, 4> kNearCorners = {Vec2(0.01, 0.01), Vec2(0.99, 0.01), Vec2(0.01, 0.99),
                                          Vec2(0.99, 0.99)};

}  // namespace

Outdoors::Outdoors(geometry::Geometry built, double ground_reflectance, const transport::Effort& effort,
                   const Watch& watch)
    : ground_reflectance_(ground_reflectance), built_(std::move(built), {}, effort, watch) {
  sample_patches(watch);
}

std::int32_t Outdoors::seen(const Vec3& from, const Vec3& towards) const {
  if (any()) {
    const Vec3f origin = built_.tracer().local(from), way = towards.cast<float>();
    const geometry::Hit hit = built_.tracer().nearest(origin, way);
    if (hit.facet >= 0) {
      if (hit.from_behind) return kNothing;
      const Vec3f at = origin + hit.distance * way;
      return ground() + 1 + built_.patches().patch_at(hit.facet, at);
    }
  }
  return towards.z() > 0 ? std::int32_t(sky_.at(towards)) : ground();
}

bool Outdoors::sees_sun(const Vec3& from, const Vec3& sun) const {
  return !any() || built_.tracer().passed(from, from + kHorizon * sun) > 0;
}

bool Outdoors::is_surroundings(std::int32_t target) const {
  if (target <= ground()) return false;
  const geometry::Facet& facet =
      built_.patches().facet_of(built_.patches().patches()[std::size_t(target - ground() - 1)]);
  return built_.geometry().surfaces()[std::size_t(facet.surface)].role != geometry::SurfaceRole::wall;
}

double Outdoors::distance(const Vec3& from, const Vec3& towards) const {
  if (!any()) return std::numeric_limits<double>::infinity();
  const geometry::Hit hit = built_.tracer().nearest(built_.tracer().local(from), towards.cast<float>());
  const bool own =
      hit.facet >= 0 &&
      built_.geometry()
              .surfaces()[std::size_t(built_.geometry().facets()[std::size_t(hit.facet)].surface)]
              .role == geometry::SurfaceRole::wall;
  return hit.facet < 0 || own ? std::numeric_limits<double>::infinity() : double(hit.distance);
}

void Outdoors::sample_patches(const Watch& watch) {
  const auto& patches = built_.patches().patches();
  of_patches_.resize(patches.size());
  parallel_for(patches.size(), watch, "light outdoors", [&](std::size_t i) {
    const geometry::Facet& facet = built_.patches().facet_of(patches[i]);
    const std::uint64_t chance = transport::mixed(977, i);
    std::vector<float> of_sky(sky_.size() + 1, 0.0f);
    const float share = float(patches[i].area_m2 * kPi / kRaysOutdoors);
    for (std::uint32_t k = 0; k < kRaysOutdoors; ++k) {
      const Eigen::Vector4d path = even_path(k, chance);
      const Vec3 from =
          built_.patches().point_on(int(i), path[0], path[1]) + geometry::kStartOffset * facet.normal;
      const std::int32_t target = seen(from, cosine_direction(facet.normal, path[2], path[3]));
      if (target >= 0 && target <= ground()) of_sky[std::size_t(target)] += share;
    }
    for (std::size_t t = 0; t < of_sky.size(); ++t)
      if (of_sky[t] > 0) of_patches_[i].push_back({of_sky[t], std::int32_t(t)});
  });
}

/// Share of a patch of what is built that the sun reaches. Few places do where they and the corners are
/// alike: an edge of light and shade would part one corner from another.
double Outdoors::in_sun(std::size_t i, const Vec3& sun) const {
  const transport::Patch& patch = built_.patches().patches()[i];
  const auto sees = [&](const Vec2& place) {
    return sees_sun(built_.patches().point_on(int(i), place.x(), place.y()) +
                        geometry::kStartOffset * built_.patches().facet_of(patch).normal,
                    sun);
  };
  const auto corners = std::count_if(kNearCorners.begin(), kNearCorners.end(), sees);
  const bool may_be_alike = patch.full_cell && (corners == 0 || corners == 4);
  const Vec2 shift = chance_shift(transport::mixed(1979, i));
  std::uint32_t lit = 0;
  for (std::uint32_t k = 0; k < kSunPoints; ++k) {
    if (k == kSunPointsEnough && may_be_alike && lit == (corners > 0 ? k : 0)) return corners > 0 ? 1 : 0;
    lit += sees(transport::even_point(k, shift));
  }
  return double(lit) / kSunPoints;
}

std::vector<double> Outdoors::luminances(const OutdoorLight& light, const Watch& watch) const {
  std::vector<double> luminances = light.sky_cd_m2;
  luminances.push_back(ground_reflectance_ * light.global_lx() / kPi);
  if (!any()) return luminances;
  const auto& patches = built_.patches().patches();
  Eigen::VectorXd flux = Eigen::VectorXd::Zero(Eigen::Index(patches.size()));
  parallel_for(patches.size(), watch, "light outdoors", [&](std::size_t i) {
    double& own = flux[Eigen::Index(i)];
    for (const Sample& sample : of_patches_[i])
      own += double(sample.share) * luminances[std::size_t(sample.target)];
    const geometry::Facet& facet = built_.patches().facet_of(patches[i]);
    const double falls = facet.normal.dot(light.sun);
    if (light.sun_normal_lx <= 0 || falls <= 0) return;
    own += patches[i].area_m2 * falls * light.sun_normal_lx * in_sun(i, light.sun);
  });
  transport::Inflow inflow;
  inflow.on_patches = transport::SampledFlux::of(std::move(flux));
  inflow.emitted_lm = inflow.on_patches.mean_lm.sum();
  const transport::GroupLight lit = built_.carry(std::move(inflow), watch);
  const Eigen::VectorXd leaving =
      transport::exitance(built_.exchange(), built_.patches(), lit.patch_irradiance_lx);
  for (const double exitance : leaving) luminances.push_back(exitance / kPi);
  return luminances;
}

}  // namespace glow::sources
