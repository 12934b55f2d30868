#pragma once

#include <string>
#include <vector>

namespace glow::words {

inline constexpr std::size_t kTerminalWidth = 80;

/// What words are wide: letters, not bytes.
std::size_t columns_of(const std::string& words);

/// Appends `lead` and the words to `text`, broken at blanks so that no line is wider than the terminal;
/// further lines begin `indent` columns in.
void wrap(std::string& text, const std::string& lead, const std::string& words, std::size_t indent);

/// Cut to the width, with two dots in place of what is left out; never inside a letter.
std::string fitted(const std::string& words, std::size_t width);

/// "a, b, c and 12 more": names, of many only the first.
std::string some_of(const std::vector<std::string>& names);

/// "1 table", "3 tables": of things whose plural takes an s.
std::string counted(std::size_t number, const char* thing);

}  // namespace glow::words
