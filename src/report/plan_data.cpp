#include "report/plan_data.hpp"

#include "figures/canvas/colour_scale.hpp"
#include "figures/flat/flat_shapes.hpp"

namespace glow::report {
namespace {

using files::json;
using files::short_number;

constexpr int kColours = 41;

json point_of(const Vec2& p, const units::ShownUnits& units) {
  return {short_number(units.length(p.x())), short_number(units.length(p.y()))};
}

json polygon_of(const geometry::Polygon& polygon, const units::ShownUnits& units) {
  json list = json::array();
  for (const Vec2& p : polygon) list.push_back(point_of(p, units));
  return list;
}

json values_of(const std::vector<double>& lux, const units::ShownUnits& units) {
  json list = json::array();
  for (const double value : lux) list.push_back(short_number(units.light(value)));
  return list;
}

json use_of(const assess::GridReading& grid, const units::ShownUnits& units) {
  return {{"mean", short_number(units.light(grid.statistics.mean_lx))},
          {"uncertainty", short_number(units.light(grid.uncertainty.mean_lx))},
          {"u0", grid.statistics.u0 ? short_number(*grid.statistics.u0) : json(nullptr)},
          {"direct", values_of(grid.direct_lx, units)},
          {"total", values_of(grid.total_lx, units)}};
}

/// In plan, of a luminaire above a level grid.
geometry::Polygon outline_of(const figures::FlatLuminaire& luminaire) {
  if (!luminaire.outline.empty()) return luminaire.outline;
  const Vec2 half = luminaire.luminaire.size_m.cwiseMax(Vec2(0.06, 0.06)) / 2;  // small ones are still seen
  const double turn = luminaire.rotation_deg * M_PI / 180;
  const Vec2 along(std::cos(turn), std::sin(turn)), across(-along.y(), along.x());
  geometry::Polygon outline;
  for (const auto& [u, v] : {std::pair{-1, -1}, {1, -1}, {1, 1}, {-1, 1}})
    outline.push_back(luminaire.at + u * half.x() * along + v * half.y() * across);
  return outline;
}

json grid_of(const record::RoomRecord& room, const assess::GridReading& grid,
             const units::ShownUnits& units) {
  const geometry::Box2 box = geometry::bounding_box(grid.grid.outline);
  json holes = json::array(), shapes = json::array(), luminaires = json::array(), cells = json::array(),
       points = json::array();
  for (const geometry::Polygon& hole : grid.grid.holes) holes.push_back(polygon_of(hole, units));
  for (const figures::FlatShape& shape : figures::shapes_on(room, grid, box))
    shapes.push_back({{"name", shape.name},
                      {"outline", polygon_of(shape.outline, units)},
                      {"covers", shape.covers},
                      {"opening", shape.opening}});
  for (const figures::FlatLuminaire& luminaire : figures::luminaires_on(room, grid, box))
    luminaires.push_back(
        {{"mark", luminaire.luminaire.mark}, {"outline", polygon_of(outline_of(luminaire), units)}});
  for (const auto& [column, row] : grid.grid.cells) cells.push_back({column, row});
  for (const Vec3& p : grid.grid.points)
    points.push_back({short_number(units.length(p.x())), short_number(units.length(p.y())),
                      short_number(units.length(p.z()))});
  return {{"name", grid.name},
          {"low", point_of(box.low, units)},
          {"high", point_of(box.high, units)},
          {"outline", polygon_of(grid.grid.outline, units)},
          {"holes", holes},
          {"shapes", shapes},
          {"luminaires", luminaires},
          {"start", point_of(grid.grid.low, units)},
          {"cell", point_of(grid.grid.cell, units)},
          {"cells", cells},
          {"points", points},
          {"uses", json::object()}};
}

}  // namespace

json grids_data(const record::RoomRecord& room, const units::ShownUnits& units) {
  json list = json::array();
  const auto add = [&](const std::string& use, const assess::Assessment& found) {
    for (const assess::GridReading& grid : found.grids) {
      if (grid.total_lx.empty()) continue;
      auto known =
          std::find_if(list.begin(), list.end(), [&](const json& one) { return one["name"] == grid.name; });
      if (known == list.end()) {
        list.push_back(grid_of(room, grid, units));
        known = list.end() - 1;
      }
      (*known)["uses"][use] = use_of(grid, units);
    }
  };
  add("", room.assessment);
  for (const record::SceneRecord& scene : room.scenes) add(scene.name, scene.assessment);
  return list;
}

json grid_data(const record::RoomRecord& room, const assess::GridReading& grid,
               const units::ShownUnits& units) {
  json data = grid_of(room, grid, units);
  for (const char* drawn : {"outline", "holes", "shapes", "luminaires", "low", "high"}) data.erase(drawn);
  data["uses"][""] = use_of(grid, units);
  data["light"] = units.light_unit();
  data["length"] = units.length_unit();
  data["per_m"] = units.length(1);
  return data;
}

json scale_colours() {
  json colours = json::array();
  for (int k = 0; k < kColours; ++k) colours.push_back(figures::scale_colour(double(k) / (kColours - 1)));
  return colours;
}

}  // namespace glow::report
