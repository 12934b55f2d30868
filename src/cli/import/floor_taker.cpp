#include "cli/import/floor_taker.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "core/plans/drawing_units.hpp"
#include "files/plans/dxf/document_reader.hpp"
#include "files/plans/model_reader.hpp"
#include "files/plans/room_mesh.hpp"
#include "files/text/input_file.hpp"

namespace glow::cli {
namespace {

plans::Frame frame_in_metres(const plans::FloorWish& wish) {
  return {1, wish.origin.value_or(Vec2::Zero()), wish.rotate_deg};
}

/// Lower left of all rooms of a model.
Vec2 corner_of(const plans::TakenModel& model) {
  Vec2 low = Vec2::Constant(HUGE_VAL);
  for (const plans::TakenStorey& storey : model.storeys)
    for (const plans::FoundRoom& room : storey.plan.rooms)
      for (const Vec2& p : room.outline) low = low.cwiseMin(p);
  return low;
}

void doubt_origin(const plans::TakenModel& model, const std::string& file, Problems& problems) {
  constexpr double kFar = 1000;  // m
  const Vec2 corner = corner_of(model);
  if (!model.storeys.empty() && corner.norm() > kFar)
    problems.warning(
        "far-from-origin", {file, 0, 0},
        fmt::format(FMT_STRING("the rooms lie {:.3g} km from the model's zero; --origin corner puts "
                               "zero at the lower left of what is taken"),
                    corner.norm() / 1000));
}

/// Rooms of sizes that nobody builds: the unit is likely another.
void doubt_unit(const plans::TakenModel& model, double metres_per_unit, const std::string& file,
                Problems& problems) {
  constexpr double kSmallest = 0.5, kLargest = 10'000;  // m2
  plans::FoundPlan all;
  for (const plans::TakenStorey& storey : model.storeys)
    all.rooms.insert(all.rooms.end(), storey.plan.rooms.begin(), storey.plan.rooms.end());
  const double area = plans::median_area(all);
  if (all.rooms.empty() || (area >= kSmallest && area <= kLargest)) return;
  const std::string unit = plans::unit_name(plans::likely_unit(area / (metres_per_unit * metres_per_unit)));
  problems.warning(
      "unit-doubtful", {file, 0, 0},
      fmt::format(FMT_STRING("taken as {}, rooms have about {:.2g} m2, which nobody builds; the model is "
                             "likely in {} (--unit {})"),
                  plans::unit_name(metres_per_unit), area, unit, unit));
}

void no_room(const model::Floor& floor, Problems& problems) {
  problems.error(
      "no-room", {floor.drawing->file, 0, 0},
      fmt::format(
          FMT_STRING("no room was found for \"{}\"; glowgrid import {} --list shows what the file holds"),
          floor.name, floor.drawing->file));
}

std::optional<TakenFloor> floor_of_drawing(const model::Floor& floor, PlanFiles& plan_files, Problems& said) {
  const files::dxf::Document* document = plan_files.drawing(floor.drawing->file, said);
  if (!document) return std::nullopt;
  auto taken = files::take_floor(*document, *floor.drawing, floor.drawing->file, said);
  if (!taken) return std::nullopt;
  files::tell_doubts(taken->plan.doubts, floor.drawing->file, said);
  if (taken->plan.rooms.empty()) no_room(floor, said);
  TakenFloor result;
  result.subtitle = fmt::format(FMT_STRING("{}, drawn in {}, rooms from {}"), floor.drawing->file,
                                plans::unit_name(taken->frame.metres_per_unit),
                                plans::to_string(floor.drawing->request.from));
  result.drawing = files::whole_drawing(*document, *floor.drawing, taken->frame);
  result.looked_at = taken->looked_at;
  result.imported.floor = floor;
  result.imported.height_assumed = !floor.height_m;
  // As it was taken, so that taking it anew gives the same.
  plans::FloorWish& written = *result.imported.floor.drawing;
  written.origin = taken->frame.origin;
  written.origin_at_corner = false;
  if (!written.unit.known) written.unit.metres_per_unit = taken->frame.metres_per_unit;
  result.imported.plan = std::move(taken->plan);
  return result;
}

std::optional<TakenFloor> floor_of_model(const model::Floor& floor, PlanFiles& plan_files, Problems& said) {
  const plans::TakenModel* model = plan_files.storeys(floor, said);
  if (!model) return std::nullopt;
  const plans::FloorWish& wish = *floor.drawing;
  const std::string storey = wish.storey.empty() ? floor.name : wish.storey;
  const auto found = std::find_if(model->storeys.begin(), model->storeys.end(),
                                  [&](const plans::TakenStorey& one) { return one.name == storey; });
  if (found == model->storeys.end()) {
    no_room(floor, said);
    return std::nullopt;
  }
  files::tell_doubts(found->plan.doubts, wish.file, said);
  TakenFloor result;
  const std::string unit = plans::unit_name(plan_files.model(wish, said)->metres_per_unit);
  result.subtitle =
      files::is_room_mesh(wish.file)
          ? fmt::format(FMT_STRING("{}, mesh of a room in {}"), wish.file, unit)
          : fmt::format(FMT_STRING("{}, storey \"{}\" of a building model in {}"), wish.file, storey, unit);
  result.drawing = found->drawing;
  result.looked_at = found->looked_at;
  result.imported.floor = floor;
  result.imported.height_assumed = !floor.height_m;
  result.imported.plan = found->plan;
  return result;
}

}  // namespace

const files::dxf::Document* PlanFiles::drawing(const std::string& name, Problems& problems) {
  const auto known = documents_.find(name);
  if (known != documents_.end()) return known->second.get();
  const auto bytes = files::read_file(folder_ / name, files::dxf::kLargestDrawing, {}, problems);
  if (!bytes) return nullptr;
  auto document = files::dxf::read_document(*bytes, name, problems);
  if (!document) return nullptr;
  return documents_.emplace(name, std::make_unique<files::dxf::Document>(std::move(*document)))
      .first->second.get();
}

const plans::Model* PlanFiles::model(const plans::FloorWish& wish, Problems& problems) {
  const auto known = models_.find(wish.file);
  if (known != models_.end()) return known->second.get();
  std::optional<plans::Model> model;
  if (files::is_room_mesh(wish.file)) {
    model = files::read_room_mesh(folder_ / wish.file, wish, problems);
  } else if (auto bytes = files::read_file(folder_ / wish.file, files::kLargestModel, {}, problems)) {
    model = files::read_model(std::move(*bytes), wish.file, wish.unit.metres(), problems);
  }
  if (!model) return nullptr;
  return models_.emplace(wish.file, std::make_unique<plans::Model>(std::move(*model))).first->second.get();
}

const plans::TakenModel* PlanFiles::storeys(const model::Floor& floor, Problems& problems) {
  const plans::FloorWish& wish = *floor.drawing;
  const plans::Frame frame = frame_in_metres(wish);
  const std::string key =
      fmt::format(FMT_STRING("{}|{}|{}|{}"), frame.origin.x(), frame.origin.y(), frame.rotate_deg, wish.file);
  const auto known = taken_.find(key);
  if (known != taken_.end()) return known->second.get();
  const plans::Model* model = this->model(wish, problems);
  if (!model) return nullptr;
  auto taken = std::make_unique<plans::TakenModel>(plans::take_model(*model, frame));
  files::tell_doubts(taken->doubts, wish.file, problems);
  doubt_unit(*taken, model->metres_per_unit, wish.file, problems);
  if (!wish.origin) doubt_origin(*taken, wish.file, problems);
  return taken_.emplace(key, std::move(taken)).first->second.get();
}

bool is_model_file(const std::string& name) {
  return files::is_model(name) || files::is_room_mesh(name);
}

std::vector<model::Floor> floors_of_models(const std::vector<std::string>& files,
                                           const plans::FloorWish& wish, PlanFiles& plan_files,
                                           Problems& problems) {
  std::vector<model::Floor> floors;
  std::set<std::string> names;
  for (const std::string& file : files) {
    model::Floor floor;
    floor.drawing = wish;
    floor.drawing->file = file;
    floor.drawing->origin_at_corner = false;
    if (wish.origin_at_corner) {
      const plans::Model* model = plan_files.model(*floor.drawing, problems);
      if (!model) return {};
      floor.drawing->origin = corner_of(plans::take_model(*model, {}));
    }
    const plans::TakenModel* model = plan_files.storeys(floor, problems);
    if (!model) return {};
    for (const plans::TakenStorey& storey : model->storeys) {
      floor.name = storey.name;
      if (names.count(floor.name))
        floor.name = std::filesystem::path(file).stem().string() + " " + storey.name;
      for (int n = 2; !names.insert(floor.name).second; ++n)
        floor.name = storey.name + " " + std::to_string(n);
      floor.level_m = storey.level_m;
      floor.height_m.reset();
      if (storey.height_m > 0) floor.height_m = storey.height_m;
      floor.drawing->storey = storey.name;
      floors.push_back(floor);
    }
  }
  return floors;
}

bool take_building(const std::vector<model::Floor>& floors, PlanFiles& plan_files, TakenBuilding& building,
                   Problems& problems) {
  bool all = true;
  for (const model::Floor& floor : floors) {
    const bool of_model = is_model_file(floor.drawing->file);
    Problems said;
    auto taken =
        of_model ? floor_of_model(floor, plan_files, said) : floor_of_drawing(floor, plan_files, said);
    problems.append(said);
    all = all && taken && !said.has_errors();
    if (!taken) continue;
    taken->problems = said;
    building.floors.push_back(std::move(*taken));
    if (!of_model) continue;
    Problems unheard;
    const plans::TakenModel& model = *plan_files.storeys(floor, unheard);
    // What concerns all of it was told once, and stands in every picture.
    files::tell_doubts(model.doubts, {}, building.floors.back().problems);
    building.from_model = true;
    building.site = model.site;
    if (building.neighbours.empty()) building.neighbours = model.neighbours;
  }
  return all;
}

}  // namespace glow::cli
