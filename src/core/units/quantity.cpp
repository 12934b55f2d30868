#include "core/units/quantity.hpp"

#include <fmt/format.h>

#include <array>
#include <charconv>
#include <cmath>

namespace glow::units {
namespace {

constexpr double kSquareFoot = 0.3048 * 0.3048;

struct Unit {
  std::string_view name;
  Dimension dimension;
  double factor;
};

constexpr std::array<Unit, 30> kUnits = {{
    {"m", Dimension::length, 1.0},
    {"cm", Dimension::length, 0.01},
    {"mm", Dimension::length, 0.001},
    {"ft", Dimension::length, 0.3048},
    {"'", Dimension::length, 0.3048},
    {"feet", Dimension::length, 0.3048},
    {"in", Dimension::length, 0.0254},
    {"\"", Dimension::length, 0.0254},
    {"inch", Dimension::length, 0.0254},
    {"lx", Dimension::illuminance, 1.0},
    {"lux", Dimension::illuminance, 1.0},
    {"fc", Dimension::illuminance, 1.0 / kSquareFoot},
    {"deg", Dimension::angle, 1.0},
    {"rad", Dimension::angle, 57.29577951308232},
    {"%", Dimension::ratio, 0.01},
    {"percent", Dimension::ratio, 0.01},
    {"", Dimension::ratio, 1.0},
    {"cd/m2", Dimension::luminance, 1.0},
    {"cd/m\u00b2", Dimension::luminance, 1.0},
    {"kcd/m2", Dimension::luminance, 1000.0},
    {"kcd/m\u00b2", Dimension::luminance, 1000.0},
    {"lm", Dimension::flux, 1.0},
    {"klm", Dimension::flux, 1000.0},
    {"K", Dimension::temperature, 1.0},
    {"W", Dimension::power, 1.0},
    {"kW", Dimension::power, 1000.0},
    {"lm/W", Dimension::efficacy, 1.0},
    {"s", Dimension::time, 1.0},
    {"min", Dimension::time, 60.0},
    {"h", Dimension::time, 3600.0},
}};

struct DimensionWords {
  Dimension dimension;
  std::string_view name, units, example;
};

constexpr std::array<DimensionWords, 11> kDimensions = {{
    {Dimension::length, "a length", "m, cm, mm, ft, in", "\"2.7 m\" or \"9 ft 6 in\""},
    {Dimension::illuminance, "an illuminance", "lx, fc", "\"500 lx\""},
    {Dimension::angle, "an angle", "deg, rad", "\"90 deg\""},
    {Dimension::ratio, "a share", "% or nothing", "\"80 %\""},
    {Dimension::luminance, "a luminance", "cd/m2, kcd/m2", "\"300 cd/m2\""},
    {Dimension::flux, "a luminous flux", "lm, klm", "\"4650 lm\""},
    {Dimension::temperature, "a colour temperature", "K", "\"4000 K\""},
    {Dimension::power, "a power", "W, kW", "\"29 W\""},
    {Dimension::efficacy, "an efficacy", "lm/W", "\"120 lm/W\""},
    {Dimension::time, "a time", "s, min, h", "\"5 s\""},
    {Dimension::number, "a number", "nothing", "\"80\""},
}};

const DimensionWords& words_of(Dimension dimension) {
  return kDimensions[std::size_t(dimension)];
}

bool is_blank(char c) {
  return c == ' ' || c == '\t';
}

std::string_view trimmed(std::string_view text) {
  while (!text.empty() && is_blank(text.front())) text.remove_prefix(1);
  while (!text.empty() && is_blank(text.back())) text.remove_suffix(1);
  return text;
}

/// Takes a number from the front of `text`; false when there is none.
bool take_number(std::string_view& text, double& value) {
  text = trimmed(text);
  const char* begin = text.data();
  const char* end = begin + text.size();
  if (begin != end && *begin == '+') ++begin;
  const auto result = std::from_chars(begin, end, value, std::chars_format::general);
  if (result.ec != std::errc() || !std::isfinite(value)) return false;
  text.remove_prefix(static_cast<std::size_t>(result.ptr - text.data()));
  return true;
}

/// Takes letters, with "/m2" or "/W" after them, or one of ' " % from the front of `text`.
std::string_view take_unit(std::string_view& text) {
  text = trimmed(text);
  std::size_t n = 0;
  while (n < text.size() && ((text[n] >= 'a' && text[n] <= 'z') || (text[n] >= 'A' && text[n] <= 'Z'))) ++n;
  for (const std::string_view divisor : {"/m2", "/m\u00b2", "/W"})
    if (n > 0 && text.substr(n, divisor.size()) == divisor) n += divisor.size();
  if (n == 0 && !text.empty() && (text[0] == '\'' || text[0] == '"' || text[0] == '%')) n = 1;
  const std::string_view unit = text.substr(0, n);
  text.remove_prefix(n);
  return unit;
}

const Unit* find_unit(std::string_view name) {
  for (const Unit& unit : kUnits)
    if (unit.name == name) return &unit;
  return nullptr;
}

bool is_feet(const Unit* unit) {
  return unit && unit->dimension == Dimension::length && unit->factor == 0.3048;
}
bool is_inches(const Unit* unit) {
  return unit && unit->dimension == Dimension::length && unit->factor == 0.0254;
}

Parsed fail(std::string text) {
  return {false, 0, std::move(text)};
}

/// One "number unit" term; fills `unit` (null for a bare number).
Parsed take_term(std::string_view& rest, std::string_view whole, Dimension dimension, const Unit*& unit) {
  double number = 0;
  if (!take_number(rest, number))
    return fail(fmt::format(FMT_STRING("\"{}\" is not {}; expected a number, then {}"), whole,
                            words_of(dimension).name, words_of(dimension).units));
  if (!rest.empty() && rest.front() == ',')
    return fail(fmt::format(FMT_STRING("\"{}\": write the decimal sign as a point, not a comma"), whole));
  const std::string_view name = take_unit(rest);
  unit = name.empty() ? nullptr : find_unit(name);
  if (!name.empty() && (!unit || unit->dimension != dimension))
    return fail(fmt::format(FMT_STRING("\"{}\": \"{}\" is not a unit of {}; expected {}"), whole, name,
                            words_of(dimension).name.substr(words_of(dimension).name.find(' ') + 1),
                            words_of(dimension).units));
  return {true, number * (unit ? unit->factor : 1.0), {}};
}

}  // namespace

Parsed parse_quantity(std::string_view text, Dimension dimension) {
  const std::string_view whole = trimmed(text);
  std::string_view rest = whole;
  const Unit* unit = nullptr;
  Parsed result = take_term(rest, whole, dimension, unit);
  if (!result.ok) return result;
  rest = trimmed(rest);
  if (is_feet(unit) && !rest.empty()) {
    const bool negative = result.value < 0 || std::signbit(result.value);
    const Unit* second = nullptr;
    const Parsed inches = take_term(rest, whole, dimension, second);
    if (!inches.ok) return inches;
    if (!is_inches(second) || inches.value < 0)
      return fail(
          fmt::format(FMT_STRING("\"{}\": after feet only inches can follow, as in \"9 ft 6 in\""), whole));
    result.value += negative ? -inches.value : inches.value;
    rest = trimmed(rest);
  }
  if (!rest.empty())
    return fail(fmt::format(FMT_STRING("\"{}\": \"{}\" is left over; expected one value such as {}"), whole,
                            rest, words_of(dimension).example));
  return result;
}

ParsedRange parse_range(std::string_view text, Dimension dimension) {
  const std::string_view whole = trimmed(text);
  const auto refused = [](std::string problem) { return ParsedRange{false, {}, std::move(problem)}; };
  const std::size_t dots = whole.find("..");
  if (dots == std::string_view::npos)
    return refused(fmt::format(
        FMT_STRING("\"{0}\" is one value; expected a range: \"{0}..\" for at least, \"..{0}\" for at most"),
        whole));
  const std::string_view low = trimmed(whole.substr(0, dots)), high = trimmed(whole.substr(dots + 2));
  if (low.empty() && high.empty())
    return refused(fmt::format(FMT_STRING("\"{}\" has no end; expected a range such as 2000..4500"), whole));
  ParsedRange result{true, {}, {}};
  double bare = 0;
  std::string low_text(low);
  if (std::string_view rest = high; parse_number(low, bare) && take_number(rest, bare))
    low_text += " " + std::string(take_unit(rest));
  for (const bool is_low : {true, false}) {
    if (is_low ? low.empty() : high.empty()) continue;
    const Parsed end = parse_quantity(is_low ? std::string_view(low_text) : high, dimension);
    if (!end.ok) return refused(end.problem);
    (is_low ? result.range.low : result.range.high) = end.value;
  }
  if (result.range.low > result.range.high)
    return refused(
        fmt::format(FMT_STRING("\"{}\" begins above its end; expected the lower value first"), whole));
  return result;
}

std::string unit_names(Dimension dimension) {
  return std::string(words_of(dimension).units);
}

bool parse_number(std::string_view text, double& value) {
  return take_number(text, value) && trimmed(text).empty();
}

}  // namespace glow::units
