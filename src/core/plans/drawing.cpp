#include "core/plans/drawing.hpp"

#include <fmt/format.h>

#include <cmath>

#include "core/plans/request.hpp"

namespace glow::plans {
namespace {

Vec2 turned(const Vec2& p, double degrees) {
  // Quarters are exact, so that a drawing set upside down keeps its round numbers.
  const double quarters = degrees / 90;
  if (quarters == std::floor(quarters)) {
    const int n = int(std::fmod(std::fmod(quarters, 4) + 4, 4));
    if (n == 0) return p;
    if (n == 1) return Vec2(-p.y(), p.x());
    if (n == 2) return -p;
    return Vec2(p.y(), -p.x());
  }
  const double c = std::cos(degrees * M_PI / 180), s = std::sin(degrees * M_PI / 180);
  return Vec2(c * p.x() - s * p.y(), s * p.x() + c * p.y());
}

/// * stands for any letters, ? for one.
bool fits_pattern(const char* key, const char* pattern) {
  const char *after_star = nullptr, *tried = nullptr;
  while (*key) {
    if (*pattern == '*') {
      after_star = ++pattern;
      tried = key;
    } else if (*pattern == '?' || *pattern == *key) {
      ++pattern;
      ++key;
    } else if (after_star) {
      pattern = after_star;
      key = ++tried;
    } else {
      return false;
    }
  }
  while (*pattern == '*') ++pattern;
  return *pattern == 0;
}

bool fits_one(const std::string& key, const std::string& pattern) {
  return key == pattern || fits_pattern(key.c_str(), pattern.c_str());
}

}  // namespace

Vec2 Frame::to_metres(const Vec2& drawing) const {
  return metres_per_unit * turned(drawing - origin, rotate_deg);
}

Vec2 Frame::to_drawing(const Vec2& metres) const {
  return turned(metres / metres_per_unit, -rotate_deg) + origin;
}

std::optional<double> UnitWish::metres() const {
  return known ? known->metres / (known->to - known->from).norm() : metres_per_unit;
}

std::optional<Frame> FloorWish::frame() const {
  const auto metres = unit.metres();
  if (!metres || origin_at_corner) return std::nullopt;
  return Frame{*metres, origin.value_or(Vec2::Zero()), rotate_deg};
}

bool fits(const std::string& key, const std::vector<std::string>& patterns) {
  for (const std::string& pattern : patterns)
    if (fits_one(key, pattern)) return true;
  return false;
}

const BlockUse* use_of(const std::string& key, const std::vector<BlockUse>& blocks) {
  for (const BlockUse& use : blocks)
    if (key == use.block) return &use;  // a name in full before any pattern: "*U7" is a name
  for (const BlockUse& use : blocks)
    if (fits_one(key, use.block)) return &use;
  return nullptr;
}

std::optional<RoomsFrom> rooms_from(const std::string& word) {
  for (const RoomsFrom from : {RoomsFrom::outlines, RoomsFrom::hatches, RoomsFrom::lines, RoomsFrom::walls})
    if (word == to_string(from)) return from;
  return std::nullopt;
}

const char* to_string(RoomsFrom from) {
  switch (from) {
    case RoomsFrom::outlines:
      return "outlines";
    case RoomsFrom::hatches:
      return "hatches";
    case RoomsFrom::lines:
      return "lines";
    case RoomsFrom::walls:
      break;
  }
  return "walls";
}

std::string handle_word(std::uint64_t handle) {
  return handle ? fmt::format(FMT_STRING("{:X}"), handle) : std::string();
}

}  // namespace glow::plans
