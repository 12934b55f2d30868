#include "files/results_json.hpp"

#include <fmt/format.h>

#include <cmath>
#include <fstream>
#include <nlohmann/json.hpp>

#include "core/version.hpp"
#include "files/json_number.hpp"
#include "files/project_reader.hpp"

namespace glow::files {
namespace {

constexpr int kResultsFormat = 1;
constexpr std::size_t kLargestResults = 256u << 20;

json statistics_json(const readings::Statistics& s) {
  return {{"mean_lx", number(s.mean_lx)},
          {"min_lx", number(s.min_lx)},
          {"max_lx", number(s.max_lx)},
          {"uniformity", number(s.u0)},
          {"min_over_max", number(s.min_over_max)}};
}

json grid_json(const results::GridResult& g, const std::string& room) {
  const readings::PlaneGrid& grid = g.grid;
  json j = {{"name", g.name},
            {"kind", g.kind},
            {"points", grid.points.size()},
            {"counts", {grid.count.nx, grid.count.ny}},
            {"spacing_m", {number(grid.cell.x()), number(grid.cell.y())}},
            {"spacing_rule", grid.by_rule ? "EN 12464-1: p = 0.2 * 5^(lg d), nearest whole number" : "given"},
            {"largest_pitch_m", number(grid.count.p_m)},
            {"height_m", number(grid.height_m)},
            {"inset_m", number(grid.inset_m)}};
  j.update(statistics_json(g.statistics));
  const Vec3& lowest = grid.points[g.statistics.min_at];
  j["min_at_m"] = {number(lowest.x()), number(lowest.y()), number(lowest.z())};
  j["left_out"] = json::array();
  for (const results::MisplacedPoint& point : g.left_out)
    j["left_out"].push_back(
        {{"at_m", {number(point.position.x()), number(point.position.y()), number(point.position.z())}},
         {"inside", point.inside}});
  j["direct_mean_lx"] = number(readings::statistics(g.direct_lx).mean_lx);
  j["interreflected_mean_lx"] = number(readings::statistics(g.interreflected_lx).mean_lx);
  j["initial"] = statistics_json(g.initial);
  j["uncertainty"] = {{"mean_lx", number(g.uncertainty.mean_lx)},
                      {"min_lx", number(g.uncertainty.min_lx)},
                      {"uniformity", number(g.uncertainty.u0)},
                      {"meaning", "half width of the 95 % interval: sample sets and size of patches"}};
  j["csv"] = grid_file("grids", room, g.name, "csv");
  return j;
}

json check_json(const standards::Check& c) {
  return {{"quantity", to_string(c.quantity)},
          {"where", c.where},
          {"required", number(c.required)},
          {"actual", number(c.actual)},
          {"unit", c.unit},
          {"verdict", standards::to_string(c.verdict)},
          {"met",
           c.verdict == standards::Verdict::undecided ? json() : json(c.verdict == standards::Verdict::met)},
          {"margin", number(c.margin)},
          {"uncertainty", number(c.uncertainty)},
          {"source", c.source},
          {"certainty", c.certainty}};
}

json luminaires_json(const scene::RoomScene& scene) {
  json list = json::array();
  for (const scene::LuminaireGroup& group : scene.groups) {
    json positions = json::array();
    for (const auto& luminaire : group.luminaires) {
      const Vec3& p = luminaire.frame.origin;
      positions.push_back({number(p.x()), number(p.y()), number(p.z())});
    }
    const photometry::Photometry& ph = *group.photometry;
    list.push_back({{"mark", group.mark},
                    {"manufacturer", ph.manufacturer},
                    {"luminaire", ph.luminaire},
                    {"format", ph.format},
                    {"count", group.luminaires.size()},
                    {"flux_lm", number(ph.flux_lm())},
                    {"watts_w", number(ph.watts)},
                    {"rotation_deg", number(group.rotations_deg.empty() ? 0.0 : group.rotations_deg.front())},
                    {"positions_m", positions}});
  }
  return list;
}

json room_json(const results::RoomResult& r) {
  const scene::RoomScene& s = *r.scene;
  json j = {{"name", s.name}, {"status", to_string(r.status)}};
  j["task"] = s.requirement ? json(s.requirement->key) : json(nullptr);
  j["floor_area_m2"] = number(s.floor_area_m2);
  j["height_m"] = number(s.height_m);
  j["reflectances"] = {{"ceiling", number(s.reflectances.ceiling)},
                       {"walls", number(s.reflectances.walls)},
                       {"floor", number(s.reflectances.floor)}};
  j["maintenance_factor"] = number(s.maintenance_factor);
  j["values"] = "maintained: initial values times maintenance_factor, once";
  j["plane_height_source"] = s.plane_height_source;
  j["luminaires"] = luminaires_json(s);
  j["grids"] = json::array();
  for (const results::GridResult& grid : r.grids) j["grids"].push_back(grid_json(grid, s.name));
  j["checks"] = json::array();
  for (const standards::Check& check : r.checks) j["checks"].push_back(check_json(check));
  j["not_checked"] = r.not_checked;
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

std::string grid_file(const std::string& folder, const std::string& room, const std::string& grid,
                      const std::string& suffix) {
  return fmt::format(FMT_STRING("{}/{}--{}.{}"), folder, file_name_part(room), file_name_part(grid), suffix);
}

std::string results_json(const RunResult& run) {
  json document = {{"format", kResultsFormat},
                   {"made_by", std::string("glowgrid ") + kVersion},
                   {"project", run.project->name},
                   {"standard", run.standard}};
  document["rooms"] = json::array();
  for (const results::RoomResult& room : run.rooms) document["rooms"].push_back(room_json(room));
  document["warnings"] = json::array();
  for (const Problem& problem : run.warnings) document["warnings"].push_back(to_string(problem));
  document["files"] = run.files;
  return document.dump(2, ' ', false, json::error_handler_t::replace) + "\n";
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

std::string grid_csv(const results::GridResult& g) {
  std::string text = "x_m,y_m,z_m,normal_x,normal_y,normal_z,direct_lx,interreflected_lx,total_lx\n";
  for (std::size_t i = 0; i < g.grid.points.size(); ++i) {
    const Vec3& p = g.grid.points[i];
    text += fmt::format(FMT_STRING("{:.6g},{:.6g},{:.6g},0,0,1,{:.6g},{:.6g},{:.6g}\n"), p.x(), p.y(), p.z(),
                        g.direct_lx[i], g.interreflected_lx[i], g.total_lx[i]);
  }
  return text;
}

}  // namespace glow::files
