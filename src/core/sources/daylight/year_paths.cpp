// What many suns and skies ask of paths at once: coefficients, and the sun followed in by the openings.
#include <algorithm>
#include <cmath>

#include "core/daylight/sun.hpp"
#include "core/sources/daylight/daylight_paths.hpp"
#include "core/sources/daylight/even_paths.hpp"
#include "core/transport/exchange/patch_response.hpp"

namespace glow::sources {
namespace {

constexpr std::uint32_t kPlacesOfOpening = 144;  // that the sun is followed in from
constexpr std::uint32_t kPlacesOutside = 4;      // of a patch outside, in the sun
constexpr std::uint64_t kSunChance = 86028121;

}  // namespace

void DaylightPaths::add_straight(std::size_t receiver, float* by_targets) const {
  for (const SeenShare& sample : of_receivers_[receiver]) by_targets[sample.target()] += sample.share;
}

Eigen::SparseMatrix<float, Eigen::RowMajor> DaylightPaths::onto_patches() const {
  using Entry = Eigen::Triplet<float>;
  std::vector<Entry> entries;
  for (std::size_t i = 0; i < of_patches_.size(); ++i)
    for (const SeenShare& sample : of_patches_[i])
      entries.emplace_back(int(i), int(sample.target()), sample.share);
  Eigen::SparseMatrix<float, Eigen::RowMajor> onto(Eigen::Index(of_patches_.size()), Eigen::Index(targets()));
  onto.setFromTriplets(entries.begin(), entries.end());
  return onto;
}

double DaylightPaths::sun_at(std::size_t receiver, const Vec3& sun) const {
  const readings::Receiver& own = room_->receivers()[receiver];
  const double weight = own.reflected_only ? 0 : own.weight(sun);
  if (weight <= 0) return 0;
  const Vec3 from = own.ray_start();
  double share = 0;
  Vec3 at;
  for (const DaylightOpening& opening : openings_) {
    if (!opening.is_met(from, sun, 0, at) || !opening.is_clear_at(at)) continue;
    const double glass = opening.glazing.transmittance(sun.dot(opening.outwards));
    if (glass <= 0) continue;
    const double passed = hides_ ? room_->tracer().passed(from, at - kBehindPane * opening.outwards) : 1;
    if (passed > 0 && outdoors_->sees_sun(at + kBehindPane * opening.outwards, sun)) share += glass * passed;
  }
  return weight * share;
}

std::vector<DaylightPaths::SunOnPatch> DaylightPaths::sun_inside(const Vec3& sun,
                                                                 std::uint64_t chance) const {
  const transport::PatchSet& patches = room_->patches();
  std::vector<SunOnPatch> found;
  const auto arrives = [&](std::int32_t patch, double lm) {
    if (patch >= 0 && room_->exchange().visible_area_m2[patch] > 0) found.push_back({patch, float(lm)});
  };
  const Vec3 x = sun.unitOrthogonal(), y = sun.cross(x);
  for (std::size_t o = 0; o < openings_.size(); ++o) {
    const DaylightOpening& opening = openings_[o];
    const double falls = sun.dot(opening.outwards);
    if (falls <= 0) continue;
    const double each = falls * opening.along.norm() * opening.up.norm() / kPlacesOfOpening;
    const std::uint64_t own = transport::mixed(transport::mixed(chance, seeded(kSunChance)), o);
    for (std::uint32_t k = 0; k < kPlacesOfOpening; ++k) {
      const Eigen::Vector4d path = even_path(k, own);
      const Vec3 at = opening.corner + path[0] * opening.along + path[1] * opening.up;
      const double r = daylight::kSunRadius * std::sqrt(path[2]), turn = 2 * kPi * path[3];
      const Vec3 way = (sun + r * std::cos(turn) * x + r * std::sin(turn) * y).normalized();
      if (!opening.is_clear_at(at) || !outdoors_->sees_sun(at + kBehindPane * opening.outwards, way))
        continue;
      if (opening.outer_facet >= 0)
        arrives(patches.patch_at(opening.outer_facet, at), each * opening.scatter_scale);
      const double glass = opening.glazing.transmittance(way.dot(opening.outwards));
      if (glass <= 0) continue;
      const Vec3f start = patches.local(at - kBehindPane * opening.outwards);
      arrives(transport::landing_patch(patches, room_->tracer(), start, (-way).cast<float>(),
                                       transport::mixed(own, k)),
              each * glass);
    }
  }
  std::sort(found.begin(), found.end(),
            [](const SunOnPatch& a, const SunOnPatch& b) { return a.patch < b.patch; });
  std::size_t kept = 0;
  for (std::size_t k = 0; k < found.size(); ++k)
    if (kept > 0 && found[kept - 1].patch == found[k].patch)
      found[kept - 1].lm += found[k].lm;
    else
      found[kept++] = found[k];
  found.resize(kept);
  return found;
}

std::unique_ptr<const transport::PatchResponse> Outdoors::response() const {
  return std::make_unique<const transport::PatchResponse>(built_.patches(), built_.exchange(), false);
}

Eigen::MatrixXf Outdoors::fold_built(Eigen::MatrixXf& by_targets, const transport::PatchResponse& response,
                                     const Watch& watch) const {
  const Eigen::Index first = Eigen::Index(sky_.size()) + 1, count = Eigen::Index(built());
  if (count == 0) return Eigen::MatrixXf(by_targets.rows(), 0);
  const Eigen::MatrixXf onto =
      response.leaving(by_targets.middleCols(first, count).transpose() / float(kPi), watch).transpose();
  for (Eigen::Index i = 0; i < count; ++i)
    for (const Sample& sample : of_patches_[std::size_t(i)])
      by_targets.col(sample.target) += sample.share * onto.col(i);
  by_targets.conservativeResize(Eigen::NoChange, first);
  return onto;
}

std::vector<double> Outdoors::with_built(const Eigen::VectorXd& sky_and_ground, const Eigen::VectorXf& sun_lm,
                                         const transport::PatchResponse& response, const Watch& watch) const {
  std::vector<double> luminance(sky_and_ground.data(), sky_and_ground.data() + sky_and_ground.size());
  if (built() == 0) return luminance;
  Eigen::MatrixXf falls = sun_lm;
  for (std::size_t i = 0; i < built(); ++i)
    for (const Sample& sample : of_patches_[i])
      falls(Eigen::Index(i), 0) += sample.share * float(sky_and_ground[sample.target]);
  const Eigen::MatrixXf leaving = response.leaving(falls, watch);
  for (Eigen::Index i = 0; i < leaving.rows(); ++i) luminance.push_back(double(leaving(i, 0)) / kPi);
  return luminance;
}

std::vector<float> Outdoors::sun_on_built(const Vec3& sun, std::uint64_t chance) const {
  const auto& patches = built_.patches().patches();
  std::vector<float> lm(patches.size(), 0.0f);
  for (std::size_t i = 0; i < patches.size(); ++i) {
    const geometry::Facet& facet = built_.patches().facet_of(patches[i]);
    const double falls = facet.normal.dot(sun);
    if (falls <= 0) continue;
    const std::uint64_t own = transport::mixed(chance, i);
    const Vec2 shift = chance_shift(own);
    int lit = 0;
    for (std::uint32_t k = 0; k < kPlacesOutside; ++k) {
      const Vec2 place = transport::even_point(k, shift);
      lit += sees_sun(
          built_.patches().point_on(int(i), place.x(), place.y()) + geometry::kStartOffset * facet.normal,
          sun);
    }
    lm[i] = float(patches[i].area_m2 * falls * lit / kPlacesOutside);
  }
  return lm;
}

}  // namespace glow::sources
