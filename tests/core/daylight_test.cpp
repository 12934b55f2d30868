// Sun, skies and glazing against independent values.
#include <gtest/gtest.h>

#include <random>

#include "core/daylight/glazing.hpp"
#include "core/daylight/sky.hpp"
#include "core/daylight/sky_patches.hpp"
#include "core/daylight/sun.hpp"
#include "core/sources/daylight/daylight_opening.hpp"
#include "core/sources/daylight/spherical_rectangle.hpp"
#include "validation/expect_metric.hpp"

namespace glow::daylight {
namespace daylight_test {

using nlohmann::json;
using reference::expect_as;

double input(const json& of, const char* name) {
  return of.at("inputs").at(name).get<double>();
}

Vec3 direction(const json& altitude_azimuth) {
  return direction_of(altitude_azimuth.at(0).get<double>(), altitude_azimuth.at(1).get<double>());
}

TEST(Sun, StandsWhereReferencesHaveIt) {
  const auto cases = reference::metric_cases("sun-");
  EXPECT_EQ(cases.size(), 9u);
  for (const json& each : cases) {
    const json& in = each.at("inputs");
    const UniversalTime time{in.at("year").get<int>(), in.at("month").get<int>(), in.at("day").get<int>(),
                             in.at("ut_hours").get<double>()};
    const SunPosition sun = sun_position(time, input(each, "lat"), input(each, "lon"));
    EXPECT_NEAR(julian_day(time), each.at("expected").at("julian_day").get<double>(), 1e-6);
    expect_as(each, "altitude", sun.altitude_deg);
    expect_as(each, "azimuth", sun.azimuth_deg);
    expect_as(each, "declination", sun.declination_deg);
    expect_as(each, "equation_of_time_min", sun.equation_of_time_min);
    const Vec3 towards = direction_of(sun.altitude_deg, sun.azimuth_deg);
    for (int k = 0; k < 3; ++k)
      expect_as(each, "direction", towards[k],
                each.at("expected").at("direction").at(std::size_t(k)).get<double>());
    if (!each.at("expected").at("apparent_altitude").is_null())
      expect_as(each, "apparent_altitude", sun.altitude_deg + refraction_deg(sun.altitude_deg));
  }
}

TEST(Sky, OfEachGeneralTypeIsAsBrightAsReferencesHaveIt) {
  const auto cases = reference::metric_cases("sky-cie-");
  EXPECT_EQ(cases.size(), 10u);
  for (const json& each : cases) {
    const int type = each.at("inputs").at("type").get<int>();
    const Vec3 sun = direction_of(input(each, "sun_altitude"), input(each, "sun_azimuth"));
    const Sky sky = type == 16 ? Sky::overcast(1000) : Sky::general(general_sky(type), sun, 1000);
    const json& directions = each.at("inputs").at("directions_alt_az");
    for (std::size_t i = 0; i < directions.size(); ++i)
      expect_as(each, "relative", sky.luminance(direction(directions[i])) / sky.zenith_luminance(),
                each.at("expected").at("relative").at(i).get<double>());
    expect_as(each, "Edh_over_Lz", 1000 / sky.zenith_luminance());
  }
}

/// Patches are counted ring by ring from the horizon and from north by east, also at their borders.
TEST(SkyPatches, AreFoundByTheirDirections) {
  constexpr int kRings = 31;
  const SkyPatches sky;
  std::size_t number = 0;
  for (int ring = 0; ring < kRings; ++ring) {
    const double height = 90.0 / kRings, middle = (ring + 0.5) * height;
    const int count = std::max(1, int(std::lround(4 * kRings * std::cos(middle * kDegree))));
    for (int k = 0; k < count; ++k, ++number)
      for (const double up : {-0.499999, 0.0, 0.499999})
        for (const double aside : {-0.499999, 0.0, 0.499999})
          ASSERT_EQ(sky.at(direction_of(middle + up * height, (k + 0.5 + aside) * 360 / count)), number)
              << ring << " " << k << " " << up << " " << aside;
  }
  EXPECT_EQ(sky.size(), number);
}

TEST(AllWeather, MakesOfIrradiancesWhatReferencesMake) {
  const auto cases = reference::metric_cases("sky-perez-");
  EXPECT_EQ(cases.size(), 7u);
  for (const json& each : cases) {
    const auto found = all_weather(input(each, "sun_altitude"), input(each, "DNI"), input(each, "DHI"),
                                   input(each, "E0_normal"), input(each, "dew_point_C"));
    ASSERT_TRUE(found) << each.at("id");
    expect_as(each, "epsilon", found->clearness);
    expect_as(each, "Delta", found->brightness);
    const json& expected = each.at("expected");
    const double shape[] = {found->shape.a, found->shape.b, found->shape.c, found->shape.d, found->shape.e};
    for (std::size_t k = 0; k < 5; ++k)
      expect_as(each, "a_b_c_d_e", shape[k], expected.at("a_b_c_d_e").at(k).get<double>());
    expect_as(each, "K_diffuse", found->diffuse_lm_w);
    expect_as(each, "E_diffuse_horizontal", found->diffuse_lx);
    const Vec3 sun = direction_of(input(each, "sun_altitude"), input(each, "sun_azimuth"));
    const Sky sky = Sky::all_weather(found->shape, sun, found->diffuse_lx);
    if (!expected.contains("luminance")) continue;
    EXPECT_EQ(found->bin, expected.at("bin_1_to_8").get<int>());
    expect_as(each, "K_direct", found->direct_lm_w);
    expect_as(each, "E_direct_normal", found->direct_normal_lx);
    const json& directions = each.at("inputs").at("directions_alt_az");
    for (std::size_t i = 0; i < directions.size(); ++i)
      expect_as(each, "luminance", sky.luminance(direction(directions[i])),
                expected.at("luminance").at(i).get<double>());
  }
}

/// A sky of any plausible irradiances is finite, nowhere negative, and gives the horizontal illuminance that
/// it was made for.
TEST(AllWeather, IsALightWhateverTheWeather) {
  std::mt19937 random(7);
  std::uniform_real_distribution<double> share(0, 1);
  for (int k = 0; k < 60; ++k) {
    const double altitude = 0.5 + 60 * share(random) * share(random);
    const auto found =
        all_weather(altitude, 950 * share(random), 5 + 400 * share(random), 1367, 30 * share(random) - 10);
    ASSERT_TRUE(found);
    const Sky sky = Sky::all_weather(found->shape, direction_of(altitude, 77), found->diffuse_lx);
    double sum = 0;
    constexpr int kRings = 150, kSectors = 300;
    for (int i = 0; i < kRings; ++i)
      for (int j = 0; j < kSectors; ++j) {  // evenly over sin2 of the altitude
        const double sine = std::sqrt((i + 0.5) / kRings);
        const double luminance =
            sky.luminance(direction_of(std::asin(sine) / kDegree, 360 * (j + 0.5) / kSectors));
        ASSERT_TRUE(std::isfinite(luminance) && luminance >= 0);
        sum += luminance * kPi / kRings / kSectors;
      }
    EXPECT_NEAR(sum, found->diffuse_lx, 0.02 * found->diffuse_lx) << altitude;
  }
  EXPECT_FALSE(all_weather(-1, 100, 100, 1367, 10)) << "the sun has set";
  EXPECT_FALSE(all_weather(30, 100, 0, 1367, 10)) << "nothing diffuse";
}

/// Of light that comes evenly from the whole half space.
double hemispherical(const Glazing& glazing) {
  constexpr int kSteps = 200;
  double sum = 0;
  for (int i = 0; i < kSteps; ++i) sum += glazing.transmittance(std::sqrt((i + 0.5) / kSteps)) / kSteps;
  return sum;
}

/// Of two clear panes of index 1.52: values of the reference's own table.
TEST(Glazing, IsLookedUpAsGoodAsExactly) {
  const Glazing measured{Glazing::Law::table, 0.5, 2, 1.52, {{0, 1}, {60, 0.9}, {90, 0}}, 0};
  for (const Glazing& glazing : {Glazing{Glazing::Law::constant, 0.65, 2, 1.52, {}, 0},
                                 Glazing{Glazing::Law::clear, 0.88, 1, 1.52, {}, 0},
                                 Glazing{Glazing::Law::clear, 0.7, 3, 1.52, {}, 0}, measured}) {
    const daylight::QuickGlazing quick(glazing);
    for (double cosine = 0; cosine <= 1; cosine += 1.0 / 7001)
      EXPECT_NEAR(quick.transmittance(cosine), glazing.transmittance(cosine),
                  glazing.law == Glazing::Law::table ? 1e-3 : 1e-5)
          << cosine;
    EXPECT_NEAR(quick.transmittance(1), glazing.transmittance(1), 1e-7);
  }
}

TEST(Glazing, FallsWithTheAngleAsFresnelHasIt) {
  const std::pair<double, double> known[] = {{0, 1},       {20, 0.9995}, {40, 0.9888}, {60, 0.8956},
                                             {70, 0.7138}, {80, 0.365},  {90, 0}};
  for (const auto& [angle, factor] : known)
    EXPECT_NEAR(clear_panes(std::cos(angle * kDegree), 2, 1.52), factor, 6e-5) << angle;
  Glazing measured{Glazing::Law::table, 0.5, 2, 1.52, {{0, 1}, {60, 0.9}, {90, 0}}, 0};
  EXPECT_NEAR(measured.transmittance(std::cos(75 * kDegree)), 0.225, 1e-9);
  EXPECT_NEAR(hemispherical(Glazing{Glazing::Law::constant, 0.65, 2, 1.52, {}, 0}), 0.65, 1e-9);
  const double clear = hemispherical(Glazing{Glazing::Law::clear, 0.78, 2, 1.52, {}, 0});
  EXPECT_GT(clear, 0.65);
  EXPECT_LT(clear, 0.71);
}

/// From near, far, along its plane and over its edges: the points lie on it and their angles add up to what
/// small pieces have together.
/// Where an opening is ruled out for a ball and a cone, no ray of them meets it; and most that miss it by far
/// are.
TEST(DaylightOpening, IsRuledOutOnlyWhereNoRayMeetsIt) {
  const sources::DaylightOpening opening{{1, 4, 0.8}, {1.5, 0, 0}, {0, 0, 1.2}, Vec3::UnitY(), {}};
  std::mt19937 dice(7);
  std::uniform_real_distribution<double> each(0, 1);
  const auto direction = [&] {
    return Vec3(2 * each(dice) - 1, 2 * each(dice) - 1, 2 * each(dice) - 1).normalized();
  };
  int ruled_out = 0, met_by_middle = 0;
  for (int k = 0; k < 4000; ++k) {
    const Vec3 middle(4 * each(dice), 5 * each(dice), 2.5 * each(dice)), towards = direction();
    const double reach = 0.5 * each(dice), margin = 0.05 * each(dice);
    Vec3 at;
    met_by_middle += opening.is_met(middle, towards, 0, at);
    if (opening.may_be_met(middle, reach, towards, margin)) continue;
    ++ruled_out;
    for (int ray = 0; ray < 40; ++ray) {
      const Vec3 from = middle + reach * direction(),
                 way = (towards + 0.99 * margin * direction()).normalized();
      ASSERT_FALSE(opening.is_met(from, way, 0, at)) << middle << "\n"
                                                     << towards << "\n"
                                                     << reach << " " << margin;
    }
  }
  EXPECT_GT(met_by_middle, 20);
  EXPECT_GT(ruled_out, 2500);
}

TEST(SphericalRectangle, HasItsSolidAngleWhereverItIsSeenFrom) {
  const Vec3 corner(1, 2, 0.5), along(0.8, 0, 0), up(0, 0, 1.2);
  for (const Vec3& eye : {Vec3(1.4, 1.5, 1.1), Vec3(1.4, 1.99, 1.1), Vec3(1, -1, 0.5), Vec3(-3, 1.9, 3),
                          Vec3(8, -9, 1), Vec3(1.3, -1e4, 1)}) {
    const sources::SphericalRectangle seen(eye, corner, along, up);
    ASSERT_TRUE(seen.is_seen());
    double sum = 0, expected = 0;
    constexpr int kSide = 40, kFine = 1500;
    for (int k = 0; k < kSide * kSide; ++k) {
      const auto [at, solid_angle] = seen.point((k % kSide + 0.5) / kSide, (k / kSide + 0.5) / kSide);
      sum += solid_angle / (kSide * kSide);
      const Vec3 way = at - corner;
      EXPECT_NEAR(way.y(), 0, 1e-9 * (at - eye).norm());
      EXPECT_TRUE(way.x() > -1e-9 && way.x() < 0.8 + 1e-9 && way.z() > -1e-9 && way.z() < 1.2 + 1e-9) << way;
    }
    for (int k = 0; k < kFine * kFine; ++k) {
      const Vec3 at = corner + (k % kFine + 0.5) / kFine * along + (k / kFine + 0.5) / kFine * up;
      const Vec3 way = at - eye;
      expected += 0.8 * 1.2 / (kFine * kFine) * way.y() / std::pow(way.squaredNorm(), 1.5);
    }
    EXPECT_NEAR(sum, expected, 2e-3 * expected) << eye;
  }
  // So flat that the formulas for what is near would be noise.
  for (const double off : {1e-4, 1e-6, 1e-8})
    for (const Vec3& beside : {Vec3(0.5, 0, 1), Vec3(2.5, 0, 1.1), Vec3(1.4, 0, 2), Vec3(0.9, 0, 0.4)}) {
      const sources::SphericalRectangle flat(Vec3(beside.x(), 2 - off, beside.z()), corner, along, up);
      ASSERT_TRUE(flat.is_seen());
      for (int k = 0; k < 100; ++k) {
        const auto [at, solid_angle] = flat.point((k % 10 + 0.5) / 10, (k / 10 + 0.5) / 10);
        EXPECT_LT((at - corner - along / 2 - up / 2).norm(), 0.75) << beside << "\n" << off;
        EXPECT_TRUE(solid_angle > 0 && solid_angle < 1e4 * off) << beside << "\n" << off;
      }
    }
  const sources::SphericalRectangle at_corner({1, 1.9999, 0.5}, corner, along, up);
  EXPECT_NEAR(at_corner.point(0.3, 0.6).solid_angle, kPi / 2, 1e-3);
  for (const Vec3& eye : {Vec3(3, 2, 0.7), Vec3(1.2, 2, 0.9), Vec3(0, 2, 0.5)})
    EXPECT_FALSE(sources::SphericalRectangle(eye, corner, along, up).is_seen()) << eye;
}

TEST(Calendar, CountsDays) {
  EXPECT_EQ(day_of_year(2024, 3, 1), 61);
  EXPECT_EQ(day_of_year(2023, 12, 31), 365);
  EXPECT_EQ(days_in_month(2100, 2), 28);
  EXPECT_NEAR(julian_day({2000, 1, 1, 12}), 2451545, 1e-9);
}

}  // namespace daylight_test
}  // namespace glow::daylight
