#include "core/studies/tolerance.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include "core/sources/direct/direct_light.hpp"
#include "core/studies/trials.hpp"
#include "core/transport/exchange/light_balance.hpp"
#include "core/transport/tracing/sampling.hpp"

namespace glow::studies {
namespace {

constexpr double kCut = 3;  // standard deviations
constexpr double kLeastReflectance = 0.02, kMostReflectance = 0.95;
constexpr double kStep = 0.01;  // m: of differences
constexpr double kLow = 0.05, kHigh = 0.95;
constexpr double kNearWorst = 3;  // UGR: views that may become the worst one

/// Numbers of a normal distribution, by sample and by what they are for; no state, so no order matters.
class Normal {
 public:
  Normal(std::uint64_t seed, std::size_t sample) : seed_(transport::mixed(seed, sample)) {}
  double next() {
    const double u = std::max(1e-300, transport::unit_interval(transport::mixed(seed_, 2 * count_)));
    const double v = transport::unit_interval(transport::mixed(seed_, 2 * count_ + 1));
    ++count_;
    return std::clamp(std::sqrt(-2 * std::log(u)) * std::cos(2 * kPi * v), -kCut, kCut);  // Box and Muller
  }

 private:
  std::uint64_t seed_, count_ = 0;
};

/// Change of the light that comes straight at the judged receivers, lx for each m that a luminaire moves.
struct Moves {
  std::array<std::vector<float>, 3> per_m;
};

class ToleranceStudy {
 public:
  ToleranceStudy(const StudiedRoom& room, const model::ToleranceWish& wish)
      : room_(room), transport_(room.setting.transport()), wish_(wish) {
    scope_.judged_only = true;
    choose_receivers();
  }

  RoomTolerance run() {
    RoomTolerance result;
    if (receivers_.empty()) return result;
    light_groups();
    samples_.resize(std::size_t(wish_.samples));
    parallel_for(samples_.size(), room_.watch, "possible rooms",
                 [&](std::size_t s) { samples_[s] = sample(s); });
    return counted();
  }

 private:
  struct Group {
    Eigen::VectorXd patch_flux;
    std::vector<double> direct, mirrored;  ///< at the receivers that count
    std::vector<Moves> moves;              ///< of each luminaire
  };

  void choose_receivers();
  void light_groups();
  Moves moves_of(const photometry::PlacedLuminaire& luminaire) const;
  Eigen::VectorXd shifted_reflectance(Normal& normal) const;
  assess::LitRoom drawn(std::size_t number) const;
  std::vector<double> reflected(const Eigen::VectorXd& on_patches, const Eigen::VectorXd& reflectance) const;
  std::vector<double> sample(std::size_t number) const;
  RoomTolerance counted() const;

  const StudiedRoom& room_;
  const transport::Transport& transport_;
  const model::ToleranceWish& wish_;
  assess::Scope scope_;
  std::vector<std::size_t> receivers_;  ///< that count: points that are judged, then eyes
  std::size_t judged_ = 0;              ///< number of the former
  std::vector<Group> groups_;
  std::vector<std::vector<double>> samples_;  ///< values of the checks
};

void ToleranceStudy::choose_receivers() {
  std::vector<bool> taken(transport_.receivers().size(), false);
  const auto take = [&](std::size_t r) {
    if (!taken[r]) receivers_.push_back(r);
    taken[r] = true;
  };
  for (const auto& judged : room_.setting.judged())
    for (const std::size_t r : judged.receivers) take(r);
  judged_ = receivers_.size();
  scope_.ratings = false;
  scope_.views.emplace();
  for (std::size_t s = 0; s < room_.assessment.glare.sets.size(); ++s) {
    const assess::EyeSetGlare& set = room_.assessment.glare.sets[s];
    if (!set.worst || !set.set.verified) continue;
    const double worst = *set.views[*set.worst].ugr;
    for (std::size_t v = 0; v < set.views.size(); ++v) {
      if (!set.views[v].ugr || *set.views[v].ugr < worst - kNearWorst) continue;
      (*scope_.views)[s].push_back(v);
      take(room_.setting.plan().views[s][v]);
    }
  }
}

/// As if nothing were hidden, times the share that is not: a recessed luminaire a little higher would be
/// behind the ceiling.
Moves ToleranceStudy::moves_of(const photometry::PlacedLuminaire& luminaire) const {
  const sources::DirectLight shaded(luminaire, &transport_.tracer(), &transport_.occluders());
  const sources::DirectLight open(luminaire, nullptr);
  std::vector<double> seen(judged_, 0.0), as_it_is = seen;
  parallel_for(judged_, room_.watch, "luminaires moved", [&](std::size_t j) {
    const readings::Receiver& receiver = transport_.receivers()[receivers_[j]];
    as_it_is[j] = open.illuminance(receiver);
    seen[j] = as_it_is[j] > 0 ? shaded.illuminance(receiver) / as_it_is[j] : 0;
  });
  Moves moves;
  for (int axis = 0; axis < 3; ++axis) {
    photometry::PlacedLuminaire before = luminaire, after = luminaire;
    before.frame.origin[axis] -= kStep;
    after.frame.origin[axis] += kStep;
    const sources::DirectLight low(before, nullptr), high(after, nullptr);
    std::vector<float>& per_m = moves.per_m[std::size_t(axis)];
    per_m.resize(judged_);
    parallel_for(judged_, room_.watch, "luminaires moved", [&](std::size_t j) {
      const readings::Receiver& receiver = transport_.receivers()[receivers_[j]];
      // Where a luminaire all but touches a point its light is no straight line of its place.
      const double change = high.illuminance(receiver) - low.illuminance(receiver);
      per_m[j] = float(seen[j] * std::clamp(change, -as_it_is[j], as_it_is[j]) / (2 * kStep));
    });
  }
  return moves;
}

void ToleranceStudy::light_groups() {
  for (std::size_t g = 0; g < room_.space().groups.size(); ++g) {
    const transport::GroupLight& light = room_.lighting.sources()[g];
    Group group;
    group.patch_flux = light.on_patches.mean_lm;
    const transport::LightBalance balance(transport_.patches(), transport_.exchange());
    const std::vector<double> reflected = transport_.reflected_at(
        receivers_,
        balance.leaving(group.patch_flux, light.patch_irradiance_lx, transport_.exchange().reflectance));
    for (std::size_t j = 0; j < receivers_.size(); ++j) {
      group.direct.push_back(light.direct_lx[receivers_[j]]);
      group.mirrored.push_back(light.interreflected_lx[receivers_[j]] - reflected[j]);
    }
    if (wish_.mounting_m > 0)
      for (const photometry::PlacedLuminaire& luminaire : room_.space().groups[g].luminaires)
        group.moves.push_back(moves_of(luminaire));
    groups_.push_back(std::move(group));
  }
}

Eigen::VectorXd ToleranceStudy::shifted_reflectance(Normal& normal) const {
  using geometry::SurfaceRole;
  const double ceiling = wish_.reflectance * normal.next(), walls = wish_.reflectance * normal.next(),
               floor = wish_.reflectance * normal.next();
  const transport::PatchSet& patches = transport_.patches();
  Eigen::VectorXd reflectance = transport_.exchange().reflectance;
  for (std::size_t i = 0; i < patches.size(); ++i) {
    const geometry::Surface& surface =
        transport_.geometry().surfaces()[std::size_t(patches.patches()[i].surface)];
    const double shift = surface.role == SurfaceRole::wall      ? walls
                         : surface.role == SurfaceRole::ceiling ? ceiling
                         : surface.role == SurfaceRole::floor   ? floor
                                                                : 0;
    if (shift == 0 || surface.material.diffuse <= 0) continue;
    reflectance[Eigen::Index(i)] =
        surface.material.diffuse_shifted(shift, kLeastReflectance, kMostReflectance) /
        surface.material.landing();
  }
  return reflectance;
}

std::vector<double> ToleranceStudy::reflected(const Eigen::VectorXd& on_patches,
                                              const Eigen::VectorXd& reflectance) const {
  double residual = 0;
  const transport::LightBalance balance(transport_.patches(), transport_.exchange());
  const Eigen::VectorXd on_surfaces = balance.solve(on_patches, reflectance, residual);
  return transport_.reflected_at(receivers_, balance.leaving(on_patches, on_surfaces, reflectance));
}

/// One possible built room: its light where it counts, and what its luminaires give.
assess::LitRoom ToleranceStudy::drawn(std::size_t number) const {
  Normal normal(wish_.seed, number);
  const double maintenance = std::max(0.0, 1 + wish_.maintenance * normal.next());
  const Eigen::VectorXd reflectance = shifted_reflectance(normal);
  std::map<std::string, double> flux;
  const Eigen::VectorXd dark = Eigen::VectorXd::Zero(Eigen::Index(transport_.patches().size()));
  Eigen::VectorXd on_patches = dark, initial_on_patches = dark;
  std::vector<double> straight(receivers_.size(), 0.0), mirrored = straight;
  assess::LitRoom lit{&room_.space().groups, room_.lit.weights, {}};
  for (std::size_t g = 0; g < groups_.size(); ++g) {
    const Group& group = groups_[g];
    const std::string& mark = room_.space().groups[g].mark;
    if (!flux.count(mark)) flux[mark] = std::max(0.0, 1 + wish_.flux * normal.next());
    const double weight = lit.weights[g].maintained() * maintenance * flux[mark];
    lit.weights[g].output *= flux[mark];
    on_patches += weight * group.patch_flux;
    initial_on_patches += lit.weights[g].output * group.patch_flux;
    for (std::size_t j = 0; j < receivers_.size(); ++j) {
      straight[j] += weight * (group.direct[j] + group.mirrored[j]);
      mirrored[j] += lit.weights[g].output * group.mirrored[j];
    }
    for (const Moves& moves : group.moves)
      for (const std::vector<float>& per_m : moves.per_m) {
        const double step = weight * wish_.mounting_m * normal.next();
        for (std::size_t j = 0; j < judged_; ++j) straight[j] += step * double(per_m[j]);
      }
  }
  lighting::RoomLight& light = lit.light;
  light.maintained.direct_lx.assign(transport_.receivers().size(), 0.0);
  light.maintained.interreflected_lx = light.initial_lx = light.initial_indirect_lx =
      light.maintained.direct_lx;
  const std::vector<double> by_surfaces = reflected(on_patches, reflectance);
  for (std::size_t j = 0; j < judged_; ++j)
    light.maintained.direct_lx[receivers_[j]] = std::max(0.0, straight[j] + by_surfaces[j]);
  if (receivers_.size() == judged_) return lit;
  const std::vector<double> before_eyes = reflected(initial_on_patches, reflectance);
  for (std::size_t j = judged_; j < receivers_.size(); ++j)
    light.initial_indirect_lx[receivers_[j]] = mirrored[j] + before_eyes[j];
  return lit;
}

std::vector<double> ToleranceStudy::sample(std::size_t number) const {
  const Watch quiet{nullptr, room_.watch.cancel};
  const assess::Assessment built =
      assess::assess(room_.setting, room_.eyes, drawn(number), nullptr, scope_, quiet);
  std::vector<double> values;
  for (const standards::Check& check : room_.assessment.checks) {
    const standards::Check* then = same_check(built, check);
    values.push_back(then ? then->actual : check.actual);
  }
  return values;
}

RoomTolerance ToleranceStudy::counted() const {
  const std::vector<standards::Check>& checks = room_.assessment.checks;
  RoomTolerance result;
  std::size_t all = 0;
  for (const std::vector<double>& values : samples_) {
    bool met = true;
    for (std::size_t c = 0; c < values.size(); ++c)
      met = met && (!checks[c].binding || checks[c].would_meet(values[c]));
    all += met;
  }
  result.samples = samples_.size();
  result.share = double(all) / double(samples_.size());
  for (std::size_t c = 0; c < checks.size(); ++c) {
    result.checks.emplace_back();
    // What other rooms would have besides: the colour of light stays as it is.
    const bool varied =
        checks[c].target.kind == standards::Target::Kind::grid ||
        checks[c].target.kind == standards::Target::Kind::light ||
        (checks[c].demand.quantity == standards::Quantity::unified_glare && checks[c].binding);
    if (!varied) continue;
    std::vector<double> values;
    std::size_t met = 0;
    for (const std::vector<double>& sample : samples_) {
      values.push_back(sample[c]);
      met += checks[c].would_meet(sample[c]);
    }
    std::sort(values.begin(), values.end());
    const auto at = [&](double share) {
      return values[std::size_t(share * double(values.size() - 1) + 0.5)];
    };
    result.checks.back() = CheckTolerance{double(met) / double(values.size()), at(kLow), at(kHigh)};
  }
  return result;
}

}  // namespace

RoomTolerance study_tolerance(const StudiedRoom& room, const model::ToleranceWish& wish) {
  return ToleranceStudy(room, wish).run();
}

}  // namespace glow::studies
