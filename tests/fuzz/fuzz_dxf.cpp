#include "files/plans/dxf/document_reader.hpp"
#include "files/plans/plan_taker.hpp"
#include "fuzz_target.hpp"

namespace glow::fuzz {

void read(std::string_view bytes) {
  Problems problems;
  const auto document = files::dxf::read_document(bytes, "fuzz.dxf", problems);
  must(document.has_value() == !problems.has_errors());
  if (!document) return;
  for (const plans::RoomsFrom from : {plans::RoomsFrom::outlines, plans::RoomsFrom::hatches,
                                      plans::RoomsFrom::lines, plans::RoomsFrom::walls}) {
    plans::FloorWish floor;
    floor.request.from = from;
    floor.request.room_layers = floor.request.wall_layers = floor.request.door_layers =
        floor.request.window_layers = {"*"};
    floor.request.blocks = {{"c*", plans::BlockUse::Kind::column, {}}};
    floor.unit.metres_per_unit = 0.001;
    Problems said;
    const auto taken = files::take_floor(*document, floor, "fuzz.dxf", said);
    must(taken.has_value() || said.has_errors());
    if (!taken) continue;
    for (const plans::FoundRoom& room : taken->plan.rooms) must(!geometry::fault_of_outline(room.outline));
  }
}

}  // namespace glow::fuzz
