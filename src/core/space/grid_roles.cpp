#include <array>

#include "core/space/space.hpp"

namespace glow::space {
namespace {

constexpr std::array<std::pair<GridRole, const char*>, 15> kRoles = {
    {{GridRole::work_plane, "work plane"},
     {GridRole::floor, "floor"},
     {GridRole::ceiling, "ceiling"},
     {GridRole::wall, "wall"},
     {GridRole::requested, "wanted"},
     {GridRole::task_area, "task area"},
     {GridRole::surrounding, "surrounding area"},
     {GridRole::background, "background area"},
     {GridRole::faces, "faces"},
     {GridRole::eye_level, "eye level"},
     {GridRole::escape_route, "escape route"},
     {GridRole::escape_band, "escape route band"},
     {GridRole::open_area, "open area"},
     {GridRole::daylight_plane, "daylight plane"},
     {GridRole::neighbour, "neighbour"}}};

}  // namespace

std::string to_string(GridRole role) {
  for (const auto& [known, words] : kRoles)
    if (known == role) return words;
  return "";
}

std::optional<GridRole> grid_role(const std::string& words) {
  for (const auto& [role, known] : kRoles)
    if (known == words) return role;
  return std::nullopt;
}

readings::Receiver Grid::receiver(std::size_t point) const {
  readings::Receiver receiver{grid.points[point], grid.normal_of(point)};
  receiver.kernel = kernel;
  receiver.lean = role == GridRole::floor || role == GridRole::ceiling || role == GridRole::wall;
  if (kernel == readings::Kernel::semicylinder) receiver.normal = facing;
  if (kernel == readings::Kernel::cylinder) receiver.normal = Vec3::UnitZ();
  return receiver;
}

}  // namespace glow::space
