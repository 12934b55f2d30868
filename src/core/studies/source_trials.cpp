// Changes to the source that glares most, each by relight.
#include <algorithm>
#include <cmath>

#include "core/studies/explanation.hpp"

namespace glow::studies {
namespace {

using assess::EyeSetGlare;
using assess::GlareChange;
using assess::GlareSourceName;
using photometry::PlacedLuminaire;

constexpr double kDimmed = 0.5;
constexpr double kSteps[] = {0.5, 1.0};   // m by which a luminaire is moved
constexpr std::size_t kMostViews = 4000;  // of a set, for changes to be tried
constexpr double kTilt = 10;              // degrees by which a luminaire is turned down
constexpr double kRaised = 2;             // m

class SourceTrials {
 public:
  SourceTrials(const StudiedRoom& room, assess::RoomGlare& glare)
      : room_(room), glare_(glare), trials_(room) {}

  void try_all() {
    for (std::size_t s = 0; s < glare_.sets.size(); ++s) {
      try_at_worst_view(s);
      if (glare_.sets[s].worst_rating) try_at_worst_rating(s);
    }
  }

 private:
  using Luminaires = std::vector<PlacedLuminaire>;

  void try_at_worst_view(std::size_t set);
  void try_places(std::size_t set, const GlareSourceName& source);
  void try_at_worst_rating(std::size_t set);
  std::optional<double> roughly(std::size_t set, const GlareSourceName& source,
                                const Luminaires& moved) const;
  void keep(std::size_t set, bool rating, GlareChange change, const GlareSourceName& source,
            const Luminaires& placed, double share);

  const StudiedRoom& room_;
  assess::RoomGlare& glare_;
  Trials trials_;
};

void SourceTrials::keep(std::size_t s, bool rating, GlareChange change, const GlareSourceName& source,
                        const Luminaires& placed, double share) {
  EyeSetGlare& set = glare_.sets[s];
  const assess::Assessment trial = trials_.judged_with_eyes(trials_.with_source(source, placed, share));
  const EyeSetGlare& then = trial.glare.sets[s];
  change.value = change.worst = -INFINITY;
  for (std::size_t v = 0; !rating && v < then.views.size(); ++v) {
    if (!then.views[v].ugr) continue;
    if (v == *set.worst) change.value = *then.views[v].ugr;
    change.worst = std::max(change.worst, *then.views[v].ugr);
  }
  for (std::size_t p = 0; rating && p < then.ratings.size(); ++p) {
    if (!then.ratings[p].gr) continue;
    if (p == *set.worst_rating) change.value = *then.ratings[p].gr;
    change.worst = std::max(change.worst, *then.ratings[p].gr);
  }
  change.breaks = trials_.broken(trial);
  (rating ? set.rating_changes : set.changes).push_back(std::move(change));
}

/// UGR of the worst view with the source elsewhere, before the background as it is: quick, to choose by.
std::optional<double> SourceTrials::roughly(std::size_t s, const GlareSourceName& source,
                                            const Luminaires& moved) const {
  const EyeSetGlare& set = glare_.sets[s];
  std::vector<space::LuminaireGroup> groups = room_.space().groups;
  for (std::size_t i = 0; i < moved.size(); ++i)
    groups[source.luminaires[i].first].luminaires[source.luminaires[i].second] = moved[i];
  const assess::GlareOrigins origins(groups, room_.lit.weights);
  const std::size_t v = *set.worst, position = v / set.set.directions();
  return glare::unified_glare(room_.eyes.seen(origins, origins.in_places_of(room_.eyes.own()), s, position),
                              set.set.positions[position], set.set.sight(v),
                              kPi * set.views[v].background_cd_m2)
      .value;
}

/// Half a metre or a metre aside, where there is room for it; the best of them.
void SourceTrials::try_places(std::size_t s, const GlareSourceName& source) {
  std::optional<Luminaires> best;
  double least = INFINITY;
  Vec2 best_step = Vec2::Zero();
  for (const double step : kSteps)
    for (const Vec2& way : {Vec2(1, 0), Vec2(-1, 0), Vec2(0, 1), Vec2(0, -1)}) {
      Luminaires moved = placed_of(room_.space(), source);
      bool fits = true;
      for (PlacedLuminaire& luminaire : moved) {
        luminaire.frame.origin.head<2>() += step * way;
        fits = fits && has_room_for(room_.space(), luminaire, source.luminaires);
      }
      if (!fits) continue;
      const double value = roughly(s, source, moved).value_or(-INFINITY);
      if (best && value >= least) continue;
      least = value;
      best = std::move(moved);
      best_step = step * way;
    }
  if (!best) return;
  const bool along_x = best_step.x() != 0;
  keep(s, false,
       {along_x ? GlareChange::Kind::moved_x : GlareChange::Kind::moved_y, best_step.sum(), 0, 0, {}}, source,
       *best, 1);
}

void SourceTrials::try_at_worst_view(std::size_t s) {
  EyeSetGlare& set = glare_.sets[s];
  if (!set.worst || set.causes.empty() || set.set.size() > kMostViews) return;
  const GlareSourceName& source = glare_.sources[std::size_t(set.causes.front().source)];
  const Luminaires as_it_is = placed_of(room_.space(), source);
  keep(s, false, {GlareChange::Kind::dimmed, kDimmed, 0, 0, {}}, source, as_it_is, kDimmed);
  try_places(s, source);
  const bool round = std::all_of(as_it_is.begin(), as_it_is.end(), [](const PlacedLuminaire& luminaire) {
    return luminaire.table->rotational() && luminaire.area.extent_c0_m == luminaire.area.extent_c90_m;
  });
  if (round) return;
  Luminaires turned = as_it_is;
  for (PlacedLuminaire& luminaire : turned) luminaire.frame = luminaire.frame.turned_square();
  keep(s, false, {GlareChange::Kind::turned, 90, 0, 0, {}}, source, turned, 1);
}

void SourceTrials::try_at_worst_rating(std::size_t s) {
  const EyeSetGlare& set = glare_.sets[s];
  const GlareSourceName& source =
      glare_.sources[std::size_t(std::max(0, set.ratings[*set.worst_rating].worst_source))];
  const Luminaires placed = placed_of(room_.space(), source);
  keep(s, true, {GlareChange::Kind::dimmed, kDimmed, 0, 0, {}}, source, placed, kDimmed);
  Luminaires lower = placed, higher = placed;
  for (PlacedLuminaire& luminaire : lower) {
    geometry::Frame& frame = luminaire.frame;
    const double lean = std::acos(std::clamp(-frame.g0.z(), -1.0, 1.0)) / kDegree;
    const Vec3 axis = frame.g0.cross(-Vec3::UnitZ());
    if (lean < kTilt || axis.norm() < 1e-6) continue;
    const Eigen::AngleAxisd turn(kTilt * kDegree, axis.normalized());
    for (Vec3* direction : {&frame.c0, &frame.c90, &frame.g0}) *direction = turn * *direction;
  }
  if (lower.front().frame.g0 != placed.front().frame.g0)
    keep(s, true, {GlareChange::Kind::tilted_down, kTilt, 0, 0, {}}, source, lower, 1);
  for (PlacedLuminaire& luminaire : higher) luminaire.frame.origin.z() += kRaised;
  if (!room_.space().roofed || source.position.z() + kRaised < room_.space().height_m)
    keep(s, true, {GlareChange::Kind::raised, kRaised, 0, 0, {}}, source, higher, 1);
}

}  // namespace

void try_sources(const StudiedRoom& room, assess::RoomGlare& glare) {
  SourceTrials(room, glare).try_all();
}

}  // namespace glow::studies
