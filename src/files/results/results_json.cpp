#include "files/results/results_json.hpp"

#include <fmt/format.h>

#include <cmath>
#include <fstream>
#include <nlohmann/json.hpp>

#include "core/version.hpp"
#include "files/output/file_names.hpp"
#include "files/results/glare_json.hpp"
#include "files/results/grid_json.hpp"
#include "files/text/json_text.hpp"
#include "files/results/results_reader.hpp"

namespace glow::files {
namespace {

constexpr int kResultsFormat = 4;

json check_json(const standards::Check& c) {
  json j = {{"quantity", to_string(c.demand.quantity)},
            {"where", c.where},
            {"area", c.area},
            {"required", number(c.demand.required)},
            {"actual", number(c.actual)},
            {"unit", c.unit()},
            {"limit", standards::is_upper_limit(c.demand.quantity) ? "most" : "least"},
            {"binding", c.binding},
            {"verdict", standards::to_string(c.verdict)},
            {"met", c.verdict == standards::Verdict::undecided ? json()
                                                               : json(c.verdict == standards::Verdict::met)},
            {"margin", number(c.margin())},
            {"uncertainty", number(c.uncertainty)},
            {"standard", c.demand.standard},
            {"source", c.demand.source},
            {"certainty", c.demand.certainty},
            {"reason", c.demand.reason},
            {"why", c.why},
            {"help", c.help}};
  if (c.spread)
    j["spread"] = {{"share_met", number(c.spread->share)},
                   {"low", number(c.spread->low)},
                   {"high", number(c.spread->high)}};
  return j;
}

/// Parts of a group's maintenance factor, and the intervals that give them.
json maintenance_json(const space::Space& space, const space::LuminaireGroup& group) {
  json j = {{"factor", number(group.maintenance_factor)}};
  if (!group.maintenance) return j;
  const model::LuminaireMaintenance& m = *group.maintenance;
  const model::SurfaceMaintenance s = space.room_surfaces.value_or(model::SurfaceMaintenance{});
  j["lamp_flux"] = number(m.lamp_flux);
  j["lamp_survival"] = number(m.lamp_survival);
  j["luminaire"] = number(m.luminaire);
  j["room_surfaces"] = number(s.factor);
  j["lamp_hours"] = number(m.lamp_hours);
  j["cleaning_years"] = number(m.cleaning_years);
  j["surface_cleaning_years"] = number(s.cleaning_years);
  return j;
}

json tasks_json(const space::Tasks& tasks) {
  json list = json::array();
  for (const standards::TaskInForce& task : tasks)
    list.push_back({{"key", task.row.key},
                    {"standard", task.row.standard_name()},
                    {"source", task.row.source()},
                    {"certainty", task.row.certainty},
                    {"em_lx", number(task.em_lx)},
                    {"reason", task.reason}});
  return list;
}

/// Size in plan and shape of what people see of a luminaire.
json size_json(const photometry::Photometry& ph) {
  Vec2 size(ph.area.extent_c0_m, ph.area.extent_c90_m);
  if (ph.body) size = {ph.body->extent_c0_m, ph.body->extent_c90_m};
  return {number(size.x()), number(size.y())};
}

json luminaires_json(const space::Space& space) {
  json list = json::array();
  for (const space::LuminaireGroup& group : space.groups) {
    json positions = json::array(), rotations = json::array();
    for (const auto& luminaire : group.luminaires) positions.push_back(point_json(luminaire.frame.origin));
    for (const double rotation : group.rotations_deg) rotations.push_back(number(rotation));
    const photometry::Photometry& ph = *group.photometry;
    list.push_back({{"mark", group.mark},
                    {"manufacturer", ph.manufacturer},
                    {"luminaire", ph.luminaire},
                    {"format", ph.format},
                    {"count", group.luminaires.size()},
                    {"flux_lm", number(ph.flux_lm())},
                    {"dimming", number(group.dimming)},
                    {"watts_w", number(ph.watts)},
                    {"cct_k", number(group.cct_k)},
                    {"ra", number(group.ra)},
                    {"maintenance", maintenance_json(space, group)},
                    {"size_m", size_json(ph)},
                    {"round", ph.body ? ph.body->round : photometry::is_round(ph.area.shape)},
                    {"rotations_deg", rotations},
                    {"positions_m", positions}});
  }
  return list;
}

json shapes_json(const std::vector<space::PlanShape>& shapes) {
  json list = json::array();
  for (const space::PlanShape& shape : shapes)
    list.push_back({{"name", shape.name},
                    {"outline_m", points_json(shape.outline)},
                    {"bottom_m", number(shape.bottom_m)},
                    {"top_m", number(shape.top_m)},
                    {"solid", shape.solid}});
  return list;
}

json finishes_json(const space::Space& space) {
  json list = json::array();
  for (const auto& [surface, finish] : space.finishes) {
    const geometry::Material& m = finish.material;
    list.push_back({{"surface", surface},
                    {"material", finish.name.empty() ? json(nullptr) : json(finish.name)},
                    {"reflectance", number(m.diffuse)},
                    {"mirror", number(m.mirror)},
                    {"transmittance", number(m.clear)},
                    {"scattering", number(m.scattering)},
                    {"colour", finish.colour ? point_json(*finish.colour) : json(nullptr)}});
  }
  return list;
}

json spots_json(const assess::RoomResult& r) {
  json list = json::array();
  for (const assess::PointReading& spot : r.spots) {
    json j = {{"name", spot.name},
              {"at_m", point_json(spot.receiver.position)},
              {"facing", point_json(spot.receiver.normal)}};
    if (spot.misplaced) {
      j["inside"] = spot.misplaced->inside;
    } else {
      j["direct_lx"] = number(spot.direct_lx);
      j["interreflected_lx"] = number(spot.interreflected_lx);
      j["total_lx"] = number(spot.total_lx());
      j["uncertainty_lx"] = number(spot.uncertainty_lx);
    }
    list.push_back(std::move(j));
  }
  return list;
}

json room_json(const assess::RoomResult& r) {
  const space::Space& s = *r.space;
  json j = {{"name", s.name}, {"status", to_string(r.status)}};
  j["task"] = s.tasks.empty() ? json(nullptr) : json(s.tasks.front().row.key);
  j["tasks"] = tasks_json(s.tasks);
  j["verified_as"] = s.verified_as;
  j["floor_area_m2"] = number(s.floor_area_m2);
  j["height_m"] = number(s.height_m);
  j["reflectances"] = {{"ceiling", number(s.reflectances.ceiling)},
                       {"walls", number(s.reflectances.walls)},
                       {"floor", number(s.reflectances.floor)}};
  j["maintenance_factor"] = number(s.maintenance_factor);
  j["values"] = "maintained: each luminaire's initial light times its maintenance factor, once";
  j["plane_height_source"] = s.plane_height_source;
  j["assumed"] = s.assumed;
  j["checks"] = json::array();
  for (const standards::Check& check : r.checks) j["checks"].push_back(check_json(check));
  j["not_checked"] = r.not_checked;
  if (r.spread) j["spread"] = {{"samples", r.spread->samples}, {"share_met", number(r.spread->share)}};
  if (r.modelling)
    j["modelling"] = {{"mean", number(r.modelling->mean)},
                      {"min", number(r.modelling->low)},
                      {"max", number(r.modelling->high)},
                      {"share_within", number(r.modelling->share_within)}};
  j["glare"] = glare_json(r);
  j["power"] = {{"installed_w", number(r.power.installed_w)},
                {"w_per_m2", number(r.power.w_per_m2)},
                {"w_per_m2_100lx", number(r.power.w_per_m2_100lx)}};
  j["flux_balance"] = {{"emitted_lm", number(r.balance.emitted_lm)},
                       {"absorbed_lm", number(r.balance.absorbed_lm)},
                       {"escaped_lm", number(r.balance.escaped_lm)},
                       {"lost_lm", number(r.balance.lost_lm)},
                       {"captured_share", number(r.balance.captured_share)},
                       {"traced_luminaires", r.balance.traced_luminaires}};
  j["engine"] = {{"patches", r.patches}, {"rays", r.rays}, {"refinements", r.refinements}};
  j["outline_m"] = points_json(s.outline);
  j["walls"] = s.wall_names;
  j["luminaires"] = luminaires_json(s);
  j["objects"] = shapes_json(s.objects);
  j["openings"] = shapes_json(s.openings);
  j["surfaces"] = finishes_json(s);
  j["points"] = spots_json(r);
  j["grids"] = json::array();
  for (const assess::GridReading& grid : r.grids)
    j["grids"].push_back(grid_json(grid, grid_file("grids", s.name, grid.name, "csv")));
  return j;
}

bool stays_inside(const std::string& name) {
  const std::filesystem::path path(name);
  if (name.empty() || path.is_absolute()) return false;
  for (const auto& part : path)
    if (part == "..") return false;
  return true;
}

}  // namespace

std::string results_json(const RunResult& run) {
  json document = {{"format", kResultsFormat},     {"made_by", std::string("glowgrid ") + kVersion},
                   {"project", run.project->name}, {"standard", run.standard},
                   {"inputs", run.inputs},         {"units", run.project->units.words()},
                   {"figures", json::object()}};
  for (const auto& [key, words] : run.project->figures.settings()) document["figures"][key] = words;
  document["rooms"] = json::array();
  for (const assess::RoomResult& room : run.rooms) document["rooms"].push_back(room_json(room));
  document["not_computed"] = json::array();
  for (const space::Space* room : run.not_computed)
    document["not_computed"].push_back({{"name", room->name}, {"outline_m", points_json(room->outline)}});
  document["warnings"] = json::array();
  for (const Problem& problem : run.warnings) document["warnings"].push_back(to_string(problem));
  document["files"] = run.files;
  return json_text(document);
}

std::vector<std::string> files_of_earlier_run(const std::filesystem::path& results_file) {
  std::error_code error;
  const auto size = std::filesystem::file_size(results_file, error);
  if (error || size > kLargestResults) return {};
  std::ifstream file(results_file, std::ios::binary);
  const json document = json::parse(file, nullptr, false);
  std::vector<std::string> names;
  if (!document.is_object() || !document.contains("made_by") || !document.contains("files")) return names;
  if (!document["made_by"].is_string() || document["made_by"].get<std::string>().rfind("glowgrid ", 0) != 0)
    return names;
  if (!document["files"].is_array()) return names;
  for (const json& name : document["files"])
    if (name.is_string() && stays_inside(name.get<std::string>())) names.push_back(name.get<std::string>());
  return names;
}

std::string grid_csv(const assess::GridReading& g, const units::ShownUnits& units) {
  const char *m = units.length_unit(), *lx = units.light_unit();
  std::string text = fmt::format(
      FMT_STRING("x_{0},y_{0},z_{0},normal_x,normal_y,normal_z,direct_{1},interreflected_{1},total_{1}\n"), m,
      lx);
  // Directions hold rounding errors that look like results.
  const auto clean = [](double v) { return std::abs(v) < 1e-12 ? 0.0 : v; };
  for (std::size_t i = 0; i < g.grid.points.size(); ++i) {
    const Vec3& p = g.grid.points[i];
    const Vec3& n = g.grid.normal_of(i);
    text += fmt::format(FMT_STRING("{:.6g},{:.6g},{:.6g},{:.6g},{:.6g},{:.6g},{:.6g},{:.6g},{:.6g}\n"),
                        units.length(clean(p.x())), units.length(clean(p.y())), units.length(clean(p.z())),
                        clean(n.x()), clean(n.y()), clean(n.z()), units.light(g.direct_lx[i]),
                        units.light(g.interreflected_lx[i]), units.light(g.total_lx[i]));
  }
  return text;
}

}  // namespace glow::files
