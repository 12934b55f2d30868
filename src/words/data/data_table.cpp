#include "words/data/data_table.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "words/text_layout.hpp"

namespace glow::words {
namespace {

constexpr std::size_t kWidestColumn = 32;  // letters on the terminal

}  // namespace

DataTable& DataTable::text(std::string words) {
  begun_.push_back(words.empty() ? DataCell() : DataCell(std::move(words)));
  return *this;
}

DataTable& DataTable::number(const std::optional<double>& value) {
  begun_.push_back(value && std::isfinite(*value) ? DataCell(*value) : DataCell());
  return *this;
}

void DataTable::end_row() {
  if (begun_.size() != columns_.size())
    throw std::logic_error("a line of " + key_ + " has " + std::to_string(begun_.size()) + " cells");
  rows_.push_back(std::move(begun_));
  begun_.clear();
}

std::string cell_words(const DataCell& cell, const DataColumn& column) {
  if (const auto* words = std::get_if<std::string>(&cell)) return *words;
  if (const auto* number = std::get_if<double>(&cell))
    return fmt::format(FMT_STRING("{:.{}f}"), *number, std::max(0, column.digits));
  return {};
}

std::string data_text(const DataTable& table) {
  std::vector<std::vector<std::string>> words;
  for (const auto& row : table.rows()) {
    auto& line = words.emplace_back();
    for (std::size_t c = 0; c < row.size(); ++c)
      line.push_back(fitted(cell_words(row[c], table.columns()[c]), kWidestColumn));
  }
  std::string head, text;
  std::vector<std::size_t> widths;
  for (std::size_t c = 0; c < table.columns().size(); ++c) {
    std::size_t width = 0;
    for (const auto& line : words) width = std::max(width, line[c].size());
    widths.push_back(width == 0 ? 0 : std::max(width, table.columns()[c].title.size()));
  }
  const auto add = [&](std::string& line, std::size_t c, const std::string& cell) {
    if (widths[c] == 0) return;
    line += "  " + (table.columns()[c].digits == DataColumn::kText
                        ? fmt::format(FMT_STRING("{:<{}}"), cell, widths[c])
                        : fmt::format(FMT_STRING("{:>{}}"), cell, widths[c]));
  };
  for (std::size_t c = 0; c < widths.size(); ++c) add(head, c, table.columns()[c].title);
  head.resize(head.find_last_not_of(' ') + 1);
  for (const auto& line : words) {
    std::string row;
    for (std::size_t c = 0; c < widths.size(); ++c) add(row, c, line[c]);
    text += row.substr(0, row.find_last_not_of(' ') + 1) + "\n";
  }
  return text.empty() ? "  nothing\n" : head + "\n" + text;
}

}  // namespace glow::words
