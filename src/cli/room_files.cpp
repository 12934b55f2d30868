#include "cli/room_files.hpp"

#include "files/results/grid_csv.hpp"
#include "files/results/results_json.hpp"

namespace glow::cli {
namespace {

void add_tables(const record::RoomRecord& room, const units::ShownUnits& units, RoomFiles& files) {
  for (const assess::GridReading& grid : room.assessment.grids)
    files.tables.emplace_back(files::csv_name("grids", room, grid.name),
                              files::grid_csv(grid, units, room.moment));
  if (room.series && room.moment)
    files.tables.emplace_back(files::csv_name("grids", room, "day"),
                              files::series_csv(*room.series, *room.moment, units));
  for (const assess::EyeSetGlare& set : room.assessment.glare.sets)
    files.tables.emplace_back(files::csv_name("eyes", room, set.set.name),
                              files::eyes_csv(room.assessment.glare, set, units));
}

}  // namespace

RoomFiles room_files(const record::RoomRecord& room, const units::ShownUnits& units) {
  RoomFiles files{files::results_room(room, units)};
  add_tables(room, units, files);
  for (std::size_t s = 0; s < room.scenes.size(); ++s) add_tables(record::in_scene(room, s), units, files);
  return files;
}

}  // namespace glow::cli
