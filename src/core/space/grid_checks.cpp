#include "core/space/grid_checks.hpp"

#include <fmt/format.h>

#include <map>

#include "core/model/file_names.hpp"
#include "core/space/placing/footprints.hpp"

namespace glow::space {
namespace {

/// Where a grid or area of that name was asked for; the room's place for others.
Place place_of_grid(const model::Room& room, const std::string& name) {
  for (const model::GridWish& wish : room.grids)
    if (wish.name == name) return wish.place;
  for (const model::AreaWish& wish : room.areas)
    if (wish.grid.name == name) return wish.grid.place;
  return room.place;
}

}  // namespace

/// Names that differ in signs or case only would share a file. Where a grid was written is known of those
/// that were asked for.
void check_grid_names(const model::Room& room, const Space& space, Problems& problems) {
  std::map<std::string, std::string> names;
  for (const Grid& grid : space.grids) {
    const std::string part = model::file_name_part(grid.name);
    const auto [known, is_new] = names.emplace(part, grid.name);
    if (part.empty() || (part == "status" && model::file_name_part(room.name) == "project"))
      problems.error("P008", place_of_grid(room, grid.name),
                     fmt::format(FMT_STRING("no file can be named by the grid \"{}\" of \"{}\"; give it "
                                            "another name, with a letter or digit"),
                                 grid.name, room.name));
    else if (!is_new && known->second == grid.name)
      problems.error("P008", place_of_grid(room, grid.name),
                     fmt::format(FMT_STRING("\"{}\" has two grids called \"{}\"; give one another name"),
                                 room.name, grid.name));
    else if (!is_new)
      problems.error("P008", place_of_grid(room, grid.name),
                     fmt::format(FMT_STRING("grids \"{}\" and \"{}\" of \"{}\" would write the same "
                                            "files; give one another name"),
                                 known->second, grid.name, room.name));
  }
}

void warn_of_objects_over(const model::Room& room, const Space& space, const Brief& brief,
                          const std::vector<PlacedObject>& objects, Problems& problems) {
  for (std::size_t g = 0; g < space.grids.size(); ++g) {
    if (brief.grids[g].demands.empty()) continue;
    const Grid& grid = space.grids[g];
    if (grid.role == GridRole::work_plane || grid.role == GridRole::task_area)
      warn_of_footprints(objects, grid, room.name,
                         grid.role == GridRole::work_plane && room.work_plane.place.line > 0
                             ? room.work_plane.place
                             : place_of_grid(room, grid.name),
                         problems);
  }
}

}  // namespace glow::space
