// Light of luminaires in rooms with windows: what stays, what leaves, and when points can tell.
#include <gtest/gtest.h>

#include "core/geometry/room_shell.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "core/sources/remembered_places.hpp"
#include "rooms/furnished_room.hpp"

namespace glow::transport {

using namespace readings;
using namespace sources;
namespace windows_test {

using geometry::RoomShell;

/// 6 x 4 x 3 m with a window of 2 x 1.5 m in the middle of its first wall.
RoomShell room_with_window(double clear, double diffuse, double rho) {
  RoomShell shell = RoomShell::flat({{0, 0}, {6, 0}, {6, 4}, {0, 4}}, 3, rho, rho, rho);
  geometry::Material pane;
  pane.clear = clear;
  pane.diffuse = diffuse;
  shell.openings = {{0, {2, 0.75}, {4, 2.25}, "window", pane, true}};
  return shell;
}

photometry::PlacedLuminaire isotropic(const Vec3& at) {
  photometry::PlacedLuminaire luminaire;
  luminaire.table = std::make_shared<photometry::IntensityTable>(
      std::vector<double>{0}, std::vector<double>{0, 90, 180}, std::vector<double>{100, 100, 100});
  luminaire.frame.origin = at;
  return luminaire;
}

geometry::Geometry geometry_of(const RoomShell& shell) {
  geometry::Geometry geometry;
  geometry::add_room(geometry, shell);
  return geometry;
}

/// A black room: the window catches its solid angle's share, and lets out the clear share of it.
TEST(Windows, LetOutWhatTheirSolidAngleCatches) {
  for (const double clear : {0.3, 0.8, 1.0}) {
    const Transport transport(geometry_of(room_with_window(clear, 0, 0)), {}, Effort{}, {});
    EXPECT_TRUE(transport.exchange().straight.complete);
    for (const double distance : {0.7, 2.0}) {
      const photometry::PlacedLuminaire point = isotropic({3, distance, 1.5});
      const GroupLight light = sources::relight(transport, {point}, {});
      const double a = 1, b = 0.75,
                   solid_angle =
                       4 * std::atan(a * b / (distance * std::sqrt(a * a + b * b + distance * distance)));
      const double caught = solid_angle / (4 * kPi) * light.balance.emitted_lm;
      EXPECT_NEAR(light.balance.escaped_lm, clear * caught, 0.01 * caught) << clear << " " << distance;
      EXPECT_NEAR(light.balance.absorbed_lm + light.balance.escaped_lm, light.balance.emitted_lm,
                  1e-3 * light.balance.emitted_lm);
      EXPECT_EQ(light.balance.traced_luminaires, 0);
    }
  }
}

/// The same room with a mirror the size of a coin in a corner, for which light is traced out.
TEST(Windows, PointsAndRaysTellTheSame) {
  rooms::TestRoom space;
  space.geometry = geometry_of(room_with_window(0.7, 0.1, 0.5));
  space.geometry.add_box("cupboard", {4.4, 0.1, 0}, {5.6, 0.6, 2}, rooms::diffuse(0.4));
  for (double x = 0.5; x < 6; x += 1) space.receivers.push_back({{x, 2, 0.8}, Vec3::UnitZ()});
  space.luminaires = {isotropic({2, 2, 2.5}), isotropic({4.5, 1.5, 2.5})};
  const Transport counted(space.geometry, space.receivers, Effort{}, {});
  geometry::Material mirror;
  mirror.mirror = 0.5;
  space.geometry.add_polygon(
      space.geometry.add_surface("coin", mirror),
      {{5.97, 3.97, 2.99}, {5.99, 3.97, 2.99}, {5.99, 3.99, 2.99}, {5.97, 3.99, 2.99}});
  const Transport traced(space.geometry, space.receivers, Effort{}, {});
  EXPECT_TRUE(counted.exchange().straight.complete);
  EXPECT_FALSE(traced.exchange().straight.complete);
  const GroupLight by_points = sources::relight(counted, space.luminaires, {});
  const GroupLight by_rays = sources::relight(traced, space.luminaires, {});
  EXPECT_NEAR(by_points.balance.escaped_lm, by_rays.balance.escaped_lm, 0.02 * by_rays.balance.escaped_lm);
  for (std::size_t r = 0; r < space.receivers.size(); ++r)
    EXPECT_NEAR(by_points.interreflected_lx[r], by_rays.interreflected_lx[r],
                0.012 * by_rays.interreflected_lx[r]);
  // Another photometry in places that are remembered is lit the same way.
  const auto places = RememberedPlaces::of(counted, space.luminaires, {});
  ASSERT_TRUE(places);
  const GroupLight again = places->relight(space.luminaires[0].table, {});
  EXPECT_NEAR(again.balance.escaped_lm, by_points.balance.escaped_lm, 2e-3 * by_points.balance.escaped_lm);
  EXPECT_NEAR(again.balance.absorbed_lm, by_points.balance.absorbed_lm, 1e-3 * by_points.balance.absorbed_lm);
  EXPECT_FALSE(RememberedPlaces::of(traced, space.luminaires, {}));
}

/// Points tell where all light goes only if it can leave by panes of the shell alone, never to come back.
TEST(Windows, WhetherPointsCanTellIsKnown) {
  const auto complete = [](const geometry::Geometry& geometry) {
    return Transport(geometry, {}, Effort::draft(), {}).exchange().straight.complete;
  };
  const RoomShell glazed = room_with_window(0.7, 0.1, 0.5);
  EXPECT_TRUE(complete(geometry_of(glazed)));
  RoomShell opal = glazed, hole = glazed, mirrored = glazed, wings = glazed;
  opal.openings[0].pane = {};
  opal.openings[0].pane.scattering = 0.4;
  EXPECT_TRUE(complete(geometry_of(opal)));
  hole.openings[0].has_pane = false;
  EXPECT_FALSE(complete(geometry_of(hole)));
  mirrored.ceiling_material.mirror = 0.2;
  EXPECT_FALSE(complete(geometry_of(mirrored)));
  geometry::Geometry screen = geometry_of(glazed);
  geometry::Material pane;
  pane.clear = 0.8;
  screen.add_polygon(screen.add_surface("screen", pane), {{2, 1, 0}, {2, 3, 0}, {2, 3, 2}, {2, 1, 2}});
  EXPECT_FALSE(complete(screen));
  // A window in the inner corner of an L looks at the other wing.
  wings.outline = {{0, 0}, {6, 0}, {6, 2}, {2, 2}, {2, 4}, {0, 4}};
  wings.openings = {{2, {1, 1}, {2, 2}, "window", glazed.openings[0].pane, true}};
  EXPECT_FALSE(complete(geometry_of(wings)));
  wings.openings[0].wall = 0;
  EXPECT_TRUE(complete(geometry_of(wings)));
}

}  // namespace windows_test
}  // namespace glow::transport
