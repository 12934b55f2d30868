#include "core/transport/patch_light.hpp"

#include <algorithm>
#include <cmath>

#include "core/transport/emission.hpp"

namespace glow::transport {
namespace {

constexpr double kCaptureTolerance = 0.01;        // share of the flux that points on patches may miss
constexpr double kCaptureToleranceShaded = 0.03;  // the same where sight lines are left to chance
constexpr int kRaysPerSet = 1 << 12;              // of a luminaire that is traced out, with normal effort
constexpr std::size_t kPatchesTogether = 64;      // one task's share
constexpr int kFinest = 8;                        // most subdivisions of a patch along each side
constexpr double kNear = 1.0;  // a patch is divided until its parts are below this times the distance
constexpr double kFar = 0.3;   // patch diagonal over distance below which one point stands for it
constexpr int kAttempts = 8;   // to find a spot in front of a patch
constexpr int kProbes = 4;     // sight lines that tell whether a patch is partly hidden
constexpr double kGauss = 0.28867513459481287;

int rays_per_set(const Effort& effort) {
  const Effort normal = Effort::normal();
  const double finer =
      double(effort.patches) / normal.patches * effort.rays_per_patch / normal.rays_per_patch;
  return std::clamp(static_cast<int>(kRaysPerSet * finer), 1 << 10, 1 << 18);
}

/// Light of one luminaire on patches.
struct Direct {
  const PatchSet& patches;
  const DirectLight& light;  ///< as if nothing were hidden
  std::uint64_t seed;

  /// Whether the whole patch lies above a flat luminous area that shines downwards only (as it hangs at
  /// rest).
  bool above_downlight(const Patch& patch, const geometry::Facet& facet) const {
    const auto& faces = light.surface().faces();
    if (light.luminaire().table->upward_flux() > 0 || light.surface().closed()) return false;
    if (!faces.empty() && faces[0].z.z() != 1) return false;
    const geometry::Frame& f = light.luminaire().frame;
    const auto below = [&](double u, double v) { return (facet.at(u, v) - f.origin).dot(f.g0) > 0; };
    return !below(patch.low.x(), patch.low.y()) && !below(patch.high.x(), patch.low.y()) &&
           !below(patch.low.x(), patch.high.y()) && !below(patch.high.x(), patch.high.y());
  }

  /// lm, if nothing is hidden.
  double flux_on(std::size_t i) const {
    const Patch& patch = patches.patches()[i];
    const geometry::Facet& facet = patches.facet_of(patch);
    if (above_downlight(patch, facet)) return 0;
    const Vec2 size = patch.high - patch.low;
    // A sight line to the middle is enough where the patch is small against its distance.
    const double diagonal = size.norm();
    const double far = (patch.centre - light.luminaire().frame.origin).norm() - light.surface().reach_m();
    if (patch.full_cell && diagonal < kFar * (far - diagonal / 2))
      return light.plane_illuminance(patch.centre, facet.normal) * patch.area_m2;
    const double distance = distance_to(patch, facet);
    if (patch.full_cell && diagonal < kFar * distance)
      return light.plane_illuminance(patch.centre, facet.normal) * patch.area_m2;
    const double wanted = size.maxCoeff() / (kNear * std::max(distance, 1e-3));
    const int parts = std::clamp(static_cast<int>(std::ceil(wanted)), 1, kFinest);
    return patch.full_cell ? on_cell(patch, facet, parts) : on_triangles(patch, facet, parts);
  }

  /// About the shortest way between the patch and the luminous surface, m.
  double distance_to(const Patch& patch, const geometry::Facet& facet) const {
    const photometry::PlacedLuminaire& luminaire = light.luminaire();
    const geometry::Frame& f = luminaire.frame;
    const Vec2 half(luminaire.area.extent_c0_m / 2, luminaire.area.extent_c90_m / 2);
    const Vec3 way = patch.centre - f.origin;
    const Vec2 spot = Vec2(way.dot(f.c0), way.dot(f.c90)).cwiseMax(-half).cwiseMin(half);
    const Vec3 nearest = f.origin + spot.x() * f.c0 + spot.y() * f.c90;
    const Vec2 on_facet = facet.local(nearest);
    const Vec2 on_patch = on_facet.cwiseMax(patch.low).cwiseMin(patch.high);
    const double above = facet.normal.dot(nearest - facet.origin);
    return std::sqrt((on_facet - on_patch).squaredNorm() + above * above);
  }

  double on_cell(const Patch& patch, const geometry::Facet& facet, int parts) const {
    const Vec2 step = (patch.high - patch.low) / parts;
    double sum = 0;
    for (int j = 0; j < parts; ++j)
      for (int i = 0; i < parts; ++i)
        for (const double s : {0.5 - kGauss, 0.5 + kGauss})
          for (const double t : {0.5 - kGauss, 0.5 + kGauss})
            sum += light.plane_illuminance(
                facet.at(patch.low.x() + (i + s) * step.x(), patch.low.y() + (j + t) * step.y()),
                facet.normal);
    return sum / (4.0 * parts * parts) * patch.area_m2;
  }

  /// Three points at (2/3, 1/6, 1/6): exact for quadratics, as Gauss's points on a cell are for cubics.
  double on_triangles(const Patch& patch, const geometry::Facet& facet, int parts) const {
    double sum = 0;
    for (std::uint32_t k = patch.first_triangle; k < patch.first_triangle + patch.triangle_count; ++k) {
      const PatchTriangle& triangle = patches.triangles()[k];
      const Vec2 u = (triangle.b - triangle.a) / parts, v = (triangle.c - triangle.a) / parts;
      double mean = 0;
      const auto small = [&](const Vec2& corner, double sign) {
        for (const auto& [p, q] : {std::pair{1 / 6.0, 1 / 6.0}, {2 / 3.0, 1 / 6.0}, {1 / 6.0, 2 / 3.0}}) {
          const Vec2 at = corner + sign * (p * u + q * v);
          mean += light.plane_illuminance(facet.at(at.x(), at.y()), facet.normal);
        }
      };
      for (int j = 0; j < parts; ++j)
        for (int i = 0; i + j < parts; ++i) {
          small(triangle.a + i * u + j * v, 1);
          if (i + j + 1 < parts) small(triangle.a + (i + 1) * u + (j + 1) * v, -1);
        }
      sum += mean / (3.0 * parts * parts) * triangle.area_m2;
    }
    return sum;
  }

  /// The same for all sets. Where the first kProbes lines agree the patch is taken as all lit or all hidden.
  std::array<float, kSets> seen_in_sets(const geometry::RayTracer& tracer, const Occluders& occluders,
                                        std::size_t i) const {
    std::array<float, kSets> result;
    const Patch& patch = patches.patches()[i];
    const double radius = std::max((patch.high - patch.low).norm() / 2, light.surface().reach_m());
    result.fill(1.0f);
    if (!occluders.may_block(patch.centre, light.luminaire().frame.origin, radius)) return result;
    bool agree = true;
    for (int set = 0; set < kSets; ++set) {
      result[std::size_t(set)] = set < kProbes || !agree ? seen(tracer, i, set) : result[0];
      if (set < kProbes) agree = agree && result[std::size_t(set)] == result[0];
    }
    return result;
  }

  /// Share of the light that is not hidden, along one sight line between chance spots in set `set`.
  float seen(const geometry::RayTracer& tracer, std::size_t i, int set) const {
    const Patch& patch = patches.patches()[i];
    const geometry::Facet& facet = patches.facet_of(patch);
    const geometry::Frame& f = light.luminaire().frame;
    const std::uint64_t own = mixed(seed ^ 0x7365656Eull, i);
    const Vec2 shift_patch(unit_interval(mixed(own, 1)), unit_interval(mixed(own, 2)));
    const Vec2 shift_spot(unit_interval(mixed(own, 3)), unit_interval(mixed(own, 4)));
    const Vec2 st = spread_point(std::uint32_t(set), shift_patch);
    const Vec3 point =
        patches.point_on(static_cast<int>(i), st.x(), st.y()) + geometry::kStartOffset * facet.normal;
    const Vec3 way = (point - f.origin).normalized();
    const Vec3 along(way.dot(f.c0), way.dot(f.c90), way.dot(f.g0));
    for (int attempt = 0; attempt < kAttempts; ++attempt) {
      const Vec2 uv = spread_point(std::uint32_t(attempt * kSets + set) * 5 + 2, shift_spot);
      const Vec3 at = light.surface().spot_seen(along, uv.x(), uv.y());
      const Vec3 spot = f.origin + at.x() * f.c0 + at.y() * f.c90 + at.z() * f.g0;
      // What lies behind the patch's plane gives it nothing, and is not part of the share.
      if (facet.normal.dot(spot - point) > 0) return tracer.passed(point, spot, light.luminaire().owner);
    }
    return 1;
  }
};

/// Sums over luminaires and sample sets. Sets are kept only from the first one on that differs among them.
class Sum {
 public:
  explicit Sum(std::size_t patches) { light_.flux_lm.setZero(Eigen::Index(patches)); }

  void add(const Eigen::VectorXd& flux) {
    light_.flux_lm += flux;
    if (light_.flux_sets_lm.size() > 0) light_.flux_sets_lm.colwise() += flux.cast<float>();
  }
  void add(const Eigen::MatrixXf& sets) {
    if (light_.flux_sets_lm.size() == 0)
      light_.flux_sets_lm = light_.flux_lm.cast<float>().replicate(1, kSets);
    light_.flux_lm += sets.cast<double>().rowwise().mean();
    light_.flux_sets_lm += sets;
  }
  PatchLight& light() { return light_; }

 private:
  PatchLight light_;
};

/// A luminaire's light, traced out in independent sets; lm, means over the sets.
struct Traced {
  Eigen::MatrixXf straight, mirrored;  ///< per patch and set: without, and after, a mirror on the way
  double escaped = 0;                  ///< leaves an open scene
  double lost = 0;                     ///< starts, or ends, inside something
  double landed_straight() const { return double(straight.sum()) / kSets; }
};

Traced trace_out(const photometry::PlacedLuminaire& luminaire, const PatchSet& patches,
                 const geometry::RayTracer& tracer, int rays_per_set, std::uint64_t seed) {
  Traced traced;
  traced.straight.setZero(Eigen::Index(patches.size()), kSets);
  if (patches.geometry().has_specular()) traced.mirrored.setZero(Eigen::Index(patches.size()), kSets);
  std::array<double, kSets> escaped{}, lost{};
  // The same seeds for every luminaire: what one gives must not depend on which others are there.
  parallel_for(kSets, {}, "", [&](std::size_t set) {
    const Emission emission(luminaire, rays_per_set, mixed(seed, set));
    std::uint64_t number = mixed(seed, 1000 + set);
    for (const EmittedRay& ray : emission.rays()) {
      bool over_mirror = false;
      const std::int32_t patch =
          landing_patch(patches, tracer, tracer.local(ray.origin), ray.direction.cast<float>(), ++number,
                        luminaire.owner, &over_mirror);
      if (patch >= 0)
        (over_mirror ? traced.mirrored : traced.straight)(patch, Eigen::Index(set)) +=
            static_cast<float>(ray.flux_lm);
      else
        (patch == kEscaped ? escaped : lost)[set] += ray.flux_lm;
    }
  });
  for (std::size_t set = 0; set < kSets; ++set) {
    traced.escaped += escaped[set] / kSets;
    traced.lost += lost[set] / kSets;
  }
  return traced;
}

/// What points on the patches find of a luminaire's light, lm.
struct Found {
  Eigen::VectorXd flux;  ///< if nothing is hidden
  Eigen::MatrixXf sets;  ///< what is left of it in each sample set; empty when nothing can be hidden

  bool hides() const { return sets.size() > 0; }
  double sum() const { return hides() ? double(sets.sum()) / kSets : flux.sum(); }
  double tolerance() const { return hides() ? kCaptureToleranceShaded : kCaptureTolerance; }
  /// Scaled to `lm` in all, into `sum`.
  void add_to(Sum& total, double lm) {
    if (!hides()) {
      total.add(Eigen::VectorXd(flux * (lm / sum())));
      return;
    }
    for (Eigen::Index set = 0; set < kSets; ++set)
      sets.col(set) *= float(lm / std::max(double(sets.col(set).sum()), 1e-9 * lm));
    total.add(sets);
  }
};

Found find_at_points(const DirectLight& light, const PatchSet& patches, const Exchange& exchange,
                     const geometry::RayTracer& tracer, const Occluders& occluders, std::uint64_t seed,
                     const Watch& watch) {
  const std::size_t n = patches.size();
  const bool hides = occluders.any();
  const Direct direct{patches, light, seed};
  Found found{Eigen::VectorXd(n), Eigen::MatrixXf(hides ? n : 0, hides ? kSets : 0)};
  const auto on_patch = [&](std::size_t patch) {
    const Eigen::Index i = Eigen::Index(patch);
    const double landing = patches.material_of(patches.patches()[patch]).landing();
    found.flux[i] = exchange.visible_area_m2[i] > 0 ? landing * direct.flux_on(patch) : 0.0;
    if (!hides) return;
    std::array<float, kSets> seen{};
    if (found.flux[i] > 0) seen = direct.seen_in_sets(tracer, occluders, patch);
    for (int set = 0; set < kSets; ++set) found.sets(i, set) = float(found.flux[i]) * seen[std::size_t(set)];
  };
  parallel_for((n + kPatchesTogether - 1) / kPatchesTogether, watch, "light on the surfaces",
               [&](std::size_t block) {
                 const std::size_t first = block * kPatchesTogether;
                 for (std::size_t i = first; i < std::min(n, first + kPatchesTogether); ++i) on_patch(i);
               });
  return found;
}

}  // namespace

PatchLight light_on_patches(const PatchSet& patches, const Exchange& exchange,
                            const geometry::RayTracer& tracer, const Occluders& occluders,
                            const std::vector<photometry::PlacedLuminaire>& luminaires, const Effort& effort,
                            const Watch& watch) {
  Sum sum(patches.size());
  PatchLight& result = sum.light();
  const bool all_straight = exchange.closed && !patches.geometry().has_specular();
  const auto& surfaces = patches.geometry().surfaces();
  const bool has_mirrors =
      std::any_of(surfaces.begin(), surfaces.end(), [](const auto& s) { return s.material.mirror > 0; });
  double caught = 0, expected = 0;
  for (const photometry::PlacedLuminaire& luminaire : luminaires) {
    watch.stop_if_cancelled();
    const double emitted = luminaire.table->flux();
    result.emitted_lm += emitted;
    if (patches.size() == 0) {
      result.escaped_lm += emitted;
      continue;
    }
    const DirectLight light(luminaire, nullptr);
    Found found = find_at_points(light, patches, exchange, tracer, occluders, effort.seed, watch);
    const auto near = [&](double lm) {
      return found.sum() > 0 && std::abs(found.sum() - lm) <= found.tolerance() * emitted;
    };
    if (all_straight && near(emitted)) {
      caught += found.sum();
      expected += emitted;
      found.add_to(sum, emitted);
      continue;
    }
    // To tell how much of the light stays inside fewer rays do than to say where it lands.
    const int full = rays_per_set(effort);
    Traced traced = trace_out(luminaire, patches, tracer, has_mirrors ? full : full / 2, effort.seed);
    if (!has_mirrors && !near(traced.landed_straight()))
      traced = trace_out(luminaire, patches, tracer, full, effort.seed);
    result.escaped_lm += traced.escaped;
    result.lost_lm += traced.lost;
    if (traced.mirrored.size() > 0) sum.add(traced.mirrored);
    const double straight = traced.landed_straight();
    if (!all_straight && near(straight)) {
      caught += found.sum();
      expected += straight;
      found.add_to(sum, straight);
    } else {
      ++result.traced_luminaires;
      sum.add(traced.straight);
    }
  }
  if (expected > 0) result.captured_share = caught / expected;
  return std::move(result);
}

}  // namespace glow::transport
