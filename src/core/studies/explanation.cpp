#include "core/studies/explanation.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>

#include "core/photometry/derived.hpp"
#include "core/studies/lowest_points.hpp"

namespace glow::studies {
namespace {

using assess::Status;
using geometry::SurfaceRole;
using standards::Check;
using standards::Quantity;
using standards::Target;
using standards::Verdict;

constexpr double kMetByFar = 1.3;        // times the required level
constexpr double kMostFlux = 1000;       // times as much: more is no mend
constexpr double kBrighter = 0.2;        // change of reflectance that is tried
constexpr double kWider[] = {45, 60};    // deg: half angles of the lobes that are tried
constexpr double kUpright = 0.7;         // |z| of a plane's normal: below it counts as upright
constexpr double kStraight = 0.999;      // of a unit vector along -z: so much of it points down
constexpr double kBefore = 1.0;          // m before an upright plane
constexpr double kStraightDown = 30;     // deg: where the peak of a luminaire lies that could be wider
constexpr double kWorthTelling = 0.005;  // change of U0 below which a trial does nothing

class Explainer {
 public:
  explicit Explainer(const StudiedRoom& room) : room_(room), checks_(room.assessment.checks), trials_(room) {}

  std::vector<Explanation> explain_all() {
    for (const Check& check : checks_) {
      explanation_ = &explanations_.emplace_back();
      if (check.verdict == Verdict::not_met) explain_failure(check);
      if (check.verdict == Verdict::undecided) explain_doubt(check);
    }
    // Where something is lacking, talk of too much only confuses.
    for (std::size_t c = 0; assess::status_of(checks_) == Status::met && c < checks_.size(); ++c) {
      explanation_ = &explanations_[c];
      explain_waste(checks_[c]);
    }
    return std::move(explanations_);
  }

 private:
  void explain_failure(const Check& check);
  void explain_doubt(const Check& check);
  void explain_grid(const Check& check);
  void explain_waste(const Check& check);
  void explain_colour(const Check& check);
  void explain_luminance(const Check& check);
  void say_split(std::size_t grid);
  void suggest_flux(const Check& check);
  void suggest_finishes(const Check& check);
  void suggest_spacing(const Check& check);
  void suggest_wider(const Check& check);
  void suggest_one_more(const Check& check, const LowReceivers& low);
  void suggest(const Check& check, Change change, const assess::Assessment& trial, bool even_if_idle = false);
  /// What a change comes to; it is computed once, however many checks it may help.
  const assess::Assessment& known(const std::vector<double>& key, const std::function<Trial()>& make) {
    const auto found = assessments_.find(key);
    if (found != assessments_.end()) return found->second;
    return assessments_.emplace(key, trials_.judged(make())).first->second;
  }
  const assess::Assessment& repainted(double walls, double ceiling) {
    return known({0, walls, ceiling}, [&] {
      std::vector<FinishChange> changes = {{SurfaceRole::wall, walls}};
      if (ceiling != 0) changes.push_back({SurfaceRole::ceiling, ceiling});
      return trials_.with_finishes(changes);
    });
  }
  void cause(Cause cause) { explanation_->causes.push_back(std::move(cause)); }
  Mend& mend(Change change, const assess::Assessment& trial) {
    Mend& mend = explanation_->mends.emplace_back();
    mend.change = std::move(change);
    mend.breaks = trials_.broken(trial);
    mend.glare_tried = trials_.tells_of_glare();
    return mend;
  }

  const StudiedRoom& room_;
  const std::vector<Check>& checks_;
  Trials trials_;
  std::vector<Explanation> explanations_;
  Explanation* explanation_ = nullptr;  ///< of the check that is looked at
  std::map<std::vector<double>, assess::Assessment> assessments_;
};

void Explainer::say_split(std::size_t grid) {
  double direct = 0, total = 0;
  for (const std::size_t r : room_.setting.judged()[grid].receivers) {
    direct += room_.lit.light.maintained.direct_lx[r];
    total += room_.lit.light.maintained.total_lx(r);
  }
  if (total > 0) cause(DirectShare{direct / total});
}

void Explainer::suggest(const Check& check, Change change, const assess::Assessment& trial,
                        bool even_if_idle) {
  const Check* then = same_check(trial, check);
  if (!then) return;
  const double scale = check.unit().empty() ? 1 : std::max(1e-9, check.actual);
  if (!even_if_idle && then->actual < check.actual + kWorthTelling * scale) return;
  Mend& tried = mend(std::move(change), trial);
  tried.value = then->actual;
  tried.mean_lx = trial.grids[check.target.id].judged.statistics.mean_lx;
  tried.meets = check.would_surely_meet(then->actual);
}

/// Light adds up: no relight is needed. As much as surely meets, in hundredths, as it is told.
void Explainer::suggest_flux(const Check& check) {
  const double sure = check.actual - check.uncertainty;
  if (sure <= 0 || check.demand.required > kMostFlux * sure) return;
  TimesFlux change{std::ceil(100 * check.demand.required / sure - 1e-9) / 100, {}};
  for (std::size_t g = 0; g < room_.space().groups.size(); ++g) {
    const space::LuminaireGroup& group = room_.space().groups[g];
    if (assess::first_of_mark(room_.space().groups, group.mark) != g) continue;
    const double lm = room_.lit.weights[g].output * group.photometry->flux_lm();
    change.marks.push_back({group.mark, change.factor * lm, lm});
  }
  const double factor = change.factor;
  const assess::Assessment& then = known({1, factor}, [&] { return trials_.dimmed(factor); });
  Mend& tried = mend(std::move(change), then);
  if (const Check* same = same_check(then, check)) tried.value = same->actual;
  tried.meets = true;
}

void Explainer::suggest_finishes(const Check& check) {
  suggest(check, Brighter{false, kBrighter}, repainted(kBrighter, 0), true);
  suggest(check, Brighter{true, kBrighter}, repainted(kBrighter, kBrighter));
  const Check* darker = same_check(repainted(-kBrighter, 0), check);
  if (darker) cause(WithDarkerWalls{kBrighter, darker->actual});
}

/// Arrays with a row or a column more, the same flux in all.
void Explainer::suggest_spacing(const Check& check) {
  for (std::size_t g = 0; g < room_.space().groups.size(); ++g) {
    const space::LuminaireGroup& group = room_.space().groups[g];
    if (!group.array) continue;
    const int rows = group.array->rows, columns = group.array->columns;
    for (const auto& [r, c] : {std::pair{rows, columns + 1}, {rows + 1, columns}, {rows + 1, columns + 1}}) {
      const auto luminaires = as_array(room_.space(), g, r, c);
      if (luminaires.empty()) continue;
      const double factor = double(group.luminaires.size()) / double(luminaires.size());
      suggest(check, OtherArray{group.mark, r, c, rows, columns, factor},
              known({2, double(g), double(r), double(c)},
                    [&] { return trials_.with_group(g, luminaires, factor); }));
    }
  }
}

/// The same flux in a wider lobe, of the groups that shine straight down and narrower than that.
void Explainer::suggest_wider(const Check& check) {
  for (const double half : kWider) {
    std::map<std::size_t, std::shared_ptr<const photometry::IntensityTable>> tables;
    WiderBeam change{2 * half, {}};
    for (std::size_t g = 0; g < room_.space().groups.size(); ++g) {
      const space::LuminaireGroup& group = room_.space().groups[g];
      const photometry::IntensityTable& table = group.photometry->table;
      const auto edges = photometry::beam_edges(table, 0, 0.5);
      if (table.peak().gamma_deg > kStraightDown || table.upward_flux() > 0.1 * table.flux() || !edges ||
          edges->width_deg() >= 2 * half - 5)
        continue;
      tables[g] = even_lobe(table.flux(), half);
      if (std::find(change.marks.begin(), change.marks.end(), group.mark) == change.marks.end())
        change.marks.push_back(group.mark);
    }
    if (tables.empty()) continue;
    suggest(check, std::move(change), known({3, half}, [&] { return trials_.with_tables(tables); }));
  }
}

/// Above low points of a level plane, before those of an upright one. Luminaires that hang straight down can
/// be had once more; what is aimed or hangs on a wall is made for its place.
void Explainer::suggest_one_more(const Check& check, const LowReceivers& low) {
  const std::vector<space::LuminaireGroup>& groups = room_.space().groups;
  std::size_t nearest = groups.size();
  double distance = 1e30;
  for (std::size_t g = 0; g < groups.size(); ++g) {
    const geometry::Frame& frame = groups[g].luminaires.front().frame;
    const double own = (frame.origin - low.points.middle).norm();
    if (frame.g0.z() > -kStraight || own >= distance) continue;
    nearest = g;
    distance = own;
  }
  if (nearest == groups.size()) return;
  photometry::PlacedLuminaire more = groups[nearest].luminaires.front();
  const Vec3& normal = room_.space().grids[check.target.id].grid.plane.normal;
  const bool upright = std::abs(normal.z()) < kUpright;
  more.frame.origin.head<2>() = low.points.middle.head<2>();
  if (upright) more.frame.origin.head<2>() += kBefore * normal.head<2>().normalized();
  if (!has_room_for(room_.space(), more, {})) return;
  suggest(check, OneMore{{groups[nearest].mark, more.frame.origin}, upright},
          trials_.judged(trials_.with_one_more(nearest, more)));
}

void Explainer::explain_colour(const Check& check) {
  const std::vector<space::LuminaireGroup>& groups = room_.space().groups;
  for (std::size_t g = 0; g < groups.size(); ++g)
    if (groups[g].ra && *groups[g].ra < check.demand.required &&
        assess::first_of_mark(groups, groups[g].mark) == g)
      cause(LowColourRendering{groups[g].mark, *groups[g].ra});
  Mend& tried = explanation_->mends.emplace_back();
  tried.change = BetterColour{check.demand.required};
  tried.meets = true;
}

/// Of a luminaire type, at the brightest that it is used.
void Explainer::explain_luminance(const Check& check) {
  const std::string& mark = room_.space().groups[check.target.id].mark;
  const double from_deg = room_.setting.brief().glare.screens->from_deg;
  std::vector<glare::PlaneLuminance> brightest;
  const auto most_of = [](const std::vector<glare::PlaneLuminance>& planes) {
    return std::max_element(planes.begin(), planes.end(),
                            [](const auto& a, const auto& b) { return a.cd_m2 < b.cd_m2; });
  };
  for (std::size_t g = 0; g < room_.space().groups.size(); ++g) {
    if (room_.space().groups[g].mark != mark) continue;
    auto planes = assess::brightest_planes(room_.space().groups[g], room_.lit.weights[g].output, from_deg);
    if (planes.empty()) continue;
    if (brightest.empty() || most_of(planes)->cd_m2 > most_of(brightest)->cd_m2)
      brightest = std::move(planes);
  }
  if (brightest.empty()) return;
  BrightPlanes bright;
  for (std::size_t i = 0; i < brightest.size(); ++i) {
    if (brightest[i].cd_m2 <= check.demand.required) continue;
    std::size_t last = i;
    while (last + 1 < brightest.size() && brightest[last + 1].cd_m2 > check.demand.required) ++last;
    bright.planes_deg.emplace_back(brightest[i].c_deg, brightest[last].c_deg);
    i = last;
  }
  const auto most = most_of(brightest);
  bright.c_deg = most->c_deg;
  bright.gamma_deg = most->gamma_deg;
  cause(std::move(bright));
  lighting::Weights weights = room_.lit.weights;
  const double share = std::floor(100 * check.demand.required / most->cd_m2) / 100;
  if (!(share > 0)) return;
  for (std::size_t g = 0; g < weights.size(); ++g)
    if (room_.space().groups[g].mark == mark) weights[g].output *= share;
  Mend& tried = mend(DimmedOrShielded{share, from_deg}, trials_.judged(trials_.with_weights(weights)));
  tried.meets = true;
}

void Explainer::explain_failure(const Check& check) {
  switch (check.demand.quantity) {
    case Quantity::colour_rendering:
      return explain_colour(check);
    case Quantity::luminaire_luminance:
      return explain_luminance(check);
    case Quantity::shielding_angle:
      if (!room_.space().groups[check.target.id].shielding_deg) cause(NoShieldingStated{});
      return;
    case Quantity::unified_glare:
    case Quantity::glare_rating:
      *explanation_ = explain_glare(room_, trials_, check);
      return;
    case Quantity::mean_illuminance:
    case Quantity::minimum_illuminance:
    case Quantity::uniformity:
      return explain_grid(check);
    case Quantity::window_illuminance:
    case Quantity::property_illuminance:
    case Quantity::glare_value:
    case Quantity::spill_intensity:
    case Quantity::upward_light:
      *explanation_ = explain_spill(room_, trials_, check);
      return;
    default:  // daylight's by studies::explain_daylight; of the others nothing is looked for
      return;
  }
}

/// Why it cannot be told, and what would move the value off its limit.
void Explainer::explain_doubt(const Check& check) {
  cause(TooClose{});
  const Quantity quantity = check.demand.quantity;
  if (quantity == Quantity::mean_illuminance || quantity == Quantity::minimum_illuminance)
    suggest_flux(check);
}

void Explainer::explain_grid(const Check& check) {
  const std::vector<std::size_t>& judged = room_.setting.judged()[check.target.id].receivers;
  if (judged.empty()) return;
  const LowReceivers low = lowest_points(room_, judged);
  cause(low.points);
  cause(luminaires_there(room_, low));
  say_split(check.target.id);
  if (check.demand.quantity == Quantity::uniformity) {
    if (trials_.is_quick()) {
      suggest_spacing(check);
      suggest_wider(check);
    } else {
      cause(NotTried{});
    }
  } else {
    suggest_flux(check);
  }
  suggest_one_more(check, low);
  suggest_finishes(check);
  put_first_what_does_alone(explanation_->mends);
}

/// More light than asked for costs power; how far all could be dimmed, other checks stay met.
void Explainer::explain_waste(const Check& check) {
  if (check.demand.quantity != Quantity::mean_illuminance || check.target.kind != Target::Kind::grid) return;
  const space::GridRole role = room_.space().grids[check.target.id].role;
  if (role != space::GridRole::work_plane && role != space::GridRole::task_area) return;
  if (check.actual < kMetByFar * check.demand.required + check.uncertainty) return;
  CouldBeDimmed dimmed{0, std::nullopt, std::nullopt, std::nullopt};
  const Check* limit = &check;
  for (const Check& other : checks_) {
    if (other.unit() != "lx" || other.actual <= 0 || other.verdict != Verdict::met) continue;
    const double own = other.demand.required / std::max(1e-9, other.actual - other.uncertainty);
    if (own > dimmed.share) limit = &other;
    dimmed.share = std::max(dimmed.share, own);
  }
  if (dimmed.share >= 1) return cause(MoreThanAsked{check.actual / check.demand.required});
  if (limit != &check) dimmed.limit = limit->target;
  if (const auto watts = room_.assessment.power.installed_w) {
    dimmed.installed_w = watts;
    dimmed.spare_w = (1 - dimmed.share) * *watts;
  }
  cause(MoreThanAsked{check.actual / check.demand.required});
  cause(std::move(dimmed));
}

}  // namespace

void put_first_what_does_alone(std::vector<Mend>& mends) {
  std::stable_partition(mends.begin(), mends.end(), [](const Mend& mend) { return mend.does_alone(); });
}

std::vector<Explanation> explain(const StudiedRoom& room) {
  return Explainer(room).explain_all();
}

}  // namespace glow::studies
