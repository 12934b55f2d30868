#include "files/text/text_scanner.hpp"

#include <fmt/format.h>

#include <cmath>

#include "core/units/quantity.hpp"

namespace glow::files {
namespace {

constexpr std::size_t kLongestShown = 24;  // characters of a bad word that a message repeats

bool separates(char c) {
  return c == ' ' || c == '\t' || c == ',' || c == '\f' || c == '\v';
}

/// Number of bytes of the UTF-8 sequence at `i`, 0 when it is not valid UTF-8.
std::size_t utf8_length(std::string_view bytes, std::size_t i) {
  const auto byte = [&](std::size_t k) { return static_cast<unsigned char>(bytes[k]); };
  const unsigned char lead = byte(i);
  const std::size_t n = lead < 0x80                     ? 1
                        : (lead >= 0xC2 && lead < 0xE0) ? 2
                        : (lead >> 4) == 0xE            ? 3
                        : (lead >= 0xF0 && lead < 0xF5) ? 4
                                                        : 0;
  if (n == 0 || i + n > bytes.size()) return 0;
  for (std::size_t k = 1; k < n; ++k)
    if ((byte(i + k) & 0xC0) != 0x80) return 0;
  const unsigned char second = n > 1 ? byte(i + 1) : 0;
  const bool longer_than_needed = (lead == 0xE0 && second < 0xA0) || (lead == 0xF0 && second < 0x90);
  const bool no_character = (lead == 0xED && second > 0x9F) || (lead == 0xF4 && second > 0x8F);
  return longer_than_needed || no_character ? 0 : n;
}

}  // namespace

std::vector<std::string_view> split_lines(std::string_view bytes) {
  if (bytes.substr(0, 3) == "\xEF\xBB\xBF") bytes.remove_prefix(3);
  while (!bytes.empty() && (bytes.back() == '\x1A' || bytes.back() == '\0')) bytes.remove_suffix(1);
  std::vector<std::string_view> lines;
  std::size_t start = 0;
  for (std::size_t i = 0; i < bytes.size(); ++i) {
    if (bytes[i] != '\n' && bytes[i] != '\r') continue;
    lines.push_back(bytes.substr(start, i - start));
    if (bytes[i] == '\r' && i + 1 < bytes.size() && bytes[i + 1] == '\n') ++i;
    start = i + 1;
  }
  if (start < bytes.size()) lines.push_back(bytes.substr(start));
  return lines;
}

std::string utf8_of(std::string_view bytes) {
  bool valid = true;
  for (std::size_t i = 0; i < bytes.size() && valid;) {
    const std::size_t n = utf8_length(bytes, i);
    valid = n > 0;
    i += n;
  }
  if (valid) return std::string(bytes);
  std::string text;
  for (const char c : bytes) {
    const auto byte = static_cast<unsigned char>(c);
    if (byte < 0x80) {
      text += c;
    } else {
      text += static_cast<char>(0xC0 | (byte >> 6));
      text += static_cast<char>(0x80 | (byte & 0x3F));
    }
  }
  return text;
}

std::string to_utf8(std::string_view bytes) {
  std::string text = utf8_of(bytes);
  for (char& c : text)
    if (static_cast<unsigned char>(c) < 0x20 || c == 0x7F) c = ' ';
  return text;
}

namespace {

/// Behind the string that begins at `i`; counts the lines in it.
std::size_t past_string(std::string_view bytes, std::size_t i, int& line) {
  const char mark = bytes[i];
  const bool several_lines = bytes.substr(i, 3) == std::string(3, mark);
  const std::string end(several_lines ? 3 : 1, mark);
  for (i += end.size(); i < bytes.size() && bytes.substr(i, end.size()) != end; ++i) {
    if (bytes[i] == '\n' && !several_lines) return i;  // the parser will say so
    line += bytes[i] == '\n';
    if (bytes[i] == '\\' && mark == '"') ++i;
  }
  return i + end.size();
}

}  // namespace

int line_nested_too_deeply(std::string_view bytes) {
  constexpr int kDeepest = 64;
  int line = 1, dots = 0, depth = 0;
  for (std::size_t i = 0; i < bytes.size();) {
    const char c = bytes[i];
    if (c == '"' || c == '\'') {
      i = past_string(bytes, i, line);
      continue;
    }
    if (c == '#') {
      while (i < bytes.size() && bytes[i] != '\n') ++i;
      continue;
    }
    if (c == '\n') ++line;
    if (c == '\n' || c == '=' || c == ',') dots = 0;
    if (c == '.') ++dots;
    if (c == '[' || c == '{') ++depth;
    if ((c == ']' || c == '}') && depth > 0) --depth;
    if (dots > kDeepest || depth > kDeepest) return line;
    ++i;
  }
  return 0;
}

std::string_view trimmed(std::string_view text) {
  while (!text.empty() && (separates(text.front()) && text.front() != ',')) text.remove_prefix(1);
  while (!text.empty() && (separates(text.back()) && text.back() != ',')) text.remove_suffix(1);
  return text;
}

std::vector<std::string> parts_of(std::string_view text, char separator) {
  std::vector<std::string> parts;
  for (std::size_t begin = 0; begin <= text.size();) {
    const std::size_t end = std::min(text.find(separator, begin), text.size());
    const std::string_view part = trimmed(text.substr(begin, end - begin));
    if (!part.empty()) parts.emplace_back(part);
    begin = end + 1;
  }
  return parts;
}

std::string in_capitals(std::string_view text) {
  std::string result(text);
  for (char& c : result)
    if (c >= 'a' && c <= 'z') c = char(c - 'a' + 'A');
  return result;
}

bool is_number_like(std::string_view word) {
  const std::size_t sign = !word.empty() && (word[0] == '-' || word[0] == '+');
  const std::size_t point = word.size() > sign && (word[sign] == '.' || word[sign] == ',');
  return word.size() > sign + point && word[sign + point] >= '0' && word[sign + point] <= '9';
}

std::string number_fault(std::string_view word) {
  std::string lower;
  for (const char c : word) lower += c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c;
  return lower.find("nan") != std::string::npos || lower.find("inf") != std::string::npos ? "not-finite"
                                                                                          : "not-a-number";
}

bool NumberScanner::next_word(std::string_view& word) {
  while (line_ < lines_.size()) {
    const std::string_view line = lines_[line_];
    while (column_ < line.size() && separates(line[column_])) ++column_;
    if (column_ < line.size()) {
      const std::size_t begin = column_;
      while (column_ < line.size() && !separates(line[column_])) ++column_;
      word = line.substr(begin, column_ - begin);
      last_ = {file_, int(line_) + 1, int(begin) + 1};
      return true;
    }
    ++line_;
    column_ = 0;
  }
  last_ = {file_, int(lines_.size()), 0};
  return false;
}

bool NumberScanner::next(double& value, const std::string& what, Problems& problems) {
  std::string_view word;
  if (!next_word(word)) {
    problems.error(
        "truncated", last_,
        fmt::format(FMT_STRING("the file ends where {} should stand; it is cut off, or a count is too "
                               "large; get the file again from its maker"),
                    what));
    return false;
  }
  if (units::parse_number(word, value)) return true;
  problems.error(number_fault(word), last_,
                 fmt::format(FMT_STRING("\"{}\" is not a number; expected {}"),
                             to_utf8(word.substr(0, kLongestShown)), what));
  return false;
}

bool NumberScanner::next_count(int& value, int low, int high, const std::string& what, Problems& problems,
                               const std::string& code) {
  double number = 0;
  if (!next(number, what, problems)) return false;
  if (number != std::floor(number) || number < low || number > high) {
    problems.error(
        number > high && code == "bad-count" ? "count-too-large" : code, last_,
        fmt::format(FMT_STRING("{} is {}; expected a whole number from {} to {}"), what, number, low, high));
    return false;
  }
  value = static_cast<int>(number);
  return true;
}

std::string_view NumberScanner::word_ahead() {
  const std::size_t line = line_, column = column_;
  std::string_view word;
  next_word(word);
  line_ = line;
  column_ = column;
  return word;
}

std::size_t NumberScanner::bytes_left() const {
  std::size_t bytes = 0;
  for (std::size_t i = line_; i < lines_.size(); ++i) bytes += lines_[i].size() + 1;
  return bytes - std::min(bytes, column_);
}

}  // namespace glow::files
