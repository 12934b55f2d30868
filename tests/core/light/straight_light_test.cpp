// Straight light between points against the light that is read at points.
#include "core/sources/straight_light.hpp"

#include <gtest/gtest.h>

#include "core/assess/light_between.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "rooms/furnished_room.hpp"

namespace glow::sources {
namespace straight_light_test {

constexpr double kGood = 0.03;  // of the light: what is drawn need not be better

TEST(StraightLight, IsWhatPointsReadUnderAndBesideFurniture) {
  const rooms::TestRoom room = rooms::furnished_room();
  const transport::Transport transport(room.geometry, room.receivers, transport::Effort::draft(), {});
  const transport::Inflow read = luminaire_inflow(transport, room.luminaires, {});
  const std::vector<double> lux = straight_light(transport, room.luminaires, room.receivers, {});
  ASSERT_EQ(lux.size(), read.direct_lx.size());
  double most = 0;
  for (const double light : read.direct_lx) most = std::max(most, light);
  for (std::size_t r = 0; r < lux.size(); ++r)
    EXPECT_NEAR(lux[r], read.direct_lx[r], kGood * read.direct_lx[r] + 0.003 * most) << r;
}

/// A level grid of 3 x 2 m under a beam, and a space with nothing else in it.
space::Space under_a_beam(readings::Kernel kernel) {
  space::Space space;
  space.outline = {{0, 0}, {6, 0}, {6, 4}, {0, 4}};
  geometry::add_room(space.geometry, space.outline, 3, 0.2, 0.5, 0.7);
  space.groups.emplace_back();
  photometry::PlacedLuminaire luminaire;
  luminaire.table = rooms::lobe(900, 20, 0);
  luminaire.frame.origin = {3, 2, 2.9};
  space.groups[0].luminaires = {luminaire};
  const readings::Plane plane = readings::Plane::level(0.8);
  readings::GridDensity density;
  density.spacing_m = 1;
  space.grids.push_back({"plane", space::GridRole::work_plane, kernel, Vec3::UnitX(),
                         *readings::plane_grid(plane, {{1, 1}, {4, 1}, {4, 3}, {1, 3}}, {}, 0, density)});
  return space;
}

TEST(LightBetween, IsTheLightAtEachOfItsPlaces) {
  for (const auto kernel : {readings::Kernel::plane, readings::Kernel::cylinder}) {
    const space::Space space = under_a_beam(kernel);
    std::vector<assess::GridReading> grids(1);
    grids[0].role = space.grids[0].role;
    grids[0].kernel = kernel;
    grids[0].grid = space.grids[0].grid;
    grids[0].total_lx.assign(grids[0].grid.points.size(), 1);
    const transport::Transport transport(space.geometry, {space.grids[0].receiver(0)},
                                         transport::Effort::draft(), {});
    const lighting::Lighting lighting(space, transport, {});
    assess::read_between(lighting, space, {{0.5, 0.8}}, {}, grids, {});
    const assess::LightBetween& between = grids[0].between;
    ASSERT_EQ(between.parts, 7);  // few points: as dense as it gets
    ASSERT_EQ(between.direct_lx.size(), 49 * grids[0].grid.points.size());
    // Each cell's middle is the point itself, and the lattice runs along x, then y.
    const DirectLight light(space.groups[0].luminaires[0], nullptr);
    for (std::size_t p = 0; p < grids[0].grid.points.size(); ++p)
      for (const auto& [i, j] : {std::pair{3, 3}, {0, 3}, {6, 1}}) {
        readings::Receiver place = space.grids[0].receiver(p);
        place.position += Vec3((i - 3) / 7.0, (j - 3) / 7.0, 0);
        const double there = between.direct_lx[p * 49 + std::size_t(7 * j + i)];
        EXPECT_NEAR(there, 0.4 * light.illuminance(place), kGood * there + 1e-6) << p << " " << i << " " << j;
      }
  }
}

}  // namespace straight_light_test
}  // namespace glow::sources
