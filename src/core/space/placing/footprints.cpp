#include "core/space/placing/footprints.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace glow::space {
namespace {

bool is_called(const PlacedObject& placed, const std::string& name) {
  return name == placed.name || name == placed.base;
}

bool is_meant(const PlacedObject& placed, const model::LeaveOut& wish) {
  return wish.objects || std::any_of(wish.names.begin(), wish.names.end(),
                                     [&](const std::string& name) { return is_called(placed, name); });
}

}  // namespace

void thin_out(readings::PlaneGrid& grid, const std::function<bool(const Vec3&)>& keep) {
  std::size_t kept = 0;
  for (std::size_t i = 0; i < grid.points.size(); ++i) {
    if (!keep(grid.points[i])) continue;
    grid.points[kept] = grid.points[i];
    grid.cells[kept] = grid.cells[i];
    if (!grid.normals.empty()) grid.normals[kept] = grid.normals[i];
    ++kept;
  }
  grid.points.resize(kept);
  grid.cells.resize(kept);
  if (!grid.normals.empty()) grid.normals.resize(kept);
}

void leave_out_footprints(const std::vector<PlacedObject>& objects, const model::LeaveOut& wish,
                          const Place& place, const std::string& name, readings::PlaneGrid& grid,
                          Problems& problems) {
  for (const std::string& wanted : wish.names) {
    std::vector<std::string> names;
    bool known = false;
    for (const PlacedObject& placed : objects) {
      known = known || is_called(placed, wanted);
      names.push_back(placed.name);
    }
    if (known) continue;
    const std::string near = nearest_word(wanted, names);
    problems.error("P078", place,
                   fmt::format(FMT_STRING("\"{}\" is no object of the room; {}"), wanted,
                               near.empty() ? std::string("expected an object's name")
                                            : fmt::format(FMT_STRING("did you mean \"{}\"?"), near)));
  }
  if (!grid.plane.is_level()) return;
  thin_out(grid, [&](const Vec3& point) {
    return std::none_of(objects.begin(), objects.end(), [&](const PlacedObject& placed) {
      return is_meant(placed, wish) && placed.extent.covers(point);
    });
  });
  if (grid.points.empty())
    problems.error(
        "P078", place,
        fmt::format(FMT_STRING("objects stand over every point of \"{}\"; leave fewer of them out"), name));
}

void warn_of_footprints(const std::vector<PlacedObject>& objects, const Grid& grid, const std::string& room,
                        const Place& place, Problems& problems) {
  if (!grid.grid.plane.is_level() || grid.kernel != readings::Kernel::plane) return;
  std::map<std::string, std::size_t> under;  // by the objects' common names
  for (const Vec3& point : grid.grid.points) {
    const auto over = std::find_if(objects.begin(), objects.end(),
                                   [&](const PlacedObject& placed) { return placed.extent.covers(point); });
    if (over != objects.end() && !over->holds(point)) ++under[over->base];
  }
  if (under.empty()) return;
  std::size_t points = 0;
  const auto most = std::max_element(under.begin(), under.end(),
                                     [](const auto& a, const auto& b) { return a.second < b.second; });
  for (const auto& [name, count] : under) points += count;
  problems.warning(
      "P079", place,
      fmt::format(
          FMT_STRING("{} of {} points of {} in \"{}\" lie under \"{}\"{}; they will be dark and count. "
                     "Give the plane another height, or leave_out = \"objects\""),
          points, grid.grid.points.size(), grid.name, room, most->first,
          under.size() > 1 ? fmt::format(FMT_STRING(" and {} other objects"), under.size() - 1)
                           : std::string()));
}

}  // namespace glow::space
