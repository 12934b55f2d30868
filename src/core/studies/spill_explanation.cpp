// Why light troubles neighbours, and what would help: each change relit, with what it costs the area itself.
#include <algorithm>
#include <cmath>
#include <functional>

#include "core/assess/spill_reader.hpp"
#include "core/photometry/transform.hpp"
#include "core/studies/explanation.hpp"

namespace glow::studies {
namespace {

using assess::NeighbourReading;
using assess::SpillReading;
using assess::SpillSource;
using photometry::PlacedLuminaire;
using standards::Check;
using standards::Quantity;

constexpr std::size_t kMostChanged = 12;  // luminaires that are changed together
constexpr std::size_t kMostTold = 3;
constexpr double kTilts[] = {5, 10, 15, 20, 25, 30};  // degrees
constexpr double kTurns[] = {15, -15, 30, -30, 60, -60, 90, -90};
constexpr double kAway[] = {2, 5, 10};  // m
constexpr double kShieldReserve = 2;    // degrees below the way to the neighbour
constexpr double kLeastShield = 20;     // degrees: less would leave no light
constexpr double kNearlyOff = 0.05;     // dimmed further it is as good as off

PlacedLuminaire turned(PlacedLuminaire luminaire, double deg, const Vec3& axis) {
  const Eigen::AngleAxisd turn(deg * kDegree, axis);
  for (Vec3* way : {&luminaire.frame.c0, &luminaire.frame.c90, &luminaire.frame.g0}) *way = turn * *way;
  return luminaire;
}

/// Nearer to straight down, at most all the way; nothing where it hangs so already.
std::optional<PlacedLuminaire> tilted_down(const PlacedLuminaire& luminaire, double deg) {
  const Vec3& g0 = luminaire.frame.g0;
  const double lean = std::acos(std::clamp(-g0.z(), -1.0, 1.0)) / kDegree;
  const Vec3 axis = g0.cross(-Vec3::UnitZ());
  if (lean < 0.5 || axis.norm() < 1e-6) return std::nullopt;
  return turned(luminaire, std::min(deg, lean), axis.normalized());
}

class SpillExplainer {
 public:
  SpillExplainer(const StudiedRoom& room, const Trials& trials, const Check& check)
      : room_(room), spill_(*room.assessment.spill), trials_(trials), check_(check) {
    for (std::size_t n = 0; n < spill_.neighbours.size(); ++n)
      if (check.target.kind == standards::Target::Kind::grid && spill_.neighbours[n].grid == check.target.id)
        number_ = n;
  }

  Explanation explain() {
    if (check_.demand.quantity == Quantity::upward_light)
      choose_upward();
    else if (number_)
      choose_seen();
    if (chosen_.luminaires.empty()) return std::move(explanation_);
    try_tilted();
    if (number_) {
      try_turned();
      try_shielded();
      try_dimmed();
      try_moved();
      try_off();
    }
    put_first_what_does_alone(explanation_.mends);
    return std::move(explanation_);
  }

 private:
  const NeighbourReading& neighbour() const { return spill_.neighbours[*number_]; }
  const std::string& mark(int source) const { return spill_.sources[std::size_t(source)].mark; }

  /// lx straight from a luminaire on the window.
  double lux_of(const SpillSource& source, const NeighbourReading& at) const {
    const Vec3 way = spill_.sources[std::size_t(source.source)].position - at.at;
    return source.intensity_cd / (source.distance_m * source.distance_m) *
           (at.facing.isZero() ? std::hypot(way.x(), way.y()) / way.norm()
                               : std::max(0.0, way.normalized().dot(at.facing)));
  }

  void choose(const SpillSource& source) {
    const assess::GlareSourceName& name = spill_.sources[std::size_t(source.source)];
    chosen_.luminaires.insert(chosen_.luminaires.end(), name.luminaires.begin(), name.luminaires.end());
    for (std::size_t k = 0; k < name.luminaires.size(); ++k) gammas_.push_back(source.gamma_deg);
    ++count_;
  }

  /// Those beyond the limit by themselves; of illuminance those that give most, until the rest keeps it.
  void choose_seen() {
    const NeighbourReading& own = neighbour();
    std::vector<SpillSource> sources = own.sources;
    const bool of_light = check_.unit() == "lx";
    const auto value = [&](const SpillSource& source) {
      return of_light                                              ? lux_of(source, own)
             : check_.demand.quantity == Quantity::spill_intensity ? source.intensity_cd
                                                                   : source.k;
    };
    std::stable_sort(sources.begin(), sources.end(),
                     [&](const SpillSource& a, const SpillSource& b) { return value(a) > value(b); });
    double left = check_.actual;
    SpillCauses causes;
    causes.background_cd_m2 = own.background_cd_m2;
    causes.seen = sources.size();
    for (const SpillSource& source : sources) {
      const bool beyond = of_light ? left > check_.demand.required : value(source) > check_.demand.required;
      if (beyond && count_ < kMostChanged) choose(source);
      causes.beyond += beyond;
      left -= of_light ? lux_of(source, own) : 0;
      if (causes.parts.size() < kMostTold)
        causes.parts.push_back({{mark(source.source), spill_.sources[std::size_t(source.source)].position},
                                source.k,
                                source.intensity_cd,
                                lux_of(source, own),
                                source.distance_m,
                                source.gamma_deg,
                                source.outside_range});
    }
    if (!sources.empty()) first_ = causes.parts.front().source;
    explanation_.causes.push_back(std::move(causes));
  }

  /// Of light upwards: all luminaires that send some, most first.
  void choose_upward() {
    std::vector<std::pair<double, std::size_t>> by_flux;
    for (std::size_t s = 0; s < spill_.sources.size(); ++s) {
      double up = 0;
      for (const auto& [g, l] : spill_.sources[s].luminaires)
        up += room_.lit.weights[g].output *
              room_.eyes.fluxes().of(room_.space().groups[g].luminaires[l]).upward_lm;
      if (up > 0) by_flux.emplace_back(up, s);
    }
    std::stable_sort(by_flux.begin(), by_flux.end(),
                     [](const auto& a, const auto& b) { return a.first > b.first; });
    for (const auto& [up, s] : by_flux) {
      SpillSource source;
      source.source = int(s);
      source.gamma_deg = 90;
      choose(source);
    }
    if (!by_flux.empty())
      first_ = {mark(int(by_flux.front().second)), spill_.sources[by_flux.front().second].position};
  }

  /// The value with other luminaires in the places of those that are chosen, quickly: of illuminance what
  /// comes straight, and by way of surfaces what comes now.
  double roughly(const std::vector<PlacedLuminaire>& placed) const {
    std::vector<space::LuminaireGroup> groups = room_.space().groups;
    for (std::size_t i = 0; i < placed.size(); ++i)
      groups[chosen_.luminaires[i].first].luminaires[chosen_.luminaires[i].second] = placed[i];
    assess::LitRoom lit = room_.lit;
    lit.groups = &groups;
    const auto now = assess::read_spill(room_.setting, room_.eyes, lit, {}, room_.watch);
    if (!number_) return now->upward_percent();
    const NeighbourReading& then = now->neighbours[*number_];
    double most = 0, light = check_.actual;
    for (const SpillSource& source : then.sources) {
      most = std::max(most, check_.demand.quantity == Quantity::glare_value ? source.k : source.intensity_cd);
      light += lux_of(source, then);
    }
    for (const SpillSource& source : neighbour().sources) light -= lux_of(source, neighbour());
    return check_.unit() == "lx" ? std::max(0.0, light) : most;
  }

  void keep(SpillChange::Kind kind, double amount, const std::vector<PlacedLuminaire>& placed, double share) {
    const assess::Assessment then = trials_.judged(trials_.with_source(chosen_, placed, share));
    Mend& mend = explanation_.mends.emplace_back();
    mend.change = SpillChange{kind, first_, count_, amount};
    mend.breaks = trials_.broken(then);
    mend.glare_tried = trials_.tells_of_glare();
    const Check* same = nullptr;  // limits of intensity may be others then
    for (const Check& other : then.checks)
      if (other.target == check_.target && other.demand.quantity == check_.demand.quantity &&
          other.demand.standard == check_.demand.standard)
        same = &other;
    mend.value = same ? same->actual : 0;  // no limit of intensity where no luminaire is seen
    mend.meets = !same || same->would_surely_meet(same->actual);
  }

  /// The first of some amounts that helps enough, or the one that helps most.
  void try_amounts(
      SpillChange::Kind kind, const double* begin, const double* end,
      const std::function<std::optional<PlacedLuminaire>(const PlacedLuminaire&, double)>& change) {
    const std::vector<PlacedLuminaire> now = placed_of(room_.space(), chosen_);
    std::optional<std::vector<PlacedLuminaire>> best;
    double least = check_.actual * 0.98, amount = 0;
    for (const double* each = begin; each != end; ++each) {
      std::vector<PlacedLuminaire> then;
      bool any = false;
      for (const PlacedLuminaire& luminaire : now) {
        const auto changed = change(luminaire, *each);
        any = any || changed;
        then.push_back(changed.value_or(luminaire));
      }
      if (!any) return;
      const double value = roughly(then);
      if (value >= least) continue;
      least = value;
      amount = *each;
      best = std::move(then);
      if (check_.would_meet(value)) break;
    }
    if (best) keep(kind, amount, *best, 1);
  }

  void try_dimmed() {
    double share = check_.demand.required / check_.actual;
    if (check_.unit() == "lx") {
      double ours = 0;
      for (const SpillSource& source : neighbour().sources) {
        const auto& own = spill_.sources[std::size_t(source.source)].luminaires;
        if (std::find(chosen_.luminaires.begin(), chosen_.luminaires.end(), own.front()) !=
            chosen_.luminaires.end())
          ours += lux_of(source, neighbour());
      }
      share = ours > 0 ? 1 - (check_.actual - check_.demand.required) / ours : 0;
    }
    share = std::floor(100 * share * 0.995) / 100;
    if (share >= kNearlyOff) keep(SpillChange::Kind::dimmed, share, placed_of(room_.space(), chosen_), share);
  }
  void try_tilted() {
    try_amounts(SpillChange::Kind::tilted, std::begin(kTilts), std::end(kTilts), tilted_down);
  }
  void try_turned() {
    try_amounts(SpillChange::Kind::turned, std::begin(kTurns), std::end(kTurns),
                [](const PlacedLuminaire& luminaire, double deg) {
                  return std::optional(turned(luminaire, deg, Vec3::UnitZ()));
                });
  }
  /// Each below its own way to the neighbour; told is the lowest.
  void try_shielded() {
    std::vector<PlacedLuminaire> then = placed_of(room_.space(), chosen_);
    double lowest = 180;
    for (std::size_t i = 0; i < then.size(); ++i) {
      const double from = std::floor(gammas_[i] - kShieldReserve);
      if (from < kLeastShield) return;
      lowest = std::min(lowest, from);
      then[i].table =
          std::make_shared<const photometry::IntensityTable>(photometry::shielded(*then[i].table, from));
    }
    keep(SpillChange::Kind::shielded, lowest, then, 1);
  }
  void try_moved() {
    const Vec3 at = neighbour().at;
    try_amounts(SpillChange::Kind::moved, std::begin(kAway), std::end(kAway),
                [&](PlacedLuminaire luminaire, double step) -> std::optional<PlacedLuminaire> {
                  Vec2 away = (luminaire.frame.origin - at).xy();
                  if (away.norm() < 1e-6) return std::nullopt;
                  luminaire.frame.origin.head<2>() += step * away.normalized();
                  for (const space::PlanShape& object : room_.space().objects)
                    if (object.extent.holds(luminaire.frame.origin)) return std::nullopt;
                  return luminaire;
                });
  }
  void try_off() { keep(SpillChange::Kind::off, 0, placed_of(room_.space(), chosen_), 0); }

  const StudiedRoom& room_;
  const SpillReading& spill_;
  const Trials& trials_;
  const Check& check_;
  std::optional<std::size_t> number_;  // of the neighbour; nothing: the installation
  assess::GlareSourceName chosen_;     // luminaires that are changed, as if they were one source
  std::vector<double> gammas_;         // of each: its way to the neighbour
  std::size_t count_ = 0;
  LuminaireAt first_;
  Explanation explanation_;
};

}  // namespace

Explanation explain_spill(const StudiedRoom& room, const Trials& trials, const Check& check) {
  if (!room.assessment.spill) return {};
  return SpillExplainer(room, trials, check).explain();
}

}  // namespace glow::studies
