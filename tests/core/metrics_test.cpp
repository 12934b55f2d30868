// Spatial illuminances, maintenance factors and installed power against the cases of metrics.json.
#include <gtest/gtest.h>

#include "core/assess/assessment.hpp"
#include "core/photometry/derived.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/sources/direct/direct_light.hpp"
#include "rooms/furnished_room.hpp"
#include "validation/metric_luminaires.hpp"

namespace glow {
namespace metrics_test {

using nlohmann::json;
using readings::Kernel;

Vec3 point(const json& j) {
  return {j[0].get<double>(), j[1].get<double>(), j[2].get<double>()};
}

/// A point source of even intensity.
photometry::PlacedLuminaire source(const json& j) {
  photometry::PlacedLuminaire luminaire;
  const double candela = j.at("I");
  luminaire.table = std::make_shared<photometry::IntensityTable>(
      std::vector<double>{0}, std::vector<double>{0, 90, 180}, std::vector<double>(3, candela));
  luminaire.frame = geometry::Frame::upright(point(j.at("pos")), 0);
  return luminaire;
}

TEST(Metrics, SpatialIlluminancesOfPointSources) {
  const auto all = reference::metric_cases("spatial");
  ASSERT_EQ(all.size(), 4u);
  for (const json& c : all) {
    SCOPED_TRACE(c.at("id").get<std::string>());
    const json &in = c.at("inputs"), &expected = c.at("expected");
    const double azimuth = in.at("facing_azimuth_deg").get<double>() * kDegree;
    const Vec3 facing(std::cos(azimuth), std::sin(azimuth), 0);
    const auto lux = [&](Kernel kernel, const Vec3& normal) {
      readings::Receiver receiver{point(in.at("point")), normal};
      receiver.kernel = kernel;
      double sum = 0;
      for (const json& j : in.at("sources")) {
        const photometry::PlacedLuminaire luminaire = source(j);
        sum += sources::DirectLight(luminaire, nullptr).illuminance(receiver);
      }
      return sum;
    };
    const auto expect = [&](const char* key, double value) {
      if (expected.at(key).is_null()) return;
      const double e = expected.at(key);
      EXPECT_NEAR(value, e, 1e-4 * std::abs(e) + 1e-6) << key;
    };
    const double level = lux(Kernel::plane, Vec3::UnitZ()), cylinder = lux(Kernel::cylinder, Vec3::UnitZ());
    const double sphere = lux(Kernel::sphere, Vec3::UnitZ());
    Vec3 vector;
    for (int axis = 0; axis < 3; ++axis)
      vector[axis] = lux(Kernel::plane, Vec3::Unit(axis)) - lux(Kernel::plane, -Vec3::Unit(axis));
    expect("E_h", level);
    expect("E_v", lux(Kernel::plane, facing));
    expect("E_cyl", cylinder);
    expect("E_semicyl", lux(Kernel::semicylinder, facing));
    expect("E_hemi", lux(Kernel::hemisphere, Vec3::UnitZ()));
    expect("E_sph", sphere);
    expect("vector", vector.norm());
    if (level > 0) expect("modelling_ratio", cylinder / level);
    expect("vector_scalar_ratio", vector.norm() / sphere);
  }
}

TEST(Metrics, FieldsOfPointLuminairesOverTheStandardsGrid) {
  const auto all = reference::metric_cases("grid-field");
  ASSERT_EQ(all.size(), 2u);
  for (const json& c : all) {
    SCOPED_TRACE(c.at("id").get<std::string>());
    const json &in = c.at("inputs"), &expected = c.at("expected");
    std::vector<photometry::PlacedLuminaire> luminaires;
    for (const json& at : in.at("positions")) luminaires.push_back(reference::luminaire(in, point(at)));
    const double lx = in.at("lx"), ly = in.at("ly");
    const auto grid = readings::plane_grid({{0, 0}, {lx, 0}, {lx, ly}, {0, ly}}, 0, 0, std::nullopt);
    ASSERT_TRUE(grid);
    EXPECT_EQ(grid->count.nx, expected.at("nx"));
    EXPECT_EQ(grid->count.ny, expected.at("ny"));
    std::vector<double> values;
    for (const Vec3& p : grid->points) {
      values.push_back(0);
      for (const auto& luminaire : luminaires)
        values.back() += sources::DirectLight(luminaire, nullptr).illuminance({p, Vec3::UnitZ()});
    }
    ASSERT_EQ(values.size(), expected.at("values").size());
    const double tolerance = c.at("tolerance").at("*").at("rel");
    for (std::size_t i = 0; i < values.size(); ++i) {
      const double e = expected.at("values")[i];
      EXPECT_NEAR(values[i], e, tolerance * e) << i;
    }
    const readings::Statistics s = readings::statistics(values);
    for (const auto& [key, value] : {std::pair{"mean", s.mean_lx},
                                     {"min", s.min_lx},
                                     {"max", s.max_lx},
                                     {"U0", *s.u0},
                                     {"Ud", *s.min_over_max}})
      EXPECT_NEAR(value, expected.at(key).get<double>(), tolerance * expected.at(key).get<double>()) << key;
  }
}

TEST(Metrics, LuminousAreasSeenFromADirection) {
  const auto all = reference::metric_cases("area-");
  ASSERT_EQ(all.size(), 5u);
  for (const json& c : all) {
    SCOPED_TRACE(c.at("id").get<std::string>());
    const json &directions = c.at("inputs").at("directions_C_gamma"), &expected = c.at("expected").at("Ap");
    const photometry::LuminousArea area = reference::luminous_area(c.at("inputs").at("shape"));
    ASSERT_EQ(directions.size(), expected.size());
    for (std::size_t i = 0; i < directions.size(); ++i) {
      const double e = expected[i];
      EXPECT_NEAR(photometry::projected_area(area, directions[i][0], directions[i][1]), e, 1e-5 * e + 1e-9)
          << directions[i];
    }
  }
}

TEST(Metrics, MaintenanceFactorIsTheProductOfItsParts) {
  const auto all = reference::metric_cases("mf-");
  ASSERT_EQ(all.size(), 2u);
  for (const json& c : all) {
    const json& in = c.at("inputs");
    model::LuminaireMaintenance m;
    m.lamp_flux = in.at("LLMF");
    m.lamp_survival = in.at("LSF");
    m.luminaire = in.at("LMF");
    EXPECT_NEAR(model::maintenance_factor(m, in.at("RSMF")), c.at("expected").at("MF").get<double>(), 1e-9);
  }
}

TEST(Metrics, InstalledPowerByAreaAndLevel) {
  const auto all = reference::metric_cases("energy");
  ASSERT_EQ(all.size(), 2u);
  for (const json& c : all) {
    SCOPED_TRACE(c.at("id").get<std::string>());
    const json &in = c.at("inputs"), &expected = c.at("expected");
    space::Space room;
    room.floor_area_m2 = in.at("A");
    room.groups.emplace_back();
    photometry::Photometry photometry{
        {}, {}, {}, {}, {}, {}, {}, false, {}, {}, {}, {}, {}, *rooms::lobe(1, 1, 0), {}, {}};
    photometry.watts = in.at("P").get<double>() / 3;
    room.groups[0].photometry = std::make_shared<photometry::Photometry>(photometry);
    room.groups[0].luminaires.resize(3);
    const assess::Power power = assess::power_of(room, room.groups, in.at("E_mean"));
    EXPECT_NEAR(*power.installed_w, expected.at("P_total").get<double>(), 1e-6 * *power.installed_w);
    EXPECT_NEAR(*power.w_per_m2, expected.at("W_per_m2").get<double>(), 1e-6 * *power.w_per_m2);
    EXPECT_NEAR(*power.w_per_m2_100lx, expected.at("W_per_m2_100lx").get<double>(),
                1e-6 * *power.w_per_m2_100lx);
  }
}

}  // namespace metrics_test
}  // namespace glow
