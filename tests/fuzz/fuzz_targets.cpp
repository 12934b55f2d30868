// One fuzz target for each reader of outside files; GLOWGRID_FUZZ_READER chooses it. A reader must give a
// value or an error, never both and never neither, whatever the bytes.
#include <cmath>
#include <cstdint>
#include <cstdlib>
#include <string_view>

#include "core/daylight/climate.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/plans/models/take_model.hpp"
#include "files/photometry/photometry_reader.hpp"
#include "files/photometry/photometry_writer.hpp"
#include "files/plans/dxf/document_reader.hpp"
#include "files/plans/model_reader.hpp"
#include "files/plans/plan_taker.hpp"
#include "files/project/project_reader.hpp"
#include "files/requirements/requirement_table_reader.hpp"
#include "files/results/results_json.hpp"
#include "files/results/results_reader.hpp"
#include "files/weather/weather_reader.hpp"

namespace {

using namespace glow;

void must(bool holds) {
  if (!holds) std::abort();
}

/// What was read must be writable, and readable again.
[[maybe_unused]] void check_photometry(const std::optional<photometry::Photometry>& p,
                                       const Problems& problems) {
  must(p.has_value() == !problems.has_errors());
  if (!p) return;
  must(p->flux_lm() >= 0);
  std::vector<std::string> losses;
  Problems again;
  must(files::read_ies(files::write_ies(*p, losses), "again.ies", again).has_value());
}

void read(std::string_view bytes) {
  Problems problems;
#if GLOWGRID_FUZZ_READER == 1
  check_photometry(files::read_ies(bytes, "fuzz.ies", problems), problems);
#elif GLOWGRID_FUZZ_READER == 2
  check_photometry(files::read_eulumdat(bytes, "fuzz.ldt", problems), problems);
#elif GLOWGRID_FUZZ_READER == 3
  const auto project = files::read_project(bytes, "fuzz.toml", problems);
  must(project.has_value() || problems.has_errors());
#elif GLOWGRID_FUZZ_READER == 9
  const auto weather = files::read_weather(bytes, "fuzz.epw", problems);
  must(weather.has_value() == !problems.has_errors());
  if (!weather) return;
  const auto hours = daylight::hours_outside(*weather);
  for (const daylight::HourOutside& hour : hours)
    must(std::isfinite(hour.sky.diffuse_lx) && hour.sky.diffuse_lx >= 0 && hour.sky.direct_normal_lx >= 0 &&
         hour.number >= 0 && hour.number < daylight::kHoursOfYear);
  must(std::isfinite(daylight::climate_of(*weather, hours).global_klxh));
#elif GLOWGRID_FUZZ_READER == 6
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
#elif GLOWGRID_FUZZ_READER == 7 || GLOWGRID_FUZZ_READER == 8
  const char* name = GLOWGRID_FUZZ_READER == 7 ? "fuzz.ifc" : "fuzz.xml";
  auto model = files::read_model(std::string(bytes), name, std::nullopt, problems);
  must(model.has_value() == !problems.has_errors());
  if (!model) return;
  const plans::TakenModel taken = plans::take_model(std::move(*model), {});
  for (const plans::TakenStorey& storey : taken.storeys)
    for (const plans::FoundRoom& room : storey.plan.rooms) must(!geometry::fault_of_outline(room.outline));
#elif GLOWGRID_FUZZ_READER == 5
  const auto run = files::read_results(bytes, "results.json", problems);
  must(run.has_value() == !problems.has_errors());
  if (!run) return;
  // What was read is written whole, and read again it is the same.
  const std::string written = files::results_json(*run);
  const auto again = files::read_results(written, "results.json", problems);
  must(again.has_value());
  must(files::results_json(*again) == written);
#else
  must(files::read_requirement_table(bytes, "fuzz.csv", problems).has_value() == !problems.has_errors());
#endif
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  read({reinterpret_cast<const char*>(data), size});
  return 0;
}
