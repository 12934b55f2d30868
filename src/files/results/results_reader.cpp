#include "files/results/results_reader.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>
#include <set>
#include <stdexcept>

#include "files/output/file_names.hpp"
#include "files/results/glare_json.hpp"
#include "files/results/grid_json.hpp"

namespace glow::files {
namespace {

constexpr int kFormat = 4;

std::vector<space::PlanShape> shapes_of(const json& list, std::size_t least_corners) {
  std::vector<space::PlanShape> shapes;
  for (const json& j : list) {
    shapes.push_back({j.at("name").get<std::string>(), points_of(j.at("outline_m")),
                      number_of(j.at("bottom_m")), number_of(j.at("top_m")), j.at("solid").get<bool>()});
    if (shapes.back().outline.size() < least_corners) throw std::runtime_error("a shape has too few corners");
  }
  return shapes;
}

void read_luminaires(const json& list, record::RoomRecord& room) {
  for (const json& group : list) {
    const std::string mark = group.at("mark").get<std::string>();
    const json &positions = group.at("positions_m"), &rotations = group.at("rotations_deg");
    if (positions.size() != rotations.size()) throw std::runtime_error("luminaires lack their rotations");
    for (std::size_t i = 0; i < positions.size(); ++i)
      room.luminaires.push_back({mark,
                                 point_of(positions[i]),
                                 number_of(rotations[i]),
                                 {number_of(group.at("size_m").at(0)), number_of(group.at("size_m").at(1))},
                                 group.at("round").get<bool>()});
    auto same =
        std::find_if(room.marks.begin(), room.marks.end(), [&](const auto& m) { return m.mark == mark; });
    if (same == room.marks.end())
      same = room.marks.insert(same, {mark, group.at("luminaire").get<std::string>(), 0});
    same->count += positions.size();
  }
}

standards::Check check_of(const json& j) {
  standards::Check check;
  const auto quantity = standards::quantity_of(j.at("quantity").get<std::string>());
  if (!quantity) throw std::runtime_error("a check is of an unknown quantity");
  check.demand.quantity = *quantity;
  check.where = j.at("where").get<std::string>();
  check.area = j.at("area").get<std::string>();
  check.demand.required = number_of(j.at("required"));
  check.demand.standard = j.at("standard").get<std::string>();
  check.demand.source = j.at("source").get<std::string>();
  check.demand.certainty = j.at("certainty").get<std::string>();
  check.binding = j.at("binding").get<bool>();
  check.actual = number_of(j.at("actual"));
  check.uncertainty = number_of(j.at("uncertainty"));
  const std::string verdict = j.at("verdict").get<std::string>();
  for (const auto v : {standards::Verdict::met, standards::Verdict::not_met, standards::Verdict::undecided})
    if (standards::to_string(v) == verdict) check.verdict = v;
  return check;
}

record::RoomRecord room_of(const json& j) {
  record::RoomRecord room;
  room.name = j.at("name").get<std::string>();
  room.status = j.at("status").get<std::string>();
  room.outline = points_of(j.at("outline_m"));
  if (room.outline.size() < 3) throw std::runtime_error("a room has no outline");
  room.height_m = number_of(j.at("height_m"));
  room.maintenance_factor = number_of(j.at("maintenance_factor"));
  room.wall_names = j.at("walls").get<std::vector<std::string>>();
  if (room.wall_names.size() != room.outline.size()) throw std::runtime_error("a room's walls have no names");
  room.objects = shapes_of(j.at("objects"), 2);
  room.openings = shapes_of(j.at("openings"), 2);
  read_luminaires(j.at("luminaires"), room);
  for (const json& check : j.at("checks")) room.checks.push_back(check_of(check));
  for (const json& grid : j.at("grids")) room.grids.push_back(grid_of(grid));
  room.eyes = eyes_of(j.at("glare"));
  return room;
}

void read_head(const json& document, record::RunRecord& run) {
  if (document.at("made_by").get<std::string>().rfind("glowgrid ", 0) != 0)
    throw std::runtime_error("it was not made by glowgrid");
  const int format = document.at("format").get<int>();
  if (format != kFormat)
    throw std::runtime_error(fmt::format(
        FMT_STRING("its format is {}, this version reads {}; run the project again"), format, kFormat));
  run.project = document.at("project").get<std::string>();
  run.standard = document.at("standard").get<std::string>();
  run.inputs = document.at("inputs").get<std::string>();
  if (const auto units = units::ShownUnits::parse(document.at("units").get<std::string>()))
    run.units = *units;
  for (const auto& [key, words] : document.at("figures").items())
    if (run.style.set(key, words.get<std::string>(), {}))
      throw std::runtime_error("a setting of its figures is not understood");
}

/// File names come from names; two of the same would write over each other, an empty one has no file.
void check_names(const record::RunRecord& run) {
  std::set<std::string> rooms;
  for (const record::RoomRecord& room : run.rooms) {
    if (file_name_part(room.name).empty() || !rooms.insert(file_name_part(room.name)).second)
      throw std::runtime_error("two rooms have one name, or a room has none");
    std::set<std::string> grids;
    for (const assess::GridReading& grid : room.grids)
      if (file_name_part(grid.name).empty() || !grids.insert(file_name_part(grid.name)).second)
        throw std::runtime_error("two grids have one name, or a grid has none");
  }
}

}  // namespace

std::optional<record::RunRecord> read_results(std::string_view bytes, const std::string& name,
                                               Problems& problems) {
  try {
    const json document = json::parse(bytes);
    record::RunRecord run;
    read_head(document, run);
    for (const json& room : document.at("rooms")) run.rooms.push_back(room_of(room));
    for (const json& room : document.at("not_computed")) {
      run.not_computed.push_back({room.at("name").get<std::string>(), points_of(room.at("outline_m"))});
      if (run.not_computed.back().outline.size() < 3) throw std::runtime_error("a room has no outline");
    }
    check_names(run);
    return run;
  } catch (const json::exception& error) {
    problems.error(
        "R010", {name, 0, 0},
        fmt::format(FMT_STRING("this is not a whole results.json of this version ({}); run the project "
                               "again"),
                    std::string(error.what()).substr(0, 120)));
  } catch (const std::runtime_error& error) {
    problems.error("R010", {name, 0, 0}, fmt::format(FMT_STRING("cannot be used: {}"), error.what()));
  }
  return std::nullopt;
}

}  // namespace glow::files
