// Light on neighbours, upwards and before road users: formulas and limits against the reference, and laws.
#include <gtest/gtest.h>

#include "core/assess/assess.hpp"
#include "core/glare/spill_glare.hpp"
#include "core/photometry/upward_light.hpp"
#include "rooms/planned_room.hpp"
#include "validation/expect_metric.hpp"
#include "validation/metric_luminaires.hpp"

namespace glow {
namespace spill_test {

using nlohmann::json;
using reference::expect_as;
using reference::metric_cases;

TEST(SpillGlare, ValuesOfKAreThoseOfTheReference) {
  int count = 0;
  for (const json& c : metric_cases("glare-k-")) {
    if (c.at("id") == "glare-k-table") continue;
    const json &in = c.at("inputs"), &expected = c.at("expected");
    const double cd = in.at("I"), area = in.at("Ap"), d = in.at("d"), background = in.at("Lu"),
                 limit = in.at("k_limit");
    const glare::WindowGlare own = glare::window_glare(cd, area, d, background, 0);
    expect_as(c, "Omega_s", own.solid_angle_sr);
    expect_as(c, "L_s", own.luminance_cd_m2);
    expect_as(c, "k", own.k);
    expect_as(c, "L_s_max", own.luminance_cd_m2 * limit / own.k);
    EXPECT_EQ(own.k <= limit, expected.at("ok").get<bool>()) << c.at("id");
    using standards::SmallAngles;
    for (const auto& [small, key] : {std::pair(SmallAngles::at_least_1e6, "k_omega_min_1e-6"),
                                     {SmallAngles::at_least_one_minute, "k_omega_min_6.6e-8"}})
      expect_as(c, key, glare::window_glare(cd, area, d, background, standards::least_angle(small)).k);
    ++count;
  }
  EXPECT_EQ(count, 6);
  const double near = glare::window_glare(1000, 0.05, 10, 1, 0).k,
               far = glare::window_glare(1000, 0.05, 20, 1, 0).k;
  EXPECT_NEAR(near / far, 2, 1e-9) << "k goes with one over the distance";
}

TEST(SpillRules, LimitsAreThoseOfTheReference) {
  const json c = metric_cases("glare-k-table").at(0), k = c.at("expected").at("k"),
             ev = c.at("expected").at("Ev");
  const std::pair<standards::AreaUse, const char*> uses[] = {
      {standards::AreaUse::spa, "spa_hospital"},
      {standards::AreaUse::dwelling, "residential"},
      {standards::AreaUse::mixed, "mixed"},
      {standards::AreaUse::business, "core_commercial_industrial"}};
  for (const auto& [use, name] : uses) {
    const auto limits = standards::glare_limits(use);
    for (std::size_t band = 0; band < 3; ++band) {
      const json& expected = k.at(name).at(band);
      EXPECT_EQ(limits[band].has_value(), !expected.is_null()) << name;
      if (limits[band]) {
        EXPECT_EQ(*limits[band], expected.get<double>()) << name;
      }
    }
    for (const bool night : {false, true}) {
      const auto demands = standards::window_demands(use, {true, true, night, night});
      EXPECT_EQ(demands.front().required, ev.at(name).at(night ? 1 : 0).get<double>()) << name;
    }
  }
  const auto evening = standards::window_demands(standards::AreaUse::dwelling, {true, true, false, false});
  EXPECT_EQ(evening.back().required, 64) << "the strictest of the hours in which light is on";
  using standards::ZoneStandard;
  const auto small =
      standards::intensity_demand(ZoneStandard::cie150, 2, {true, true, false, false}, 0.02, 50);
  EXPECT_NEAR(small->required, 2.5 * 50, 1e-9) << "by distance, up to 0.03 m2";
  EXPECT_EQ(standards::intensity_demand(ZoneStandard::cie150, 2, {}, 0.6, 50)->required, 500);
  EXPECT_EQ(standards::flux_ratio_demand(1, "sports"), std::nullopt);
}

TEST(SpillGlare, VeilsAndFluxRatiosAreThoseOfTheReference) {
  for (const json& c : metric_cases("ti-")) {
    const json& in = c.at("inputs");
    double plain = 0, aged = 0;
    for (const json& source : in.at("E_eye_theta")) {
      plain += glare::veil(source[0], source[1]);
      aged += glare::veil_of_age(source[0], source[1], in.at("age"));
    }
    expect_as(c, "Lv_10", plain);
    expect_as(c, "Lv_age", aged);
    expect_as(c, "TI_from_Lv_10", glare::threshold_increment(plain, in.at("L")));
  }
  const json c = metric_cases("ufr-").at(0), in = c.at("inputs");
  expect_as(c, "UFR",
            glare::upward_flux_ratio(in.at("ulor"), in.at("dlor"), in.at("u"), in.at("rho_target"),
                                     in.at("rho_surround"), in.at("E_initial_over_required")));
}

photometry::PlacedLuminaire hung(const json& in) {
  photometry::PlacedLuminaire luminaire = reference::luminaire(in, reference::point(in.at("pos")));
  luminaire.frame = geometry::Frame::tilted(luminaire.frame.origin, in.at("rotation_deg"), in.at("tilt_deg"));
  luminaire.area = reference::luminous_area(reference::photometry_named(in).at("shape"));
  const Vec3 down = reference::point(in.at("down_vector")), c0 = reference::point(in.at("c0_vector"));
  EXPECT_LT((luminaire.frame.g0 - down).norm() + (luminaire.frame.c0 - c0).norm(), 1e-6) << in;
  return luminaire;
}

TEST(HungFlux, IsThatOfTheReference) {
  const auto cases = metric_cases("ulr-");
  ASSERT_EQ(cases.size(), 6u);
  for (const json& c : cases) {
    const photometry::HungFlux flux = photometry::hung_flux(hung(c.at("inputs").at("luminaire")));
    EXPECT_NEAR(flux.upward_lm, c.at("expected").at("upward_flux").get<double>(), 5 + 0.005 * flux.upward_lm)
        << c.at("id");
    EXPECT_NEAR(flux.all_lm, c.at("expected").at("total_flux").get<double>(), 5 + 0.005 * flux.all_lm);
    expect_as(c, "R_UL", flux.upward_lm / flux.all_lm);
  }
}

}  // namespace spill_test
}  // namespace glow
