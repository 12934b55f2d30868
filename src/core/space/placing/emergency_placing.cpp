#include "core/space/placing/emergency_placing.hpp"

#include <fmt/format.h>

#include <cmath>

#include "core/space/tolerances.hpp"

namespace glow::space {
namespace {

constexpr int kBandRows = 3;

/// A strip of the floor about a straight piece of a path.
model::GridWish strip(const Vec2& from, const Vec2& to, double width, const Place& place) {
  const Vec2 way = to - from, along = way.normalized(), aside(-along.y(), along.x());
  const Vec2 corner = from - width / 2 * aside;
  model::GridWish wish;
  wish.rectangle = {
      {corner.x(), corner.y(), 0}, {way.norm(), width}, std::atan2(along.y(), along.x()) / kDegree, 0};
  wish.place = place;
  return wish;
}

bool is_inside(const model::EscapeRoute& route, const RoomGeometry& built, Problems& problems) {
  for (const Vec2& p : route.path)
    if (!geometry::contains(built.shell.outline, p)) {
      problems.error("P093", route.place,
                     fmt::format(FMT_STRING("escape route \"{}\" goes through ({}, {}), outside of its room; "
                                            "expected a path inside, ending before the door"),
                                 route.name, problems.length(p.x()), problems.length(p.y())));
      return false;
    }
  return true;
}

}  // namespace

std::vector<Grid> place_emergency_grids(const model::Room& room, const RoomGeometry& built,
                                        const WrittenWalls& walls, Problems& problems) {
  std::vector<Grid> grids;
  const auto lay = [&](const model::GridWish& wish, GridRole role) {
    for (Grid& grid : place_grid(room, built, walls, wish, role, problems)) grids.push_back(std::move(grid));
  };
  for (const model::EscapeRoute& route : room.escape_routes) {
    if (!is_inside(route, built, problems)) continue;
    const std::size_t pieces = route.path.size() - 1;
    for (std::size_t i = 0; i < pieces; ++i) {
      const std::string name = pieces == 1 ? route.name : fmt::format(FMT_STRING("{} {}"), route.name, i + 1);
      const double row = route.width_m / 2 / kBandRows;  // the line is drawn as wide as the band's middle row
      model::GridWish line = strip(route.path[i], route.path[i + 1], row, route.place);
      line.name = name;
      const double length = (route.path[i + 1] - route.path[i]).norm();
      line.density.columns = readings::grid_count(length, length).nx;  // a line has no shorter side
      line.density.rows = 1;
      lay(line, GridRole::escape_route);
      model::GridWish band = strip(route.path[i], route.path[i + 1], route.width_m / 2, route.place);
      band.name = name + " band";
      band.density = {{}, line.density.columns, kBandRows, {}};
      lay(band, GridRole::escape_band);
    }
  }
  if (room.open_area) {
    model::GridWish area;
    area.name = "open area";
    area.height_m = 0;
    area.inset_m = kDefaultInset;
    area.place = room.place;
    lay(area, GridRole::open_area);
  }
  return grids;
}

}  // namespace glow::space
