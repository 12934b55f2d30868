#include "core/studies/tolerance.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include "core/sources/direct_light.hpp"
#include "core/transport/exchange/light_balance.hpp"
#include "core/transport/tracing/sampling.hpp"
#include "core/sources/luminaire_inflow.hpp"

namespace glow::studies {
namespace {

constexpr double kCut = 3;  // standard deviations
constexpr double kLeastReflectance = 0.02, kMostReflectance = 0.95;
constexpr double kStep = 0.01;  // m: of differences
constexpr double kLow = 0.05, kHigh = 0.95;

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
  ToleranceStudy(const space::Space& space, const transport::Transport& transport,
              const std::vector<GridReceivers>& receivers, const model::ToleranceWish& wish, const Watch& watch,
              assess::RoomResult& result)
      : space_(space), transport_(transport), wish_(wish), watch_(watch), result_(result) {
    std::map<std::size_t, std::size_t> place;
    for (const GridReceivers& grid : receivers) {
      grids_.emplace_back();
      for (const std::size_t r : grid.judged) {
        const auto [found, is_new] = place.emplace(r, judged_.size());
        if (is_new) judged_.push_back(r);
        grids_.back().push_back(found->second);
      }
    }
  }

  void run() {
    if (judged_.empty()) return;
    light_groups();
    samples_.resize(std::size_t(wish_.samples));
    parallel_for(samples_.size(), watch_, "possible rooms", [&](std::size_t s) { samples_[s] = sample(s); });
    count();
  }

 private:
  struct Group {
    double weight = 1;
    Eigen::VectorXd patch_flux;
    std::vector<double> direct, mirrored;  ///< at the judged receivers
    std::vector<Moves> moves;              ///< of each luminaire
  };

  void light_groups();
  Moves moves_of(const photometry::PlacedLuminaire& luminaire) const;
  Eigen::VectorXd shifted_reflectance(Normal& normal) const;
  std::vector<double> sample(std::size_t number) const;
  void count();

  const space::Space& space_;
  const transport::Transport& transport_;
  const model::ToleranceWish& wish_;
  const Watch& watch_;
  assess::RoomResult& result_;
  std::vector<std::size_t> judged_;              ///< receivers
  std::vector<std::vector<std::size_t>> grids_;  ///< places in judged_
  std::vector<Group> groups_;
  std::vector<std::vector<double>> samples_;  ///< values of the checks
};

/// As if nothing were hidden, times the share that is not: a recessed luminaire a little higher would be
/// behind the ceiling.
Moves ToleranceStudy::moves_of(const photometry::PlacedLuminaire& luminaire) const {
  const sources::DirectLight shaded(luminaire, &transport_.tracer(), &transport_.occluders());
  const sources::DirectLight open(luminaire, nullptr);
  std::vector<double> seen(judged_.size(), 0.0);
  parallel_for(judged_.size(), watch_, "luminaires moved", [&](std::size_t j) {
    const readings::Receiver& receiver = transport_.receivers()[judged_[j]];
    const double lux = open.illuminance(receiver);
    seen[j] = lux > 0 ? shaded.illuminance(receiver) / lux : 0;
  });
  Moves moves;
  for (int axis = 0; axis < 3; ++axis) {
    photometry::PlacedLuminaire before = luminaire, after = luminaire;
    before.frame.origin[axis] -= kStep;
    after.frame.origin[axis] += kStep;
    const sources::DirectLight low(before, nullptr), high(after, nullptr);
    std::vector<float>& per_m = moves.per_m[std::size_t(axis)];
    per_m.resize(judged_.size());
    parallel_for(judged_.size(), watch_, "luminaires moved", [&](std::size_t j) {
      const readings::Receiver& receiver = transport_.receivers()[judged_[j]];
      per_m[j] = float(seen[j] * (high.illuminance(receiver) - low.illuminance(receiver)) / (2 * kStep));
    });
  }
  return moves;
}

void ToleranceStudy::light_groups() {
  for (const space::LuminaireGroup& source : space_.groups) {
    const transport::GroupLight light = sources::relight(transport_, source.luminaires, watch_);
    Group group;
    group.weight = source.dimming * source.maintenance_factor;
    group.patch_flux = light.on_patches.mean_lm;
    const std::vector<double> reflected = transport_.reflected_at(
        judged_, transport::exitance(transport_.exchange(), transport_.patches(), light.patch_irradiance_lx));
    for (std::size_t j = 0; j < judged_.size(); ++j) {
      group.direct.push_back(light.direct_lx[judged_[j]]);
      group.mirrored.push_back(light.interreflected_lx[judged_[j]] - reflected[j]);
    }
    if (wish_.mounting_m > 0)
      for (const photometry::PlacedLuminaire& luminaire : source.luminaires)
        group.moves.push_back(moves_of(luminaire));
    groups_.push_back(std::move(group));
  }
}

Eigen::VectorXd ToleranceStudy::shifted_reflectance(Normal& normal) const {
  const double ceiling = wish_.reflectance * normal.next(), walls = wish_.reflectance * normal.next(),
               floor = wish_.reflectance * normal.next();
  const transport::PatchSet& patches = transport_.patches();
  Eigen::VectorXd reflectance = transport_.exchange().reflectance;
  for (std::size_t i = 0; i < patches.size(); ++i) {
    const geometry::Surface& surface =
        transport_.geometry().surfaces()[std::size_t(patches.patches()[i].surface)];
    const bool is_wall = std::find(space_.wall_names.begin(), space_.wall_names.end(), surface.name) !=
                         space_.wall_names.end();
    const double shift = is_wall                     ? walls
                         : surface.name == "ceiling" ? ceiling
                         : surface.name == "floor"   ? floor
                                                     : 0;
    if (shift == 0 || surface.material.diffuse <= 0) continue;
    reflectance[Eigen::Index(i)] =
        std::clamp(surface.material.diffuse + shift, kLeastReflectance, kMostReflectance) /
        surface.material.landing();
  }
  return reflectance;
}

std::vector<double> ToleranceStudy::sample(std::size_t number) const {
  Normal normal(wish_.seed, number);
  const double maintenance = std::max(0.0, 1 + wish_.maintenance * normal.next());
  const Eigen::VectorXd reflectance = shifted_reflectance(normal);
  std::map<std::string, double> flux;
  Eigen::VectorXd on_patches = Eigen::VectorXd::Zero(Eigen::Index(transport_.patches().size()));
  std::vector<double> lux(judged_.size(), 0.0);
  for (std::size_t g = 0; g < groups_.size(); ++g) {
    const Group& group = groups_[g];
    const std::string& mark = space_.groups[g].mark;
    if (!flux.count(mark)) flux[mark] = std::max(0.0, 1 + wish_.flux * normal.next());
    const double weight = group.weight * maintenance * flux[mark];
    on_patches += weight * group.patch_flux;
    for (std::size_t j = 0; j < lux.size(); ++j) lux[j] += weight * (group.direct[j] + group.mirrored[j]);
    for (const Moves& moves : group.moves)
      for (const std::vector<float>& per_m : moves.per_m) {
        const double step = weight * wish_.mounting_m * normal.next();
        for (std::size_t j = 0; j < lux.size(); ++j) lux[j] += step * double(per_m[j]);
      }
  }
  double residual = 0;
  const Eigen::VectorXd on_surfaces = transport::LightBalance(transport_.patches(), transport_.exchange())
                                          .solve(on_patches, reflectance, residual);
  const std::vector<double> reflected = transport_.reflected_at(
      judged_, transport::exitance(transport_.exchange(), transport_.patches(), reflectance, on_surfaces));
  for (std::size_t j = 0; j < lux.size(); ++j) lux[j] = std::max(0.0, lux[j] + reflected[j]);

  std::vector<double> values;
  for (const standards::Check& check : result_.checks) {
    std::vector<double> own;
    for (std::size_t g = 0; g < result_.grids.size(); ++g)
      if (!is_glare(check.demand.quantity) && result_.grids[g].name == check.where)
        for (const std::size_t j : grids_[g]) own.push_back(lux[j]);
    values.push_back(own.empty() ? check.actual
                                 : standards::judge(check.demand, readings::statistics(own), {}).actual);
  }
  return values;
}

void ToleranceStudy::count() {
  std::size_t all = 0;
  for (const std::vector<double>& values : samples_) {
    bool met = true;
    for (std::size_t c = 0; c < values.size(); ++c)
      met = met && (!result_.checks[c].binding || result_.checks[c].would_meet(values[c]));
    all += met;
  }
  result_.spread = assess::RoomTolerance{samples_.size(), double(all) / double(samples_.size())};
  for (std::size_t c = 0; c < result_.checks.size(); ++c) {
    if (is_glare(result_.checks[c].demand.quantity)) continue;  // not varied
    std::vector<double> values;
    for (const std::vector<double>& sample : samples_) values.push_back(sample[c]);
    std::sort(values.begin(), values.end());
    const auto at = [&](double share) {
      return values[std::size_t(share * double(values.size() - 1) + 0.5)];
    };
    const auto met =
        values.end() - std::lower_bound(values.begin(), values.end(), result_.checks[c].demand.required);
    result_.checks[c].spread =
        standards::CheckTolerance{double(met) / double(values.size()), at(kLow), at(kHigh)};
  }
}

}  // namespace

void study_tolerance(const space::Space& space, const transport::Transport& transport,
                  const std::vector<GridReceivers>& receivers, const model::ToleranceWish& wish,
                  const Watch& watch, assess::RoomResult& result) {
  ToleranceStudy(space, transport, receivers, wish, watch, result).run();
}

}  // namespace glow::studies
