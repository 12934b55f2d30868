#include "files/results/results_reader.hpp"

#include <fmt/format.h>

#include <cmath>
#include <nlohmann/json.hpp>
#include <set>
#include <stdexcept>

#include "core/model/file_names.hpp"
#include "files/results/record_json.hpp"

namespace glow::files {
namespace {

record::FloorRecord::Drawing drawing_of(const json& from) {
  record::FloorRecord::Drawing drawing;
  drawing.file = from.at("file").get<std::string>();
  plans::Frame& frame = drawing.frame;
  frame.metres_per_unit = from.at("metres_per_unit").get<double>();
  frame.origin = Vec2(from.at("origin").at(0).get<double>(), from.at("origin").at(1).get<double>());
  frame.rotate_deg = from.at("rotate_deg").get<double>();
  const bool sound = frame.origin.allFinite() && std::isfinite(frame.rotate_deg) &&
                     frame.metres_per_unit > 1e-12 && frame.metres_per_unit < 1e9;
  if (!sound) throw std::runtime_error("a floor's drawing has no place");
  return drawing;
}

void read_head(const json& document, record::RunRecord& run) {
  if (document.at("made_by").get<std::string>().rfind("glowgrid ", 0) != 0)
    throw std::runtime_error("it was not made by glowgrid");
  const int format = whole_number_of<int>(document.at("format"));
  if (format != kResultsFormat)
    throw std::runtime_error(
        fmt::format(FMT_STRING("its format is {}, this version reads {}; run the project again"), format,
                    kResultsFormat));
  run.project = document.at("project").get<std::string>();
  run.standards = document.at("standards").get<std::vector<std::string>>();
  for (const json& floor : document.at("floors")) {
    record::FloorRecord& own = run.floors.emplace_back();
    own.name = floor.at("name").get<std::string>();
    own.level_m = floor.at("level_m").get<double>();
    if (floor.contains("drawing")) own.drawing = drawing_of(floor.at("drawing"));
  }
  if (const auto units = units::ShownUnits::parse(document.at("units").get<std::string>()))
    run.units = *units;
  for (const auto& [key, words] : document.at("figures").items())
    if (run.style.set(key, words.get<std::string>(), {}))
      throw std::runtime_error("a setting of its figures is not understood");
}

void read_tail(const json& document, record::RunRecord& run) {
  for (const json& room : document.at("not_computed")) {
    record::UncomputedRoom& left = run.not_computed.emplace_back();
    left.name = room.at("name").get<std::string>();
    left.floor = room.at("floor").get<std::string>();
    for (const json& p : room.at("outline_m"))
      left.outline.emplace_back(p.at(0).get<double>(), p.at(1).get<double>());
    if (room.contains("fault")) left.fault = room.at("fault").get<std::string>();
    if (left.outline.size() < 3) throw std::runtime_error("a room has no outline");
    for (const Vec2& p : left.outline)
      if (!p.allFinite() || p.cwiseAbs().maxCoeff() > 1e6)
        throw std::runtime_error("a number is out of range");
  }
  run.warnings = document.at("warnings").get<std::vector<std::string>>();
  run.files = document.at("files").get<std::vector<std::string>>();
}

/// File names come from names; two of the same would write over each other, an empty one has no file.
void check_names(const record::RunRecord& run) {
  std::set<std::string> rooms;
  for (const record::RoomRecord& room : run.rooms)
    if (model::file_name_part(room.name).empty() || !rooms.insert(model::file_name_part(room.name)).second)
      throw std::runtime_error("two rooms have one name, or a room has none");
}

/// Takes each room as soon as it has been parsed, so that the document is never held whole; the format is
/// looked at before the first of them.
class RoomTaker {
 public:
  explicit RoomTaker(record::RunRecord& run) : run_(run) {}

  bool operator()(int depth, json::parse_event_t event, json& parsed) {
    if (event == json::parse_event_t::key && depth == 1) key_ = parsed.get<std::string>();
    if (event == json::parse_event_t::value && depth == 1 && key_ == "format")
      format_ = parsed.is_number() ? parsed.get<double>() : 0;
    if (key_ != "rooms" || depth != 2 || event != json::parse_event_t::object_end) return true;
    if (format_ == kResultsFormat) run_.rooms.push_back(room_of(parsed));
    return false;
  }

 private:
  record::RunRecord& run_;
  std::string key_;
  double format_ = 0;
};

}  // namespace

std::optional<record::RunRecord> read_results(std::string_view bytes, const std::string& name,
                                              Problems& problems) {
  try {
    record::RunRecord run;
    RoomTaker taker(run);
    const json document = json::parse(bytes, [&](int depth, json::parse_event_t event, json& parsed) {
      return taker(depth, event, parsed);
    });
    read_head(document, run);
    if (!document.at("rooms").is_array() || !document.at("rooms").empty())
      throw std::runtime_error("its rooms are not a list of rooms");
    read_tail(document, run);
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
