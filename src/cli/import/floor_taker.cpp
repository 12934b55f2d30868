#include "cli/import/floor_taker.hpp"

#include <fmt/format.h>

#include "core/plans/drawing_units.hpp"
#include "files/plans/dxf/document_reader.hpp"
#include "files/text/input_file.hpp"

namespace glow::cli {

const files::dxf::Document* Drawings::read(const std::string& name, Problems& problems) {
  const auto known = documents_.find(name);
  if (known != documents_.end()) return known->second.get();
  const auto bytes = files::read_file(folder_ / name, files::dxf::kLargestDrawing, {}, problems);
  if (!bytes) return nullptr;
  auto document = files::dxf::read_document(*bytes, name, problems);
  if (!document) return nullptr;
  return documents_.emplace(name, std::make_unique<files::dxf::Document>(std::move(*document)))
      .first->second.get();
}

bool take_storeys(const std::vector<model::Floor>& floors, Drawings& drawings,
                  std::vector<TakenStorey>& storeys, Problems& problems) {
  bool all = true;
  for (const model::Floor& floor : floors) {
    const files::dxf::Document* document = drawings.read(floor.drawing->file, problems);
    if (!document) return false;
    Problems said;
    auto taken = files::take_floor(*document, *floor.drawing, floor.drawing->file, said);
    if (taken) files::tell_doubts(*taken, floor.drawing->file, said);
    if (taken && taken->plan.rooms.empty())
      said.error(
          "no-room", {floor.drawing->file, 0, 0},
          fmt::format(
              FMT_STRING("no room was found for \"{}\"; glowgrid import {} --list shows what the drawing "
                         "holds"),
              floor.name, floor.drawing->file));
    problems.append(said);
    all = all && taken && !said.has_errors();
    if (!taken) continue;
    TakenStorey storey;
    storey.frame = taken->frame;
    storey.drawing = files::whole_drawing(*document, *floor.drawing, taken->frame);
    storey.looked_at = taken->looked_at;
    storey.problems = said;
    storey.imported.floor = floor;
    storey.imported.height_assumed = !floor.height_m;
    // As it was taken, so that taking it anew gives the same.
    plans::FloorWish& written = *storey.imported.floor.drawing;
    written.origin = taken->frame.origin;
    written.origin_at_corner = false;
    if (!written.unit.known) written.unit.metres_per_unit = taken->frame.metres_per_unit;
    storey.imported.plan = std::move(taken->plan);
    storeys.push_back(std::move(storey));
  }
  return all;
}

}  // namespace glow::cli
