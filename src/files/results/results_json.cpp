#include "files/results/results_json.hpp"

#include <fmt/format.h>

#include <fstream>

#include "core/version.hpp"
#include "files/results/record_json.hpp"
#include "files/results/results_reader.hpp"
#include "files/text/json_text.hpp"

namespace glow::files {
namespace {

bool stays_inside(const std::string& name) {
  const std::filesystem::path path(name);
  if (name.empty() || path.is_absolute()) return false;
  for (const auto& part : path)
    if (part == "..") return false;
  return true;
}

}  // namespace

std::string results_head(const record::RunRecord& run) {
  json head = {{"format", kResultsFormat},   {"made_by", std::string("glowgrid ") + kVersion},
               {"project", run.project},     {"standards", run.standards},
               {"units", run.units.words()}, {"figures", json::object()},
               {"floors", json::array()}};
  for (const record::FloorRecord& floor : run.floors) {
    json own = {{"name", floor.name}, {"level_m", number(floor.level_m)}};
    if (floor.drawing) {
      const plans::Frame& frame = floor.drawing->frame;
      own["drawing"] = {{"file", floor.drawing->file},
                        {"metres_per_unit", frame.metres_per_unit},
                        {"origin", {frame.origin.x(), frame.origin.y()}},
                        {"rotate_deg", frame.rotate_deg}};
    }
    head["floors"].push_back(std::move(own));
  }
  for (const auto& [key, words] : run.style.settings()) head["figures"][key] = words;
  std::string text = json_piece(head, 0);
  text.resize(text.size() - 2);  // the closing brace on its line
  return text + ",\n  \"rooms\": [";
}

std::string results_room(const record::RoomRecord& room, const units::ShownUnits& units) {
  return "\n    " + json_piece(room_json(room, units), 2);
}

std::string results_tail(const record::RunRecord& run) {
  json tail = {{"not_computed", json::array()}, {"warnings", run.warnings}, {"files", run.files}};
  if (const auto all = record::shares_over(run.rooms)) {
    const auto as_json = [](const record::Shares& shares) {
      return json({{"below", number(shares.below)},
                   {"within", number(shares.within)},
                   {"above", number(shares.above)}});
    };
    tail["work_plane_shares"] = {{"project", as_json(*all)}, {"floors", json::object()}};
    for (const record::FloorRecord& floor : run.floors)
      if (const auto own = record::shares_over(run.rooms, floor.name))
        tail["work_plane_shares"]["floors"][floor.name] = as_json(*own);
  }
  for (const record::UncomputedRoom& room : run.not_computed) {
    json outline = json::array();
    for (const Vec2& p : room.outline) outline.push_back({number(p.x()), number(p.y())});
    json left = {{"name", room.name}, {"floor", room.floor}, {"outline_m", outline}};
    if (!room.fault.empty()) left["fault"] = room.fault;
    tail["not_computed"].push_back(std::move(left));
  }
  return (run.rooms.empty() ? "],\n" : "\n  ],\n") + json_piece(tail, 0).substr(2) + "\n";
}

std::string results_json(const record::RunRecord& run) {
  std::string text = results_head(run);
  for (const record::RoomRecord& room : run.rooms)
    text += (&room == &run.rooms.front() ? "" : ",") + results_room(room, run.units);
  return text + results_tail(run);
}

std::vector<std::string> files_of_earlier_run(const std::filesystem::path& results_file) {
  std::error_code error;
  const auto size = std::filesystem::file_size(results_file, error);
  if (error || size > kLargestResults) return {};
  std::ifstream file(results_file, std::ios::binary);
  const auto but_rooms = [](int depth, json::parse_event_t event, const json& parsed) {
    return depth > 1 || event != json::parse_event_t::key || parsed != "rooms";
  };
  const json document = json::parse(file, but_rooms, false);
  std::vector<std::string> names;
  if (!document.is_object() || !document.contains("made_by") || !document.contains("files")) return names;
  if (!document["made_by"].is_string() || document["made_by"].get<std::string>().rfind("glowgrid ", 0) != 0)
    return names;
  if (!document["files"].is_array()) return names;
  for (const json& name : document["files"])
    if (name.is_string() && stays_inside(name.get<std::string>())) names.push_back(name.get<std::string>());
  return names;
}

}  // namespace glow::files
