#include "words/check_table.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "words/findings.hpp"
#include "words/text_layout.hpp"

namespace glow::words {
namespace {

using standards::Check;
using standards::Quantity;
using standards::Verdict;

constexpr std::size_t kNameWidth = 30;

class CheckTable {
 public:
  CheckTable(const record::RoomRecord& room, const units::ShownUnits& units, bool colour)
      : room_(room), units_(units), colour_(colour) {}

  std::string write() {
    if (room_.assessment.checks.empty()) return {};
    text_ += fmt::format(FMT_STRING("\n  {:<{}} {:>9} {:>9} {:>9} {:>7}  {}\n"), "check", kNameWidth,
                         "required", "found", "margin", "+/-", "verdict");
    std::vector<std::string> standards;
    for (const Check& check : room_.assessment.checks)
      if (std::find(standards.begin(), standards.end(), check.demand.standard) == standards.end())
        standards.push_back(check.demand.standard);
    several_ = standards.size() > 1;
    for (const std::string& name : standards) {
      if (several_) text_ += fmt::format(FMT_STRING("  by {}\n"), name);
      write_standard(name);
    }
    write_notes();
    write_tolerance();
    return text_ + "\n";
  }

 private:
  void write_standard(const std::string& standard);
  void line(const Check& check, const std::string& name);
  void write_notes();
  void write_tolerance();
  void write_advice(std::size_t number);
  std::string name(const Check& check) const { return name_of(check.target, room_); }
  bool is_wall(const Check& check) const {
    return check.target.kind == standards::Target::Kind::grid &&
           room_.assessment.grids[check.target.id].role == space::GridRole::wall;
  }
  double shown(const Check& check, double value) const {
    return check.unit() == "lx" ? units_.light(value) : value;
  }

  const record::RoomRecord& room_;
  const units::ShownUnits& units_;
  bool colour_;
  bool several_ = false;  ///< standards
  std::string text_;
  std::vector<const Check*> told_;
};

void CheckTable::line(const Check& check, const std::string& name) {
  const std::string quantity = symbol(check.demand.quantity);
  std::string words = name + ", " + quantity;
  if (words.size() > kNameWidth) words = words.substr(0, kNameWidth - 6) + ".. " + quantity;
  const auto in_table = [&](double value) {
    return number(check.demand.quantity, value, units_, Detail::table);
  };
  const std::string mark = check.demand.certainty == "agreed" ? " " : "*";
  const std::string asked = required(check.demand, units_);
  const std::string verdict = standards::to_string(check.verdict);
  const std::string sure =
      check.uncertainty > 0 ? fmt::format(FMT_STRING("{:.2g}"), shown(check, check.uncertainty)) : "-";
  const double margin = check.margin();
  text_ += fmt::format(FMT_STRING("  {:<{}} {:>9}{}{:>9} {:>9} {:>7}  {}\n"), words, kNameWidth, asked, mark,
                       in_table(check.actual), (margin >= 0 ? "+" : "-") + in_table(std::abs(margin)), sure,
                       check.binding ? painted(verdict, colour_) : fmt::format(FMT_STRING("({})"), verdict));
}

/// One line for each check; walls that are met in one line, at the wall with the least margin.
void CheckTable::write_standard(const std::string& standard) {
  std::map<Quantity, std::vector<const Check*>> met_walls;
  for (const Check& check : room_.assessment.checks)
    if (check.demand.standard == standard && is_wall(check) && check.verdict == Verdict::met)
      met_walls[check.demand.quantity].push_back(&check);
  for (const Check& check : room_.assessment.checks) {
    if (check.demand.standard != standard) continue;
    if (is_wall(check) && check.verdict == Verdict::met) {
      std::vector<const Check*>& walls = met_walls[check.demand.quantity];
      if (walls.empty()) continue;
      const Check* least = *std::min_element(walls.begin(), walls.end(), [](const Check* a, const Check* b) {
        return a->margin() < b->margin();
      });
      line(*least, walls.size() == 1
                       ? name(*least)
                       : fmt::format(FMT_STRING("{} walls, least {}"), walls.size(), name(*least)));
      walls.clear();
      continue;
    }
    line(check, name(check));
  }
}

/// Once for a grid and quantity, even if several standards ask for it.
void CheckTable::write_advice(std::size_t number) {
  const Check& check = room_.assessment.checks[number];
  const std::vector<std::string> causes = why(room_, number, units_), mends = help(room_, number, units_);
  if (causes.empty()) return;
  const auto same = [&](const Check* told) {
    return told->target == check.target && told->demand.quantity == check.demand.quantity &&
           told->verdict == check.verdict && told->demand.required >= check.demand.required;
  };
  if (std::any_of(told_.begin(), told_.end(), same)) return;
  told_.push_back(&check);
  const bool met = check.verdict == Verdict::met;
  wrap(text_, "  ",
       fmt::format(FMT_STRING("{}, {} is {}:"), name(check), to_string(check.demand.quantity),
                   met                                   ? "met by far"
                   : check.verdict == Verdict::undecided ? "undecided"
                   : check.binding                       ? "not met"
                                                         : "above the limit, for information"),
       4);
  for (const std::string& sentence : causes) wrap(text_, "    - ", sentence, 6);
  if (met || mends.empty()) return;
  text_ += "    What would help, each computed:\n";
  for (const std::string& sentence : mends) wrap(text_, "    + ", sentence, 6);
}

/// How surely possible built rooms meet the checks.
void CheckTable::write_tolerance() {
  if (!room_.tolerance) return;
  text_ += fmt::format(FMT_STRING("  of {} possible built rooms {:.0f} % meet all checks\n"),
                       room_.tolerance->samples, 100 * room_.tolerance->share);
  std::vector<const Check*> told;
  for (std::size_t c = 0; c < room_.assessment.checks.size(); ++c) {
    const Check& check = room_.assessment.checks[c];
    const auto& tolerance = room_.tolerance->checks[c];
    if (!tolerance || check.target.kind == standards::Target::Kind::light) continue;
    const auto same = [&](const Check* other) {
      return other->target == check.target && other->demand.quantity == check.demand.quantity &&
             other->demand.required == check.demand.required;
    };
    if (std::any_of(told.begin(), told.end(), same)) continue;
    told.push_back(&check);
    const auto told_number = [&](double value) {
      return number(check.demand.quantity, value, units_, Detail::sentence);
    };
    wrap(text_, "    ",
         fmt::format(FMT_STRING("{:>3.0f} %  {}, {}: 90 % of them {} to {}{}{}, required {}"),
                     100 * tolerance->share, name(check), symbol(check.demand.quantity),
                     told_number(tolerance->low), told_number(tolerance->high),
                     check.unit().empty() ? "" : " ", check.unit().empty() ? "" : units_.light_unit(),
                     told_number(check.demand.required)),
         11);
  }
}

void CheckTable::write_notes() {
  std::vector<std::string> notes;
  const auto note = [&](const std::string& words) {
    if (std::find(notes.begin(), notes.end(), words) == notes.end()) notes.push_back(words);
  };
  const auto any = [&](auto&& holds) {
    return std::any_of(room_.assessment.checks.begin(), room_.assessment.checks.end(), holds);
  };
  if (any([](const Check& c) { return !c.binding; }))
    note(any([](const Check& c) { return c.binding && c.target.kind == standards::Target::Kind::tabular; })
             ? "in brackets: for information; the tabular value verifies glare here"
             : "in brackets: for information; eyes without brackets verify glare here");
  for (const Check& check : room_.assessment.checks) {
    if (check.demand.certainty != "agreed")
      note(fmt::format(FMT_STRING("* certainty of the required value: {} ({})"), check.demand.certainty,
                       check.demand.source));
    if (!check.demand.reason.empty())
      note(several_ ? fmt::format(FMT_STRING("{} by {}: {}"), name(check), check.demand.standard,
                                  check.demand.reason)
                    : fmt::format(FMT_STRING("{}: {}"), name(check), check.demand.reason));
  }
  for (const std::string& words : notes) wrap(text_, "  ", words, 4);
  for (std::size_t c = 0; c < room_.assessment.checks.size(); ++c) {
    const Check& check = room_.assessment.checks[c];
    if (check.verdict == Verdict::undecided && !check.binding) continue;
    if (check.verdict == Verdict::undecided) {
      wrap(text_, "  ",
           fmt::format(
               FMT_STRING("undecided: {} of {} is {:.4g} +/- {:.2g}, required {:.4g}; {}"),
               to_string(check.demand.quantity), name(check), shown(check, check.actual),
               shown(check, check.uncertainty), shown(check, check.demand.required),
               room_.engine.refinements > 0
                   ? fmt::format(
                         FMT_STRING("still too close after {} refinements. Treat it as not met, or try "
                                    "--accuracy fine"),
                         room_.engine.refinements)
                   : std::string("too close to tell")),
           4);
      continue;
    }
    write_advice(c);
  }
}

}  // namespace

std::string painted(const std::string& word, bool colour) {
  const char* code = word == "met" ? "32" : word == "not met" ? "1;31" : "1;33";
  return colour ? fmt::format(FMT_STRING("\x1b[{}m{}\x1b[0m"), code, word) : word;
}

std::string check_table(const record::RoomRecord& room, const units::ShownUnits& units, bool colour) {
  return CheckTable(room, units, colour).write();
}

}  // namespace glow::words
