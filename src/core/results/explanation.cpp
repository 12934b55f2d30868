#include "core/results/explanation.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/photometry/derived.hpp"

namespace glow::results {
namespace {

using standards::Check;
using standards::Quantity;
using standards::Verdict;

constexpr double kMetByFar = 1.3;        // times the required level
constexpr double kLowShare = 0.1;        // of a grid's points count as its low ones
constexpr double kAlongWall = 1.2;       // m from a wall: "along" it
constexpr double kBrighter = 0.2;        // change of reflectance that is tried
constexpr double kWider[] = {45, 60};    // deg: half angles of the lobes that are tried
constexpr double kStraightDown = 30;     // deg: where the peak of a luminaire lies that could be wider
constexpr double kWorthTelling = 0.005;  // change of U0 below which a variant does nothing

class Explainer {
 public:
  Explainer(const scene::RoomScene& scene, const transport::Transport& transport, const RoomLight& light,
            const std::vector<GridReceivers>& receivers, const Watch& watch, RoomResult& result)
      : scene_(scene),
        transport_(transport),
        light_(light),
        receivers_(receivers),
        result_(result),
        variants_(scene, transport, light, watch) {}

  void explain_all() {
    for (Check& check : result_.checks) {
      if (check.verdict == Verdict::not_met) explain_failure(check);
      if (check.verdict == Verdict::met) explain_waste(check);
    }
  }

 private:
  struct Outcome {
    double value = 0, mean_lx = 0;
    bool meets = false;       ///< this check
    std::string first_unmet;  ///< another check that would then not be met; empty: none
  };
  struct LowPoints {
    std::vector<std::size_t> receivers;
    Vec3 middle = Vec3::Zero(), lowest = Vec3::Zero();
    double lowest_lx = 0;
  };

  void explain_failure(Check& check);
  void explain_waste(Check& check);
  void explain_colour(Check& check) const;
  std::size_t grid_of(const Check& check) const;
  double value_of(const Check& check, const Lux& lux) const;
  Outcome outcome(const Check& check, const Lux& lux) const;
  LowPoints low_points(std::size_t grid) const;
  std::string where(const LowPoints& low) const;
  std::string served_by(const LowPoints& low) const;
  void say_split(Check& check, std::size_t grid) const;
  void suggest_flux(Check& check) const;
  void suggest_finishes(Check& check) const;
  void suggest_spacing(Check& check) const;
  void suggest_wider(Check& check) const;
  void suggest_one_more(Check& check, const LowPoints& low) const;
  void suggest(Check& check, const std::string& change, const Lux& lux, bool even_if_idle = false) const;
  std::string light(double lux) const {
    return fmt::format(FMT_STRING("{:.{}f} {}"), scene_.units.light(lux),
                       scene_.units.light(lux) < 10 ? 1 : 0, scene_.units.light_unit());
  }
  std::string spot(const Vec3& p) const {
    return fmt::format(FMT_STRING("({:.1f}, {:.1f})"), scene_.units.length(p.x()),
                       scene_.units.length(p.y()));
  }
  std::string length(double m) const {
    return fmt::format(FMT_STRING("{:.1f} {}"), scene_.units.length(m), scene_.units.length_unit());
  }
  std::string value_words(const Check& check, double value) const {
    return check.unit().empty() ? fmt::format(FMT_STRING("{:.2f}"), value) : light(value);
  }

  const scene::RoomScene& scene_;
  const transport::Transport& transport_;
  const RoomLight& light_;
  const std::vector<GridReceivers>& receivers_;
  RoomResult& result_;
  Variants variants_;
};

std::size_t Explainer::grid_of(const Check& check) const {
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
  outcome.meets = outcome.value >= check.demand.required;
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

Explainer::LowPoints Explainer::low_points(std::size_t grid) const {
  const auto& judged = receivers_[grid].judged;
  const Lux lux = variants_.as_it_is();
  LowPoints low;
  low.receivers = judged;
  std::stable_sort(low.receivers.begin(), low.receivers.end(),
                   [&](std::size_t a, std::size_t b) { return lux[a] < lux[b]; });
  low.receivers.resize(std::max<std::size_t>(1, std::size_t(std::lround(kLowShare * double(judged.size())))));
  low.lowest = transport_.receivers()[low.receivers.front()].position;
  low.lowest_lx = lux[low.receivers.front()];
  for (const std::size_t r : low.receivers)
    low.middle += transport_.receivers()[r].position / double(low.receivers.size());
  return low;
}

/// "the lowest 5 points lie along rack wall, about (7.2, 6.0); the least, 96 lx, at (8.0, 6.1)".
std::string Explainer::where(const LowPoints& low) const {
  std::vector<std::string> along;
  for (std::size_t wall = 0; wall < scene_.wall_names.size(); ++wall) {
    const Vec2 a = scene_.outline[wall], b = scene_.outline[(wall + 1) % scene_.outline.size()];
    const Vec2 way = (b - a).normalized(), inwards(-way.y(), way.x());
    std::size_t count = 0;
    for (const std::size_t r : low.receivers) {
      const Vec2 p = transport_.receivers()[r].position.head<2>() - a;
      count += p.dot(inwards) < kAlongWall && p.dot(way) > 0 && p.dot(way) < (b - a).norm();
    }
    if (2 * count > low.receivers.size()) along.push_back(scene_.wall_names[wall]);
  }
  std::string words = low.receivers.size() == 1
                          ? std::string("the lowest point lies")
                          : fmt::format(FMT_STRING("the lowest {} points lie"), low.receivers.size());
  if (!along.empty()) words += fmt::format(FMT_STRING(" along {}"), fmt::join(along, " and "));
  if (low.receivers.size() > 1)
    words += fmt::format(FMT_STRING("{} about {}; the least,"), along.empty() ? "" : ",", spot(low.middle));
  else
    words += fmt::format(FMT_STRING("{} at {}:"), along.empty() ? "" : ",", spot(low.lowest));
  words += " " + light(low.lowest_lx);
  return low.receivers.size() > 1 ? words + ", at " + spot(low.lowest) : words;
}

/// The luminaire nearest to the low points and what it gives them, with the one that gives most.
std::string Explainer::served_by(const LowPoints& low) const {
  struct Source {
    std::size_t group = 0, number = 0;
    double distance = 1e30, lux = -1;
  } nearest, best;
  for (std::size_t g = 0; g < scene_.groups.size(); ++g)
    for (std::size_t l = 0; l < scene_.groups[g].luminaires.size(); ++l) {
      const scene::LuminaireGroup& group = scene_.groups[g];
      const transport::DirectLight source(group.luminaires[l], &transport_.tracer(), &transport_.occluders());
      Source own{g, l, (group.luminaires[l].frame.origin - low.middle).norm(), 0};
      for (const std::size_t r : low.receivers)
        own.lux += group.dimming * group.maintenance_factor * source.illuminance(transport_.receivers()[r]) /
                   double(low.receivers.size());
      if (own.distance < nearest.distance) nearest = own;
      if (own.lux > best.lux) best = own;
    }
  if (best.lux < 0) return "there are no luminaires";
  const scene::LuminaireGroup& group = scene_.groups[nearest.group];
  const geometry::Frame& frame = group.luminaires[nearest.number].frame;
  const Vec3 way = low.middle - frame.origin;
  const double along = way.normalized().dot(frame.g0);
  const photometry::IntensityTable& table = *group.luminaires[nearest.number].table;
  const double share = table.intensity_along(way.dot(frame.c0), way.dot(frame.c90), way.dot(frame.g0)) /
                       std::max(1e-9, table.peak().candela);
  std::string words = fmt::format(
      FMT_STRING(
          "the luminaire nearest to them, {} at {}, {} away, gives {} straight: they lie {:.0f} deg off its "
          "axis, where it shines with {:.0f} % of its peak"),
      group.mark, spot(frame.origin), length(way.norm()), light(nearest.lux),
      std::acos(std::clamp(along, -1.0, 1.0)) / kDegree, 100 * share);
  if (best.group != nearest.group || best.number != nearest.number) {
    const scene::LuminaireGroup& other = scene_.groups[best.group];
    words += fmt::format(FMT_STRING("; {} at {} gives most, {}"), other.mark,
                         spot(other.luminaires[best.number].frame.origin), light(best.lux));
  }
  return words;
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
  if (!even_if_idle && o.value < check.actual + kWorthTelling * scale) return;
  std::string words = fmt::format(FMT_STRING("{}: {} {}"), change, check.unit().empty() ? "U0" : "mean",
                                  value_words(check, o.value));
  if (check.demand.quantity == Quantity::minimum_illuminance)
    words = fmt::format(FMT_STRING("{}: minimum {}"), change, value_words(check, o.value));
  if (check.unit().empty()) words += fmt::format(FMT_STRING(", mean {}"), light(o.mean_lx));
  words += o.meets ? ", met" : ", not enough alone";
  if (!o.first_unmet.empty()) words += fmt::format(FMT_STRING("; but {} would not be met"), o.first_unmet);
  check.help.push_back(std::move(words));
}

/// Light adds up: no relight is needed.
void Explainer::suggest_flux(Check& check) const {
  if (check.actual <= 0) return;
  const double factor = check.demand.required / check.actual;
  std::string marks;
  for (const scene::LuminaireGroup& group : scene_.groups) {
    if (marks.find(group.mark + " ") != std::string::npos) continue;
    marks += fmt::format(FMT_STRING("{}{} {:.0f} instead of {:.0f} lm"), marks.empty() ? "" : ", ",
                         group.mark, factor * group.dimming * group.photometry->flux_lm(),
                         group.dimming * group.photometry->flux_lm());
  }
  check.help.push_back(
      fmt::format(FMT_STRING("{:.2f} times the flux of all luminaires: just met ({})"), factor, marks));
}

void Explainer::suggest_finishes(Check& check) const {
  suggest(check, fmt::format(FMT_STRING("walls brighter by {:.1f}"), kBrighter),
          variants_.with_finishes({{"walls", kBrighter}}), true);
  suggest(check, fmt::format(FMT_STRING("walls and ceiling brighter by {:.1f}"), kBrighter),
          variants_.with_finishes({{"walls", kBrighter}, {"ceiling", kBrighter}}));
  const double darker = value_of(check, variants_.with_finishes({{"walls", -kBrighter}}));
  check.why.push_back(fmt::format(FMT_STRING("with walls darker by {:.1f} it would be {}"), kBrighter,
                                  value_words(check, darker)));
}

/// Arrays with a row or a column more, the same flux in all.
void Explainer::suggest_spacing(Check& check) const {
  for (std::size_t g = 0; g < scene_.groups.size(); ++g) {
    const scene::LuminaireGroup& group = scene_.groups[g];
    if (!group.array) continue;
    const int rows = group.array->rows, columns = group.array->columns;
    for (const auto& [r, c] : {std::pair{rows, columns + 1}, {rows + 1, columns}, {rows + 1, columns + 1}}) {
      const auto luminaires = as_array(scene_, g, r, c);
      if (luminaires.empty()) continue;
      const double factor = double(group.luminaires.size()) / double(luminaires.size());
      suggest(check,
              fmt::format(FMT_STRING("{} in {} x {} instead of {} x {}, each with {:.0f} % of the flux"),
                          group.mark, r, c, rows, columns, 100 * factor),
              variants_.with_group(g, luminaires, factor));
    }
  }
}

/// The same flux in wider lobes, of the groups that shine straight down and narrower than that.
void Explainer::suggest_wider(Check& check) const {
  for (const double half : kWider) {
    std::vector<std::string> marks;
    Lux lux = variants_.as_it_is();
    const Lux before = lux;
    for (std::size_t g = 0; g < scene_.groups.size(); ++g) {
      const scene::LuminaireGroup& group = scene_.groups[g];
      const photometry::IntensityTable& table = group.photometry->table;
      const auto edges = photometry::beam_edges(table, 0, 0.5);
      if (table.peak().gamma_deg > kStraightDown || table.upward_flux() > 0.1 * table.flux() || !edges ||
          edges->width_deg() >= 2 * half - 5)
        continue;
      std::vector<photometry::PlacedLuminaire> wider = group.luminaires;
      const auto lobe = even_lobe(table.flux(), half);
      for (photometry::PlacedLuminaire& luminaire : wider) luminaire.table = lobe;
      const Lux changed = variants_.with_group(g, wider, 1);
      for (std::size_t r = 0; r < lux.size(); ++r) lux[r] += changed[r] - before[r];
      if (std::find(marks.begin(), marks.end(), group.mark) == marks.end()) marks.push_back(group.mark);
    }
    if (marks.empty()) continue;
    suggest(check,
            fmt::format(FMT_STRING("the same flux in a beam of {:.0f} deg ({})"), 2 * half,
                        fmt::join(marks, ", ")),
            lux);
  }
}

void Explainer::suggest_one_more(Check& check, const LowPoints& low) const {
  std::size_t nearest = scene_.groups.size();
  double distance = 1e30;
  for (std::size_t g = 0; g < scene_.groups.size(); ++g) {
    const double own = (scene_.groups[g].luminaires.front().frame.origin - low.middle).norm();
    if (own < distance) nearest = g;
    distance = std::min(distance, own);
  }
  if (nearest == scene_.groups.size()) return;
  photometry::PlacedLuminaire more = scene_.groups[nearest].luminaires.front();
  more.frame.origin.head<2>() = low.middle.head<2>();
  if (!geometry::contains(scene_.outline, more.frame.origin.head<2>())) return;
  suggest(check,
          fmt::format(FMT_STRING("one more {} above the low points, at {}"), scene_.groups[nearest].mark,
                      spot(more.frame.origin)),
          variants_.with_one_more(nearest, more));
}

void Explainer::explain_colour(Check& check) const {
  for (const scene::LuminaireGroup& group : scene_.groups)
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
  const LowPoints low = low_points(grid);
  check.why.push_back(where(low));
  check.why.push_back(served_by(low));
  say_split(check, grid);
  if (check.demand.quantity == Quantity::uniformity) {
    suggest_spacing(check);
    suggest_wider(check);
    suggest_one_more(check, low);
  } else {
    suggest_flux(check);
    suggest_one_more(check, low);
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
  if (check.area != to_string(scene::GridRole::work_plane) &&
      check.area != to_string(scene::GridRole::task_area))
    return;
  if (check.actual < kMetByFar * check.demand.required + check.uncertainty) return;
  double share = 0;
  const Check* limit = &check;
  for (const Check& other : result_.checks) {
    if (other.unit().empty() || other.actual <= 0 || other.verdict != Verdict::met) continue;
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

void explain(const scene::RoomScene& scene, const transport::Transport& transport, const RoomLight& light,
             const std::vector<GridReceivers>& receivers, const Watch& watch, RoomResult& result) {
  Explainer(scene, transport, light, receivers, watch, result).explain_all();
}

}  // namespace glow::results
