#include "plans/plan_cases.hpp"

#include "core/plans/models/take_model.hpp"
#include "files/plans/dxf/document_reader.hpp"
#include "files/plans/model_reader.hpp"
#include "test_files.hpp"

namespace glow::cases {
namespace {

using nlohmann::json;

Vec2 point(const json& p) {
  return Vec2(p[0].get<double>(), p[1].get<double>());
}

std::vector<std::string> keys(const json& from, const char* name) {
  std::vector<std::string> out;
  if (from.contains(name))
    for (const json& word : from[name]) out.push_back(word.get<std::string>());
  return out;
}

void add_blocks(const json& asked, const char* name, plans::BlockUse::Kind kind, plans::Request& request) {
  for (const std::string& key : keys(asked, name)) request.blocks.push_back({key, kind, {}});
}

plans::UnitWish unit_of(const json& asked) {
  plans::UnitWish unit;
  if (asked["unit"] == "known_distance") {
    const json& known = asked["known_distance"];
    unit.known = plans::KnownDistance{point(known["from"]), point(known["to"]), known["metres"]};
  } else if (asked["unit"] != "drawing") {
    unit.metres_per_unit = asked["metres_per_unit"].get<double>();
  }
  return unit;
}

plans::FloorWish floor_of(const json& asked) {
  plans::FloorWish floor;
  plans::Request& request = floor.request;
  request.from = *plans::rooms_from(
      asked["rooms_from"] == "polylines" ? "outlines" : asked["rooms_from"].get<std::string>());
  request.room_layers = keys(asked, "room_layers");
  request.wall_layers = keys(asked, "wall_layers");
  request.door_layers = keys(asked, "door_layers");
  request.window_layers = keys(asked, "window_layers");
  request.text_layers = keys(asked, "text_layers");
  add_blocks(asked, "door_blocks", plans::BlockUse::Kind::door, request);
  add_blocks(asked, "column_blocks", plans::BlockUse::Kind::column, request);
  add_blocks(asked, "furniture_blocks", plans::BlockUse::Kind::furniture, request);
  request.join_m = asked.value("join_m", request.join_m);
  request.widest_gap_m = asked.value("max_gap_m", request.widest_gap_m);
  if (asked.contains("wall_thickness_m")) {
    request.thinnest_wall_m = 0.9 * asked["wall_thickness_m"][0].get<double>();
    request.thickest_wall_m = asked["wall_thickness_m"][1].get<double>();
  }
  request.name_tag = asked.value("name_attribute", "");
  request.number_tag = asked.value("number_attribute", "");
  if (asked.contains("window")) request.window = {point(asked["window"][0]), point(asked["window"][1])};
  const Vec2 origin = point(asked["origin"]);
  if (origin != Vec2::Zero()) floor.origin = origin;
  floor.rotate_deg = asked["rotate_deg"];
  floor.unit = unit_of(asked);
  return floor;
}

}  // namespace

std::vector<PlanCase> plan_cases() {
  std::vector<PlanCase> cases;
  for (const auto& [file, entry] : test::shared_json("plans/truth.json")["files"].items())
    for (const auto& [name, one] : entry["cases"].items()) cases.push_back({file, name, &one});
  return cases;
}

namespace {

const char* outcome_word(const Problems& problems) {
  return problems.has_errors() ? "refuse" : problems.all().empty() ? "ok" : "warn";
}

PlanOutcome model_outcome(const std::string& bytes, const std::string& file) {
  PlanOutcome out;
  const auto model = files::read_model(bytes, file, std::nullopt, out.problems);
  if (model) {
    out.model = plans::take_model(*model, {});
    files::tell_doubts(out.model->doubts, file, out.problems);
    for (const plans::TakenStorey& storey : out.model->storeys) {
      files::tell_doubts(storey.plan.doubts, file, out.problems);
      out.floors.push_back(storey.name);
      out.taken.push_back({{}, storey.drawing, storey.plan, storey.looked_at});
    }
  }
  out.outcome = outcome_word(out.problems);
  return out;
}

}  // namespace

PlanOutcome outcome_of(const PlanCase& asked) {
  PlanOutcome out;
  const std::string bytes = test::content_of(test::test_data("plans/" + asked.file));
  if (files::is_model(asked.file)) return model_outcome(bytes, asked.file);
  const auto document = files::dxf::read_document(bytes, asked.file, out.problems);
  std::vector<json> floors = {asked.asked()};
  if (asked.asked().contains("floors")) {
    floors.clear();
    for (const json& own : asked.asked()["floors"]) {
      json floor = asked.asked();
      floor.update(own);
      floors.push_back(floor);
    }
  }
  for (const json& floor : floors) {
    if (!document) break;
    const plans::FloorWish wish = floor_of(floor);
    auto taken = files::take_floor(*document, wish, asked.file, out.problems);
    if (!taken) break;
    files::tell_doubts(taken->plan.doubts, asked.file, out.problems);
    out.floors.push_back(floor.value("name", ""));
    out.taken.push_back(std::move(*taken));
  }
  out.outcome = outcome_word(out.problems);
  return out;
}

}  // namespace glow::cases
