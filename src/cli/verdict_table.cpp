#include "cli/verdict_table.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "cli/text_layout.hpp"

namespace glow::cli {
namespace {

using standards::Check;
using standards::Quantity;
using standards::Verdict;

constexpr std::size_t kNameWidth = 30;

class VerdictTable {
 public:
  VerdictTable(const assess::RoomResult& room, const units::ShownUnits& units, bool colour)
      : room_(room), units_(units), colour_(colour) {}

  std::string write() {
    if (room_.checks.empty()) return {};
    text_ += fmt::format(FMT_STRING("\n  {:<{}} {:>9} {:>9} {:>9} {:>7}  {}\n"), "check", kNameWidth,
                         "required", "found", "margin", "+/-", "verdict");
    std::vector<std::string> standards;
    for (const Check& check : room_.checks)
      if (std::find(standards.begin(), standards.end(), check.demand.standard) == standards.end())
        standards.push_back(check.demand.standard);
    several_ = standards.size() > 1;
    for (const std::string& name : standards) {
      if (several_) text_ += fmt::format(FMT_STRING("  by {}\n"), name);
      write_standard(name);
    }
    write_notes();
    write_spread();
    return text_ + "\n";
  }

 private:
  void write_standard(const std::string& standard);
  void line(const Check& check, const std::string& name);
  void write_notes();
  void write_spread();
  void write_advice(const Check& check);
  double shown(const Check& check, double value) const {
    return check.unit() == "lx" ? units_.light(value) : value;
  }

  const assess::RoomResult& room_;
  const units::ShownUnits& units_;
  bool colour_;
  bool several_ = false;  ///< standards
  std::string text_;
  std::vector<const Check*> told_;
};

std::string short_words(Quantity quantity) {
  switch (quantity) {
    case Quantity::mean_illuminance:
      return "mean";
    case Quantity::minimum_illuminance:
      return "minimum";
    case Quantity::uniformity:
      return "U0";
    case Quantity::colour_rendering:
      return "Ra";
    case Quantity::unified_glare:
      return "UGR";
    case Quantity::glare_rating:
      return "GR";
    case Quantity::luminaire_luminance:
      return "cd/m2";
    case Quantity::shielding_angle:
      return "shielding";
  }
  return "";
}

/// Decimals that a value of the quantity is shown with.
int decimals(Quantity quantity) {
  switch (quantity) {
    case Quantity::uniformity:
      return 3;
    case Quantity::colour_rendering:
    case Quantity::luminaire_luminance:
      return 0;
    default:
      return 1;
  }
}

std::string required_words(const Check& check, const units::ShownUnits& units) {
  const Quantity quantity = check.demand.quantity;
  if (check.unit() == "lx")
    return fmt::format(FMT_STRING("{} {}"), units::light_words(units, check.demand.required),
                       units.light_unit());
  if (quantity == Quantity::uniformity) return fmt::format(FMT_STRING("{:.2f}"), check.demand.required);
  return fmt::format(FMT_STRING("{}{:g}"), standards::is_upper_limit(quantity) ? "<= " : "",
                     check.demand.required);
}

void VerdictTable::line(const Check& check, const std::string& name) {
  std::string words = name + ", " + short_words(check.demand.quantity);
  if (words.size() > kNameWidth)
    words = words.substr(0, kNameWidth - 6) + ".. " + short_words(check.demand.quantity);
  const auto number = [&](double value) {
    return fmt::format(FMT_STRING("{:.{}f}"), shown(check, value), decimals(check.demand.quantity));
  };
  const std::string mark = check.demand.certainty == "agreed" ? " " : "*";
  const std::string required = required_words(check, units_);
  const std::string verdict = standards::to_string(check.verdict);
  const std::string spread =
      check.uncertainty > 0 ? fmt::format(FMT_STRING("{:.2g}"), shown(check, check.uncertainty)) : "-";
  const double margin = check.margin();
  text_ +=
      fmt::format(FMT_STRING("  {:<{}} {:>9}{}{:>9} {:>9} {:>7}  {}\n"), words, kNameWidth, required, mark,
                  number(check.actual), (margin >= 0 ? "+" : "-") + number(std::abs(margin)), spread,
                  check.binding ? painted(verdict, colour_) : fmt::format(FMT_STRING("({})"), verdict));
}

/// One line for each check; walls that are met in one line, at the wall with the least margin.
void VerdictTable::write_standard(const std::string& standard) {
  std::map<Quantity, std::vector<const Check*>> met_walls;
  for (const Check& check : room_.checks)
    if (check.demand.standard == standard && check.area == "wall" && check.verdict == Verdict::met)
      met_walls[check.demand.quantity].push_back(&check);
  for (const Check& check : room_.checks) {
    if (check.demand.standard != standard) continue;
    std::string name = check.where;
    if (check.area == "wall" && check.verdict == Verdict::met) {
      std::vector<const Check*>& walls = met_walls[check.demand.quantity];
      if (walls.empty()) continue;
      const Check* least = *std::min_element(walls.begin(), walls.end(), [](const Check* a, const Check* b) {
        return a->margin() < b->margin();
      });
      line(*least, walls.size() == 1
                       ? least->where
                       : fmt::format(FMT_STRING("{} walls, least {}"), walls.size(), least->where));
      walls.clear();
      continue;
    }
    line(check, name);
  }
}

/// Once for a grid and quantity, even if several standards ask for it.
void VerdictTable::write_advice(const Check& check) {
  if (check.why.empty()) return;
  const auto same = [&](const Check* told) {
    return told->where == check.where && told->demand.quantity == check.demand.quantity &&
           told->verdict == check.verdict && told->demand.required >= check.demand.required;
  };
  if (std::any_of(told_.begin(), told_.end(), same)) return;
  told_.push_back(&check);
  const bool met = check.verdict == Verdict::met;
  wrap(text_, "  ",
       fmt::format(FMT_STRING("{}, {} is {}:"), check.where, to_string(check.demand.quantity),
                   met             ? "met by far"
                   : check.binding ? "not met"
                                   : "above the limit, for information"),
       4);
  for (const std::string& sentence : check.why) wrap(text_, "    - ", sentence, 6);
  if (met || check.help.empty()) return;
  text_ += "    What would help, each computed:\n";
  for (const std::string& sentence : check.help) wrap(text_, "    + ", sentence, 6);
}

/// How surely possible built rooms meet the checks.
void VerdictTable::write_spread() {
  if (!room_.spread) return;
  text_ += fmt::format(FMT_STRING("  of {} possible built rooms {:.0f} % meet all checks\n"),
                       room_.spread->samples, 100 * room_.spread->share);
  std::vector<const Check*> told;
  for (const Check& check : room_.checks) {
    if (!check.spread || check.where == "luminaires") continue;
    const auto same = [&](const Check* other) {
      return other->where == check.where && other->demand.quantity == check.demand.quantity &&
             other->demand.required == check.demand.required;
    };
    if (std::any_of(told.begin(), told.end(), same)) continue;
    told.push_back(&check);
    const auto number = [&](double value) {
      const double own = shown(check, value);
      return fmt::format(FMT_STRING("{:.{}f}"), own, check.unit().empty() ? 2 : own < 10 ? 1 : 0);
    };
    wrap(text_, "    ",
         fmt::format(FMT_STRING("{:>3.0f} %  {}, {}: 90 % of them {} to {}{}{}, required {}"),
                     100 * check.spread->share, check.where, short_words(check.demand.quantity),
                     number(check.spread->low), number(check.spread->high), check.unit().empty() ? "" : " ",
                     check.unit().empty() ? "" : units_.light_unit(), number(check.demand.required)),
         11);
  }
}

void VerdictTable::write_notes() {
  std::vector<std::string> notes;
  const auto note = [&](const std::string& words) {
    if (std::find(notes.begin(), notes.end(), words) == notes.end()) notes.push_back(words);
  };
  const auto any = [&](auto&& holds) { return std::any_of(room_.checks.begin(), room_.checks.end(), holds); };
  if (any([](const Check& c) { return !c.binding; }))
    note(any([](const Check& c) { return c.binding && c.area == "tabular method"; })
             ? "in brackets: for information; the tabular value verifies glare here"
             : "in brackets: for information; eyes without brackets verify glare here");
  for (const Check& check : room_.checks) {
    if (check.demand.certainty != "agreed")
      note(fmt::format(FMT_STRING("* certainty of the required value: {} ({})"), check.demand.certainty,
                       check.demand.source));
    if (!check.demand.reason.empty())
      note(several_ ? fmt::format(FMT_STRING("{} by {}: {}"), check.where, check.demand.standard,
                                  check.demand.reason)
                    : fmt::format(FMT_STRING("{}: {}"), check.where, check.demand.reason));
  }
  for (const std::string& words : notes) wrap(text_, "  ", words, 4);
  for (const Check& check : room_.checks) {
    if (check.verdict == Verdict::undecided && !check.binding) continue;
    if (check.verdict == Verdict::undecided) {
      wrap(text_, "  ",
           fmt::format(
               FMT_STRING("undecided: {} of {} is {:.4g} +/- {:.2g}, required {:.4g}; {}"),
               to_string(check.demand.quantity), check.where, shown(check, check.actual),
               shown(check, check.uncertainty), shown(check, check.demand.required),
               room_.refinements > 0
                   ? fmt::format(
                         FMT_STRING("still too close after {} refinements. Treat it as not met, or try "
                                    "--accuracy fine"),
                         room_.refinements)
                   : std::string("too close to tell")),
           4);
      continue;
    }
    write_advice(check);
  }
}

}  // namespace

std::string painted(const std::string& word, bool colour) {
  const char* code = word == "met" ? "32" : word == "not met" ? "1;31" : "1;33";
  return colour ? fmt::format(FMT_STRING("\x1b[{}m{}\x1b[0m"), code, word) : word;
}

std::string verdict_table(const assess::RoomResult& room, const units::ShownUnits& units, bool colour) {
  return VerdictTable(room, units, colour).write();
}

}  // namespace glow::cli
