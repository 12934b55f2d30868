#include "core/space/facing.hpp"

#include <fmt/format.h>

#include "core/units/quantity.hpp"

namespace glow::space {

std::optional<Vec3> parse_point(const std::string& words, const units::ShownUnits& shown) {
  Vec3 target;
  std::size_t begin = 0;
  for (int k = 0; k < 3; ++k) {
    const std::size_t comma = words.find(',', begin);
    if ((comma == std::string::npos) != (k == 2)) return std::nullopt;
    const std::string one = words.substr(begin, comma - begin);
    double bare = 0;
    units::Parsed parsed = units::parse_quantity(one, units::Dimension::length);
    if (units::parse_number(one, bare)) parsed.value = shown.metres_of(bare);
    if (!parsed.ok || std::abs(parsed.value) > 1e7) return std::nullopt;
    target[k] = parsed.value;
    begin = comma + 1;
  }
  return target;
}

Facing parse_facing(const std::string& words, const Vec3& at, const std::vector<PlanShape>& objects) {
  if (words == "up") return {Vec3(Vec3::UnitZ()), {}};
  if (words == "down") return {Vec3(-Vec3::UnitZ()), {}};
  Vec3 way = Vec3::Zero();
  std::vector<std::string> names = {"up", "down"};
  if (const auto direction = parse_point(words, {})) way = *direction;
  for (const PlanShape& object : objects) {
    names.push_back(object.name);
    if (object.name != words) continue;
    Vec2 middle = Vec2::Zero();
    for (const Vec2& p : object.extent.plan) middle += p / double(object.extent.plan.size());
    way = Vec3(middle.x(), middle.y(), (object.extent.bottom_m + object.extent.top_m) / 2) - at;
  }
  if (way.norm() > 1e-9) return {Vec3(way.normalized()), {}};
  const std::string near = nearest_word(words, names);
  return {std::nullopt,
          fmt::format(FMT_STRING("{}expected up, down, a direction such as 1,0,0, or the name of an object"),
                      near.empty() ? std::string() : fmt::format(FMT_STRING("did you mean \"{}\"? "), near))};
}

}  // namespace glow::space
