#include "words/tables/facts_table.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/problems/problems.hpp"
#include "words/text_layout.hpp"

namespace glow::words {
namespace {

using shelf::LuminaireFacts;
using shelf::Measure;

constexpr std::size_t kFileWidth = 26, kLongNameWidth = 30, kKeyWidth = 9;
/// What every table has.
constexpr const char* kColumns[] = {"flux", "watts", "efficacy", "beam", "ra", "cct", "ugr"};

int digits_of(Measure measure) {
  switch (measure) {
    case Measure::glare:
      return 1;
    case Measure::uplight:
    case Measure::spacing_c0:
    case Measure::spacing_c90:
    case Measure::length:
    case Measure::width:
      return 2;
    default:
      return 0;
  }
}

/// The end of a long name tells more than the folders before it.
std::string file_cell(const std::string& file, std::size_t width) {
  std::string cell = printable(file);
  if (cell.size() > width) {
    std::size_t from = cell.size() - width + 2;
    while (from < cell.size() && (cell[from] & 0xc0) == 0x80) ++from;  // never inside a letter
    cell = ".." + cell.substr(from);
  }
  return fmt::format(FMT_STRING("{:<{}}"), cell, width);
}

std::string row_text(const FactsRow& row, const std::vector<std::string>& more, bool names,
                     std::size_t file_width) {
  const std::string file = file_cell(row.file, file_width);
  if (!row.facts) return file + " refused\n";
  const LuminaireFacts& f = *row.facts;
  std::string text =
      fmt::format(FMT_STRING("{} {:>6} {:>5} {:>4} {:>7} {:>3} {:>5} {:>5}"), file, key_text(f, "flux"),
                  key_text(f, "watts"), key_text(f, "efficacy"), key_text(f, "beam"), key_text(f, "ra"),
                  key_text(f, "cct"), key_text(f, "ugr"));
  for (const std::string& key : more) text += fmt::format(FMT_STRING(" {:>{}}"), key_text(f, key), kKeyWidth);
  text += "  " + f.distribution;
  if (f.kind == photometry::LightKind::one_sided && f.distribution.find("asymmetric") == std::string::npos)
    text += ", one-sided";
  const std::string& name = f.name.empty() ? f.maker : f.name;
  if (names && !name.empty()) text += "; " + fitted(printable(name), kLongNameWidth);
  if (row.findings > 0) text += fmt::format(FMT_STRING(" ({})"), counted(row.findings, "finding"));
  return text + "\n";
}

}  // namespace

std::string measure_text(const LuminaireFacts& facts, Measure measure) {
  const std::optional<double>& value = facts[measure];
  return value ? fmt::format(FMT_STRING("{:.{}f}"), *value, digits_of(measure)) : std::string("-");
}

std::string key_text(const LuminaireFacts& facts, const std::string& key) {
  std::string text;
  for (const shelf::MeasureWords& each : shelf::measures()) {
    if (key != each.key) continue;
    const std::string value = measure_text(facts, each.measure);
    if (!text.empty() && (facts.rotational || value == text)) continue;
    text += (text.empty() ? "" : "/") + value;
  }
  return text;
}

std::string facts_table(const std::vector<FactsRow>& rows, const std::vector<std::string>& more, bool names) {
  std::vector<std::string> keys;
  for (const std::string& key : more)
    if (std::find(std::begin(kColumns), std::end(kColumns), key) == std::end(kColumns) &&
        std::find(keys.begin(), keys.end(), key) == keys.end())
      keys.push_back(key);
  std::size_t width = 4;
  for (const FactsRow& row : rows) width = std::max(width, row.file.size());
  width = std::min(width, kFileWidth);
  std::string text = fmt::format(FMT_STRING("{:<{}} {:>6} {:>5} {:>4} {:>7} {:>3} {:>5} {:>5}"), "file",
                                 width, "lm", "W", "lm/W", "beam", "Ra", "K", "UGR");
  for (const std::string& key : keys) text += fmt::format(FMT_STRING(" {:>{}}"), key, kKeyWidth);
  text += "  kind\n";
  for (const FactsRow& row : rows) text += row_text(row, keys, names, width);
  return text;
}

}  // namespace glow::words
