#include "files/text/colour_text.hpp"

#include "core/units/quantity.hpp"

namespace glow::files {
namespace {

constexpr double kLowestTemperature = 1000, kHighestTemperature = 20000;  // K
constexpr double kLowestIndex = 20, kHighestIndex = 100;
constexpr std::string_view kDigits = "0123456789";

bool is_letter(char c) {
  return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z');
}

std::optional<double> within(std::string_view digits, double low, double high) {
  double value = 0;
  if (!units::parse_number(digits, value) || value < low || value > high) return std::nullopt;
  return value;
}

}  // namespace

std::optional<double> first_number(std::string_view text, double low, double high) {
  const std::size_t start = text.find_first_of(kDigits);
  if (start == std::string_view::npos) return std::nullopt;
  const std::size_t end = text.find_first_not_of(kDigits, start);
  return within(text.substr(start, end - start), low, high);
}

std::optional<double> stated_colour_temperature(std::string_view text) {
  for (std::size_t at = 0; (at = text.find_first_of(kDigits, at)) != std::string_view::npos;) {
    const std::size_t end = std::min(text.find_first_not_of(kDigits, at), text.size());
    const std::size_t unit = std::min(text.find_first_not_of(' ', end), text.size());
    const bool kelvin = unit < text.size() && (text[unit] == 'K' || text[unit] == 'k') &&
                        (unit + 1 == text.size() || !is_letter(text[unit + 1]));
    const auto value = within(text.substr(at, end - at), kLowestTemperature, kHighestTemperature);
    if (kelvin && value) return value;
    at = end;
  }
  return std::nullopt;
}

std::optional<double> stated_colour_rendering(std::string_view text) {
  for (const std::string_view name : {"Ra", "CRI"})
    for (std::size_t at = 0; (at = text.find(name, at)) != std::string_view::npos; at += name.size()) {
      if (at > 0 && is_letter(text[at - 1])) continue;
      const std::size_t number = text.find_first_not_of(" :=>", at + name.size());
      if (number == std::string_view::npos || kDigits.find(text[number]) == std::string_view::npos) continue;
      if (const auto value = first_number(text.substr(number), kLowestIndex, kHighestIndex)) return value;
    }
  return std::nullopt;
}

}  // namespace glow::files
