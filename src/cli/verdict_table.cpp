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
  VerdictTable(const results::RoomResult& room, const units::ShownUnits& units, bool colour)
      : room_(room), units_(units), colour_(colour) {}

  std::string write() {
    if (room_.checks.empty()) return {};
    text_ += fmt::format(FMT_STRING("\n  {:<{}} {:>9} {:>9} {:>9} {:>7}  {}\n"), "check", kNameWidth,
                         "required", "found", "margin", "+/-", "verdict");
    std::string standard = room_.checks.front().demand.standard;
    const bool several = std::any_of(room_.checks.begin(), room_.checks.end(),
                                     [&](const Check& c) { return c.demand.standard != standard; });
    std::vector<std::string> standards;
    for (const Check& check : room_.checks)
      if (std::find(standards.begin(), standards.end(), check.demand.standard) == standards.end())
        standards.push_back(check.demand.standard);
    for (const std::string& name : standards) {
      if (several) text_ += fmt::format(FMT_STRING("  by {}\n"), name);
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
  void write_advice(const Check& check, const char* head, const std::vector<std::string>& sentences);
  double shown(const Check& check, double value) const {
    return check.unit().empty() ? value : units_.light(value);
  }

  const results::RoomResult& room_;
  const units::ShownUnits& units_;
  bool colour_;
  std::string text_;
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
  }
  return "";
}

void VerdictTable::line(const Check& check, const std::string& name) {
  std::string words = name + ", " + short_words(check.demand.quantity);
  if (words.size() > kNameWidth)
    words = words.substr(0, kNameWidth - 6) + ".. " + short_words(check.demand.quantity);
  const bool light = !check.unit().empty();
  const auto number = [&](double value) {
    return check.demand.quantity == Quantity::colour_rendering ? fmt::format(FMT_STRING("{:.0f}"), value)
           : light ? fmt::format(FMT_STRING("{:.1f}"), shown(check, value))
                   : fmt::format(FMT_STRING("{:.3f}"), value);
  };
  const std::string mark = check.demand.certainty == "agreed" ? " " : "*";
  const std::string required =
      light ? fmt::format(FMT_STRING("{} {}"), units::light_words(units_, check.demand.required),
                          units_.light_unit())
      : check.demand.quantity == Quantity::colour_rendering
          ? fmt::format(FMT_STRING("{:g}"), check.demand.required)
          : fmt::format(FMT_STRING("{:.2f}"), check.demand.required);
  const std::string spread =
      check.uncertainty > 0 ? fmt::format(FMT_STRING("{:.2g}"), shown(check, check.uncertainty)) : "-";
  const double margin = check.margin();
  text_ += fmt::format(FMT_STRING("  {:<{}} {:>9}{}{:>9} {:>9} {:>7}  {}\n"), words, kNameWidth, required,
                       mark, number(check.actual), (margin >= 0 ? "+" : "-") + number(std::abs(margin)),
                       spread, painted(standards::to_string(check.verdict), colour_));
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

void VerdictTable::write_advice(const Check& check, const char* head,
                                const std::vector<std::string>& sentences) {
  if (sentences.empty()) return;
  wrap(text_, "  ",
       fmt::format(FMT_STRING("{}, {} {}:"), check.where, to_string(check.demand.quantity), head), 4);
  for (const std::string& sentence : sentences) wrap(text_, "    - ", sentence, 6);
}

/// How surely possible built rooms meet the checks.
void VerdictTable::write_spread() {
  if (!room_.spread) return;
  text_ += fmt::format(FMT_STRING("  of {} possible built rooms {:.0f} % meet all checks\n"),
                       room_.spread->samples, 100 * room_.spread->share);
  for (const Check& check : room_.checks) {
    if (!check.spread || check.where == "luminaires") continue;
    const auto number = [&](double value) {
      return fmt::format(FMT_STRING("{:.{}f}"), shown(check, value), check.unit().empty() ? 2 : 0);
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
  for (const Check& check : room_.checks) {
    if (check.demand.certainty != "agreed")
      note(fmt::format(FMT_STRING("* certainty of the required value: {} ({})"), check.demand.certainty,
                       check.demand.source));
    if (!check.demand.reason.empty())
      note(fmt::format(FMT_STRING("{}: {}"), check.where, check.demand.reason));
  }
  for (const std::string& words : notes) wrap(text_, "  ", words, 4);
  for (const Check& check : room_.checks) {
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
    write_advice(check, check.verdict == Verdict::met ? "is met by far" : "is not met", check.why);
    if (check.verdict == Verdict::not_met && !check.help.empty()) {
      text_ += "    What would help, each computed:\n";
      for (const std::string& sentence : check.help) wrap(text_, "    + ", sentence, 6);
    }
  }
}

}  // namespace

std::string painted(const std::string& word, bool colour) {
  const char* code = word == "met" ? "32" : word == "not met" ? "1;31" : "1;33";
  return colour ? fmt::format(FMT_STRING("\x1b[{}m{}\x1b[0m"), code, word) : word;
}

std::string verdict_table(const results::RoomResult& room, const units::ShownUnits& units, bool colour) {
  return VerdictTable(room, units, colour).write();
}

}  // namespace glow::cli
