#include "files/project/room/readings_reader.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/geometry/area_vector.hpp"
#include "files/project/ranges.hpp"

namespace glow::files {
namespace {

using model::GridWish;
using units::Dimension;

constexpr int kMostAlong = 2000;
constexpr double kFlat = 1e-3;  // m: how far a corner may lie off the plane of the others

readings::Kernel read_kernel(TomlTable& table) {
  using readings::Kernel;
  const std::string kind = table.text("kind").value_or("plane");
  if (kind == "cylindrical") return Kernel::cylinder;
  if (kind == "semi-cylindrical") return Kernel::semicylinder;
  if (kind == "hemispherical") return Kernel::hemisphere;
  if (kind == "spherical") return Kernel::sphere;
  if (kind != "plane")
    table.problems().error("P005", table.place_of("kind"),
                           fmt::format(FMT_STRING("\"kind\" is \"{}\"; expected plane, cylindrical, "
                                                  "semi-cylindrical, hemispherical or spherical"),
                                       kind));
  return Kernel::plane;
}

/// `by_task`: the height may be missing; it is NaN then.
std::optional<model::PlacedRectangle> read_rectangle(TomlTable& owner, bool by_task) {
  auto table = owner.table("rectangle");
  if (!table) return std::nullopt;
  const auto at = table->place_in_room("at");
  const auto size = table->point("size", Need::required);
  const auto height = table->quantity("height", Dimension::length, range::kHeight);
  model::PlacedRectangle rectangle;
  rectangle.rotation_deg = table->quantity("rotation", Dimension::angle, range::kAngle).value_or(0);
  rectangle.tilt_deg = table->quantity("tilt", Dimension::angle, range::kAngle).value_or(0);
  const bool missing = at && std::isnan(at->z()) && !height;
  if (at && std::isnan(at->z()) == !height && !(by_task && missing))
    table->problems().error("P007", table->place(),
                            "a rectangle needs its height once: \"at\" = [x, y, z], or \"at\" = [x, y] and "
                            "\"height\"");
  table->finish();
  if (!at || !size) return std::nullopt;
  rectangle.at = {at->x(), at->y(), height.value_or(at->z())};
  rectangle.size = *size;
  if (size->minCoeff() > 0) return rectangle;
  table->problems().error("P005", table->place_of("size"),
                          "\"size\" holds a length of 0 or less; expected lengths above 0 m");
  return std::nullopt;
}

/// Three corners or more in one plane.
std::optional<std::vector<Vec3>> read_polygon(TomlTable& table) {
  auto corners = table.positions("polygon");
  if (!corners) return std::nullopt;
  const Vec3 normal = geometry::area_vector(*corners);
  bool flat = corners->size() >= 3 && normal.norm() > 1e-9;
  for (const Vec3& p : *corners)
    flat = flat && std::abs(normal.normalized().dot(p - corners->front())) < kFlat;
  if (flat) return corners;
  table.problems().error("P042", table.place_of("polygon"),
                         "these corners do not lie in one plane; expected three or more that do");
  return std::nullopt;
}

void read_density(TomlTable& table, GridWish& grid) {
  grid.density.spacing_m = table.quantity("spacing", Dimension::length, range::kPointSpacing);
  grid.density.columns = table.count("columns", 1, kMostAlong);
  grid.density.rows = table.count("rows", 1, kMostAlong);
  const bool both = table.has("columns") && table.has("rows");
  if (table.has("columns") == table.has("rows") && !(both && table.has("spacing"))) return;
  table.problems().error("P007", table.place(),
                         "a grid's density is given by \"spacing\", or by \"columns\" and \"rows\", or not "
                         "at all: then by the standard's rule");
  grid.density = {};
}

/// Where a grid lies, how dense it is, and which side is read.
GridWish read_place(TomlTable& table, bool by_task) {
  GridWish grid;
  grid.place = table.place();
  grid.name = table.text("name").value_or("");
  grid.on = table.text("on").value_or("");
  grid.on_place = table.place_of("on");
  grid.rectangle = read_rectangle(table, by_task);
  grid.polygon = read_polygon(table);
  grid.turned = table.flag("turned").value_or(false);
  grid.together = table.flag("together").value_or(false);
  if (grid.together && grid.on.find('.') == std::string::npos)
    table.problems().error(
        "P007", table.place_of("together"),
        "\"together\" makes one grid of the faces of repeated objects; it goes with \"on\" = "
        "\"NAME.FACE\"");
  grid.inset_m = table.quantity("inset", Dimension::length, range::kInset).value_or(0);
  read_density(table, grid);
  grid.leave_out_place = table.place_of("leave_out");
  grid.leave_out = read_leave_out(table);
  if (grid.name.empty() && grid.on.empty())
    table.problems().error("P004", grid.place, "a grid or area that lies on nothing needs a \"name\"");
  if (grid.name.empty()) grid.name = grid.on;
  return grid;
}

GridWish read_grid(TomlTable& table) {
  GridWish grid = read_place(table, false);
  grid.height_m = table.quantity("height", Dimension::length, range::kHeight);
  grid.kernel = read_kernel(table);
  const auto facing = table.point("facing");
  if (facing && facing->norm() > 1e-9) grid.facing = {facing->x(), facing->y(), 0};
  grid.facing.normalize();
  if (grid.kernel == readings::Kernel::semicylinder && !table.has("facing"))
    table.problems().error("P004", grid.place,
                           "a semi-cylindrical grid needs \"facing\" = [x, y], the level direction its half "
                           "cylinders look in");
  if (!table.has_one_of({"on", "rectangle", "polygon", "height"}))
    table.problems().error("P007", grid.place,
                           "a grid needs exactly one of \"on\" (a wall, floor, ceiling or an object's face), "
                           "\"rectangle\", \"polygon\" and \"height\" (level, through the whole room)");
  table.finish();
  return grid;
}

/// An outline in plan, level at `height` or at the task's (NaN).
void read_area_outline(TomlTable& table, GridWish& grid) {
  const auto height = table.quantity("height", Dimension::length, range::kHeight);
  const auto outline = table.points("outline");
  if (!outline) return;
  grid.polygon.emplace();
  for (const Vec2& p : *outline) grid.polygon->emplace_back(p.x(), p.y(), height.value_or(NAN));
  double twice = 0;
  for (std::size_t i = 0; i < outline->size(); ++i) {
    const Vec2 &a = (*outline)[i], &b = (*outline)[(i + 1) % outline->size()];
    twice += a.x() * b.y() - a.y() * b.x();
  }
  if (twice < 0) std::reverse(grid.polygon->begin(), grid.polygon->end());  // it is read from above
}

model::AreaWish read_area(TomlTable& table) {
  model::AreaWish area;
  area.grid = read_place(table, true);
  read_area_outline(table, area.grid);
  area.task = table.text("task").value_or("");
  area.task_place = table.place_of("task");
  area.level = read_level(table);
  area.surroundings = table.flag("surroundings").value_or(true);
  if (!table.has_one_of({"on", "rectangle", "polygon", "outline"}))
    table.problems().error("P007", area.grid.place,
                           "a task area needs exactly one of \"on\" (a wall, floor or an object's face), "
                           "\"rectangle\", \"outline\" (in plan) and \"polygon\" (corners in space)");
  if (table.has("height") && !table.has("outline"))
    table.problems().error("P007", table.place_of("height"),
                           "\"height\" goes with \"outline\"; a rectangle has a height of its own");
  table.finish();
  return area;
}

}  // namespace

std::optional<model::LeaveOut> read_leave_out(TomlTable& table) {
  if (!table.has("leave_out")) return std::nullopt;
  model::LeaveOut leave_out;
  if (table.is_word("leave_out", "nothing")) return leave_out;
  leave_out.objects = table.is_word("leave_out", "objects");
  if (leave_out.objects) return leave_out;
  for (const auto& [name, place] : table.texts("leave_out")) leave_out.names.push_back(name);
  if (leave_out.names.empty())
    table.problems().error("P005", table.place_of("leave_out"),
                           "\"leave_out\" tells whose footprints are not read; expected \"objects\", "
                           "\"nothing\" or a list of objects' names");
  return leave_out;
}

std::optional<model::LevelChoice> read_level(TomlTable& owner) {
  constexpr int kMostSteps = 5;
  auto table = owner.table("level");
  if (!table) return std::nullopt;
  model::LevelChoice level;
  level.place = table->place();
  level.modified = table->flag("modified").value_or(false);
  level.steps = table->count("steps", -kMostSteps, kMostSteps).value_or(0);
  level.reason = table->text("reason", Need::required).value_or("");
  if (level.modified == table->has("steps"))
    table->problems().error(
        "P007", level.place,
        "a level is changed either by \"modified\" = true (the table's modified value) or "
        "by \"steps\" = 1 or -1 on the scale of illuminances");
  table->finish();
  return level;
}

std::vector<model::AreaWish> read_areas(TomlTable& room) {
  std::vector<model::AreaWish> areas;
  for (TomlTable& table : room.tables("areas")) areas.push_back(read_area(table));
  return areas;
}

std::vector<GridWish> read_grids(TomlTable& room) {
  std::vector<GridWish> grids;
  for (TomlTable& table : room.tables("grids")) grids.push_back(read_grid(table));
  return grids;
}

std::vector<model::PointWish> read_points(TomlTable& room) {
  std::vector<model::PointWish> points;
  for (TomlTable& table : room.tables("points")) {
    model::PointWish point;
    point.place = table.place();
    point.name = table.text("name", Need::required).value_or("");
    const auto at = table.position("at", Need::required);
    point.facing_place = table.place_of("facing");
    point.facing = table.words("facing").value_or("up");
    point.kernel = read_kernel(table);
    table.finish();
    if (!at) continue;
    point.at = *at;
    points.push_back(std::move(point));
  }
  return points;
}

}  // namespace glow::files
