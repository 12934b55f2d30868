#include "core/shelf/query.hpp"

#include <algorithm>
#include <cctype>
#include <cmath>

namespace glow::shelf {
namespace {

std::string lower(std::string text) {
  for (char& c : text) c = char(std::tolower(static_cast<unsigned char>(c)));
  return text;
}

bool has_words(const Entry& entry, const std::vector<std::string>& words) {
  if (words.empty()) return true;
  const LuminaireFacts& f = entry.facts;
  const std::string text =
      lower(entry.file + "\n" + f.maker + "\n" + f.name + "\n" + f.catalogue_number + "\n" + f.lamp);
  return std::all_of(words.begin(), words.end(),
                     [&](const std::string& word) { return text.find(lower(word)) != std::string::npos; });
}

bool has_shape(const LuminaireFacts& facts, const std::set<std::string>& shapes) {
  const std::vector<std::string> names = shape_names(facts);
  return shapes.empty() || std::any_of(names.begin(), names.end(),
                                       [&](const std::string& name) { return shapes.count(name) > 0; });
}

enum class Fit { inside, outside, unknown };

Fit fit_of(const LuminaireFacts& facts, const std::string& key, const units::Range& range) {
  Fit fit = Fit::inside;
  for (const MeasureWords& each : measures()) {
    if (key != each.key) continue;
    const std::optional<double>& value = facts[each.measure];
    if (value && !range.holds(*value)) return Fit::outside;
    if (!value) fit = Fit::unknown;
  }
  return fit;
}

/// Whether it fits; counts what is left out only for numbers that are not known.
bool fits(const Entry& entry, const Query& query, std::map<std::string, std::size_t>& unknown) {
  if (!query.kinds.empty() && !query.kinds.count(entry.facts.kind)) return false;
  if (!has_shape(entry.facts, query.shapes) || !has_words(entry, query.words)) return false;
  std::vector<std::string> lacking;
  for (const auto& [key, range] : query.ranges) {
    const Fit fit = fit_of(entry.facts, key, range);
    if (fit == Fit::outside) return false;
    if (fit == Fit::unknown) lacking.push_back(key);
  }
  for (const std::string& key : lacking) ++unknown[key];
  return lacking.empty();
}

/// The larger of two planes; NaN when not known.
double sort_value(const LuminaireFacts& facts, const std::string& key) {
  double value = NAN;
  for (const MeasureWords& each : measures())
    if (key == each.key && facts[each.measure]) value = std::fmax(value, *facts[each.measure]);
  return value;
}

std::string sort_text(const Entry& entry, const std::string& key) {
  return key == "maker" ? lower(entry.facts.maker) : key == "name" ? lower(entry.facts.name) : std::string();
}

}  // namespace

Found find(const std::vector<Entry>& entries, const Query& query) {
  struct Place {
    std::size_t entry;
    double value;
    std::string text;
  };
  Found found;
  std::vector<Place> places;
  for (std::size_t i = 0; i < entries.size(); ++i)
    if (fits(entries[i], query, found.unknown))
      places.push_back({i, sort_value(entries[i].facts, query.sort), sort_text(entries[i], query.sort)});
  std::sort(places.begin(), places.end(), [&](const Place& a, const Place& b) {
    if (std::isnan(a.value) != std::isnan(b.value)) return std::isnan(b.value);
    if (a.value < b.value || a.value > b.value) return (a.value < b.value) != query.falling;
    if (a.text != b.text) return (a.text < b.text) != query.falling;
    return (entries[a.entry].file < entries[b.entry].file) != (query.falling && query.sort == "file");
  });
  for (const Place& place : places) found.entries.push_back(place.entry);
  return found;
}

std::vector<std::string> measure_keys() {
  std::vector<std::string> keys;
  for (const MeasureWords& each : measures())
    if (keys.empty() || keys.back() != each.key) keys.emplace_back(each.key);
  return keys;
}

std::vector<std::string> sort_keys() {
  std::vector<std::string> keys = {"file", "maker", "name"};
  for (std::string& key : measure_keys()) keys.push_back(std::move(key));
  return keys;
}

}  // namespace glow::shelf
