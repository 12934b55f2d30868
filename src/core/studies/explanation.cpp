#include "core/studies/explanation.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>

#include "core/photometry/derived.hpp"
#include "core/studies/darkest_points.hpp"

namespace glow::studies {
namespace {

using standards::Check;
using standards::Quantity;
using standards::Verdict;

constexpr double kMetByFar = 1.3;           // times the required level
constexpr double kBrighter = 0.2;           // change of reflectance that is tried
constexpr double kWider[] = {45, 60};       // deg: half angles of the lobes that are tried
constexpr double kUpright = 0.7;            // |z| of a plane's normal: below it counts as upright
constexpr double kBefore = 1.0;             // m before an upright plane
constexpr double kStraightDown = 30;        // deg: where the peak of a luminaire lies that could be wider
constexpr std::size_t kMostPairs = 150000;  // of luminaires and points in one relight
constexpr double kWorthTelling = 0.005;     // change of U0 below which a variant does nothing

/// The points that some check is about: what a change does to the others nobody asks.
transport::ReceiverChoice judged_points(const assess::RoomResult& result, const std::vector<GridReceivers>& receivers,
                                        std::size_t count) {
  transport::ReceiverChoice choice(count, false);
  for (std::size_t g = 0; g < result.grids.size(); ++g) {
    const bool judged = std::any_of(result.checks.begin(), result.checks.end(), [&](const Check& check) {
      return !is_glare(check.demand.quantity) && check.where == result.grids[g].name;
    });
    if (!judged) continue;
    for (const std::size_t r : receivers[g].judged) choice[r] = true;
  }
  return choice;
}

class Explainer {
 public:
  Explainer(const space::Space& space, const transport::Transport& transport, const assess::RoomLight& light,
            const std::vector<GridReceivers>& receivers, const Watch& watch, assess::RoomResult& result)
      : space_(space),
        transport_(transport),
        light_(light),
        receivers_(receivers),
        result_(result),
        trials_(space, transport, light, watch,
                  judged_points(result, receivers, transport.receivers().size())),
        words_{space.units} {}

  void explain_all() {
    for (Check& check : result_.checks)
      if (check.verdict == Verdict::not_met) explain_failure(check);
    // Where something is lacking, talk of too much only confuses.
    if (result_.status == assess::Status::met)
      for (Check& check : result_.checks) explain_waste(check);
  }

 private:
  struct Outcome {
    double value = 0, mean_lx = 0;
    bool meets = false;       ///< this check
    std::string first_unmet;  ///< another check that would then not be met; empty: none
  };

  void explain_failure(Check& check);
  void explain_waste(Check& check);
  void explain_colour(Check& check) const;
  /// Whether whole groups can be lit anew without keeping people waiting.
  bool is_quick() const;
  std::size_t grid_of(const Check& check) const;
  double value_of(const Check& check, const Lux& lux) const;
  Outcome outcome(const Check& check, const Lux& lux) const;
  void say_split(Check& check, std::size_t grid) const;
  void suggest_flux(Check& check) const;
  void suggest_finishes(Check& check) const;
  void suggest_spacing(Check& check) const;
  Lux widened(double half_deg, std::vector<std::string>& marks) const;
  void suggest_wider(Check& check) const;
  void suggest_one_more(Check& check, std::size_t grid, const DarkestPoints& low) const;
  void suggest(Check& check, const std::string& change, const Lux& lux, bool even_if_idle = false) const;
  /// What a change gives; it is computed once, however many checks it may help.
  const Lux& known(const std::string& change, const std::function<Lux()>& compute) const {
    const auto found = lux_of_.find(change);
    return found != lux_of_.end() ? found->second : lux_of_.emplace(change, compute()).first->second;
  }
  const Lux& repainted(const std::string& change, const std::vector<FinishChange>& changes) const {
    return known(change, [&] { return trials_.with_finishes(changes); });
  }
  std::string value_words(const Check& check, double value) const {
    return check.unit().empty() ? fmt::format(FMT_STRING("{:.2f}"), value) : words_.light(value);
  }

  const space::Space& space_;
  const transport::Transport& transport_;
  const assess::RoomLight& light_;
  const std::vector<GridReceivers>& receivers_;
  assess::RoomResult& result_;
  Trials trials_;
  Words words_;
  mutable std::map<std::string, Lux> lux_of_;
  mutable std::map<double, std::vector<std::string>> widened_marks_;
};

bool Explainer::is_quick() const {
  std::size_t luminaires = 0;
  for (const space::LuminaireGroup& group : space_.groups) luminaires += group.luminaires.size();
  return luminaires * transport_.receivers().size() <= kMostPairs;
}

std::size_t Explainer::grid_of(const Check& check) const {
  if (is_glare(check.demand.quantity)) return result_.grids.size();
  for (std::size_t g = 0; g < result_.grids.size(); ++g)
    if (result_.grids[g].name == check.where) return g;
  return result_.grids.size();
}

double Explainer::value_of(const Check& check, const Lux& lux) const {
  const std::size_t grid = grid_of(check);
  std::vector<double> values;
  for (const std::size_t r : receivers_[grid].judged) values.push_back(lux[r]);
  return judge(check.demand, readings::statistics(values), {}).actual;
}

/// What the change makes of the check, and whether any other that is met now would fail.
Explainer::Outcome Explainer::outcome(const Check& check, const Lux& lux) const {
  Outcome outcome;
  outcome.value = value_of(check, lux);
  outcome.meets = check.would_meet(outcome.value);
  double sum = 0;
  const auto& judged = receivers_[grid_of(check)].judged;
  for (const std::size_t r : judged) sum += lux[r];
  outcome.mean_lx = sum / double(judged.size());
  for (const Check& other : result_.checks) {
    if (&other == &check || other.verdict != Verdict::met || grid_of(other) == result_.grids.size()) continue;
    if (value_of(other, lux) >= other.demand.required) continue;
    outcome.first_unmet = fmt::format(FMT_STRING("{} of {}"), to_string(other.demand.quantity), other.where);
    break;
  }
  return outcome;
}

void Explainer::say_split(Check& check, std::size_t grid) const {
  double direct = 0, total = 0;
  for (const std::size_t r : receivers_[grid].judged) {
    direct += light_.maintained.direct_lx[r];
    total += light_.maintained.direct_lx[r] + light_.maintained.interreflected_lx[r];
  }
  if (total <= 0) return;
  const double share = std::round(100 * direct / total);
  check.why.push_back(
      fmt::format(FMT_STRING("{:.0f} % of the light comes straight from luminaires, {:.0f} % by way of "
                             "the room's surfaces"),
                  share, 100 - share));
}

void Explainer::suggest(Check& check, const std::string& change, const Lux& lux, bool even_if_idle) const {
  const Outcome o = outcome(check, lux);
  const double scale = check.unit().empty() ? 1 : std::max(1e-9, check.actual);
  if (value_words(check, o.value) == value_words(check, check.actual)) return;
  if (!even_if_idle && o.value < check.actual + kWorthTelling * scale) return;
  std::string words = fmt::format(FMT_STRING("{}: {} {}"), change, check.unit().empty() ? "U0" : "mean",
                                  value_words(check, o.value));
  if (check.demand.quantity == Quantity::minimum_illuminance)
    words = fmt::format(FMT_STRING("{}: minimum {}"), change, value_words(check, o.value));
  if (check.unit().empty()) words += fmt::format(FMT_STRING(", mean {}"), words_.light(o.mean_lx));
  words += o.meets ? ", met" : ", not enough alone";
  if (!o.first_unmet.empty()) words += fmt::format(FMT_STRING("; but {} would not be met"), o.first_unmet);
  check.help.push_back(std::move(words));
}

/// Light adds up: no relight is needed.
void Explainer::suggest_flux(Check& check) const {
  if (check.actual <= 0) return;
  const double factor = check.demand.required / check.actual;
  std::string marks;
  for (const space::LuminaireGroup& group : space_.groups) {
    if (marks.find(group.mark + " ") != std::string::npos) continue;
    marks += fmt::format(FMT_STRING("{}{} {:.0f} instead of {:.0f} lm"), marks.empty() ? "" : ", ",
                         group.mark, factor * group.dimming * group.photometry->flux_lm(),
                         group.dimming * group.photometry->flux_lm());
  }
  check.help.push_back(
      fmt::format(FMT_STRING("{:.2f} times the flux of all luminaires: just met ({})"), factor, marks));
}

void Explainer::suggest_finishes(Check& check) const {
  const std::string walls = fmt::format(FMT_STRING("walls brighter by {:.1f}"), kBrighter);
  suggest(check, walls, repainted(walls, {{"walls", kBrighter}}), true);
  const std::string both = fmt::format(FMT_STRING("walls and ceiling brighter by {:.1f}"), kBrighter);
  suggest(check, both, repainted(both, {{"walls", kBrighter}, {"ceiling", kBrighter}}));
  const std::string darker = fmt::format(FMT_STRING("walls darker by {:.1f}"), kBrighter);
  const double with_darker = value_of(check, repainted(darker, {{"walls", -kBrighter}}));
  if (value_words(check, with_darker) == value_words(check, check.actual)) return;
  check.why.push_back(
      fmt::format(FMT_STRING("with {} it would be {}"), darker, value_words(check, with_darker)));
}

/// Arrays with a row or a column more, the same flux in all.
void Explainer::suggest_spacing(Check& check) const {
  for (std::size_t g = 0; g < space_.groups.size(); ++g) {
    const space::LuminaireGroup& group = space_.groups[g];
    if (!group.array) continue;
    const int rows = group.array->rows, columns = group.array->columns;
    for (const auto& [r, c] : {std::pair{rows, columns + 1}, {rows + 1, columns}, {rows + 1, columns + 1}}) {
      const auto luminaires = as_array(space_, g, r, c);
      if (luminaires.empty()) continue;
      const double factor = double(group.luminaires.size()) / double(luminaires.size());
      const std::string change =
          fmt::format(FMT_STRING("{} in {} x {} instead of {} x {}, each with {:.0f} % of the flux"),
                      group.mark, r, c, rows, columns, 100 * factor);
      suggest(check, change, known(fmt::format(FMT_STRING("{} {}"), g, change), [&] {
                return trials_.with_group(g, luminaires, factor);
              }));
    }
  }
}

/// The same flux in a wider lobe, of the groups that shine straight down and narrower than that; nothing when
/// there are none. `marks`: whose.
Lux Explainer::widened(double half_deg, std::vector<std::string>& marks) const {
  const Lux before = trials_.as_it_is();
  Lux lux = before;
  for (std::size_t g = 0; g < space_.groups.size(); ++g) {
    const space::LuminaireGroup& group = space_.groups[g];
    const photometry::IntensityTable& table = group.photometry->table;
    const auto edges = photometry::beam_edges(table, 0, 0.5);
    if (table.peak().gamma_deg > kStraightDown || table.upward_flux() > 0.1 * table.flux() || !edges ||
        edges->width_deg() >= 2 * half_deg - 5)
      continue;
    const Lux changed = trials_.with_table(g, even_lobe(table.flux(), half_deg));
    for (std::size_t r = 0; r < lux.size(); ++r) lux[r] += changed[r] - before[r];
    if (std::find(marks.begin(), marks.end(), group.mark) == marks.end()) marks.push_back(group.mark);
  }
  return lux;
}

void Explainer::suggest_wider(Check& check) const {
  for (const double half : kWider) {
    std::vector<std::string>& marks = widened_marks_[half];
    const Lux& lux = known(fmt::format(FMT_STRING("beam {}"), half), [&] { return widened(half, marks); });
    if (marks.empty()) continue;
    suggest(check,
            fmt::format(FMT_STRING("the same flux in a beam of {:.0f} deg ({})"), 2 * half,
                        fmt::join(marks, ", ")),
            lux);
  }
}

/// Above low points of a level plane, before those of an upright one; clear of the walls.
void Explainer::suggest_one_more(Check& check, std::size_t grid, const DarkestPoints& low) const {
  std::size_t nearest = space_.groups.size();
  double distance = 1e30;
  for (std::size_t g = 0; g < space_.groups.size(); ++g) {
    const double own = (space_.groups[g].luminaires.front().frame.origin - low.middle).norm();
    if (own < distance) nearest = g;
    distance = std::min(distance, own);
  }
  if (nearest == space_.groups.size()) return;
  photometry::PlacedLuminaire more = space_.groups[nearest].luminaires.front();
  const Vec3& normal = result_.grids[grid].grid.plane.normal;
  const bool upright = std::abs(normal.z()) < kUpright;
  more.frame.origin.head<2>() = low.middle.head<2>();
  if (upright) more.frame.origin.head<2>() += kBefore * normal.head<2>().normalized();
  const double reach = std::max(more.area.extent_c0_m, more.area.extent_c90_m) / 2;
  if (!geometry::in_inset_area(space_.outline, reach, more.frame.origin.head<2>())) return;
  suggest(check,
          fmt::format(FMT_STRING("one more {} {} the low points, at {}"), space_.groups[nearest].mark,
                      upright ? "before" : "above", words_.spot(more.frame.origin)),
          trials_.with_one_more(nearest, more));
}

void Explainer::explain_colour(Check& check) const {
  for (const space::LuminaireGroup& group : space_.groups)
    if (group.ra && *group.ra < check.demand.required) {
      const std::string words = fmt::format(FMT_STRING("{} has Ra {:g}"), group.mark, *group.ra);
      if (std::find(check.why.begin(), check.why.end(), words) == check.why.end()) check.why.push_back(words);
    }
  check.help.push_back(fmt::format(FMT_STRING("luminaires of Ra {:g} or more"), check.demand.required));
}

void Explainer::explain_failure(Check& check) {
  if (check.demand.quantity == Quantity::colour_rendering) return explain_colour(check);
  const std::size_t grid = grid_of(check);
  if (grid == result_.grids.size() || receivers_[grid].judged.empty()) return;
  const DarkestPoints low = darkest_points(transport_, receivers_[grid].judged, trials_.as_it_is());
  check.why.push_back(where(low, space_, transport_));
  check.why.push_back(served_by(low, space_, transport_));
  say_split(check, grid);
  if (check.demand.quantity == Quantity::uniformity) {
    if (is_quick()) {
      suggest_spacing(check);
      suggest_wider(check);
    } else {
      check.why.push_back("other spacings and wider beams were not tried: too many luminaires and points");
    }
    suggest_one_more(check, grid, low);
  } else {
    suggest_flux(check);
    suggest_one_more(check, grid, low);
  }
  suggest_finishes(check);
  // What does alone comes first.
  std::stable_partition(check.help.begin(), check.help.end(), [](const std::string& words) {
    return words.find("not enough alone") == std::string::npos && words.find("but ") == std::string::npos;
  });
}

/// More light than asked for costs power; how far all could be dimmed, other checks stay met.
void Explainer::explain_waste(Check& check) {
  if (check.demand.quantity != Quantity::mean_illuminance) return;
  if (check.area != to_string(space::GridRole::work_plane) &&
      check.area != to_string(space::GridRole::task_area))
    return;
  if (check.actual < kMetByFar * check.demand.required + check.uncertainty) return;
  double share = 0;
  const Check* limit = &check;
  for (const Check& other : result_.checks) {
    if (other.unit() != "lx" || other.actual <= 0 || other.verdict != Verdict::met) continue;
    const double own = other.demand.required / other.actual;
    if (own > share) limit = &other;
    share = std::max(share, own);
  }
  check.why.push_back(
      fmt::format(FMT_STRING("{:.2f} times what is asked for"), check.actual / check.demand.required));
  std::string words =
      fmt::format(FMT_STRING("dimmed to {:.0f} % all levels that are met stay met"), std::ceil(100 * share));
  if (limit != &check) words += fmt::format(FMT_STRING(" (the limit is {})"), limit->where);
  if (result_.power.installed_w)
    words += fmt::format(FMT_STRING("; {:.0f} of {:.0f} W are more than needed"),
                         (1 - share) * *result_.power.installed_w, *result_.power.installed_w);
  check.why.push_back(std::move(words));
}

}  // namespace

void put_first_what_does_alone(Check& check) {
  std::stable_partition(check.help.begin(), check.help.end(), [](const std::string& words) {
    return words.find("not enough alone") == std::string::npos && words.find("but ") == std::string::npos;
  });
}

void explain(const space::Space& space, const transport::Transport& transport, const assess::RoomLight& light,
             const std::vector<GridReceivers>& receivers, const Watch& watch, assess::RoomResult& result) {
  Explainer(space, transport, light, receivers, watch, result).explain_all();
}

}  // namespace glow::studies
