#include "core/problems/problems.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
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
  if (is_full()) return;
  problems_.push_back({severity, std::move(code), std::move(place), std::move(text), subject_});
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
  for (const Problem& problem : other.problems_)
    if (!is_full()) problems_.push_back(problem);
  error_count_ += other.error_count_;
}

void Problems::merge_alike() {
  constexpr std::size_t kMostNamed = 3;
  const std::string blank(1, '\0');
  std::map<std::pair<std::string, std::string>, std::size_t> first;  // by code and text without the name
  std::vector<std::vector<std::string>> subjects(problems_.size());
  std::vector<Problem> merged;
  for (Problem& problem : problems_) {
    const std::string quoted = '"' + problem.subject + '"';
    const std::size_t at = problem.subject.empty() ? std::string::npos : problem.text.find(quoted);
    if (problem.severity == Severity::error || at == std::string::npos) {
      merged.push_back(std::move(problem));
      continue;
    }
    std::string text = problem.text;
    text.replace(at, quoted.size(), blank);
    const auto [known, is_new] = first.emplace(std::pair(problem.code, text), merged.size());
    subjects[known->second].push_back(problem.subject);
    if (is_new) merged.push_back(std::move(problem));
  }
  for (const auto& [key, at] : first) {
    const std::vector<std::string>& of = subjects[at];
    if (of.size() < 2) continue;
    std::string list;
    for (std::size_t i = 0; i < std::min(of.size(), kMostNamed); ++i)
      list += (i ? ", \"" : "\"") + of[i] + '"';
    if (of.size() > kMostNamed) list += fmt::format(FMT_STRING(" and {} more"), of.size() - kMostNamed);
    merged[at].text = key.second;
    merged[at].text.replace(key.second.find('\0'), 1, list);
  }
  problems_ = std::move(merged);
}

void Problems::sort_by_place() {
  std::stable_sort(problems_.begin(), problems_.end(), [](const Problem& a, const Problem& b) {
    return std::tie(a.place.file, a.place.line, a.place.column) <
           std::tie(b.place.file, b.place.line, b.place.column);
  });
}

std::string to_string(Severity severity) {
  return severity == Severity::error ? "error" : severity == Severity::warning ? "warning" : "note";
}

namespace {

/// Bytes of the control character that begins at `i`; 0: there is none.
std::size_t control_at(const std::string& text, std::size_t i) {
  const auto byte = [&](std::size_t k) { return static_cast<unsigned char>(text[k]); };
  if ((byte(i) < 0x20 && text[i] != '\t') || byte(i) == 0x7f) return 1;
  const bool second = byte(i) == 0xc2 && i + 1 < text.size() && byte(i + 1) >= 0x80 && byte(i + 1) < 0xa0;
  return second ? 2 : 0;
}

}  // namespace

bool has_control_characters(const std::string& text) {
  for (std::size_t i = 0; i < text.size(); ++i)
    if (control_at(text, i) > 0) return true;
  return false;
}

std::string printable(std::string text) {
  for (std::size_t i = 0; i < text.size(); ++i)
    if (const std::size_t bytes = control_at(text, i)) text.replace(i, bytes, "?");
  return text;
}

std::string to_string(const Problem& problem) {
  std::string place = problem.place.file;
  if (problem.place.line > 0) place += fmt::format(FMT_STRING(":{}"), problem.place.line);
  if (problem.place.line > 0 && problem.place.column > 0)
    place += fmt::format(FMT_STRING(":{}"), problem.place.column);
  if (!place.empty()) place += ": ";
  return printable(fmt::format(FMT_STRING("{}{}[{}]: {}"), place, to_string(problem.severity), problem.code,
                               problem.text));
}

namespace {

std::size_t edit_distance(const std::string& a, const std::string& b) {
  std::vector<std::size_t> before, above(b.size() + 1), row(b.size() + 1);
  std::iota(above.begin(), above.end(), std::size_t{0});
  for (std::size_t i = 1; i <= a.size(); ++i) {
    row[0] = i;
    for (std::size_t j = 1; j <= b.size(); ++j) {
      row[j] = std::min({above[j] + 1, row[j - 1] + 1, above[j - 1] + (a[i - 1] == b[j - 1] ? 0 : 1)});
      // Digits name editions: 2012 is nearer to 2011 than to 2021.
      const bool is_letter = a[i - 1] < '0' || a[i - 1] > '9';
      const bool swapped = is_letter && i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1];
      if (swapped) row[j] = std::min(row[j], before[j - 2] + 1);
    }
    before = above;
    above = row;
  }
  return above[b.size()];
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
