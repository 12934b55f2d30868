#include "core/problems/problems.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <numeric>
#include <tuple>

namespace glow {

void Problems::add(Severity severity, std::string code, Place place, std::string text) {
  // The same fault met twice, of a room and of what is in it, is told once.
  constexpr std::size_t kLookBack = 100;
  const std::size_t from = problems_.size() - std::min(problems_.size(), kLookBack);
  for (std::size_t i = from; i < problems_.size(); ++i) {
    const Problem& known = problems_[i];
    if (known.code == code && known.text == text && known.place.line == place.line &&
        known.place.column == place.column && known.place.file == place.file && known.severity == severity)
      return;
  }
  if (severity == Severity::error) ++error_count_;
  problems_.push_back({severity, std::move(code), std::move(place), std::move(text)});
}

void Problems::error(std::string code, Place place, std::string text) {
  add(Severity::error, std::move(code), std::move(place), std::move(text));
}

void Problems::warning(std::string code, Place place, std::string text) {
  add(Severity::warning, std::move(code), std::move(place), std::move(text));
}

void Problems::note(std::string code, Place place, std::string text) {
  add(Severity::note, std::move(code), std::move(place), std::move(text));
}

std::string Problems::length(double metres) const {
  return fmt::format(FMT_STRING("{:.2f} {}"), units_.length(metres), units_.length_unit());
}

std::string Problems::position(const Vec2& p) const {
  return fmt::format(FMT_STRING("({:.2f}, {:.2f})"), units_.length(p.x()), units_.length(p.y()));
}

std::string Problems::position(const Vec3& p) const {
  return fmt::format(FMT_STRING("({:.2f}, {:.2f}, {:.2f})"), units_.length(p.x()), units_.length(p.y()),
                     units_.length(p.z()));
}

void Problems::append(const Problems& other) {
  problems_.insert(problems_.end(), other.problems_.begin(), other.problems_.end());
  error_count_ += other.error_count_;
}

void Problems::sort_by_place() {
  std::stable_sort(problems_.begin(), problems_.end(), [](const Problem& a, const Problem& b) {
    return std::tie(a.place.file, a.place.line, a.place.column) <
           std::tie(b.place.file, b.place.line, b.place.column);
  });
}

std::string to_string(const Problem& problem) {
  std::string place = problem.place.file;
  if (problem.place.line > 0) place += fmt::format(FMT_STRING(":{}"), problem.place.line);
  if (problem.place.line > 0 && problem.place.column > 0)
    place += fmt::format(FMT_STRING(":{}"), problem.place.column);
  if (!place.empty()) place += ": ";
  const char* word = problem.severity == Severity::error     ? "error"
                     : problem.severity == Severity::warning ? "warning"
                                                             : "note";
  return fmt::format(FMT_STRING("{}{}[{}]: {}"), place, word, problem.code, problem.text);
}

namespace {

std::size_t edit_distance(const std::string& a, const std::string& b) {
  std::vector<std::size_t> row(b.size() + 1);
  std::iota(row.begin(), row.end(), std::size_t{0});
  for (std::size_t i = 1; i <= a.size(); ++i) {
    std::size_t diagonal = row[0];
    row[0] = i;
    for (std::size_t j = 1; j <= b.size(); ++j) {
      const std::size_t substituted = diagonal + (a[i - 1] == b[j - 1] ? 0 : 1);
      diagonal = row[j];
      row[j] = std::min({row[j] + 1, row[j - 1] + 1, substituted});
    }
  }
  return row[b.size()];
}

}  // namespace

std::string nearest_word(const std::string& word, const std::vector<std::string>& candidates) {
  constexpr std::size_t kLongestWord = 200;  // keeps hostile input from costing time
  if (word.empty() || word.size() > kLongestWord) return {};
  std::string best;
  std::size_t best_distance = std::max<std::size_t>(1, word.size() / 3) + 1;
  for (const std::string& candidate : candidates) {
    const std::size_t distance = edit_distance(word, candidate);
    if (distance < best_distance) {
      best_distance = distance;
      best = candidate;
    }
  }
  return best;
}

}  // namespace glow
