#include "words/text_changes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <string_view>
#include <vector>

#include "core/problems/problems.hpp"

namespace glow::words {
namespace {

std::vector<std::string_view> lines_of(const std::string& text) {
  std::vector<std::string_view> lines;
  for (std::size_t begin = 0; begin < text.size();) {
    const std::size_t end = std::min(text.find('\n', begin), text.size());
    lines.push_back(std::string_view(text).substr(begin, end - begin));
    begin = end + 1;
  }
  return lines;
}

/// What two lists have in common at their begin and end is left out; the rest is compared by the longest
/// common row of lines, if it is not too long for that.
class Changes {
 public:
  Changes(std::vector<std::string_view> before, std::vector<std::string_view> after)
      : before_(std::move(before)), after_(std::move(after)) {}

  std::vector<std::string> take() {
    std::size_t first = 0, last_a = before_.size(), last_b = after_.size();
    while (first < last_a && first < last_b && before_[first] == after_[first]) ++first;
    while (last_a > first && last_b > first && before_[last_a - 1] == after_[last_b - 1]) --last_a, --last_b;
    constexpr std::size_t kMostCells = 16'000'000;
    if ((last_a - first + 1) * (last_b - first + 1) > kMostCells) {
      for (std::size_t k = first; k < last_a; ++k) add('-', before_[k]);
      for (std::size_t k = first; k < last_b; ++k) add('+', after_[k]);
      return std::move(found_);
    }
    compare(first, last_a, last_b);
    return std::move(found_);
  }

 private:
  void add(char sign, std::string_view line) {
    found_.push_back(std::string(1, sign) + " " + printable(std::string(line)));
  }

  void compare(std::size_t first, std::size_t last_a, std::size_t last_b) {
    const std::size_t n = last_a - first, m = last_b - first;
    std::vector<std::vector<std::uint32_t>> longest(n + 1, std::vector<std::uint32_t>(m + 1, 0));
    for (std::size_t i = n; i-- > 0;)
      for (std::size_t j = m; j-- > 0;)
        longest[i][j] = before_[first + i] == after_[first + j]
                            ? longest[i + 1][j + 1] + 1
                            : std::max(longest[i + 1][j], longest[i][j + 1]);
    std::size_t i = 0, j = 0;
    while (i < n || j < m) {
      if (i < n && j < m && before_[first + i] == after_[first + j]) {
        ++i;
        ++j;
      } else if (i < n && (j == m || longest[i + 1][j] >= longest[i][j + 1])) {
        add('-', before_[first + i++]);
      } else {
        add('+', after_[first + j++]);
      }
    }
  }

  const std::vector<std::string_view> before_, after_;
  std::vector<std::string> found_;
};

}  // namespace

std::string text_changes(const std::string& before, const std::string& after, std::size_t most) {
  const std::vector<std::string> changes = Changes(lines_of(before), lines_of(after)).take();
  std::string text;
  for (std::size_t k = 0; k < std::min(most, changes.size()); ++k) text += "  " + changes[k] + "\n";
  if (changes.size() > most)
    text += fmt::format(FMT_STRING("  and {} more lines (--text)\n"), changes.size() - most);
  return text;
}

}  // namespace glow::words
