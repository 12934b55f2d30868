#include "core/run/accuracy.hpp"

#include <algorithm>
#include <charconv>

namespace glow::run {
namespace {

constexpr double kDirectShare = 0.2;  // of the accuracy asked for, that straight light may use up

}  // namespace

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
  Effort effort = percent < 3 ? Effort::normal() : Effort::draft();
  effort.direct_tolerance = std::min(effort.direct_tolerance, kDirectShare * percent / 100);
  return Accuracy{effort, percent, 3};
}

}  // namespace glow::run
