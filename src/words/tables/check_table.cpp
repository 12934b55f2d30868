#include "words/tables/check_table.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "words/check_advice.hpp"
#include "words/paint.hpp"
#include "words/tables/check_rows.hpp"
#include "words/text_layout.hpp"
#include "words/values.hpp"

namespace glow::words {
namespace {

using standards::Check;
using standards::Quantity;
using standards::Verdict;

constexpr std::size_t kNameWidth = 30, kNarrowName = 25;

class CheckTable {
 public:
  CheckTable(const record::RoomRecord& room, const units::ShownUnits& units, bool colour)
      : room_(room), units_(units), colour_(colour), standards_(standards_of(room)) {}

  std::string write() {
    if (room_.assessment.checks.empty()) return {};
    const std::vector<CheckRow> rows = check_rows(room_, standards_);
    if (standards_.size() > 1)
      write_columns(rows);
    else
      write_plain(rows);
    write_notes();
    for (const Finding& finding : findings(room_)) text_ += full_advice(room_, finding, units_);
    write_tolerance();
    return text_;
  }

 private:
  void write_plain(const std::vector<CheckRow>& rows);
  void write_columns(const std::vector<CheckRow>& rows);
  void write_notes();
  void write_tolerance();
  std::string name(const Check& check) const { return name_of(check.target, room_); }
  std::string row_name(const CheckRow& row, std::size_t width) const;
  std::string found(const CheckRow& row) const;
  std::string margin(const Check& check) const;
  std::string sure(const Check& check) const {
    return check.uncertainty > 0 ? fmt::format(FMT_STRING("{:.2g}"), shown(check, check.uncertainty)) : "-";
  }
  std::string asked(const Check& check) const {
    return required(check.demand, units_) + (check.demand.certainty == "agreed" ? "" : "*");
  }
  double shown(const Check& check, double value) const {
    return standards::is_in_lux(check.demand.quantity) ? units_.light(value) : value;
  }

  const record::RoomRecord& room_;
  const units::ShownUnits& units_;
  bool colour_;
  std::vector<std::string> standards_;
  std::string text_;
};

std::string CheckTable::row_name(const CheckRow& row, std::size_t width) const {
  const std::string quantity = symbol(row.first().demand.quantity);
  return fitted(row.name, width - quantity.size() - 2) + ", " + quantity;
}

/// "312.4", or of several things "312-354".
std::string CheckTable::found(const CheckRow& row) const {
  const Quantity quantity = row.first().demand.quantity;
  if (row.low == row.high) return found_words(row.first(), units_, Detail::table);
  return number(quantity, row.low, units_, Detail::sentence) + "-" +
         number(quantity, row.high, units_, Detail::sentence);
}

/// "+13.4"; of what is next to nothing two digits.
std::string CheckTable::margin(const Check& check) const {
  const double margin = std::abs(check.margin());
  std::string told = number(check.demand.quantity, margin, units_, Detail::table);
  if (margin > 0 && told.find_first_of("123456789") == told.npos)
    told = fmt::format(FMT_STRING("{:.2g}"), shown(check, margin));
  return (check.margin() >= 0 ? "+" : "-") + told;
}

void CheckTable::write_plain(const std::vector<CheckRow>& rows) {
  text_ += fmt::format(FMT_STRING("  {:<{}} {:>9} {:>9} {:>9} {:>7}  {}\n"), "check", kNameWidth, "required",
                       "found", "margin", "+/-", "verdict");
  for (const CheckRow& row : rows) {
    const Check& check = row.first();
    const std::string verdict = to_string(check.verdict);
    const std::string mark = check.demand.certainty == "agreed" ? " " : "*";
    text_ +=
        fmt::format(FMT_STRING("  {:<{}} {:>9}{}{:>9} {:>9} {:>7}  {}\n"), row_name(row, kNameWidth),
                    kNameWidth, required(check.demand, units_), mark, found(row), margin(check), sure(check),
                    check.binding ? painted(verdict, colour_) : fmt::format(FMT_STRING("({})"), verdict));
  }
}

/// A column for each standard with what it asks and whether that is met.
void CheckTable::write_columns(const std::vector<CheckRow>& rows) {
  std::vector<std::size_t> widths;
  for (const std::string& standard : standards_) widths.push_back(std::max<std::size_t>(16, standard.size()));
  text_ += fmt::format(FMT_STRING("  {:<{}} {:>9} {:>6}"), "check", kNarrowName, "found", "+/-");
  for (std::size_t s = 0; s < standards_.size(); ++s)
    text_ += fmt::format(FMT_STRING("  {:<{}}"), standards_[s], s + 1 < standards_.size() ? widths[s] : 0);
  text_ += "\n";
  for (const CheckRow& row : rows) {
    std::string line = fmt::format(FMT_STRING("  {:<{}} {:>9} {:>6}"), row_name(row, kNarrowName),
                                   kNarrowName, found(row), sure(row.first()));
    for (std::size_t s = 0; s < standards_.size(); ++s) {
      const Check* check = row.checks[s];
      const std::string verdict = check ? to_string(check->verdict) : "-";
      const std::string asks = check ? asked(*check) + " " : "";
      const std::size_t used = asks.size() + verdict.size() + (check && !check->binding ? 2 : 0);
      line += "  " + asks;
      line += !check           ? verdict
              : check->binding ? painted(verdict, colour_)
                               : fmt::format(FMT_STRING("({})"), verdict);
      if (used < widths[s]) line += std::string(widths[s] - used, ' ');
    }
    line.resize(line.find_last_not_of(' ') + 1);
    text_ += line + "\n";
  }
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
      note(standards_.size() > 1 ? fmt::format(FMT_STRING("{} by {}: {}"), name(check), check.demand.standard,
                                               check.demand.reason)
                                 : fmt::format(FMT_STRING("{}: {}"), name(check), check.demand.reason));
  }
  for (const std::string& words : notes) wrap(text_, "  ", words, 4);
}

}  // namespace

std::string check_table(const record::RoomRecord& room, const units::ShownUnits& units, bool colour) {
  return CheckTable(room, units, colour).write();
}

}  // namespace glow::words
