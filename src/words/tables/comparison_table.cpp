#include "words/tables/comparison_table.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "words/text_layout.hpp"

namespace glow::words {
namespace {

using record::Change;
using record::Compared;
using record::ComparedMeasure;

char sign_of(Change change) {
  switch (change) {
    case Change::better:
      return '+';
    case Change::worse:
      return '-';
    case Change::within_doubt:
      return '~';
    case Change::other:
      return '*';
    case Change::none:
      break;
  }
  return ' ';
}

/// "+21 %" of what may be told in per cent; else how much more.
std::string by_how_much(ComparedMeasure measure, const Compared& first, const Compared& now) {
  if (!first.value || !now.value || measure == ComparedMeasure::checks_met) return {};
  const double more = *now.value - *first.value;
  const auto digits = [&](int usual) {  // one more where it would read zero
    return fmt::format(FMT_STRING("{:+.{}f}"), more,
                       2 * std::abs(more) < std::pow(10, -usual) ? usual + 1 : usual);
  };
  if (measure == ComparedMeasure::uniformity) return digits(2);
  if (measure == ComparedMeasure::glare) return digits(1);
  return *first.value > 0 ? fmt::format(FMT_STRING("{:+.0f} %"), 100 * more / *first.value) : std::string();
}

/// What a row comes to, of two runs.
std::string row_words(ComparedMeasure measure, const std::vector<Compared>& values) {
  const Compared& now = values[1];
  const std::string word = change_word(now.change);
  if (word.empty()) return {};
  const std::string much =
      now.change == Change::within_doubt ? std::string() : by_how_much(measure, values[0], now);
  return much.empty() ? word : now.change == Change::other ? much : word + ", " + much;
}

std::string letter(std::size_t run) {
  return std::string(1, char('A' + int(run)));
}

std::string room_table(const record::ComparedRoom& room, const units::ShownUnits& units) {
  std::string text = "\n" + room.name;
  for (std::size_t k = 0; k < room.rooms.size(); ++k)
    if (!room.rooms[k]) text += ", not in " + letter(k);
  text += "\n";
  for (const record::ComparedRow& row : room.rows) {
    text += fmt::format(
        FMT_STRING("  {:<26}"),
        measure_word(row.measure) +
            (measure_unit(row.measure, units).empty() ? "" : " " + measure_unit(row.measure, units)));
    for (const Compared& value : row.values)
      text += fmt::format(FMT_STRING("{:>9} {}"), measure_value(row.measure, value, units),
                          sign_of(value.change));
    if (row.values.size() == 2) text += "  " + row_words(row.measure, row.values);
    while (text.back() == ' ') text.pop_back();
    text += "\n";
  }
  return text;
}

}  // namespace

std::string measure_value(ComparedMeasure measure, const Compared& value, const units::ShownUnits& units) {
  if (!value.value) return "-";
  switch (measure) {
    case ComparedMeasure::checks_met:
      return fmt::format(FMT_STRING("{:.0f} of {:.0f}"), *value.value, value.of);
    case ComparedMeasure::mean_lx: {
      const double light = units.light(*value.value);
      return light < 10 ? fmt::format(FMT_STRING("{:.1f}"), light) : fmt::format(FMT_STRING("{:.0f}"), light);
    }
    case ComparedMeasure::uniformity:
    case ComparedMeasure::watts_per_m2_100lx:
      return fmt::format(FMT_STRING("{:.2f}"), *value.value);
    case ComparedMeasure::neighbour_glare:
    case ComparedMeasure::watts:
    case ComparedMeasure::kwh:
    case ComparedMeasure::energy_cost:
    case ComparedMeasure::investment:
      return fmt::format(FMT_STRING("{:.0f}"), *value.value);
    case ComparedMeasure::glare:
    case ComparedMeasure::daylight_factor:
    case ComparedMeasure::watts_per_m2:
    case ComparedMeasure::autonomy:
    case ComparedMeasure::payback_years:
      break;
  }
  return fmt::format(FMT_STRING("{:.1f}"), *value.value);
}

bool differs(const record::ComparedRoom& room) {
  if (std::count(room.rooms.begin(), room.rooms.end(), nullptr) > 0) return true;
  return std::any_of(room.rows.begin(), room.rows.end(), [](const record::ComparedRow& row) {
    return std::any_of(row.values.begin(), row.values.end(), [](const Compared& value) {
      return value.change != Change::none && value.change != Change::within_doubt;
    });
  });
}

std::string moved_words(const record::ComparedRoom& room, const units::ShownUnits& units) {
  std::string words;
  for (const record::ComparedRow& row : room.rows) {
    const Compared &before = row.values[0], &now = row.values[1];
    if (now.change == Change::none || now.change == Change::within_doubt) continue;
    const std::string unit = measure_unit(row.measure, units), change = change_word(now.change);
    words +=
        fmt::format(FMT_STRING("{}{} {} -> {}{}{}"), words.empty() ? "" : ", ", measure_word(row.measure),
                    measure_value(row.measure, before, units), measure_value(row.measure, now, units),
                    unit.empty() ? "" : " " + unit, now.change == Change::other ? "" : " (" + change + ")");
  }
  return words;
}

std::string measure_word(ComparedMeasure measure) {
  switch (measure) {
    case ComparedMeasure::checks_met:
      return "checks met";
    case ComparedMeasure::mean_lx:
      return "mean";
    case ComparedMeasure::uniformity:
      return "U0";
    case ComparedMeasure::glare:
      return "highest UGR";
    case ComparedMeasure::neighbour_glare:
      return "highest k at neighbours";
    case ComparedMeasure::daylight_factor:
      return "daylight factor";
    case ComparedMeasure::watts:
      return "power";
    case ComparedMeasure::watts_per_m2:
      return "power density";
    case ComparedMeasure::autonomy:
      return "daylight autonomy";
    case ComparedMeasure::kwh:
      return "energy of the year";
    case ComparedMeasure::energy_cost:
      return "cost of energy";
    case ComparedMeasure::investment:
      return "invested";
    case ComparedMeasure::payback_years:
      return "pay-back";
    case ComparedMeasure::watts_per_m2_100lx:
      break;
  }
  return "installed per 100 lx";
}

std::string measure_unit(ComparedMeasure measure, const units::ShownUnits& units) {
  switch (measure) {
    case ComparedMeasure::mean_lx:
      return units.light_unit();
    case ComparedMeasure::daylight_factor:
    case ComparedMeasure::autonomy:
      return "%";
    case ComparedMeasure::kwh:
      return "kWh";
    case ComparedMeasure::energy_cost:
      return "a year";
    case ComparedMeasure::payback_years:
      return "years";
    case ComparedMeasure::watts:
      return "W";
    case ComparedMeasure::watts_per_m2:
    case ComparedMeasure::watts_per_m2_100lx:
      return "W/m2";
    case ComparedMeasure::checks_met:
    case ComparedMeasure::uniformity:
    case ComparedMeasure::glare:
    case ComparedMeasure::neighbour_glare:
    case ComparedMeasure::investment:
      break;
  }
  return {};
}

std::string change_word(Change change) {
  switch (change) {
    case Change::better:
      return "better";
    case Change::worse:
      return "worse";
    case Change::within_doubt:
      return "within the uncertainty";
    case Change::other:
      return "other";
    case Change::none:
      break;
  }
  return {};
}

std::string comparison_table(const std::vector<record::ComparedRoom>& rooms,
                             const std::vector<std::string>& names, const units::ShownUnits& units) {
  std::string text, same;
  for (std::size_t k = 0; k < names.size(); ++k) text += letter(k) + "  " + names[k] + "\n";
  std::size_t better = 0, worse = 0, alike = 0;
  std::string tables;
  for (const record::ComparedRoom& room : rooms) {
    if (!differs(room)) {
      ++alike;
      same += (same.empty() ? "" : ", ") + room.name;
      continue;
    }
    const bool gains = std::any_of(room.rows.begin(), room.rows.end(), [](const record::ComparedRow& row) {
      return std::any_of(row.values.begin(), row.values.end(),
                         [](const Compared& value) { return value.change == Change::better; });
    });
    better += gains && !room.is_worse();
    worse += room.is_worse();
    std::string head = fmt::format(FMT_STRING("{:28}"), "");
    for (std::size_t k = 0; k < names.size(); ++k) head += fmt::format(FMT_STRING("{:>9}  "), letter(k));
    while (head.back() == ' ') head.pop_back();
    tables += (tables.empty() ? "\n" + head : "") + room_table(room, units);
  }
  text += fmt::format(
      FMT_STRING("\nagainst A: {} with something worse, {} better in all that differs, {} the same\n"),
      counted(worse, "room"), better, alike);
  text += tables;
  if (!same.empty()) wrap(text, "\nNothing differs in: ", same, 2);
  if (!tables.empty()) text += "\n+ better  - worse  ~ within the numerical uncertainty  * other\n";
  return text;
}

}  // namespace glow::words
