#include "core/studies/arrangement/field_judge.hpp"

#include <algorithm>
#include <cmath>

#include "core/sources/luminaire_inflow.hpp"
#include "core/studies/repaint.hpp"

namespace glow::studies {
namespace {

using standards::Check;
using standards::Quantity;

constexpr int kDimmingSteps = 12;          // of halving: to a four thousandth
constexpr int kFewerRays = 4;              // of luminaires that are traced out: there are many of them
constexpr double kDirectTolerance = 0.01;  // a share
constexpr double kCalculatedOver = 1.02;   // what a calculation may say more than there is
constexpr double kBetweenPlaces = 1.05;    // what one may give more between places that were looked at

/// Whether more light helps it: other checks have nothing to do with dimming, or like it.
bool asks_for_light(const Check& check) {
  return check.demand.quantity == Quantity::mean_illuminance ||
         check.demand.quantity == Quantity::minimum_illuminance;
}

void add(const FieldLight& light, const FieldLight::Light& one, const lighting::Weight& weight,
         lighting::RoomLight& sum) {
  for (std::size_t k = 0; k < light.receivers().size(); ++k) {
    const std::size_t r = light.receivers()[k];
    const double direct = double(one.direct_lx[Eigen::Index(k)]);
    const double reflected = double(one.reflected_lx[Eigen::Index(k)]);
    sum.maintained.direct_lx[r] += weight.maintained() * direct;
    sum.maintained.interreflected_lx[r] += weight.maintained() * reflected;
    sum.initial_lx[r] += weight.output * (direct + reflected);
    sum.initial_indirect_lx[r] += weight.output * reflected;
  }
}

}  // namespace

const Check* TriedField::tightest() const {
  const Check* tightest = nullptr;
  const auto share = [](const Check& check) {
    return check.margin() / std::max(check.demand.required, 1e-9);
  };
  for (const Check& check : checks) {
    // The light's colour comes with the luminaire: it says something where it is missed, and then only.
    if (check.demand.quantity == Quantity::colour_rendering && check.margin() >= 0) continue;
    if (std::isfinite(check.actual) && (!tightest || share(check) < share(*tightest))) tightest = &check;
  }
  return tightest;
}

double TriedField::times_asked() const {
  double least = INFINITY;
  for (const Check& check : checks)
    if (check.demand.quantity == Quantity::mean_illuminance)
      least = std::min(least, check.actual / check.demand.required);
  return least;
}

double TriedField::in_hand() const {
  const Check* check = tightest();
  return check ? check->margin() / std::max(check->demand.required, 1e-9) : 0;
}

transport::ReceiverChoice FieldJudge::choice_of(const assess::Setting& setting) {
  transport::ReceiverChoice choice = setting.that_count();
  if (setting.brief().glare.rates_gr)
    for (const std::size_t r : setting.readable().front()) choice[r] = true;
  return choice;
}

FieldJudge::FieldJudge(const SearchRoom& room, const model::LuminairePlacement& base,
                       std::shared_ptr<const FieldLight> light)
    : room_(room), base_(base), choice_(choice_of(room.setting)), quick_(std::move(light)) {
  if (const auto* entry = room.project.find(base.mark))
    maintenance_ = model::maintenance_factor(*entry, room.room);
  if (!quick_ && FieldLight::serves(room.setting.transport()))
    quick_ = std::make_shared<const FieldLight>(room.setting.transport(), choice_, room.watch);
}

FieldJudge::Place FieldJudge::place_of(const photometry::PlacedLuminaire& luminaire) {
  const geometry::Frame& f = luminaire.frame;
  return {f.origin.x(), f.origin.y(), f.origin.z(), f.c0.x(), f.c0.y(), f.c0.z()};
}

void FieldJudge::look_at(const std::vector<const LaidField*>& fields) {
  if (!quick_) return;
  std::map<Place, photometry::PlacedLuminaire> fresh;
  for (const LaidField* field : fields)
    for (const photometry::PlacedLuminaire& luminaire : field->group.luminaires)
      if (!known_.count(place_of(luminaire))) fresh.emplace(place_of(luminaire), luminaire);
  std::vector<photometry::PlacedLuminaire> luminaires;
  for (const auto& [place, luminaire] : fresh) luminaires.push_back(luminaire);
  std::vector<FieldLight::Light> lights = quick_->lights(luminaires, room_.watch);
  for (std::size_t i = 0; i < lights.size(); ++i)
    known_.emplace(place_of(luminaires[i]), std::move(lights[i]));
}

assess::Assessment FieldJudge::judged(const assess::LitRoom& lit, bool glare) const {
  assess::Scope scope;
  scope.judged_only = true;
  scope.glare = glare;
  scope.tabular = &tabular_;
  return assess::assess(room_.setting, room_.eyes, lit, nullptr, scope, room_.watch);
}

TriedField FieldJudge::tried(const LaidField& laid, const Field& field,
                             const assess::Assessment& assessment) const {
  TriedField tried{field, {}, 0, true, {}};
  for (const photometry::PlacedLuminaire& luminaire : laid.group.luminaires)
    tried.frames.push_back(luminaire.frame);
  for (const Check& check : assessment.checks) {
    if (!check.binding) continue;
    tried.checks.push_back(check);
    tried.meets = tried.meets && check.would_meet(check.actual);
    if (check.demand.quantity == Quantity::mean_illuminance && tried.mean_lx == 0)
      tried.mean_lx = check.actual;
  }
  return tried;
}

/// What stays, and the field's group, which shines not yet.
assess::LitRoom FieldJudge::with(const LaidField& field, std::vector<space::LuminaireGroup>& groups) const {
  groups = *room_.kept.groups;
  groups.push_back(field.group);
  assess::LitRoom lit = room_.kept;
  lit.groups = &groups;
  lit.weights.push_back({base_.dimming * field.group.share, maintenance_});
  return lit;
}

TriedField FieldJudge::quick(const LaidField& field, bool glare) const {
  std::vector<space::LuminaireGroup> groups;
  assess::LitRoom lit = with(field, groups);
  for (const photometry::PlacedLuminaire& luminaire : field.group.luminaires)
    add(*quick_, known_.at(place_of(luminaire)), lit.weights.back(), lit.light);
  return tried(field, field.field, judged(lit, glare));
}

bool FieldJudge::surely_fails(const TriedField& quick) {
  return std::any_of(quick.checks.begin(), quick.checks.end(), [](const Check& check) {
    if (check.demand.quantity == Quantity::colour_rendering) return false;
    if (check.demand.quantity == Quantity::unified_glare || check.demand.quantity == Quantity::glare_rating)
      return std::isfinite(check.actual) && check.actual > check.demand.required + kGlareMargin;
    if (standards::is_glare(check.demand.quantity)) return !check.would_meet(check.actual);
    const bool mean = check.demand.quantity == Quantity::mean_illuminance;
    return check.actual * (1 + (mean ? kMeanMargin : kPointMargin)) < check.demand.required;
  });
}

std::vector<FieldJudge::OpenField> FieldJudge::open_of(
    const std::vector<const LaidField*>& fields, const std::function<bool(const TriedField&)>& passed_over,
    const std::function<void(const TriedField&)>& failed) {
  std::vector<OpenField> result;
  if (!quick_) {
    for (const LaidField* field : fields) result.push_back({field});
    return result;
  }
  look_at(fields);
  std::vector<std::pair<TriedField, const LaidField*>> open;
  for (const LaidField* field : fields) open.emplace_back(TriedField{}, field);
  for (const bool glare : {false, true}) {
    parallel_for(open.size(), room_.watch, "arrangements",
                 [&](std::size_t i) { open[i].first = quick(*open[i].second, glare); });
    std::vector<std::pair<TriedField, const LaidField*>> left;
    for (auto& each : open) {
      if (surely_fails(each.first)) {
        each.first.meets = false;
        failed(each.first);
      } else if (!passed_over(each.first)) {
        left.push_back(std::move(each));
      }
    }
    open = std::move(left);
  }
  std::stable_sort(open.begin(), open.end(),
                   [](const auto& a, const auto& b) { return a.first.in_hand() > b.first.in_hand(); });
  for (const auto& each : open) result.push_back({each.second, each.first.in_hand()});
  return result;
}

TriedField FieldJudge::calculated(const LaidField& field, double least_dimming) const {
  std::vector<space::LuminaireGroup> groups;
  assess::LitRoom dark = with(field, groups);
  // As surely as the choice between fields needs it.
  transport::Effort effort = room_.setting.transport().effort();
  effort.rays_per_patch /= kFewerRays;
  effort.direct_tolerance = std::max(effort.direct_tolerance, kDirectTolerance);
  const transport::GroupLight light =
      sources::relight(room_.setting.transport(), field.group.luminaires, room_.watch, choice_, effort);
  const auto at = [&](double dimming) {
    assess::LitRoom lit = dark;
    lit.weights.back().output *= dimming;
    lit.light.add(light, lit.weights.back());
    return lit;
  };
  double dimming = 1;
  if (least_dimming < 1) {
    const auto enough = [&](double share) {
      const assess::Assessment a = judged(at(share), false);
      return std::all_of(a.checks.begin(), a.checks.end(), [](const Check& check) {
        return !check.binding || !asks_for_light(check) || check.would_meet(check.actual);
      });
    };
    double low = least_dimming;
    const bool gives_enough = enough(1);
    for (int step = 0; step < kDimmingSteps && gives_enough; ++step) {
      const double middle = (low + dimming) / 2;
      (enough(middle) ? dimming : low) = middle;
    }
    dimming = std::min(1.0, std::ceil(dimming * 100) / 100);  // whole per cent, as one sets it
  }
  Field own = field.field;
  own.dimming = dimming;
  if (own.watts) own.watts = *own.watts * dimming;
  return tried(field, own, judged(at(dimming), true));
}

TriedField FieldJudge::brighter(const LaidField& field, double by) const {
  std::vector<space::LuminaireGroup> groups;
  assess::LitRoom lit = with(field, groups);
  const transport::Transport& transport = room_.setting.transport();
  const transport::GroupLight own = sources::relight(transport, field.group.luminaires, room_.watch, choice_);
  lit.light.add(own, lit.weights.back());
  std::vector<const transport::GroupLight*> sources;
  for (const transport::GroupLight& source : room_.lighting.sources()) sources.push_back(&source);
  sources.push_back(&own);
  lit.light = repainted(transport, sources, lit.weights, lit.light,
                        {{geometry::SurfaceRole::wall, by}, {geometry::SurfaceRole::ceiling, by}}, choice_,
                        room_.watch);
  return tried(field, field.field, judged(lit, true));
}

/// Light falls on a level plane once, and again for what its surroundings throw back: in the mean of the room
/// no more than kAgain times. Points may catch more of it than the room does in the mean, by kCaught.
std::pair<std::size_t, std::optional<Check>> FieldJudge::fewest_by_flux(double flux_lm) const {
  constexpr double kAgain = 2, kCaught = 1.5;
  std::pair<std::size_t, std::optional<Check>> most{1, {}};
  for (const Check& check : means_asked()) {
    if (check.target.id != 0 || flux_lm <= 0) continue;
    const double missing_lm = (check.demand.required - check.actual) * room_.setting.space().floor_area_m2;
    const double fewest = std::ceil(missing_lm / (flux_lm * base_.dimming * maintenance_ * kAgain * kCaught));
    if (fewest > double(most.first)) most = {std::size_t(fewest), check};
  }
  return most;
}

/// What binds of means on grids, with what stays.
std::vector<Check> FieldJudge::means_asked() const {
  std::vector<Check> asked = judged(room_.kept, false).checks;
  const auto is_other = [](const Check& check) {
    return !check.binding || check.target.kind != standards::Target::Kind::grid ||
           check.demand.quantity != Quantity::mean_illuminance;
  };
  asked.erase(std::remove_if(asked.begin(), asked.end(), is_other), asked.end());
  return asked;
}

/// Of the points of its grid, among the receivers that quick light knows.
std::vector<std::size_t> FieldJudge::quick_numbers(const Check& check) const {
  const std::vector<std::size_t>& known = quick_->receivers();  // rising
  std::vector<std::size_t> numbers;
  for (const std::size_t r : room_.setting.judged()[check.target.id].receivers)
    numbers.push_back(std::size_t(std::lower_bound(known.begin(), known.end(), r) - known.begin()));
  return numbers;
}

std::pair<std::size_t, std::optional<Check>> FieldJudge::surely_fewest(
    const std::vector<HangingPlaces>& places) const {
  std::pair<std::size_t, std::optional<Check>> most{1, {}};
  for (const Check& check : means_asked()) {
    const std::vector<std::size_t> numbers = quick_numbers(check);
    if (numbers.empty()) continue;
    std::vector<readings::Receiver> own;
    for (const std::size_t k : numbers)
      own.push_back(room_.setting.transport().receivers()[quick_->receivers()[k]]);
    // Of one luminaire, as new at full output; the check tells nothing new where that many do.
    const double missing_lx =
        (check.demand.required - check.actual) / (base_.dimming * maintenance_ * kCalculatedOver);
    const double reflected_per_lm = quick_->most_reflected_mean(numbers);
    std::vector<double> bounds(places.size());
    parallel_for(places.size(), room_.watch.silent(), "places", [&](std::size_t i) {
      const double reflected = places[i].luminaire.table->flux() * reflected_per_lm;
      const double enough = missing_lx / double(most.first) - reflected;
      bounds[i] = most_straight_mean_lx(places[i], own, enough) + reflected;
    });
    const double one = bounds.empty() ? 0 : *std::max_element(bounds.begin(), bounds.end());
    if (one <= 0) continue;
    const double fewest = std::ceil(missing_lx / one);
    if (fewest > double(most.first)) most = {std::size_t(fewest), check};
  }
  return most;
}

std::pair<std::size_t, std::optional<Check>> FieldJudge::fewest(
    const std::vector<photometry::PlacedLuminaire>& places) {
  std::pair<std::size_t, std::optional<Check>> most{1, {}};
  if (places.empty()) return most;
  if (!quick_) return fewest_by_flux(places.front().table->flux());
  const std::vector<FieldLight::Light> lights = quick_->lights(places, room_.watch);
  const lighting::Weight weight{base_.dimming, maintenance_};
  std::vector<MeanMap::Demand> demands;
  std::vector<MeanMap::Sample> samples;
  for (const photometry::PlacedLuminaire& place : places) samples.push_back({place, {}});
  for (const Check& check : means_asked()) {
    const std::vector<std::size_t> numbers = quick_numbers(check);
    double one = 0;
    for (std::size_t i = 0; i < lights.size(); ++i) {
      double sum = 0;
      for (const std::size_t k : numbers)
        sum += double(lights[i].direct_lx[Eigen::Index(k)] + lights[i].reflected_lx[Eigen::Index(k)]);
      samples[i].means_lx.push_back(weight.maintained() * sum / double(numbers.size()));
      one = std::max(one, samples[i].means_lx.back());
    }
    demands.push_back({check.demand.required, check.actual});
    if (one <= 0) continue;
    const double missing = check.demand.required / (1 + kMeanMargin) - check.actual;
    const std::size_t fewest = std::size_t(std::ceil(std::max(1.0, missing / (one * kBetweenPlaces))));
    if (fewest > most.first) most = {fewest, check};
  }
  if (!demands.empty()) means_.emplace(std::move(demands), std::move(samples));
  return most;
}

}  // namespace glow::studies
