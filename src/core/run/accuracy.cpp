#include "core/run/accuracy.hpp"

#include <charconv>

namespace glow::run {

std::optional<Accuracy> Accuracy::parse(const std::string& words) {
  using transport::Effort;
  if (words == "draft") return Accuracy{Effort::draft(), std::nullopt, 2};
  if (words == "normal") return Accuracy{Effort::normal(), std::nullopt, 2};
  if (words == "fine") return Accuracy{Effort::fine(), std::nullopt, 1};
  double percent = 0;
  const char* end = words.data() + words.size();
  if (!words.empty() && words.back() == '%') --end;
  const auto [rest, error] = std::from_chars(words.data(), end, percent);
  if (error != std::errc() || rest != end || !(percent >= 0.1 && percent <= 20)) return std::nullopt;
  return Accuracy{percent < 3 ? Effort::normal() : Effort::draft(), percent, 3};
}

}  // namespace glow::run
