#include "core/views/reflected_field.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace glow::views {
namespace {

constexpr double kLift = 2 * geometry::kStartOffset;  // m, off the surface
constexpr double kWidest = 3;                         // m: no look serves farther than its reach of this
constexpr int kOfSky = 4;                             // rays around for each through a piece of an opening
constexpr int kEnough = 3;                            // looks that serve a place well

/// What a look weighs at a place: 1 there, 0 from where it no longer serves.
double weight_of(double distance, double serves) {
  const double left = 1 - distance / serves;
  return left > 0 ? left * left : 0;
}

}  // namespace

double ReflectedField::look(const RoomSources& sources, const Place& place, int rays, double* lux,
                            std::vector<std::int32_t>* met_patches) {
  const transport::Transport& transport = *sources.lit().transport;
  const transport::PatchSet& patches = transport.patches();
  const geometry::RayTracer& tracer = transport.tracer();
  const geometry::Geometry& geometry = transport.geometry();
  const Vec3 middle = geometry.middle();
  const std::size_t layers = sources.layers();
  transport::Effort effort;
  effort.rays_per_receiver = rays / transport::kSets;
  const readings::Receiver receiver{place.point, place.normal};
  std::vector<std::int32_t> landed;
  std::fill(lux, lux + layers, 0.0);
  double nearness = 0, behind = 0;
  std::array<geometry::Hit, geometry::RayBlock::kMost> met;
  const transport::ReceiverRays around(effort);
  for (int set = 0; set < transport::kSets; ++set)
    around.each(tracer, receiver, 0, set, [&](const geometry::RayBlock& block) {
      tracer.nearest(block, met.data());
      for (int i = 0; i < block.size; ++i) {
        const geometry::Hit& hit = met[std::size_t(i)];
        std::int32_t patch = transport::kEscaped;
        const bool turns =
            hit.facet >= 0 && geometry.material_of(geometry.facets()[std::size_t(hit.facet)]).specular();
        if (turns) {
          bool mirrored = false;
          patch = transport::landing_patch(patches, tracer, block.origin(i), block.direction(i),
                                           transport::mixed(std::uint64_t(set), landed.size()),
                                           geometry::kNobody, &mirrored);
          if (patch >= 0 && mirrored) {
            sources.add_all_leaving(patch, lux);
            patch = transport::kEscaped;
          } else if (patch >= 0) {
            const float* leaving = sources.exitance(patch);
            for (std::size_t k = 0; k < layers; ++k) lux[k] += double(leaving[k]);
          }
        } else if (hit.facet >= 0 && !hit.from_behind) {
          const Vec3f at = block.origin(i) + hit.distance * block.direction(i);
          patch = patches.patch_at(hit.facet, at);
          sources.add_left_to_rays(hit.facet, Vec3(at.cast<double>()) + middle, lux);
        }
        behind += hit.facet >= 0 && hit.from_behind;  // slipped through where surfaces meet: says nothing
        if (hit.facet >= 0) nearness += 1 / std::max(1e-3, double(hit.distance));
        landed.push_back(patch);
      }
    });
  const double counted = std::max(1.0, double(landed.size()) - behind);
  for (std::size_t k = 0; k < layers; ++k) lux[k] /= counted;
  sources.add_bright(receiver, landed, lux);
  std::vector<double> sky(sources.count(), 0.0);
  sources.add_sky(receiver, rays / transport::kSets / kOfSky, sky.data());
  for (std::size_t k = 0; k < layers; ++k) lux[k] += sky[k / std::size_t(sources.bands())];
  const double mean_m = nearness > 0 ? double(landed.size()) / nearness : kWidest;
  if (met_patches) *met_patches = std::move(landed);
  return mean_m;
}

bool ReflectedField::is_served(const Place& place) const {
  const std::vector<Look>* looks = of(place.facet);
  if (!looks) return false;
  int serving = 0;
  for (const Look& look : *looks) {
    const double near = 0.7 * reach_ * look.radius_m;
    if ((look.point - place.point).squaredNorm() < near * near && ++serving == kEnough) return true;
  }
  return false;
}

/// Nothing serves farther than those beside it, and the way to them, allow: an edge that one of them has seen
/// near by is near for all.
void ReflectedField::settle_radii(std::vector<Look>& looks) const {
  for (Look& look : looks)
    for (const Look& other : looks)
      look.radius_m = std::min(look.radius_m, other.radius_m + (look.point - other.point).norm());
}

void ReflectedField::add(const std::vector<Place>& places, const Watch& watch) {
  std::vector<char> wanted(places.size());
  parallel_for(places.size(), watch, "reflected light",
               [&](std::size_t p) { wanted[p] = !is_served(places[p]); });
  std::vector<const Place*> chosen;
  for (std::size_t p = 0; p < places.size(); ++p)
    if (wanted[p]) chosen.push_back(&places[p]);
  std::vector<Look> looks(chosen.size());
  const std::size_t layers = sources_->layers();
  parallel_for(chosen.size(), watch, "reflected light", [&](std::size_t p) {
    const Place& place = *chosen[p];
    std::vector<double> lux(layers);
    const double mean = look(*sources_, place, rays_, lux.data());
    looks[p] = {place.point,
                place.normal,
                std::max(least_pixels_ * place.pixel_m / reach_, std::min(mean, kWidest)),
                {lux.begin(), lux.end()}};
  });
  std::vector<int> touched;
  for (std::size_t p = 0; p < chosen.size(); ++p) {
    const std::size_t facet = std::size_t(chosen[p]->facet);
    if (by_facet_.size() <= facet) by_facet_.resize(facet + 1);
    by_facet_[facet].push_back(std::move(looks[p]));
    touched.push_back(int(facet));
  }
  looks_ += chosen.size();
  std::sort(touched.begin(), touched.end());
  touched.erase(std::unique(touched.begin(), touched.end()), touched.end());
  parallel_for(touched.size(), watch, "reflected light",
               [&](std::size_t t) { settle_radii(by_facet_[std::size_t(touched[t])]); });
}

void ReflectedField::at(const Place& place, double* lux) const {
  const std::size_t layers = sources_->layers();
  const geometry::RayTracer& tracer = sources_->lit().transport->tracer();
  const std::vector<Look>* looks = of(place.facet);
  if (!looks || looks->empty()) {
    look(*sources_, place, rays_, lux);
    return;
  }
  const Vec3 x = place.normal.unitOrthogonal(), y = place.normal.cross(x);
  const Vec3 eye = place.point + kLift * place.normal;
  // A plane through what serves, by weighted least squares; drawn towards a level one where few do.
  Eigen::Matrix3d normal = Eigen::Matrix3d::Zero();
  double serves = kWidest;
  std::vector<std::pair<const Look*, Vec3>> serving;  // with weight times (1, along x, along y)
  for (const Look& look : *looks) {
    const Vec3 way = look.point - place.point;
    const double far2 = way.squaredNorm(), reach = reach_ * look.radius_m;
    if (far2 >= reach * reach) continue;  // most of them
    const double w = weight_of(std::sqrt(far2), reach);
    if (w <= 0 || tracer.passed(eye, look.point + kLift * look.normal) <= 0) continue;
    serves = std::min(serves, reach);
    const Vec3 row(1, way.dot(x), way.dot(y));
    normal += w * row * row.transpose();
    serving.push_back({&look, w * row});
  }
  std::fill(lux, lux + layers, 0.0);
  if (serving.empty()) {
    const auto nearest = std::min_element(looks->begin(), looks->end(), [&](const Look& a, const Look& b) {
      return (a.point - place.point).norm() / a.radius_m < (b.point - place.point).norm() / b.radius_m;
    });
    for (std::size_t k = 0; k < layers; ++k) lux[k] = double(nearest->lux[k]);
    return;
  }
  constexpr double kLevel = 0.05;
  const double level = kLevel * serves * serves * normal(0, 0);
  normal(1, 1) += level;
  normal(2, 2) += level;
  const Vec3 pick = normal.inverse().row(0);
  double sum = 0;
  std::vector<double> shares;
  for (const auto& [look, row] : serving) {
    shares.push_back(std::max(0.0, pick.dot(row)));
    sum += shares.back();
  }
  for (std::size_t i = 0; i < serving.size(); ++i)
    for (std::size_t k = 0; k < layers; ++k) lux[k] += shares[i] / sum * double(serving[i].first->lux[k]);
}

}  // namespace glow::views
