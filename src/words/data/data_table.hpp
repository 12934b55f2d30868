#pragma once

#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace glow::words {

/// A number, words, or nothing.
using DataCell = std::variant<std::monostate, std::string, double>;

/// What a column holds.
struct DataColumn {
  static constexpr int kText = -1;
  std::string key;     ///< for programs, lower case with underscores; with its unit: `mean_lx`
  std::string title;   ///< for people, with the unit that it is told in
  int digits = kText;  ///< after the point, as people read it; kText: words
  double width = 12;   ///< letters, of a workbook's column
};

/// Results as rows under typed columns: what tables on the terminal, CSV, JSON, XML, workbooks and reports
/// are written from, so that each tells the same.
class DataTable {
 public:
  /// `key` names it for programs, in the plural: "checks"; `row` a line of it: "check".
  DataTable(std::string key, std::string row, std::string title, std::vector<DataColumn> columns)
      : key_(std::move(key)), row_(std::move(row)), title_(std::move(title)), columns_(std::move(columns)) {}

  /// Next cell of the line that is begun; without a value: nothing.
  DataTable& text(std::string words);
  DataTable& number(const std::optional<double>& value);
  /// Throws std::logic_error where there are not as many cells as columns.
  void end_row();

  const std::string& key() const { return key_; }
  const std::string& row() const { return row_; }
  const std::string& title() const { return title_; }
  const std::vector<DataColumn>& columns() const { return columns_; }
  const std::vector<std::vector<DataCell>>& rows() const { return rows_; }

 private:
  std::string key_, row_, title_;
  std::vector<DataColumn> columns_;
  std::vector<DataCell> begun_;
  std::vector<std::vector<DataCell>> rows_;
};

/// The cell as people read it: empty for nothing, with the column's digits.
std::string cell_words(const DataCell& cell, const DataColumn& column);

/// Lines of the terminal, columns aligned, numbers to the right; columns without any value are left out.
std::string data_text(const DataTable& table);

}  // namespace glow::words
