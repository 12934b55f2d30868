#include "validation/daylight_cases.hpp"

#include <cmath>
#include <map>
#include <nlohmann/json.hpp>
#include <stdexcept>

#include "core/geometry/room_shell.hpp"
#include "core/sources/daylight/daylight_paths.hpp"
#include "test_files.hpp"
#include "validation/scene_json.hpp"

namespace glow::validation {
namespace {

using daylight::Glazing;
using daylight::Sky;
using nlohmann::json;
using sources::DaylightOpening;

std::vector<const json*> cases() {
  std::vector<const json*> list;
  for (const json& c : test::shared_json("validation/transport.json").at("cases"))
    if (c.at("class") == "i") list.push_back(&c);
  for (const json& c : test::shared_json("validation/daylight.json").at("cases"))
    if (c.at("id").get_ref<const std::string&>()[0] == 'P') list.push_back(&c);
  return list;
}

Glazing glazing_of(const json& opening) {
  Glazing glazing;
  if (!opening.contains("glazing")) return glazing;
  const json& g = opening.at("glazing");
  const std::string law = g.at("law");
  glazing.at_normal = g.at("tau_normal").get<double>() * g.at("factor").get<double>();
  glazing.scattered = g.value("tau_scattered", 0.0);
  if (law == "fresnel") {
    glazing.law = Glazing::Law::clear;
    glazing.panes = g.at("panes");
    glazing.index = g.at("index");
  } else if (law == "cos_polynomial") {
    glazing.law = Glazing::Law::table;
    for (int angle = 0; angle <= 90; ++angle) {
      double sum = 0, power = 1;
      for (const json& c : g.at("coefficients")) {
        sum += c.get<double>() * power;
        power *= std::cos(angle * kDegree);
      }
      glazing.table.emplace_back(angle, std::max(0.0, sum));
    }
  } else if (law != "constant") {
    throw std::runtime_error("unknown law " + law);
  }
  return glazing;
}

/// The room, its openings as holes or as panes that scatter, and how light comes in by them.
struct Room {
  geometry::RoomShell shell;
  geometry::Geometry geometry;
  std::vector<DaylightOpening> openings;
  std::vector<bool> scatters;  ///< each of them
};

geometry::Material pane_of(const json& opening) {
  const Glazing glazing = glazing_of(opening);
  geometry::Material pane = diffuse(opening.at("glazing").value("reflectance_inside", 0.0));
  pane.scattering = glazing.scattered;
  pane.clear = glazing.at_normal;
  return pane;
}

/// In which wall of the box an opening lies: along y = 0, x = X, y = Y, x = 0; -1: in the ceiling.
int wall_of(const Vec3& low, const Vec3& high, const Vec3& size) {
  if (low.y() == high.y()) return low.y() == 0 ? 0 : 2;
  if (low.x() == high.x()) return low.x() == size.x() ? 1 : 3;
  return -1;
}

void add_opening(const json& opening, const Vec3& size, Room& room) {
  const Vec3 low = vec3(opening.at("min")), high = vec3(opening.at("max"));
  const int wall = wall_of(low, high, size);
  const Glazing glazing = glazing_of(opening);
  const bool scatters = glazing.scattered > 0;
  const std::string name = opening.at("name");
  std::vector<Vec3> corners;
  if (wall < 0) {
    geometry::CeilingOpening hole;
    hole.over = {{low.x(), low.y()}, {high.x(), low.y()}, {high.x(), high.y()}, {low.x(), high.y()}};
    hole.name = name;
    hole.has_pane = scatters;
    if (scatters) hole.pane = pane_of(opening);
    room.shell.roof_openings.push_back(hole);
    corners = opening_corners(room.shell, hole);
  } else {
    const int along = wall % 2;  // the axis that the wall runs along
    const bool forwards = wall == 0 || wall == 1;
    const double length = size[along];
    geometry::WallOpening hole;
    hole.wall = std::size_t(wall);
    hole.low = {forwards ? low[along] : length - high[along], low.z()};
    hole.high = {forwards ? high[along] : length - low[along], high.z()};
    hole.name = name;
    hole.has_pane = scatters;
    if (scatters) hole.pane = pane_of(opening);
    room.shell.openings.push_back(hole);
    corners = opening_corners(room.shell, hole);
  }
  DaylightOpening light;
  light.corner = corners[0];
  light.along = corners[1] - corners[0];
  light.up = corners[3] - corners[0];
  light.outwards = -light.along.cross(light.up).normalized();
  light.glazing = glazing;
  room.openings.push_back(light);
  room.scatters.push_back(scatters);
}

Room room_of(const json& scene) {
  Room room;
  const json& rho = scene.at("room").at("reflectance");
  const Vec3 size = vec3(scene.at("room").at("size"));
  room.shell = geometry::RoomShell::flat({{0, 0}, {size.x(), 0}, {size.x(), size.y()}, {0, size.y()}},
                                         size.z(), rho.at("floor"), rho.at("wall_x0"), rho.at("ceiling"));
  for (const json& opening : scene.at("openings")) add_opening(opening, size, room);
  geometry::add_room(room.geometry, room.shell);
  add_boxes(scene, "obstacles", room.geometry);
  for (std::size_t o = 0; o < room.openings.size(); ++o)
    for (std::size_t f = 0; f < room.geometry.facets().size() && room.scatters[o]; ++f) {
      DaylightOpening& opening = room.openings[o];
      const geometry::Facet& facet = room.geometry.facets()[f];
      const Vec3 middle = opening.corner + (opening.along + opening.up) / 2;
      const bool there =
          std::abs((middle - facet.origin).dot(facet.normal)) < 1e-9 &&
          room.geometry.surfaces()[std::size_t(facet.surface)].role == geometry::SurfaceRole::pane;
      if (there && facet.normal.dot(opening.outwards) > 0.5) opening.outer_facet = int(f);
    }
  return room;
}

Sky sky_of(const json& sky) {
  const std::string type = sky.at("type");
  const double diffuse = sky.contains("E_diffuse_horizontal")
                             ? sky.at("E_diffuse_horizontal").get<double>()
                             : sky.at("E_horizontal_unobstructed").get<double>();
  if (type == "uniform") return Sky::uniform(diffuse);
  if (type == "overcast") return Sky::overcast(diffuse);
  const json& p = sky.at("params");
  const daylight::SkyShape shape{p.at("a"), p.at("b"), p.at("c"), p.value("d", -1.0), p.value("e", 0.0)};
  const Vec3 sun = vec3(sky.at("sun"));
  return type == "all_weather" ? Sky::all_weather(shape, sun, diffuse) : Sky::general(shape, sun, diffuse);
}

/// The reference's own ground luminance as a reflectance under this light.
double ground_reflectance(const json& scene, const sources::OutdoorLight& light) {
  const double luminance = scene.contains("ground_luminance")
                               ? scene.at("ground_luminance").get<double>()
                               : scene.at("sky").value("ground_luminance", 0.0);
  return luminance * kPi / light.global_lx();
}

struct Found {
  double sun, sky, outside, internal;
  double open_lx;  ///< on open ground, without the sun
};

double value_of(const Found& found, const std::string& component) {
  if (component == "sun") return found.sun;
  if (component == "sky") return found.sky;
  if (component == "external") return found.outside;
  if (component == "direct") return found.sun + found.sky + found.outside;
  if (component == "internal" || component == "indirect") return found.internal;
  if (component == "daylight_factor")
    return 100 * (found.sky + found.outside + found.internal) / found.open_lx;
  if (component == "total") return found.sun + found.sky + found.outside + found.internal;
  throw std::runtime_error("unknown component " + component);
}

}  // namespace

std::vector<std::string> daylight_case_ids() {
  std::vector<std::string> ids;
  for (const json* c : cases()) ids.push_back(c->at("id"));
  return ids;
}

CaseResult run_daylight_case(const std::string& id, const transport::Effort& effort) {
  const json* found_case = nullptr;
  for (const json* c : cases())
    if (c->at("id") == id) found_case = c;
  if (!found_case) throw std::runtime_error("no case " + id);
  const json& scene = found_case->at("scene");
  Room room = room_of(scene);
  std::vector<readings::Receiver> points;
  std::map<std::string, std::size_t> number;
  for (const json& receiver : found_case->at("receivers")) {
    number[receiver.at("id")] = points.size();
    if (receiver.at("type") == "cylindrical")
      points.push_back({vec3(receiver.at("p")), Vec3::UnitZ(), readings::Kernel::cylinder});
    else
      points.push_back({vec3(receiver.at("p")), vec3(receiver.at("n")).normalized()});
  }
  const transport::Transport transport(room.geometry, points, effort, {});
  sources::OutdoorLight light;
  const Sky sky = sky_of(scene.at("sky"));
  light.sky_cd_m2 = daylight::SkyPatches().luminances(sky);
  light.diffuse_lx = sky.diffuse_lx();
  if (scene.contains("sun")) {
    light.sun = vec3(scene.at("sun").at("dir"));
    light.sun_normal_lx = scene.at("sun").at("E_normal");
  }
  geometry::Geometry built;
  geometry::add_room_outside(built, room.shell);
  add_boxes(scene, "exterior", built);
  const sources::Outdoors outdoors(built, ground_reflectance(scene, light), effort, {});
  const sources::DaylightPaths paths(transport, outdoors, room.openings, {});
  sources::DayInflow day = paths.at(light, {}, {});
  const std::vector<sources::DayParts> parts = day.parts;
  const transport::GroupLight lit = transport.carry(std::move(day.inflow), {});
  CaseResult result{id, found_case->at("title"), {}, lit.balance, false};
  std::map<std::string, double> pane;
  for (const json& reference : found_case->at("reference"))
    if (reference.at("component") == "pane") pane[reference.at("receiver")] = reference.at("value");
  for (const json& reference : found_case->at("reference")) {
    Row row = row_of(id, reference);
    if (!number.count(row.receiver)) continue;  // of the sun and the weather: held elsewhere
    if (row.component == "pane" || reference.value("role", "") == "information") continue;
    if (row.component == "internal") row.reference += pane[row.receiver];
    const std::size_t r = number.at(row.receiver);
    row.ours =
        value_of({parts[r].sun, parts[r].sky, parts[r].outside, lit.interreflected_lx[r], light.diffuse_lx},
                 row.component);
    row.allowed = allowed_of(reference, row.reference);
    result.rows.push_back(row);
  }
  return result;
}

}  // namespace glow::validation
