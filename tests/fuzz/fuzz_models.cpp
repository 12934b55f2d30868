#include "core/plans/models/take_model.hpp"
#include "files/plans/model_reader.hpp"
#include "fuzz_target.hpp"

namespace glow::fuzz {

void read(std::string_view bytes) {
  Problems problems;
  auto model = files::read_model(std::string(bytes), GLOWGRID_FUZZ_NAME, std::nullopt, problems);
  must(model.has_value() == !problems.has_errors());
  if (!model) return;
  const plans::TakenModel taken = plans::take_model(std::move(*model), {});
  for (const plans::TakenStorey& storey : taken.storeys)
    for (const plans::FoundRoom& room : storey.plan.rooms) must(!geometry::fault_of_outline(room.outline));
}

}  // namespace glow::fuzz
