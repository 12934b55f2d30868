// Another photometry in places that are remembered: the light of a relight, for look-ups only.
#include <gtest/gtest.h>

#include "core/geometry/room_shell.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "core/sources/remembered_places.hpp"
#include "rooms/furnished_room.hpp"

namespace glow::transport {

using namespace readings;
using namespace sources;
namespace remembered_places_test {

using photometry::LuminousShape;
using photometry::PlacedLuminaire;

/// A lobe with a tenth of the peak upwards as well.
std::shared_ptr<photometry::IntensityTable> up_and_down() {
  std::vector<double> gammas, candela;
  for (double g = 0; g <= 180; g += 5) {
    gammas.push_back(g);
    candela.push_back(g < 90 ? 500 * std::cos(g * kDegree) : -50 * std::cos(g * kDegree));
  }
  return std::make_shared<photometry::IntensityTable>(std::vector<double>{0}, gammas, candela);
}

void expect_the_light_of_a_relight(const rooms::TestRoom& space, double tolerance) {
  const Transport transport(space.geometry, space.receivers, Effort::draft(), {});
  const auto places = RememberedPlaces::of(transport, space.luminaires, {});
  ASSERT_TRUE(places);
  EXPECT_GT(places->terms(), transport.receivers().size());
  for (const auto& table : {space.luminaires[0].table,
                            std::shared_ptr<const photometry::IntensityTable>(rooms::lobe(2000, 4, -0.4)),
                            std::shared_ptr<const photometry::IntensityTable>(up_and_down())}) {
    std::vector<PlacedLuminaire> luminaires = space.luminaires;
    for (PlacedLuminaire& luminaire : luminaires) luminaire.table = table;
    const GroupLight expected = sources::relight(transport, luminaires, {}),
                     found = places->relight(table, {});
    EXPECT_NEAR(found.balance.emitted_lm, expected.balance.emitted_lm, 1e-6 * expected.balance.emitted_lm);
    EXPECT_NEAR(found.balance.absorbed_lm, expected.balance.absorbed_lm, 1e-3 * expected.balance.absorbed_lm);
    for (std::size_t r = 0; r < transport.receivers().size(); ++r) {
      EXPECT_NEAR(found.direct_lx[r], expected.direct_lx[r],
                  tolerance * expected.direct_lx[r] + expected.direct_error_lx[r] + 1e-3)
          << r;
      EXPECT_NEAR(found.interreflected_lx[r], expected.interreflected_lx[r],
                  tolerance * expected.interreflected_lx[r] + 1e-3)
          << r;
    }
  }
}

TEST(RememberedPlaces, GiveTheLightOfARelightInAFurnishedRoom) {
  expect_the_light_of_a_relight(rooms::furnished_room(), 2e-3);
}

/// Every third receiver: the light of the others is left out, that of these is the same.
TEST(ReceiverChoice, ChosenReceiversGetWhatTheyGetAmongAll) {
  const rooms::TestRoom space = rooms::furnished_room();
  const Transport transport(space.geometry, space.receivers, Effort::draft(), {});
  ReceiverChoice choice(space.receivers.size());
  for (std::size_t r = 0; r < choice.size(); r += 3) choice[r] = true;
  const auto places = RememberedPlaces::of(transport, space.luminaires, {}, choice);
  const auto table = std::shared_ptr<const photometry::IntensityTable>(rooms::lobe(2000, 4, -0.4));
  const GroupLight all = sources::relight(transport, space.luminaires, {});
  const GroupLight some = sources::relight(transport, space.luminaires, {}, choice);
  const GroupLight swapped = RememberedPlaces::of(transport, space.luminaires, {})->relight(table, {});
  const GroupLight some_swapped = places->relight(table, {});
  const Eigen::VectorXd darker = 0.8 * transport.exchange().reflectance;
  const GroupLight repainted = transport.refinished(all, darker, {});
  const GroupLight some_repainted = transport.refinished(all, darker, {}, choice);
  for (std::size_t r = 0; r < choice.size(); ++r) {
    EXPECT_EQ(some.direct_lx[r], choice[r] ? all.direct_lx[r] : 0);
    EXPECT_EQ(some.interreflected_lx[r], choice[r] ? all.interreflected_lx[r] : 0);
    EXPECT_EQ(some_swapped.direct_lx[r], choice[r] ? swapped.direct_lx[r] : 0);
    EXPECT_EQ(some_swapped.interreflected_lx[r], choice[r] ? swapped.interreflected_lx[r] : 0);
    // What is not chosen stays as it was painted.
    EXPECT_EQ(some_repainted.interreflected_lx[r], (choice[r] ? repainted : all).interreflected_lx[r]);
  }
  EXPECT_EQ(some.balance.absorbed_lm, all.balance.absorbed_lm);
}

TEST(RememberedPlaces, HoldForEveryLuminousShape) {
  for (const auto& [shape, height] : {std::pair{LuminousShape::point, 0.0},
                                      {LuminousShape::disc, 0.0},
                                      {LuminousShape::box, 0.1},
                                      {LuminousShape::vertical_cylinder, 0.3},
                                      {LuminousShape::sphere, 0.3}}) {
    rooms::TestRoom space;
    geometry::add_room(space.geometry, {{0, 0}, {4, 0}, {4, 3}, {0, 3}}, 2.6, 0.2, 0.5, 0.7);
    PlacedLuminaire luminaire;
    luminaire.table = rooms::lobe(900, 1, 0.2);
    luminaire.area = {shape, 0.3, 0.3, {height, height, height, height}};
    luminaire.frame = geometry::Frame::tilted({1.5, 1.2, 1.9}, 20, 15);
    space.luminaires = {luminaire};
    for (const Vec3& normal : {Vec3(0, 0, 1), Vec3(1, 0, 0)})
      space.receivers.push_back({{2.2, 1.4, 0.8}, normal});
    space.receivers.push_back({{2.2, 1.4, 1.2}, Vec3::UnitX(), Kernel::cylinder});
    expect_the_light_of_a_relight(space, 1e-3);
  }
}

/// Where light leaves, or runs over mirrors, it has to be traced: nothing is remembered, and nothing is
/// wrong.
TEST(RememberedPlaces, AreNotMadeWhereLightIsTracedOut) {
  rooms::TestRoom space = rooms::furnished_room();
  geometry::Material mirror;
  mirror.mirror = 0.9;
  space.geometry.add_box("mirror", {2, 0.01, 1}, {3, 0.02, 2}, mirror);
  const Transport transport(space.geometry, space.receivers, Effort::draft(), {});
  EXPECT_FALSE(RememberedPlaces::of(transport, space.luminaires, {}));
  EXPECT_FALSE(RememberedPlaces::of(transport, {}, {}));
}

/// A beam that points on patches miss falls back on a relight.
TEST(RememberedPlaces, FallBackForNeedles) {
  const rooms::TestRoom space = rooms::furnished_room();
  const Transport transport(space.geometry, space.receivers, Effort::draft(), {});
  const auto places = RememberedPlaces::of(transport, space.luminaires, {});
  ASSERT_TRUE(places);
  const auto needle = std::make_shared<const photometry::IntensityTable>(
      std::vector<double>{0}, std::vector<double>{0, 0.5, 1, 180}, std::vector<double>{1e5, 5e4, 0, 0});
  std::vector<PlacedLuminaire> luminaires = space.luminaires;
  for (PlacedLuminaire& luminaire : luminaires) luminaire.table = needle;
  const GroupLight expected = sources::relight(transport, luminaires, {}),
                   found = places->relight(needle, {});
  EXPECT_GT(expected.balance.traced_luminaires, 0);
  EXPECT_EQ(found.balance.traced_luminaires, expected.balance.traced_luminaires);
  EXPECT_EQ(found.direct_lx, expected.direct_lx);
}

}  // namespace remembered_places_test
}  // namespace glow::transport
