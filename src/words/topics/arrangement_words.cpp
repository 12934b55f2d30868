#include "words/topics/arrangement_words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/standards/usual_hours.hpp"
#include "words/standing.hpp"
#include "words/text_layout.hpp"
#include "words/values.hpp"

namespace glow::words {
namespace {

using standards::Check;
using standards::Quantity;
using studies::TriedField;
using studies::WayOut;

class Answer {
 public:
  Answer(const ArrangementTold& told, const units::ShownUnits& units) : told_(told), units_(units) {}

  std::string text() {
    if (told_.found.best && told_.room)
      say_best();
    else
      say_none();
    return std::move(text_);
  }

 private:
  /// Of all numbers of luminaires.
  std::string blocked_words() const {
    return fmt::format(
        FMT_STRING("{} of {} arrays would meet a wall, a door, an object or another luminaire. "),
        told_.found.blocked, told_.found.blocked + told_.found.fields);
  }
  void say_best();
  void say_why_not_fewer();
  void say_runners_up();
  void say_energy();
  void say_none();
  void say_ways_out();
  void line(const std::string& lead, const std::string& words) { wrap(text_, lead, words, lead.size()); }

  /// With the thing that it is about, where that is not the room's first plane.
  std::string check_words(const Check& check) const {
    const bool named = check.target.kind == standards::Target::Kind::grid && check.target.id != 0;
    return (named ? told_.grids.at(check.target.id) + ", " : "") + held_words(check, units_);
  }
  std::string watts_words(const studies::Field& field) const {
    return field.watts ? fmt::format(FMT_STRING("{:.0f} W"), *field.watts) : std::string("watts unknown");
  }
  std::string actual(const TriedField& tried, Quantity quantity) const {
    for (const Check& check : tried.checks)
      if (check.demand.quantity == quantity && std::isfinite(check.actual))
        return number(quantity, check.actual, units_, Detail::sentence);
    return "-";
  }

  const ArrangementTold& told_;
  const units::ShownUnits& units_;
  std::string text_;
};

void Answer::say_best() {
  const TriedField& best = *told_.found.best;
  const double area = told_.room->floor_area_m2;
  text_ += fmt::format(FMT_STRING("{}: {} {}, {}\n"), told_.room_name, best.field.luminaires,
                       told_.wish.base.mark, field_words(best.field, units_));
  const auto& checks = told_.room->assessment.checks;
  const auto binding = std::count_if(checks.begin(), checks.end(), [](const Check& c) { return c.binding; });
  std::string words;
  if (best.field.watts)
    words = fmt::format(FMT_STRING("{}, {:.2f} W/m2; "), watts_words(best.field), *best.field.watts / area);
  if (const Check* tight = best.tightest())
    words += fmt::format(FMT_STRING("meets all {} checks, nearest to its limit: {}"), binding,
                         check_words(*tight));
  else
    words += "the room has no checks: nothing was asked of the light";
  line("  ", words);
  if (told_.short_form) return;
  say_why_not_fewer();
  say_energy();
  say_runners_up();
}

/// Which smaller fields there are, and how they were ruled out.
void Answer::say_why_not_fewer() {
  const studies::Arrangement& found = told_.found;
  const std::size_t best = found.best->field.luminaires;
  if (best <= 1) return;
  std::string words;
  if (found.least_because && found.least_luminaires > 1)
    words = fmt::format(
        FMT_STRING("Fewer than {} cannot give {} even at the best places. "), found.least_luminaires,
        value(found.least_because->demand.quantity, found.least_because->demand.required, units_));
  if (found.least_luminaires < best && found.nearest) {
    const Check* worst = found.nearest->tightest();
    const std::string counts = found.least_luminaires == best - 1
                                   ? fmt::format(FMT_STRING("of {}"), best - 1)
                                   : fmt::format(FMT_STRING("of {} to {}"), found.least_luminaires, best - 1);
    words += fmt::format(FMT_STRING("All even arrays {} were looked at; nearest: {}, {}{}. "), counts,
                         counted(found.nearest->field.luminaires, "luminaire"),
                         field_words(found.nearest->field, units_),
                         worst ? ", " + check_words(*worst) : std::string());
  } else if (found.least_luminaires < best) {
    words += "No array of fewer fits. ";
  }
  if (found.blocked > 0) words += blocked_words();
  if (told_.overruled > 0)
    words += fmt::format(FMT_STRING("{} met all checks only within their uncertainty and were passed over."),
                         told_.overruled);
  if (!words.empty()) line("  Why not fewer: ", words);
}

void Answer::say_energy() {
  const auto hours = standards::usual_hours(told_.task_area);
  const studies::Field& field = told_.found.best->field;
  if (!hours || !field.watts) return;
  const double kwh = *field.watts * (hours->day_h + hours->night_h) / 1000;
  line("  Energy: ",
       fmt::format(FMT_STRING("about {:.0f} kWh a year at the usual {:.0f} h (EN 15193-1, {}), {:.0f} "
                              "where it goes off by itself when nobody is there; less with daylight"),
                   kwh, hours->day_h + hours->night_h, hours->building, kwh * standards::kPresenceControl));
}

void Answer::say_runners_up() {
  if (told_.found.runners_up.empty()) return;
  text_ += fmt::format(FMT_STRING("\n  {:<34} {:>5} {:>7} {:>6} {:>5} {:>5}  {}\n"), "", "count", "W", "mean",
                       "U0", "UGR", "nearest to its limit");
  const auto row = [&](const TriedField& tried, const char* lead) {
    const Check* tight = tried.tightest();
    text_ += fmt::format(
        FMT_STRING("  {:<34} {:>5} {:>7} {:>6} {:>5} {:>5}  {}\n"),
        fitted(lead + field_words(tried.field, units_), 34), tried.field.luminaires,
        tried.field.watts ? fmt::format(FMT_STRING("{:.0f}"), *tried.field.watts) : std::string("?"),
        actual(tried, Quantity::mean_illuminance), actual(tried, Quantity::uniformity),
        actual(tried, Quantity::unified_glare), tight ? symbol(tight->demand.quantity) : std::string());
  };
  row(*told_.found.best, "best: ");
  for (const TriedField& other : told_.found.runners_up) row(other, "also: ");
}

void Answer::say_none() {
  const studies::Arrangement& found = told_.found;
  text_ += fmt::format(FMT_STRING("{}: no even array of up to {} {} meets all checks\n"), told_.room_name,
                       found.most_luminaires, told_.wish.base.mark);
  if (found.nearest) {
    const Check* worst = found.nearest->tightest();
    line("  In the way: ",
         fmt::format(FMT_STRING("{}, at best with {} ({})"), worst ? check_words(*worst) : std::string("?"),
                     counted(found.nearest->field.luminaires, "luminaire"),
                     field_words(found.nearest->field, units_)));
  } else if (found.fields == 0) {
    line("  In the way: ",
         found.blocked > 0 ? blocked_words() : std::string("not one luminaire fits within the limits"));
  } else {
    line("  In the way: ",
         fmt::format(FMT_STRING("fewer than {} cannot give enough light, and no more than {} "
                                "are allowed"),
                     found.least_luminaires, found.most_luminaires));
  }
  if (!told_.short_form) say_ways_out();
}

void Answer::say_ways_out() {
  if (told_.found.blocked > 0 && told_.found.fields > 0) line("  Besides: ", blocked_words());
  for (const WayOut& way : told_.found.ways_out) {
    std::string change;
    if (way.kind == WayOut::Kind::wider_beam)
      change = fmt::format(FMT_STRING("the same flux in an even beam of {:.0f} deg to half peak"), way.value);
    if (way.kind == WayOut::Kind::mounting_height)
      change = fmt::format(FMT_STRING("hung at {}"), Values{units_}.length(way.value));
    if (way.kind == WayOut::Kind::brighter_surfaces)
      change = fmt::format(FMT_STRING("walls and ceiling brighter by {:.2f}"), way.value);
    line("  A way out: ",
         fmt::format(FMT_STRING("{}: {} ({}) meets all checks"), change,
                     counted(way.field.field.luminaires, "luminaire"), field_words(way.field.field, units_)));
  }
  if (told_.found.ways_out.empty() && told_.found.nearest)
    line("  A way out: ", "none among wider beams, other heights and brighter surfaces");
}

}  // namespace

std::string field_words(const studies::Field& field, const units::ShownUnits& units) {
  std::string words = fmt::format(FMT_STRING("{} x {}"), field.rows, field.columns);
  if (field.staggered) words += ", staggered";
  if (field.turned) words += ", turned";
  if (field.height_m) words += ", at " + Values{units}.length(*field.height_m);
  if (field.dimming < 1) words += fmt::format(FMT_STRING(", dimmed to {:.0f} %"), 100 * field.dimming);
  return words;
}

std::string key_values(const TriedField& tried, const units::ShownUnits& units) {
  std::string words;
  for (const Quantity quantity :
       {Quantity::mean_illuminance, Quantity::uniformity, Quantity::unified_glare}) {
    for (const Check& check : tried.checks) {
      if (check.demand.quantity != quantity || !std::isfinite(check.actual)) continue;
      words += (words.empty() ? "" : ", ") + symbol(quantity) + " " + value(quantity, check.actual, units);
      break;
    }
  }
  return words;
}

std::string shortcoming(const studies::Arrangement& found, const units::ShownUnits& units) {
  if (!found.nearest)
    return found.fields == 0 ? "not one fits in the room"
                             : "too little light, even with all that are allowed";
  const Check* worst = found.nearest->tightest();
  if (!worst) return "";
  const auto at_best = [&](const char* what) {
    return fmt::format(FMT_STRING("{}: {} at best"), what, held_words(*worst, units));
  };
  switch (worst->demand.quantity) {
    case Quantity::uniformity:
      return at_best("too uneven");
    case Quantity::unified_glare:
    case Quantity::glare_rating:
      return at_best("glares");
    case Quantity::mean_illuminance:
    case Quantity::minimum_illuminance:
      return at_best("too little light");
    case Quantity::colour_rendering:
      return at_best("colours");
    case Quantity::luminaire_luminance:
      return at_best("bright towards screens");
    default:
      return at_best("fails");
  }
}

std::string arrangement_answer(const ArrangementTold& told, const units::ShownUnits& units) {
  return Answer(told, units).text();
}

}  // namespace glow::words
