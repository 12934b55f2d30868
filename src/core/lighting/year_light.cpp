#include "core/lighting/year_light.hpp"

#include <algorithm>
#include <set>

#include "core/space/outside/outside.hpp"
#include "core/transport/exchange/bright_patches.hpp"
#include "core/transport/exchange/patch_response.hpp"

namespace glow::lighting {
namespace {

using sources::DaylightPaths;
using space::YearHour;

constexpr std::size_t kHoursTogether = 64;

/// Calls body(first, count) for runs of hours, side by side.
template <class Body>
void by_hours(std::size_t hours, const Watch& watch, const char* stage, const Body& body) {
  parallel_for((hours + kHoursTogether - 1) / kHoursTogether, watch, stage, [&](std::size_t block) {
    const std::size_t first = block * kHoursTogether;
    body(Eigen::Index(first), Eigen::Index(std::min(kHoursTogether, hours - first)));
  });
}

/// Patches that pass on light from outside: as bright as a sky, and met by few rays of a far receiver. None
/// where there are mirrors: rays see them over those as well.
std::vector<int> scattering_panes(const transport::Transport& transport) {
  std::vector<int> panes;
  const auto& patches = transport.patches();
  for (const geometry::Surface& surface : transport.geometry().surfaces())
    if (surface.material.mirror > 0) return panes;
  for (std::size_t i = 0; i < patches.size(); ++i) {
    const int other = patches.patches()[i].other_side;
    if (other >= 0 && patches.patches()[i].full_cell && transport.exchange().passing[other] > 0)
      panes.push_back(int(i));
  }
  return panes;
}

bool hangs_at(const space::Space& space, const space::Opening& opening, const std::string& state) {
  const auto is_it = [&](const model::Shade& screen) { return screen.state == state; };
  if (std::any_of(opening.screens.begin(), opening.screens.end(), is_it)) return true;
  return std::any_of(space.outside_parts.begin(), space.outside_parts.end(), [&](const auto& part) {
    return part.is_shade && part.state == state && part.opening == opening.name;
  });
}

}  // namespace

/// Some openings in certain states.
class YearLight::Part {
 public:
  Part(const space::Space& space, const transport::Transport& transport, const space::YearPlan& plan,
       const std::vector<std::string>& states, const Daylight::OpeningChoice& only, const Watch& watch)
      : plan_(&plan),
        transport_(&transport),
        day_(space, transport, states, watch, only),
        response_(day_.outdoors().response()),
        onto_(day_.paths().onto_patches()) {
    const std::size_t hours = plan.hours.size();
    sun_inside_.resize(hours);
    sun_outside_.resize(Eigen::Index(day_.outdoors().built()), Eigen::Index(hours));
    parallel_for(hours, watch, "sun of the year", [&](std::size_t h) {
      const YearHour& hour = plan.hours[h];
      if (hour.sun_normal_lx <= 0) {
        sun_outside_.col(Eigen::Index(h)).setZero();
        return;
      }
      sun_inside_[h] = day_.paths().sun_inside(hour.sun, h);
      const std::vector<float> outside = day_.outdoors().sun_on_built(hour.sun, h);
      for (std::size_t i = 0; i < outside.size(); ++i)
        sun_outside_(Eigen::Index(i), Eigen::Index(h)) = float(hour.sun_normal_lx) * outside[i];
    });
  }

  /// Straight sun, lx: receivers by hours.
  Eigen::MatrixXf sun(const std::vector<std::size_t>& receivers, const Watch& watch) const {
    Eigen::MatrixXf lux =
        Eigen::MatrixXf::Zero(Eigen::Index(receivers.size()), Eigen::Index(plan_->hours.size()));
    by_hours(plan_->hours.size(), watch, "sun of the year", [&](Eigen::Index first, Eigen::Index count) {
      for (Eigen::Index h = first; h < first + count; ++h) {
        const YearHour& hour = plan_->hours[std::size_t(h)];
        if (hour.sun_normal_lx <= 0) continue;
        for (std::size_t r = 0; r < receivers.size(); ++r)
          lux(Eigen::Index(r), h) = float(hour.sun_normal_lx * day_.paths().sun_at(receivers[r], hour.sun));
      }
    });
    return lux;
  }

  /// All of its light, lx: receivers by hours. `reach`: lx at each receiver, a row each, for a lumen arriving
  /// on each patch; `outside`: cd/m2 of sky and ground by hours; `sun`: of `sun`.
  Eigen::MatrixXf light(const std::vector<std::size_t>& receivers, const Eigen::MatrixXf& reach,
                        const Eigen::MatrixXf& outside, const Eigen::MatrixXf& sun,
                        const Watch& watch) const {
    Eigen::MatrixXf of_targets = coefficients(receivers, reach);
    const Eigen::MatrixXf of_sun_outside = day_.outdoors().fold_built(of_targets, *response_, watch);
    Eigen::MatrixXf lux = sun;
    by_hours(plan_->hours.size(), watch, "hours of the year", [&](Eigen::Index first, Eigen::Index count) {
      lux.middleCols(first, count).noalias() += of_targets * outside.middleCols(first, count);
      if (of_sun_outside.cols() > 0)
        lux.middleCols(first, count).noalias() += of_sun_outside * sun_outside_.middleCols(first, count);
      for (Eigen::Index h = first; h < first + count; ++h)
        for (const DaylightPaths::SunOnPatch& sunny : sun_inside_[std::size_t(h)])
          lux.col(h) += float(plan_->hours[std::size_t(h)].sun_normal_lx) * sunny.lm * reach.col(sunny.patch);
    });
    return lux;
  }

  /// Its part of the mean, where `counts` says which hours; `outside`: cd/m2 of sky and ground by hours.
  sources::DayInflow mean(const std::vector<char>& counts, const Eigen::MatrixXf& outside,
                          const Watch& watch) const {
    Eigen::VectorXd seen = Eigen::VectorXd::Zero(outside.rows());
    Eigen::VectorXf lm = Eigen::VectorXf::Zero(Eigen::Index(transport_->patches().size()));
    Eigen::VectorXf sun_outside = Eigen::VectorXf::Zero(sun_outside_.rows());
    const double each = 1.0 / plan_->used_hours;
    for (std::size_t h = 0; h < plan_->hours.size(); ++h) {
      if (!counts[h]) continue;
      seen += each * outside.col(Eigen::Index(h)).cast<double>();
      sun_outside += float(each) * sun_outside_.col(Eigen::Index(h));
      for (const DaylightPaths::SunOnPatch& sunny : sun_inside_[h])
        lm[sunny.patch] += float(each * plan_->hours[h].sun_normal_lx) * sunny.lm;
    }
    Eigen::VectorXf lux = Eigen::VectorXf::Zero(Eigen::Index(transport_->receivers().size()));
    parallel_for(std::size_t(lux.size()), watch, "sun of the year", [&](std::size_t r) {
      double sum = 0;
      for (std::size_t h = 0; h < plan_->hours.size(); ++h)
        if (counts[h] && plan_->hours[h].sun_normal_lx > 0)
          sum += plan_->hours[h].sun_normal_lx * day_.paths().sun_at(r, plan_->hours[h].sun);
      lux[Eigen::Index(r)] = float(each * sum);
    });
    return day_.paths().on_average(day_.outdoors().with_built(seen, sun_outside, *response_, watch), lm, lux,
                                   watch);
  }

 private:
  /// lx at each receiver, a row each, for each cd/m2 of everything outside.
  Eigen::MatrixXf coefficients(const std::vector<std::size_t>& receivers,
                               const Eigen::MatrixXf& reach) const {
    Eigen::MatrixXf all = Eigen::MatrixXf::Zero(Eigen::Index(receivers.size()), onto_.cols());
    std::vector<float> own;
    for (std::size_t r = 0; r < receivers.size(); ++r) {
      own.assign(std::size_t(onto_.cols()), 0.0f);
      day_.paths().add_straight(receivers[r], own.data());
      all.row(Eigen::Index(r)) = Eigen::Map<const Eigen::RowVectorXf>(own.data(), onto_.cols());
    }
    for (Eigen::Index i = 0; i < onto_.rows(); ++i)
      for (Eigen::SparseMatrix<float, Eigen::RowMajor>::InnerIterator entry(onto_, i); entry; ++entry)
        all.col(entry.col()) += entry.value() * reach.col(i);
    return all;
  }

  const space::YearPlan* plan_;
  const transport::Transport* transport_;
  Daylight day_;
  std::unique_ptr<const transport::PatchResponse> response_;  // of what is built outside
  Eigen::SparseMatrix<float, Eigen::RowMajor> onto_;
  std::vector<std::vector<DaylightPaths::SunOnPatch>> sun_inside_;  // by hours, for each lx
  Eigen::MatrixXf sun_outside_;                                     // lm on what is built, by hours
};

YearLight::~YearLight() = default;

bool YearLight::has_blinds() const {
  return closed_.size() > 1;
}

YearLight::YearLight(const space::Space& space, const transport::Transport& transport,
                     const space::YearPlan& plan, const std::vector<std::size_t>& rule_points,
                     const Watch& watch)
    : transport_(&transport),
      plan_(&plan),
      response_(
          std::make_unique<const transport::PatchResponse>(transport.patches(), transport.exchange(), true)) {
  const auto group_of = [&](const space::Opening& opening) {
    for (std::size_t s = 0; s < plan.blinds.states.size(); ++s)
      if (hangs_at(space, opening, plan.blinds.states[s])) return s + 1;
    return std::size_t(0);
  };
  std::set<std::size_t> groups = {0};
  for (const space::Opening& opening : space.openings) groups.insert(group_of(opening));
  hours_down_.assign(plan.blinds.states.size(), 0);
  for (const std::size_t group : groups) {
    const auto only = [&](const space::Opening& opening) { return group_of(opening) == group; };
    parts_.push_back(std::make_unique<const Part>(space, transport, plan, plan.states, only, watch));
    std::vector<char>& down = down_.emplace_back(plan.hours.size(), 0);
    closed_.emplace_back();
    if (group == 0) continue;
    std::vector<std::string> states = plan.states;
    states.push_back(plan.blinds.states[group - 1]);
    closed_.back() = std::make_unique<const Part>(space, transport, plan, states, only, watch);
    const Eigen::MatrixXf sun = parts_.back()->sun(rule_points, watch);
    for (std::size_t h = 0; h < plan.hours.size(); ++h) {
      const auto strong = (sun.col(Eigen::Index(h)).array() >= float(plan.blinds.sun_lx)).count();
      down[h] = double(strong) > plan.blinds.share * double(rule_points.size());
      hours_down_[group - 1] += down[h] && plan.hours[h].is_used;
    }
  }
  outside_ = skies(space.ground_reflectance, watch);
}

Eigen::MatrixXf YearLight::skies(double ground_reflectance, const Watch& watch) const {
  const daylight::SkyPatches patches;
  const Eigen::Index sky = Eigen::Index(patches.size());
  Eigen::MatrixXf seen(sky + 1, Eigen::Index(plan_->hours.size()));
  parallel_for(plan_->hours.size(), watch, "skies of the year", [&](std::size_t h) {
    const YearHour& hour = plan_->hours[h];
    patches.all_weather(hour.shape, hour.sun, hour.diffuse_lx, seen.col(Eigen::Index(h)).data());
    seen(sky, Eigen::Index(h)) = float(ground_reflectance * hour.open_lx() / kPi);
  });
  return seen;
}

/// lx at receivers, a row each, by way of surfaces, for a lumen that arrives on each patch.
Eigen::MatrixXf YearLight::reach(const std::vector<std::size_t>& receivers, const Watch& watch) const {
  const transport::TracedHits& hits = transport_->hits();
  const transport::Exchange& exchange = transport_->exchange();
  const Eigen::Index n = Eigen::Index(transport_->patches().size());
  Eigen::MatrixXf seen = Eigen::MatrixXf::Zero(n, Eigen::Index(receivers.size()));
  const std::vector<int> panes = scattering_panes(*transport_);
  parallel_for(receivers.size(), watch, "light of surfaces", [&](std::size_t r) {
    const Eigen::Index column = Eigen::Index(r);
    const readings::Receiver& receiver = transport_->receivers()[receivers[r]];
    const std::int32_t* ray = hits.of_receiver(receivers[r]);
    const std::int64_t rays = hits.rays_of_receiver(receivers[r]);
    for (std::int64_t k = 0; k < rays; ++k)
      if (ray[k] >= 0) seen(ray[k], column) += 1.0f / float(rays);
    for (const int pane : panes)
      if (transport::is_far(transport_->patches(), receiver, pane))
        seen(pane, column) =
            float(transport::lux_by_sight(transport_->patches(), transport_->tracer(), receiver, pane));
  });
  Eigen::VectorXf lands = (exchange.visible_area_m2.array() > 0).cast<float>().matrix();
  if (exchange.straight.landing.size() > 0)
    lands = lands.cwiseProduct(exchange.straight.landing.cast<float>());
  return (lands.asDiagonal() * response_->leaving(seen, watch)).transpose();
}

YearLight::Hours YearLight::at(const std::vector<std::size_t>& receivers, const Watch& watch) const {
  const Eigen::MatrixXf reached = reach(receivers, watch);
  Hours hours;
  for (std::size_t p = 0; p < parts_.size(); ++p) {
    const Eigen::MatrixXf sun = parts_[p]->sun(receivers, watch);
    const Eigen::MatrixXf open = parts_[p]->light(receivers, reached, outside_, sun, watch);
    if (p == 0) {
      hours.open = open;
      hours.sun = sun;
      if (has_blinds()) hours.used = open;
      continue;
    }
    hours.open += open;
    hours.sun += sun;
    const Eigen::MatrixXf closed =
        closed_[p]->light(receivers, reached, outside_, closed_[p]->sun(receivers, watch), watch);
    for (std::size_t h = 0; h < down_[p].size(); ++h)
      hours.used.col(Eigen::Index(h)) += (down_[p][h] ? closed : open).col(Eigen::Index(h));
  }
  return hours;
}

MomentLight YearLight::mean(const Watch& watch) const {
  sources::DayInflow all;
  const auto add = [&](const Part& part, const std::vector<char>& counts) {
    sources::DayInflow own = part.mean(counts, outside_, watch);
    if (all.parts.empty()) {
      all = std::move(own);
      return;
    }
    all.inflow.on_patches.add(own.inflow.on_patches);
    all.inflow.emitted_lm += own.inflow.emitted_lm;
    for (std::size_t r = 0; r < all.parts.size(); ++r) {
      all.inflow.direct_lx[r] += own.inflow.direct_lx[r];
      all.inflow.error_lx[r] += own.inflow.error_lx[r];
      all.parts[r].sun += own.parts[r].sun;
      all.parts[r].sky += own.parts[r].sky;
      all.parts[r].outside += own.parts[r].outside;
    }
  };
  for (std::size_t p = 0; p < parts_.size(); ++p) {
    std::vector<char> open(plan_->hours.size()), closed = open;
    for (std::size_t h = 0; h < open.size(); ++h) {
      open[h] = plan_->hours[h].is_used && !down_[p][h];
      closed[h] = plan_->hours[h].is_used && down_[p][h];
    }
    add(*parts_[p], open);
    if (closed_[p]) add(*closed_[p], closed);
  }
  return {transport_->carry(std::move(all.inflow), watch), std::move(all.parts)};
}

}  // namespace glow::lighting
