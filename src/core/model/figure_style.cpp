#include "core/model/figure_style.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/units/quantity.hpp"

namespace glow::model {
namespace {

constexpr double kMostLux = 1e7;
constexpr std::size_t kMostLevels = 40;
constexpr int kMostSteps = 40;

/// Rising light levels in lx, commas between; nothing when they are not.
std::optional<std::vector<double>> rising_levels(std::string_view words, const units::ShownUnits& units) {
  std::vector<double> levels;
  while (true) {
    const std::string_view one = words.substr(0, words.find(','));
    double value = 0;
    if (units::parse_number(one, value)) {
      value = units.lux_of(value);
    } else {
      const units::Parsed parsed = units::parse_quantity(one, units::Dimension::illuminance);
      if (!parsed.ok) return std::nullopt;
      value = parsed.value;
    }
    if (value < 0 || value > kMostLux || (!levels.empty() && value <= levels.back())) return std::nullopt;
    levels.push_back(value);
    if (one.size() == words.size()) break;
    words.remove_prefix(one.size() + 1);
  }
  if (levels.size() > kMostLevels) return std::nullopt;
  return levels;
}

std::string words_of(const std::vector<double>& levels) {
  std::string words;
  for (const double level : levels)
    words += fmt::format(FMT_STRING("{}{:.9g}"), words.empty() ? "" : ", ", level);
  return words;
}

std::optional<bool> truth_of(std::string_view words) {
  if (words == "true" || words == "yes") return true;
  if (words == "false" || words == "no") return false;
  return std::nullopt;
}

constexpr const char* kRising = "rising light levels such as 100, 200, 500";

}  // namespace

const std::vector<std::string>& FigureStyle::keys() {
  static const std::vector<std::string> names = {"limits", "steps", "scale",        "levels", "isolux",
                                                 "values", "lines", "common_scale", "tint"};
  return names;
}

std::optional<std::string> FigureStyle::set(std::string_view key, std::string_view words,
                                            const units::ShownUnits& units) {
  if (key == "limits") {
    const auto pair = rising_levels(words, units);
    if (!pair || pair->size() != 2) return "two light levels, the lower one first, such as 100, 1000";
    limits = {(*pair)[0], (*pair)[1]};
  } else if (key == "steps") {
    double count = 0;
    smooth = words == "smooth";
    if (smooth) return std::nullopt;
    if (!units::parse_number(words, count) || count < 2 || count > kMostSteps || count != int(count))
      return fmt::format(FMT_STRING("2 to {}, or smooth"), kMostSteps);
    steps = int(count);
  } else if (key == "scale") {
    if (words != "linear" && words != "log") return "linear or log";
    logarithmic = words == "log";
  } else if (key == "levels" || key == "isolux") {
    const auto list = rising_levels(words, units);
    if (!list) return kRising;
    (key == "levels" ? levels : isolux.emplace()) = *list;
  } else if (key == "values") {
    if (words != "none" && words != "fitting" && words != "all") return "none, fitting or all";
    values = words == "none" ? Values::none : words == "all" ? Values::all : Values::fitting;
  } else if (key == "lines" || key == "common_scale" || key == "tint") {
    const auto truth = truth_of(words);
    if (!truth) return "true or false";
    (key == "lines" ? lines : key == "tint" ? tint : common_scale) = *truth;
  } else {
    return "one of the settings of [figures]";
  }
  return std::nullopt;
}

std::vector<std::pair<std::string, std::string>> FigureStyle::settings() const {
  std::vector<std::pair<std::string, std::string>> list;
  if (limits) list.emplace_back("limits", words_of({limits->first, limits->second}));
  if (smooth)
    list.emplace_back("steps", "smooth");
  else if (steps)
    list.emplace_back("steps", std::to_string(*steps));
  if (logarithmic) list.emplace_back("scale", *logarithmic ? "log" : "linear");
  if (!levels.empty()) list.emplace_back("levels", words_of(levels));
  if (isolux) list.emplace_back("isolux", words_of(*isolux));
  if (values == Values::none) list.emplace_back("values", "none");
  if (values == Values::all) list.emplace_back("values", "all");
  if (!lines) list.emplace_back("lines", "false");
  if (common_scale) list.emplace_back("common_scale", "true");
  if (tint) list.emplace_back("tint", "true");
  return list;
}

}  // namespace glow::model
