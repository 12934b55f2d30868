#include "core/space/written_walls.hpp"

#include <fmt/format.h>

#include "core/space/tolerances.hpp"

namespace glow::space {
namespace {}  // namespace

WrittenWalls::WrittenWalls(const model::Room& room, const geometry::Polygon& tidied)
    : room_(room), outline_(tidied), names_(tidied.size()) {
  for (int number = int(room.outline.size()); number >= 1; --number)
    if (const auto place = find_number(number))
      names_[place->wall] = fmt::format(FMT_STRING("{} {}"), room.outdoors ? "edge" : "wall", number);
  for (const model::Wall& wall : room.walls)
    if (const auto place = find_number(wall.number); place && !wall.name.empty())
      names_[place->wall] = wall.name;
}

std::optional<WrittenWalls::Place> WrittenWalls::find_number(int number) const {
  const geometry::Polygon& written = room_.outline;
  if (number < 1 || number > int(written.size())) return std::nullopt;
  const Vec2& a = written[std::size_t(number - 1)];
  const Vec2& b = written[std::size_t(number) % written.size()];
  for (std::size_t i = 0; i < outline_.size(); ++i) {
    const Vec2& p = outline_[i];
    const Vec2 way = outline_[(i + 1) % outline_.size()] - p;
    const Vec2 along = way.normalized();
    const auto on_wall = [&](const Vec2& q) {
      const double t = along.dot(q - p);
      return t > -kHair && t < way.norm() + kHair && (q - p - t * along).norm() < kHair;
    };
    if (on_wall(a) && on_wall(b)) return Place{i, along.dot(a - p), along.dot(b - a) >= 0 ? 1.0 : -1.0};
  }
  return std::nullopt;
}

std::optional<WrittenWalls::Place> WrittenWalls::find(int number, const std::string& name) const {
  if (room_.outdoors) return std::nullopt;
  if (name.empty()) return find_number(number);
  for (const model::Wall& wall : room_.walls)
    if (wall.name == name) return find_number(wall.number);
  for (int k = 1; k <= int(room_.outline.size()); ++k)
    if (fmt::format(FMT_STRING("wall {}"), k) == name) return find_number(k);
  return std::nullopt;
}

std::string WrittenWalls::choices() const {
  std::string words = fmt::format(FMT_STRING("a number from 1 to {}"), room_.outline.size());
  for (const model::Wall& wall : room_.walls)
    if (!wall.name.empty()) words += fmt::format(FMT_STRING(", \"{}\""), wall.name);
  return words;
}

}  // namespace glow::space
