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

}  // namespace

void read_between(const transport::Transport& transport, const space::Space& space,
                  const lighting::Weights& weights, std::vector<GridReading>& grids, const Watch& watch) {
  std::size_t luminaires = 0;
  for (const space::LuminaireGroup& group : space.groups) luminaires += group.luminaires.size();
  for (std::size_t k = 0; k < grids.size(); ++k) {
    GridReading& reading = grids[k];
    const readings::PlaneGrid& grid = reading.grid;
    const int parts = parts_for(grid.points.size(), luminaires);
    if (!is_looked_at(reading) || reading.total_lx.empty() || parts == 1) continue;
    std::vector<readings::Receiver> places;
    for (const auto& cell : grid.cells)
      for (int j = 0; j < parts; ++j)
        for (int i = 0; i < parts; ++i) {
          const Vec2 aside((i + 0.5) / parts - 0.5, (j + 0.5) / parts - 0.5);
          places.push_back(space.grids[k].receiver(0));
          places.back().position = grid.plane.at(grid.middle_of(cell) + aside.cwiseProduct(grid.cell));
        }
    reading.between = {parts, std::vector<double>(places.size())};
    for (std::size_t g = 0; g < space.groups.size(); ++g) {
      const std::vector<double> lux =
          sources::straight_light(transport, space.groups[g].luminaires, places, watch);
      for (std::size_t p = 0; p < lux.size(); ++p)
        reading.between.direct_lx[p] += weights[g].maintained() * lux[p];
    }
  }
}

}  // namespace glow::assess
