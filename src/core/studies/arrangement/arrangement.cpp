#include "core/studies/arrangement/arrangement.hpp"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/studies/arrangement/field_judge.hpp"
#include "core/studies/trials.hpp"

namespace glow::studies {
namespace {

constexpr std::size_t kMostRunnersUp = 5;
constexpr double kFurther = 1.5;             // times the best's luminaires: so far runners-up are looked for
constexpr std::size_t kMostCalculated = 40;  // of one number of luminaires
constexpr std::size_t kMostTried = 8;        // calculated of one way out
constexpr std::size_t kFewestFields = 12;    // luminaires that are always looked at
constexpr double kTimesFewest = 4;
constexpr double kAreaOfOne = 0.7;    // m2: no denser, unless told so
constexpr double kOverlit = 2.5;      // times the mean that is asked for
constexpr double kOverlitOfMany = 2;  // where the best of many candidates is looked for
constexpr double kSameHand = 1e-9;
constexpr std::size_t kCompared = 4;    // fields calculated tell what quick light is off for a luminaire
constexpr double kBetween = 0.01;       // in hand, that fields may differ in what quick light is off
constexpr double kNearlyAsGood = 0.05;  // in hand, where the best of many candidates is looked for

/// Whether `a` saves more than `b`, or as much and has more in hand.
bool is_better(const TriedField& a, const TriedField& b, Least least) {
  if (least == Least::watts && a.field.watts && b.field.watts &&
      std::abs(*a.field.watts - *b.field.watts) > 1e-6)
    return *a.field.watts < *b.field.watts;
  if (a.field.luminaires != b.field.luminaires) return a.field.luminaires < b.field.luminaires;
  if (a.field.watts && b.field.watts && std::abs(*a.field.watts - *b.field.watts) > 1e-6)
    return *a.field.watts < *b.field.watts;
  return a.in_hand() > b.in_hand() + kSameHand;
}

/// Whether the check is about the luminaire, wherever it hangs upright.
bool is_of_luminaire(standards::Quantity quantity) {
  return quantity == standards::Quantity::colour_rendering ||
         quantity == standards::Quantity::luminaire_luminance ||
         quantity == standards::Quantity::shielding_angle;
}

class Search {
 public:
  Search(const SearchRoom& room, const ArrangementWish& wish)
      : room_(room), wish_(wish), by_number_(wish.least != Least::watts || wish.least_dimming >= 1) {}

  Arrangement run() {
    try {
      judge_.emplace(room_, wish_.base, room_.light);
      light_ = judge_->light();
      if (!wish_.best_only || !lacks_by_itself()) {
        prepare();
        look_through();
      }
      choose_nearest();
      if (!found_.best && found_.nearest && !wish_.best_only && !is_hopeless_) find_ways_out();
    } catch (const Cancelled&) {
      found_.stopped = true;
    }
    return std::move(found_);
  }

 private:
  void prepare();
  void look_through();
  bool lacks_by_itself();
  std::vector<const LaidField*> not_too_dark(std::size_t begin, std::size_t end) const;
  void look_at_level(std::size_t begin, std::size_t end);
  bool surely_takes_more(const TriedField& quick) const;
  bool is_out_of_reach(const FieldJudge::OpenField& field) const;
  bool has_as_much(const FieldJudge::OpenField& field, std::size_t luminaires) const;
  void take(TriedField tried);
  void keep_nearest(const TriedField& tried);
  void choose_nearest();
  bool is_done(std::size_t luminaires) const;
  void find_ways_out();
  void try_beams();
  void try_heights();
  void try_paint();
  std::optional<TriedField> first_that_meets(const ArrangementWish& wish) const;

  const SearchRoom& room_;
  const ArrangementWish& wish_;
  bool is_hopeless_ = false;   ///< the luminaire itself misses a check
  bool all_overlit_ = false;   ///< all fields of the last number: more luminaires mend nothing
  std::size_t compared_ = 0;   ///< fields that were calculated after quick light
  double gained_ = -INFINITY;  ///< by how much more one had in hand then, at most
  const bool by_number_;       ///< what is to be saved grows with the number of luminaires
  std::optional<FieldJudge> judge_;
  std::shared_ptr<const FieldLight> light_;
  std::vector<LaidField> fields_;
  std::map<std::size_t, TriedField>
      nearest_;  ///< of each number of luminaires, of those that do not meet all
  Arrangement found_;
};

/// Whether the luminaire misses a check wherever it hangs: then no array need be laid.
bool Search::lacks_by_itself() {
  Field field;
  field.rows = field.columns = 1;
  auto group = room_.lay(field.placement(wish_.base));
  if (!judge_->has_quick_light() || !group) return false;
  field.luminaires = group->luminaires.size();
  const LaidField laid{field, std::move(*group)};
  judge_->look_at({&laid});
  TriedField tried = judge_->quick(laid, true);
  auto& checks = tried.checks;
  checks.erase(std::remove_if(checks.begin(), checks.end(),
                              [](const standards::Check& check) {
                                return !is_of_luminaire(check.demand.quantity) ||
                                       !std::isfinite(check.actual) || check.would_meet(check.actual);
                              }),
               checks.end());
  if (checks.empty()) return false;
  tried.meets = false;
  keep_nearest(tried);
  return true;
}

void Search::prepare() {
  // One of many candidates is only weighed; what is said of an arrangement is proved.
  const bool proves = !wish_.best_only && judge_->has_quick_light();
  const auto [fewest, because] = proves ? judge_->surely_fewest(hanging_places(room_, wish_))
                                        : judge_->fewest(sample_places(room_, wish_));
  found_.least_luminaires = fewest;
  found_.least_because = because;
  const double as_dense = room_.setting.space().floor_area_m2 / kAreaOfOne;
  const std::size_t usual = std::size_t(std::min(kTimesFewest * double(fewest), as_dense));
  found_.most_luminaires =
      wish_.most > 0 ? std::size_t(wish_.most)
                     : std::clamp(usual, kFewestFields, std::size_t(ArrangementWish::kMostLuminaires));
  AllFields all = all_fields(room_, wish_, fewest, found_.most_luminaires);
  if (all.fields.empty() && all.too_few > 0) all = all_fields(room_, wish_, 1, found_.most_luminaires);
  fields_ = std::move(all.fields);
  found_.blocked = all.blocked;
  found_.fields = fields_.size() + all.too_few;
}

/// Where it ends: least luminaires are found in the order of their number, and so is what grows with it;
/// where dimming counts all are looked at.
bool Search::is_done(std::size_t luminaires) const {
  if (!found_.best || !by_number_) return false;
  const std::size_t best = found_.best->field.luminaires;
  return luminaires > best && (wish_.best_only || found_.runners_up.size() >= kMostRunnersUp ||
                               double(luminaires) > kFurther * double(best));
}

void Search::look_through() {
  std::size_t begin = 0;
  while (begin < fields_.size()) {
    std::size_t end = begin;
    const std::size_t luminaires = fields_[begin].field.luminaires;
    while (end < fields_.size() && fields_[end].field.luminaires == luminaires) ++end;
    if (is_done(luminaires)) return;
    if (is_hopeless_) return;
    if (all_overlit_ && !found_.best) {
      found_.most_luminaires = luminaires - 1;
      return;
    }
    room_.watch.report("arrangements", double(begin) / double(fields_.size()));
    if (luminaires >= found_.least_luminaires) look_at_level(begin, end);
    begin = end;
  }
}

/// Those of one number of luminaires that may give light enough; of none, the one that gives most.
std::vector<const LaidField*> Search::not_too_dark(std::size_t begin, std::size_t end) const {
  std::vector<double> times(end - begin);
  parallel_for(end - begin, room_.watch.silent(), "arrangements",
               [&](std::size_t i) { times[i] = judge_->about_times_asked(fields_[begin + i]); });
  std::vector<const LaidField*> level;
  for (std::size_t i = 0; i < times.size(); ++i)
    if (times[i] >= 1 - MeanMap::kMargin) level.push_back(&fields_[begin + i]);
  const auto most = std::max_element(times.begin(), times.end());
  if (level.empty()) level.push_back(&fields_[begin + std::size_t(most - times.begin())]);
  return level;
}

/// All fields of one number of luminaires.
void Search::look_at_level(std::size_t begin, std::size_t end) {
  const std::vector<const LaidField*> level = not_too_dark(begin, end);
  double least_lit = INFINITY;
  const std::vector<FieldJudge::OpenField> open = judge_->open_of(
      level,
      [&](const TriedField& quick) {
        least_lit = std::min(least_lit, quick.times_asked());
        return surely_takes_more(quick);
      },
      [&](const TriedField& quick) {
        least_lit = std::min(least_lit, quick.times_asked());
        keep_nearest(quick);
      });
  all_overlit_ = least_lit > (wish_.best_only ? kOverlitOfMany : kOverlit) && std::isfinite(least_lit);
  if (judge_->has_quick_light()) found_.looked_at += end - begin;
  // Beyond the best's own number of luminaires runners-up are enough.
  const bool only_runners_up =
      found_.best && by_number_ && found_.best->field.luminaires < fields_[begin].field.luminaires;
  std::size_t most = only_runners_up ? 1 : open.size();
  for (std::size_t i = 0; i < std::min(open.size(), most); ++i) {
    // Once one meets all, or where only the best of many candidates is looked for, some more are enough.
    if (wish_.best_only || (found_.best && by_number_)) most = std::min(most, kMostCalculated);
    if (has_as_much(open[i], fields_[begin].field.luminaires) || is_out_of_reach(open[i])) break;
    ++found_.calculated;
    TriedField tried = judge_->calculated(*open[i].field, wish_.least_dimming);
    ++compared_;
    gained_ = std::max(gained_, tried.in_hand() - open[i].in_hand);
    take(std::move(tried));
  }
}

/// Whether the best has so few luminaires, too, and more in hand than this one could have.
bool Search::has_as_much(const FieldJudge::OpenField& field, std::size_t luminaires) const {
  return by_number_ && found_.best && found_.best->field.luminaires == luminaires &&
         field.in_hand + (wish_.best_only ? kNearlyAsGood : FieldJudge::kPointMargin) <
             found_.best->in_hand();
}

/// Where the best of many candidates is looked for: whether it misses by more than any field that was
/// calculated was better than it looked.
bool Search::is_out_of_reach(const FieldJudge::OpenField& field) const {
  return wish_.best_only && compared_ >= kCompared && field.in_hand + gained_ + kBetween < 0;
}

/// Whether it takes more watts than the best, dimmed as far as its light allows.
bool Search::surely_takes_more(const TriedField& quick) const {
  if (by_number_ || !found_.best || !found_.best->field.watts || !room_.kept.groups->empty()) return false;
  double share = wish_.least_dimming;
  for (const standards::Check& check : quick.checks)
    if (check.demand.quantity == standards::Quantity::mean_illuminance && check.actual > 0)
      share = std::max(share, check.demand.required / (check.actual * (1 + FieldJudge::kMeanMargin)));
  return quick.field.watts && std::min(share, 1.0) * *quick.field.watts > *found_.best->field.watts;
}

void Search::take(TriedField tried) {
  if (!tried.meets) return keep_nearest(tried);
  if (found_.best && !is_better(tried, *found_.best, wish_.least)) {
    found_.runners_up.push_back(std::move(tried));
  } else {
    if (found_.best) found_.runners_up.push_back(*found_.best);
    found_.best = std::move(tried);
  }
  auto& list = found_.runners_up;
  std::stable_sort(list.begin(), list.end(),
                   [&](const auto& a, const auto& b) { return is_better(a, b, wish_.least); });
  if (list.size() > kMostRunnersUp) list.resize(kMostRunnersUp);
}

void Search::keep_nearest(const TriedField& tried) {
  // What a luminaire lacks by itself no arrangement gives it.
  for (const standards::Check& check : tried.checks)
    is_hopeless_ = is_hopeless_ || (is_of_luminaire(check.demand.quantity) && std::isfinite(check.actual) &&
                                    !check.would_meet(check.actual));
  const auto [known, is_new] = nearest_.try_emplace(tried.field.luminaires, tried);
  if (!is_new && tried.in_hand() > known->second.in_hand()) known->second = tried;
}

/// Of those that are smaller than the best, where there is one.
void Search::choose_nearest() {
  for (const auto& [luminaires, tried] : nearest_) {
    if (found_.best && luminaires >= found_.best->field.luminaires) continue;
    if (!found_.nearest || tried.in_hand() > found_.nearest->in_hand()) found_.nearest = tried;
  }
}

/// The same search with something else changed, for its first field that meets all.
std::optional<TriedField> Search::first_that_meets(const ArrangementWish& wish) const {
  FieldJudge judge(room_, wish.base, light_);
  std::size_t calculated = 0;
  const std::vector<LaidField> fields =
      all_fields(room_, wish, found_.least_luminaires, found_.most_luminaires).fields;
  for (std::size_t begin = 0, end = 0; begin < fields.size(); begin = end) {
    const std::size_t luminaires = fields[begin].field.luminaires;
    std::vector<const LaidField*> level;
    for (; end < fields.size() && fields[end].field.luminaires == luminaires; ++end)
      level.push_back(&fields[end]);
    if (luminaires < found_.least_luminaires) continue;
    for (const FieldJudge::OpenField& open : judge.open_of(
             level, [](const TriedField&) { return false; }, [](const TriedField&) {})) {
      TriedField tried = judge.calculated(*open.field, wish.least_dimming);
      if (tried.meets) return tried;
      if (++calculated >= kMostTried) return std::nullopt;
    }
  }
  return std::nullopt;
}

/// Its flux in even lobes that fall to half at wider and wider angles.
void Search::try_beams() {
  const model::ScheduledLuminaire* entry = room_.project.find(wish_.base.mark);
  if (!entry || !entry->photometry) return;
  for (const double angle : {30.0, 40.0, 50.0, 60.0}) {
    SearchRoom changed = room_;
    auto photometry = std::make_shared<photometry::Photometry>(*entry->photometry);
    photometry->table = *even_lobe(photometry->flux_lm(), angle);
    const std::shared_ptr<const photometry::IntensityTable> table(photometry, &photometry->table);
    changed.lay = [&](const model::LuminairePlacement& placement) {
      auto group = room_.lay(placement);
      if (!group) return group;
      group->photometry = photometry;
      for (photometry::PlacedLuminaire& luminaire : group->luminaires) luminaire.table = table;
      return group;
    };
    Search other(changed, wish_);
    other.light_ = light_;
    other.found_.least_luminaires = found_.least_luminaires;
    other.found_.most_luminaires = found_.most_luminaires;
    if (auto field = other.first_that_meets(wish_)) {
      found_.ways_out.push_back({WayOut::Kind::wider_beam, angle, std::move(*field)});
      return;
    }
  }
}

void Search::try_heights() {
  if (!wish_.heights_m.empty() || !wish_.base.on.empty()) return;
  const double ceiling = room_.setting.space().height_m;
  const auto own = room_.lay(Field{}.placement(wish_.base));
  if (!own || !room_.setting.space().roofed) return;
  const double now = own->luminaires.front().frame.origin.z();
  for (const double share : {0.95, 0.85, 0.75}) {
    const double height = std::round(share * ceiling * 10) / 10;
    if (std::abs(height - now) < 0.1 || height < 2.0) continue;
    ArrangementWish wish = wish_;
    wish.heights_m = {height};
    if (auto field = first_that_meets(wish)) {
      found_.ways_out.push_back({WayOut::Kind::mounting_height, height, std::move(*field)});
      return;
    }
  }
}

void Search::try_paint() {
  for (const LaidField& field : fields_) {
    const Field &own = field.field, &near = found_.nearest->field;
    if (own.rows != near.rows || own.columns != near.columns || own.turned != near.turned ||
        own.staggered != near.staggered || own.height_m != near.height_m)
      continue;
    for (const double by : {0.1, 0.2, 0.3}) {
      TriedField tried = judge_->brighter(field, by);
      if (!tried.meets) continue;
      found_.ways_out.push_back({WayOut::Kind::brighter_surfaces, by, std::move(tried)});
      return;
    }
    return;
  }
}

void Search::find_ways_out() {
  try_beams();
  try_heights();
  try_paint();
}

}  // namespace

Arrangement find_arrangement(const SearchRoom& room, const ArrangementWish& wish) {
  return Search(room, wish).run();
}

}  // namespace glow::studies
