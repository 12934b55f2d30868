#include "core/standards/task_search.hpp"

#include <algorithm>

namespace glow::standards {
namespace {

constexpr std::size_t kShortestStem = 4;

std::string lower(std::string text) {
  std::transform(text.begin(), text.end(), text.begin(),
                 [](char c) { return c >= 'A' && c <= 'Z' ? char(c - 'A' + 'a') : c; });
  return text;
}

/// "classes" and "corridors" are looked for as "class" and "corridor".
std::string stem(const std::string& word) {
  for (const char* ending : {"es", "s"}) {
    const std::size_t length = std::string(ending).size();
    if (word.size() >= kShortestStem + length && word.compare(word.size() - length, length, ending) == 0)
      return word.substr(0, word.size() - length);
  }
  return word;
}

/// 4 for a whole word of the key or task, down to 1 for a part of the search words; 0: not there.
int fit_of(const Requirement& row, const std::string& word) {
  const auto whole = [&](const std::string& text) {
    for (std::size_t at = text.find(word); at != std::string::npos; at = text.find(word, at + 1)) {
      const bool begins = at == 0 || !std::isalnum(static_cast<unsigned char>(text[at - 1]));
      const std::size_t end = at + word.size();
      if (begins && (end == text.size() || !std::isalnum(static_cast<unsigned char>(text[end])))) return true;
    }
    return false;
  };
  const std::string key = lower(row.key), task = lower(row.task), area = lower(row.area);
  const std::string words = lower(row.words);
  if (whole(key) || whole(task)) return 4;
  if (whole(words) || whole(area)) return 3;
  if (task.find(word) != std::string::npos || key.find(word) != std::string::npos) return 2;
  return words.find(word) != std::string::npos || area.find(word) != std::string::npos ? 1 : 0;
}

struct Fit {
  int words = 0, sum = 0;
};

Fit fit_of(const Requirement& row, const std::vector<std::string>& words) {
  Fit fit;
  for (const std::string& word : words) {
    const std::string plain = lower(word);
    const int own = std::max(2 * fit_of(row, plain), fit_of(row, stem(plain)));
    fit.words += own > 0;
    fit.sum += own;
  }
  if (words.size() == 1 && lower(words[0]) == lower(row.key)) fit.sum += 100;
  return fit;
}

void sort_by_fit(std::vector<FoundTask>& found) {
  std::stable_sort(found.begin(), found.end(), [](const auto& a, const auto& b) { return a.fit > b.fit; });
}

}  // namespace

std::vector<FoundTask> find_tasks(const RequirementTable& table, const std::vector<std::string>& words) {
  std::vector<FoundTask> found;
  for (const Requirement& row : table.rows()) {
    const Fit fit = fit_of(row, words);
    if (fit.words == int(words.size())) found.push_back({&row, fit.sum});
  }
  sort_by_fit(found);
  return found;
}

std::vector<FoundTask> nearest_tasks(const RequirementTable& table, const std::vector<std::string>& words) {
  std::vector<FoundTask> found;
  int most = 1;
  for (const Requirement& row : table.rows()) {
    const Fit fit = fit_of(row, words);
    if (fit.words > most) found.clear();
    most = std::max(most, fit.words);
    if (fit.words == most) found.push_back({&row, fit.sum});
  }
  sort_by_fit(found);
  return found;
}

}  // namespace glow::standards
