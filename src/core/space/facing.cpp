#include "core/space/facing.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/space/tolerances.hpp"
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

namespace {

Vec3 middle_of(const Solid& extent) {
  Vec2 middle = Vec2::Zero();
  for (const Vec2& p : extent.plan) middle += p / double(extent.plan.size());
  return {middle.x(), middle.y(), (extent.bottom_m + extent.top_m) / 2};
}

/// Straight away from the side, top or underside of the solid that is nearest to `at`; zero in a sheet's own
/// plane.
Vec3 off(const Solid& extent, const Vec3& at) {
  const auto& plan = extent.plan;
  Vec3 way = Vec3::Zero();
  double nearest = INFINITY;
  const auto offer = [&](double distance, const Vec3& normal) {
    if (distance >= nearest) return;
    nearest = distance;
    way = normal;
  };
  const double turn = geometry::signed_area(plan) < 0 ? -1 : 1;
  for (std::size_t k = 0; k + 1 < plan.size() + (plan.size() > 2); ++k) {
    const Vec2 &a = plan[k], &b = plan[(k + 1) % plan.size()];
    Vec2 normal = turn * Vec2(b.y() - a.y(), a.x() - b.x()).normalized();
    const double side = normal.dot(at.xy() - a);
    if (plan.size() == 2 && side < 0) normal = -normal;
    const bool sideless = plan.size() == 2 && std::abs(side) < kHair;
    const double share = std::clamp((at.xy() - a).dot(b - a) / (b - a).squaredNorm(), 0.0, 1.0);
    offer((at.xy() - a - share * (b - a)).norm(), sideless ? Vec3::Zero() : Vec3(normal.x(), normal.y(), 0));
  }
  if (extent.is_over(at.xy())) {
    offer(std::abs(at.z() - extent.top_m), Vec3::UnitZ());
    offer(std::abs(at.z() - extent.bottom_m), -Vec3::UnitZ());
  }
  return way;
}

}  // namespace

Facing parse_facing(const std::string& words, const Vec3& at, const std::vector<PlanShape>& objects) {
  if (words == "up") return {Vec3(Vec3::UnitZ()), {}};
  if (words == "down") return {Vec3(-Vec3::UnitZ()), {}};
  Vec3 way = Vec3::Zero();
  std::vector<std::string> names = {"up", "down"};
  if (const auto direction = parse_point(words, {})) way = *direction;
  for (const PlanShape& object : objects) {
    names.push_back("towards " + object.name);
    names.push_back("off " + object.name);
    if (words == "towards " + object.name || words == object.name) way = middle_of(object.extent) - at;
    if (words == "off " + object.name) way = off(object.extent, at);
  }
  if (way.norm() > 1e-9) return {Vec3(way.normalized()), {}};
  const std::string near = nearest_word(words, names);
  return {
      std::nullopt,
      fmt::format(FMT_STRING("{}expected up, down, a direction such as 1,0,0, \"towards NAME\" for the light "
                             "that comes from an object's way, or \"off NAME\" for the light on it"),
                  near.empty() ? std::string() : fmt::format(FMT_STRING("did you mean \"{}\"? "), near))};
}

}  // namespace glow::space
