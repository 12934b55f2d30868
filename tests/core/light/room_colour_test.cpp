// The colour of light that coloured surfaces throw back, held against closed forms.
#include "core/lighting/room_colour.hpp"

#include <gtest/gtest.h>

#include "core/geometry/room_shell.hpp"

namespace glow::lighting {
namespace room_colour_test {

using colour::Chromaticity;
using transport::GroupLight;
using transport::Transport;

/// A closed box of one finish, on all of which 1 lx falls straight, and a point in it that gets as much.
struct Furnace {
  explicit Furnace(double reflectance, const Vec3& tint)
      : transport(shell(reflectance, tint), eye(), {}, {}) {
    transport::Inflow even;
    even.on_patches = transport::SampledFlux::of(transport.exchange().visible_area_m2);
    even.emitted_lm = transport.exchange().visible_area_m2.sum();
    even.direct_lx = {1};
    light.push_back(transport.carry(std::move(even), {}));
  }

  static geometry::Geometry shell(double reflectance, const Vec3& tint) {
    geometry::RoomShell box = geometry::RoomShell::flat({{0, 0}, {3, 0}, {3, 2}, {0, 2}}, 2.5, reflectance,
                                                        reflectance, reflectance);
    for (geometry::Material* material : {&box.floor_material, &box.ceiling_material, &box.walls[0]})
      material->tint = tint;
    geometry::Geometry geometry;
    geometry::add_room(geometry, box);
    return geometry;
  }
  static std::vector<readings::Receiver> eye() { return {{{1.3, 0.9, 1.1}, Vec3::UnitZ()}}; }

  Transport transport;
  std::vector<GroupLight> light;
};

const Vec3 kClay = colour::tint_of({0.55, 0.30, 0.18});

TEST(RoomColour, IsThatOfTheFurnaceInEachBand) {
  for (const double kelvin : {2700.0, 6500.0}) {
    const Furnace furnace(0.4, kClay);
    const RoomColour room(furnace.transport, furnace.light, {}, {});
    const Chromaticity lamp = colour::of_temperature(kelvin);
    const ReceivedColour at = room.at(0, {{1, 0.8}}, {lamp});
    Vec3 bands = colour::bands_of(colour::tristimulus(lamp));
    for (int b = 0; b < 3; ++b) bands[b] *= 0.4 * kClay[b] / (1 - 0.4 * kClay[b]);
    const colour::Tristimulus reflected = colour::light_of(bands);
    // Its luminous flux stays that of the grey furnace of the same reflectance: 0.4 / 0.6.
    const colour::Tristimulus all = colour::tristimulus(lamp) + 0.4 / 0.6 / reflected.y() * reflected;
    const auto expected = colour::chromaticity_of(all);
    ASSERT_TRUE(at.total && at.direct && expected);
    EXPECT_NEAR(at.total->x, expected->x, 2e-4);
    EXPECT_NEAR(at.total->y, expected->y, 2e-4);
    EXPECT_NEAR(at.direct->x, lamp.x, 1e-9);
    EXPECT_NEAR(at.known_lx, 0.8 / 0.6, 2e-3);
    EXPECT_GT(at.total->x, lamp.x + 0.01) << "clay warms";
  }
}

TEST(RoomColour, GreySurfacesLeaveItAlone) {
  const Furnace furnace(0.5, Vec3::Ones());
  const RoomColour room(furnace.transport, furnace.light, {}, {});
  const Chromaticity lamp = colour::of_temperature(3000);
  const ReceivedColour at = room.at(0, {{1, 1}}, {lamp});
  ASSERT_TRUE(at.total);
  EXPECT_NEAR(at.total->x, lamp.x, 1e-12);
  EXPECT_NEAR(at.total->y, lamp.y, 1e-12);
}

TEST(RoomColour, OfSeveralSourcesIsTheirMixture) {
  Furnace furnace(0.5, Vec3::Ones());
  furnace.light.push_back(furnace.light.front());
  const RoomColour room(furnace.transport, furnace.light, {}, {});
  const Chromaticity warm = colour::of_temperature(2700), cool = colour::of_temperature(6500);
  const auto mixture = colour::mixed({{warm, 3}, {cool, 1}});
  const ReceivedColour at = room.at(0, {{1, 0.75}, {0.25, 1}}, {warm, cool});
  ASSERT_TRUE(at.total && mixture);
  EXPECT_NEAR(at.total->x, mixture->x, 1e-9);
  EXPECT_NEAR(at.total->y, mixture->y, 1e-9);
  const ReceivedColour half = room.at(0, {{1, 0.75}, {0.25, 1}}, {warm, {}});
  EXPECT_NEAR(half.known_lx / at.known_lx, 0.75, 1e-9)
      << "of a source that states no colour nothing is known";
}

TEST(Bands, HoldAllLightForRoomsAndGiveItBack) {
  for (double kelvin = colour::kLowestTemperature; kelvin <= colour::kHighestTemperature; kelvin *= 1.1) {
    const Chromaticity c = colour::of_temperature(kelvin);
    const Vec3 bands = colour::bands_of(colour::tristimulus(c));
    EXPECT_GT(bands.minCoeff(), 0) << kelvin;
    const auto again = colour::chromaticity_of(colour::light_of(bands));
    ASSERT_TRUE(again);
    EXPECT_NEAR(again->x, c.x, 1e-12);
  }
  EXPECT_TRUE(colour::tint_of({0.3, 0.3, 0.3}).isApprox(Vec3::Ones(), 1e-12)) << "grey";
  EXPECT_NEAR(colour::luminous({1, 1, 1}), 1, 1e-12);
  EXPECT_NEAR(colour::luminous({0, 1, 0}), 0.7152, 2e-4) << "IEC 61966-2-1";
}

TEST(Stated, DuvLiesBesideThePlanckianLocus) {
  for (const double duv : {-0.012, 0.0, 0.006}) {
    const auto again = colour::correlated(colour::of({3500, colour::Stated::Locus::usual, duv}));
    ASSERT_TRUE(again);
    EXPECT_NEAR(again->kelvin, 3500, 2);
    EXPECT_NEAR(again->duv, duv, 2e-5);
  }
  const Chromaticity black = colour::of({6500, colour::Stated::Locus::planckian, {}});
  EXPECT_NEAR(black.x, colour::planckian(6500).x, 1e-12);
  EXPECT_NEAR(colour::of({4200, colour::Stated::Locus::daylight, {}}).x, colour::daylight(4200).x, 1e-12);
}

}  // namespace room_colour_test
}  // namespace glow::lighting
