#include "core/assess/light_between.hpp"

namespace glow::assess {
namespace {

constexpr double kWantedPoints = 1500;  // of a drawing
constexpr double kMostLight = 20000;  // places times luminaires, of a grid: what is larger is dense by itself
constexpr int kMostParts = 7;
constexpr double kWantedInSun = 12000;  // of a drawing with sun patches
constexpr int kMostPartsInSun = 25;

/// Odd, so that one place is the point itself; 1: nothing is gained.
int parts_for(std::size_t points, std::size_t luminaires, bool sun) {
  const double wanted = sun ? kWantedInSun : kWantedPoints;
  const int most = sun ? kMostPartsInSun : kMostParts;
  int parts = 1;
  while (parts < most && double(points) * (parts + 2) * (parts + 2) <= wanted &&
         double(points) * (parts + 2) * (parts + 2) * double(luminaires) <= kMostLight)
    parts += 2;
  return parts;
}

/// The middles of the parts of all cells.
std::vector<readings::Receiver> places_between(const space::Space& space, std::size_t number,
                                               const readings::PlaneGrid& grid, int parts) {
  const space::Grid& source = space.grids[number];
  std::vector<readings::Receiver> places;
  std::size_t point = 0;
  for (const auto& cell : grid.cells) {
    for (int j = 0; j < parts; ++j)
      for (int i = 0; i < parts; ++i) {
        const Vec2 aside((i + 0.5) / parts - 0.5, (j + 0.5) / parts - 0.5);
        places.push_back(source.receiver(point));
        Vec3& at = places.back().position;
        at = grid.plane.at(grid.middle_of(cell) + aside.cwiseProduct(grid.cell));
        if (source.on_ground) at = space.ground.raised(at);
      }
    ++point;
  }
  return places;
}

void add_sun(const DayBetween& day, const readings::PlaneGrid& grid,
             const std::vector<readings::Receiver>& places, LightBetween& between, const Watch& watch) {
  const Vec3 u = grid.cell.x() / between.parts * grid.plane.u,
             v = grid.cell.y() / between.parts * grid.plane.v;
  const std::vector<double> sun = day.daylight->sun_over(places, u, v, *day.moment, watch);
  for (std::size_t p = 0; p < sun.size(); ++p) between.direct_lx[p] += sun[p];
}

}  // namespace

void read_between(const lighting::Lighting& lighting, const space::Space& space,
                  const lighting::Weights& weights, const DayBetween& day, std::vector<GridReading>& grids,
                  const Watch& watch) {
  std::size_t luminaires = 0;
  for (std::size_t g = 0; g < space.groups.size(); ++g)
    if (weights[g].output > 0 || !day.moment) luminaires += space.groups[g].luminaires.size();
  const bool sun = day.moment && day.moment->sun_normal_lx > 0;
  for (std::size_t k = 0; k < grids.size(); ++k) {
    GridReading& reading = grids[k];
    const readings::PlaneGrid& grid = reading.grid;
    if (!space.grids[k].is_looked_at() || reading.total_lx.empty()) continue;
    if (reading.day && reading.day->share_with_sky() < 1 && !day.moment->is_night) {
      reading.day->sky_parts = parts_for(grid.points.size(), 0, false);
      for (const char seen :
           day.daylight->sky_seen(places_between(space, k, grid, reading.day->sky_parts), watch))
        reading.day->sky_seen += seen ? '1' : '0';
    }
    const int parts = parts_for(grid.points.size(), luminaires, sun);
    if (parts == 1 || (day.moment && !sun && luminaires == 0)) continue;
    const std::vector<readings::Receiver> places = places_between(space, k, grid, parts);
    reading.between = {parts, std::vector<double>(places.size())};
    for (std::size_t g = 0; g < space.groups.size(); ++g) {
      if (weights[g].output <= 0 && day.moment) continue;
      const std::vector<double> lux = lighting.straight_at(places, space.groups[g].luminaires, watch);
      for (std::size_t p = 0; p < lux.size(); ++p)
        reading.between.direct_lx[p] += weights[g].maintained() * lux[p];
    }
    if (sun) add_sun(day, grid, places, reading.between, watch);
  }
}

}  // namespace glow::assess
