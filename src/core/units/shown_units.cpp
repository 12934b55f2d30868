#include "core/units/shown_units.hpp"

#include <fmt/format.h>

namespace glow::units {

std::string ShownUnits::words() const {
  return fmt::format(FMT_STRING("{}, {}"), light_unit(), length_unit());
}

std::optional<ShownUnits> ShownUnits::parse(std::string_view words) {
  ShownUnits units;
  bool light = false, length = false;
  while (!words.empty()) {
    const std::size_t begin = words.find_first_not_of(", ");
    if (begin == std::string_view::npos) break;
    words.remove_prefix(begin);
    const std::string_view word = words.substr(0, words.find_first_of(", "));
    words.remove_prefix(word.size());
    bool& known = word == "fc" || word == "lx" ? light : length;
    if (known || (word != "fc" && word != "lx" && word != "m" && word != "ft")) return std::nullopt;
    known = true;
    units.footcandles = units.footcandles || word == "fc";
    units.feet = units.feet || word == "ft";
  }
  if (!light && !length) return std::nullopt;
  return units;
}

std::string light_words(const ShownUnits& units, double lux) {
  const double value = units.light(lux);
  if (value < 10) return fmt::format(FMT_STRING("{:.1f}"), value);
  return fmt::format(FMT_STRING("{:.0f}"), value);
}

}  // namespace glow::units
