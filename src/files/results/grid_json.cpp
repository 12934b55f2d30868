#include "files/results/grid_json.hpp"

#include <stdexcept>

namespace glow::files {
namespace {

constexpr double kLargest = 1e12;
constexpr int kMostAlong = 300000;
constexpr double kMostCells = 4e6;
constexpr double kUnit = 1e-6;  // how far a direction's length may be from 1

json statistics_json(const readings::Statistics& s) {
  return {{"mean_lx", number(s.mean_lx)},
          {"min_lx", number(s.min_lx)},
          {"max_lx", number(s.max_lx)},
          {"uniformity", number(s.u0)},
          {"min_over_max", number(s.min_over_max)}};
}

json list_json(const std::vector<double>& values) {
  json list = json::array();
  for (const double value : values) list.push_back(short_number(value));
  return list;
}

json spots_json(const std::vector<Vec3>& points) {
  json list = json::array();
  for (const Vec3& p : points) list.push_back(point_json(p));
  return list;
}

std::vector<double> list_of(const json& j, std::size_t count) {
  if (!j.is_array() || j.size() != count) throw std::runtime_error("a list has another length than its grid");
  std::vector<double> values;
  for (const json& value : j) {
    values.push_back(number_of(value));
    if (values.back() < 0) throw std::runtime_error("a light level is below zero");
  }
  return values;
}

Vec3 direction_of(const json& j) {
  const Vec3 way = point_of(j);
  if (std::abs(way.norm() - 1) > kUnit) throw std::runtime_error("a direction is not of unit length");
  return way;
}

readings::Kernel kernel_of(const std::string& kind) {
  if (kind == "cylindrical") return readings::Kernel::cylinder;
  if (kind == "semi-cylindrical") return readings::Kernel::semicylinder;
  if (kind == "hemispherical") return readings::Kernel::hemisphere;
  if (kind == "spherical") return readings::Kernel::sphere;
  return readings::Kernel::plane;
}

json place_json(const readings::PlaneGrid& grid) {
  json j = {{"origin_m", point_json(grid.plane.origin)},
            {"u", point_json(grid.plane.u)},
            {"v", point_json(grid.plane.v)},
            {"normal", point_json(grid.plane.normal)},
            {"outline_m", points_json(grid.outline)},
            {"holes_m", json::array()},
            {"low_m", {number(grid.low.x()), number(grid.low.y())}}};
  for (const geometry::Polygon& hole : grid.holes) j["holes_m"].push_back(points_json(hole));
  return j;
}

void read_place(const json& j, readings::PlaneGrid& grid) {
  grid.plane = {point_of(j.at("origin_m")), direction_of(j.at("u")), direction_of(j.at("v")),
                direction_of(j.at("normal"))};
  grid.outline = points_of(j.at("outline_m"));
  for (const json& hole : j.at("holes_m")) grid.holes.push_back(points_of(hole));
  grid.low = {number_of(j.at("low_m").at(0)), number_of(j.at("low_m").at(1))};
}

/// Points from cells, in the plane; those of sloped ceilings are listed.
void read_cells(const json& j, readings::PlaneGrid& grid) {
  const json& cells = j.at("cells");
  for (const json& cell : cells) {
    const std::array<int, 2> at = {cell.at(0).get<int>(), cell.at(1).get<int>()};
    if (at[0] < 0 || at[1] < 0 || at[0] >= grid.count.nx || at[1] >= grid.count.ny)
      throw std::runtime_error("a cell lies outside its grid");
    grid.cells.push_back(at);
    grid.points.push_back(grid.plane.at(grid.middle_of(at)));
  }
  if (!j.contains("points_m")) return;
  grid.points.clear();
  for (const json& p : j.at("points_m")) grid.points.push_back(point_of(p));
  for (const json& n : j.at("normals")) grid.normals.push_back(direction_of(n));
  if (grid.points.size() != grid.cells.size() || grid.normals.size() != grid.cells.size())
    throw std::runtime_error("a list has another length than its grid");
}

}  // namespace

double number_of(const json& j) {
  const double value = j.get<double>();
  if (!std::isfinite(value) || std::abs(value) > kLargest)
    throw std::runtime_error("a number is out of range");
  return value;
}

json point_json(const Vec3& p) {
  return {number(p.x()), number(p.y()), number(p.z())};
}

json points_json(const std::vector<Vec2>& points) {
  json list = json::array();
  for (const Vec2& p : points) list.push_back({number(p.x()), number(p.y())});
  return list;
}

Vec3 point_of(const json& j) {
  return {number_of(j.at(0)), number_of(j.at(1)), number_of(j.at(2))};
}

std::vector<Vec2> points_of(const json& j) {
  std::vector<Vec2> points;
  for (const json& p : j) points.emplace_back(number_of(p.at(0)), number_of(p.at(1)));
  return points;
}

json grid_json(const assess::GridReading& g, const std::string& csv) {
  const readings::PlaneGrid& grid = g.grid;
  json j = {{"name", g.name},
            {"role", to_string(g.role)},
            {"kind", g.kind()},
            {"facing", g.kernel == readings::Kernel::semicylinder ? point_json(g.facing) : json(nullptr)},
            {"task", g.task.empty() ? json(nullptr) : json(g.task)},
            {"points", grid.points.size()},
            {"counts", {grid.count.nx, grid.count.ny}},
            {"spacing_m", {number(grid.cell.x()), number(grid.cell.y())}},
            {"spacing_rule", grid.by_rule ? "EN 12464-1: p = 0.2 * 5^(lg d), nearest whole number" : "given"},
            {"largest_pitch_m", number(grid.count.p_m)},
            {"height_m", grid.plane.is_level() ? number(grid.plane.origin.z()) : json(nullptr)},
            {"inset_m", number(grid.inset_m)},
            {"left_out", json::array()}};
  for (const assess::MisplacedPoint& point : g.left_out)
    j["left_out"].push_back({{"at_m", point_json(point.position)}, {"inside", point.inside}});
  if (!g.total_lx.empty()) {
    j.update(statistics_json(g.statistics));
    j["min_at_m"] = point_json(grid.points[g.statistics.min_at]);
    j["direct_mean_lx"] = number(readings::statistics(g.direct_lx).mean_lx);
    j["interreflected_mean_lx"] = number(readings::statistics(g.interreflected_lx).mean_lx);
    j["initial"] = statistics_json(g.initial);
    j["uncertainty"] = {{"mean_lx", number(g.uncertainty.mean_lx)},
                        {"min_lx", number(g.uncertainty.min_lx)},
                        {"uniformity", number(g.uncertainty.u0)},
                        {"meaning", "half width of the 95 % interval: sample sets and size of patches"}};
  }
  if (g.judged.points > 0) {
    j["judged"] = statistics_json(g.judged.statistics);
    j["judged"]["points"] = g.judged.points;
    j["judged"]["border_m"] = number(g.judged.border_m);
  }
  j["csv"] = csv;
  j["place"] = place_json(grid);
  j["cells"] = json::array();
  for (const auto& cell : grid.cells) j["cells"].push_back({cell[0], cell[1]});
  if (!grid.normals.empty()) {
    j["points_m"] = spots_json(grid.points);
    j["normals"] = spots_json(grid.normals);
  }
  j["direct_lx"] = list_json(g.direct_lx);
  j["interreflected_lx"] = list_json(g.interreflected_lx);
  return j;
}

assess::GridReading grid_of(const json& j) {
  assess::GridReading g;
  g.name = j.at("name").get<std::string>();
  const auto role = space::grid_role(j.at("role").get<std::string>());
  if (!role) throw std::runtime_error("a grid has a role that is not known");
  g.role = *role;
  g.kernel = kernel_of(j.at("kind").get<std::string>());
  if (!j.at("facing").is_null()) g.facing = direction_of(j.at("facing"));
  readings::PlaneGrid& grid = g.grid;
  grid.count.nx = j.at("counts").at(0).get<int>();
  grid.count.ny = j.at("counts").at(1).get<int>();
  if (grid.count.nx < 1 || grid.count.ny < 1 || grid.count.nx > kMostAlong || grid.count.ny > kMostAlong ||
      double(grid.count.nx) * grid.count.ny > kMostCells)
    throw std::runtime_error("a grid has an impossible number of cells");
  grid.cell = {number_of(j.at("spacing_m").at(0)), number_of(j.at("spacing_m").at(1))};
  if (grid.cell.minCoeff() <= 0) throw std::runtime_error("a grid has cells without size");
  grid.inset_m = number_of(j.at("inset_m"));
  grid.by_rule = j.at("spacing_rule").get<std::string>() != "given";
  read_place(j.at("place"), grid);
  if (grid.outline.size() < 3) throw std::runtime_error("a grid has no outline");
  read_cells(j, grid);
  g.direct_lx = list_of(j.at("direct_lx"), grid.points.size());
  g.interreflected_lx = list_of(j.at("interreflected_lx"), grid.points.size());
  for (std::size_t i = 0; i < g.direct_lx.size(); ++i)
    g.total_lx.push_back(g.direct_lx[i] + g.interreflected_lx[i]);
  if (!g.total_lx.empty()) g.statistics = readings::statistics(g.total_lx);
  return g;
}

}  // namespace glow::files
