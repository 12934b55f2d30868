#pragma once

#include <map>
#include <string>

namespace glow::report {

/// Headings in the reader's language: data/report-words.txt, and a table of the designer's own laid over it.
/// Lines hold the English words and those of each language; the first line names the languages.
class ReportWords {
 public:
  /// `own`: text of another such table; empty: none. Throws std::runtime_error, in words, where no table has
  /// the language or a table is none.
  ReportWords(const std::string& language, const std::string& own);

  /// The words in the language; where they are not in the table, as they are.
  const std::string& operator()(const std::string& english) const;

 private:
  void add(const std::string& table, const std::string& language);
  std::map<std::string, std::string> words_;
  bool known_ = false;
};

}  // namespace glow::report
