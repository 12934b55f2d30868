#include "report/report_words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <sstream>
#include <stdexcept>
#include <vector>

#include "files/output/embedded_files.hpp"

namespace glow::report {
namespace {

/// Cells between commas; quotation marks hold commas together.
std::vector<std::string> cells_of(const std::string& line) {
  std::vector<std::string> cells(1);
  bool quoted = false;
  for (const char c : line) {
    if (c == '"')
      quoted = !quoted;
    else if (c == ',' && !quoted)
      cells.emplace_back();
    else if (c != '\r')
      cells.back() += c;
  }
  return cells;
}

}  // namespace

ReportWords::ReportWords(const std::string& language, const std::string& own) {
  add(std::string(files::embedded_table("report-words.txt")->bytes), language);
  if (!own.empty()) add(own, language);
  if (!known_)
    throw std::runtime_error(fmt::format(
        FMT_STRING(
            "no table has words in the language \"{}\"; expected en or de, or a table of your own ([report] "
            "words) with a column of that name"),
        language));
}

void ReportWords::add(const std::string& table, const std::string& language) {
  std::istringstream lines(table);
  std::string line;
  std::getline(lines, line);
  const std::vector<std::string> head = cells_of(line);
  if (head.empty() || head[0] != "en")
    throw std::runtime_error("a table of words begins with \"en\" and the languages, such as \"en,de\"");
  const auto column = std::find(head.begin(), head.end(), language);
  if (column == head.end()) return;
  known_ = true;
  const std::size_t c = std::size_t(column - head.begin());
  while (std::getline(lines, line)) {
    const std::vector<std::string> cells = cells_of(line);
    if (c < cells.size() && !cells[c].empty()) words_[cells[0]] = cells[c];
  }
}

const std::string& ReportWords::operator()(const std::string& english) const {
  const auto found = words_.find(english);
  return found == words_.end() ? english : found->second;
}

}  // namespace glow::report
