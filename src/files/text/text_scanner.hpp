#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/problems/problems.hpp"

namespace glow::files {

/// The lines of a text, whatever ends them (LF, CRLF, CR); byte order mark and a DOS end-of-file sign taken
/// off.
std::vector<std::string_view> split_lines(std::string_view bytes);

/// Bytes as UTF-8: what is not that is taken as Latin-1. Names of files may be any bytes.
std::string utf8_of(std::string_view bytes);
/// Text of a file likewise; control characters become blanks.
std::string to_utf8(std::string_view bytes);

/// Line where a TOML text nests deeper than anyone means, in one key, in tables or in lists; 0: nowhere. The
/// parser's own recursion has no limit.
int line_nested_too_deeply(std::string_view bytes);

std::string_view trimmed(std::string_view text);

/// What stands between the separators, blanks at its ends taken off; empty parts are left out.
std::vector<std::string> parts_of(std::string_view text, char separator);

/// Letters a to z as capitals.
std::string in_capitals(std::string_view text);

/// Whether a word begins as a number does.
bool is_number_like(std::string_view word);

/// The word of a number that is no number: "not-finite" for nan and inf, else "not-a-number".
std::string number_fault(std::string_view word);

/// Reads blank-separated numbers from lines, wherever the lines break, and knows where each one stood.
class NumberScanner {
 public:
  NumberScanner(const std::vector<std::string_view>& lines, std::size_t first_line, std::string file)
      : lines_(lines), line_(first_line), file_(std::move(file)) {}

  /// The next number; false and one error with `what` in words when the file ends or the word is no number.
  bool next(double& value, const std::string& what, Problems& problems);
  /// The same, a whole number within [low, high]; outside of it the error has the given code.
  bool next_count(int& value, int low, int high, const std::string& what, Problems& problems,
                  const std::string& code = "bad-count");
  /// The word that comes next, not read yet; empty: only blanks are left. `place` is its own then.
  std::string_view word_ahead();
  /// Where the last word that was read began.
  Place place() const { return last_; }
  /// Bytes from here to the end: a bound for how many numbers can still come.
  std::size_t bytes_left() const;

 private:
  bool next_word(std::string_view& word);
  const std::vector<std::string_view>& lines_;
  std::size_t line_;
  std::size_t column_ = 0;
  std::string file_;
  Place last_;
};

}  // namespace glow::files
