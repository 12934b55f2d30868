#include "core/assess/light_between.hpp"

#include "core/sources/straight_light.hpp"

namespace glow::assess {
namespace {

constexpr double kWantedPoints = 1500;  // of a drawing
constexpr double kMostLight = 20000;  // places times luminaires, of a grid: what is larger is dense by itself
constexpr int kMostParts = 7;

bool is_looked_at(const GridReading& grid) {
  return grid.role == space::GridRole::work_plane || grid.role == space::GridRole::requested ||
         grid.role == space::GridRole::task_area;
}

/// Odd, so that one place is the point itself; 1: nothing is gained.
int parts_for(std::size_t points, std::size_t luminaires) {
  int parts = 1;
  while (parts < kMostParts && double(points) * (parts + 2) * (parts + 2) <= kWantedPoints &&
         double(points) * (parts + 2) * (parts + 2) * double(luminaires) <= kMostLight)
    parts += 2;
  return parts;
}

readings::Receiver receiver_at(const GridReading& grid, const Vec3& position) {
  return {position, grid.kernel == readings::Kernel::semicylinder ? grid.facing : grid.grid.plane.normal,
          grid.kernel};
}

}  // namespace

void read_between(const transport::Transport& transport, const std::vector<space::LuminaireGroup>& groups,
                  const lighting::Weights& weights, std::vector<GridReading>& grids, const Watch& watch) {
  std::size_t luminaires = 0;
  for (const space::LuminaireGroup& group : groups) luminaires += group.luminaires.size();
  for (GridReading& reading : grids) {
    const readings::PlaneGrid& grid = reading.grid;
    const int parts = parts_for(grid.points.size(), luminaires);
    if (!is_looked_at(reading) || reading.total_lx.empty() || !grid.normals.empty() || parts == 1) continue;
    std::vector<readings::Receiver> places;
    for (const auto& cell : grid.cells)
      for (int j = 0; j < parts; ++j)
        for (int i = 0; i < parts; ++i) {
          const Vec2 aside((i + 0.5) / parts - 0.5, (j + 0.5) / parts - 0.5);
          places.push_back(
              receiver_at(reading, grid.plane.at(grid.middle_of(cell) + aside.cwiseProduct(grid.cell))));
        }
    reading.between = {parts, std::vector<double>(places.size())};
    for (std::size_t g = 0; g < groups.size(); ++g) {
      const std::vector<double> lux = sources::straight_light(transport, groups[g].luminaires, places, watch);
      for (std::size_t p = 0; p < lux.size(); ++p)
        reading.between.direct_lx[p] += weights[g].maintained() * lux[p];
    }
  }
}

}  // namespace glow::assess
