// Energy of a year: rules of EN 15193-1 against the reference, and what must hold of any control.
#include <gtest/gtest.h>

#include <cmath>
#include <nlohmann/json.hpp>

#include "core/daylight/weather.hpp"
#include "core/standards/energy_rules.hpp"
#include "core/studies/energy/room_energy.hpp"
#include "core/studies/energy/zone_year.hpp"
#include "test_files.hpp"

namespace glow::studies {
namespace energy_test {

using nlohmann::json;

TEST(EnergyRules, AreThoseOfTheReference) {
  int occupancies = 0, years = 0;
  const json all = test::json_in(test::test_data("validation/metrics.json"));
  for (const json& each : all.at("cases")) {
    const std::string id = each.at("id");
    const json &in = each.value("inputs", json()), &expected = each.value("expected", json());
    if (id.rfind("fo-", 0) == 0) {
      EXPECT_NEAR(standards::occupancy_factor(in.at("F_A"), in.at("F_OC")), expected.at("F_O").get<double>(),
                  1e-9)
          << id;
      ++occupancies;
    }
    if (id.rfind("leni-", 0) != 0) continue;
    std::vector<standards::EnergyArea> areas;
    std::size_t k = 0;
    for (const json& area : in.at("areas")) {
      standards::EnergyArea own;
      own.watts = area.at("P_n");
      own.area_m2 = area.at("A");
      own.constancy = standards::constancy_factor(area.at("MF"), area.at("F_CC"));
      own.occupancy = standards::occupancy_factor(area.at("F_A"), area.at("F_OC"));
      own.daylight = standards::daylight_factor_of_energy(area.at("F_DS"), area.at("F_DC"));
      own.day_h = area.at("t_D");
      own.night_h = area.at("t_N");
      own.control_w = area.at("P_pc");
      own.emergency_w = area.at("P_em");
      own.emergency_h = area.at("t_em");
      const json& factors = expected.at("factors")[k++];
      EXPECT_NEAR(own.constancy, factors.at("F_C").get<double>(), 1e-6) << id;
      EXPECT_NEAR(own.occupancy, factors.at("F_O").get<double>(), 1e-6) << id;
      EXPECT_NEAR(own.daylight, factors.at("F_D").get<double>(), 1e-6) << id;
      areas.push_back(own);
    }
    const standards::YearlyEnergy year = standards::yearly_energy(areas);
    EXPECT_NEAR(year.light_kwh, expected.at("W_L").get<double>(), 1e-6 * year.light_kwh) << id;
    EXPECT_NEAR(year.parasitic_kwh, expected.at("W_P").get<double>(), 1e-6 * year.total_kwh()) << id;
    EXPECT_NEAR(year.leni(), expected.at("LENI").get<double>(), 1e-6 * year.leni()) << id;
    ++years;
  }
  EXPECT_EQ(occupancies, 5);
  EXPECT_EQ(years, 3);
}

EnergyZone zone(model::ControlKind kind) {
  EnergyZone own;
  own.watts = 400;
  own.kind = kind;
  own.target_lx = 500;
  own.used.assign(daylight::kHoursOfYear, 0);
  for (std::size_t h = 0; h < own.used.size(); ++h) own.used[h] = h % 24 >= 8 && h % 24 < 18;
  return own;
}

/// Brighter by day, to 900 lx in the middle of the year's middle.
std::vector<float> daylight_of_year() {
  std::vector<float> lux;
  for (int h = 0; h < daylight::kHoursOfYear; ++h)
    lux.push_back(float(std::max(
        0.0, 900 * std::sin(kPi * (h % 24) / 24) * std::sin(kPi * h / daylight::kHoursOfYear) - 100)));
  return lux;
}

TEST(ZoneYear, LawsOfControlHold) {
  using Kind = model::ControlKind;
  const std::vector<float> day = daylight_of_year(), dark(day.size(), 0.0f);
  EnergyZone dimmed = zone(Kind::dimmed), switched = zone(Kind::switched), none = zone(Kind::none);
  dimmed.least_power = 0;
  const double full = 400 * 10 * 365 / 1000.0;
  EXPECT_NEAR(simulate(none, day).kwh(), full, 1e-6 * full);
  for (const EnergyZone& each : {dimmed, switched})
    EXPECT_NEAR(simulate(each, dark).kwh(), full, 1e-6 * full) << "a sensor in the dark saves nothing";
  EXPECT_LT(simulate(dimmed, day).kwh(), simulate(switched, day).kwh()) << "finer control never uses more";
  EXPECT_LT(simulate(switched, day).kwh(), full);
  double before = simulate(dimmed, day).kwh();
  for (const double target : {400.0, 300.0, 200.0}) {
    dimmed.target_lx = target;
    const double now = simulate(dimmed, day).kwh();
    EXPECT_LT(now, before) << "less asked, less taken";
    before = now;
  }
  dimmed.least_power = 0.1;
  EXPECT_GT(simulate(dimmed, day).kwh(), before) << "what stays on is paid for";
  const ZoneYear year = simulate(dimmed, day);
  EXPECT_NEAR(year.uncontrolled_kwh(), full, 1e-6 * full);
  dimmed.standby_w = 5;
  dimmed.emergency_w = 2;
  EXPECT_NEAR(simulate(dimmed, day).kwh() - year.kwh(), (5 * 14 * 365 + 2 * 8760) / 1000.0, 1e-2);
}

/// One group of 400 W that gives 500 lx on a plane of two points, of which one is at the window.
struct Office {
  space::Space space;
  space::EnergyPlan plan;
  model::ControlWish wish;
  DayHours day;

  explicit Office(bool sensor_at_window) {
    space.groups.resize(1);
    plan.area_m2 = 20;
    plan.day_h = 2250;
    plan.night_h = 250;
    plan.building = "office";
    plan.has_windows = plan.has_weather = true;
    plan.used = zone(model::ControlKind::none).used;
    wish.kind = model::ControlKind::dimmed;
    if (sensor_at_window) wish.sensors = {"window"};
    plan.zones = {{&wish, "all", {0}, 500, {}}};
    if (sensor_at_window) plan.zones[0].sensors = {0};
    space.points.push_back({"window", {{0, 1, 0.8}, Vec3::UnitZ()}});
    for (int h = 0; h < daylight::kHoursOfYear; ++h) day.hours.push_back(h);
    const std::vector<float> lux = daylight_of_year();
    const Eigen::RowVectorXf near =
        Eigen::Map<const Eigen::RowVectorXf>(lux.data(), Eigen::Index(lux.size()));
    day.plane.resize(2, near.size());
    day.plane << near, 0.25f * near;
    day.plane_points = {{0, 1, 0.8}, {0, 5, 0.8}};
    day.points = {near};
  }
};

TEST(RoomEnergy, ASensorAtTheWindowMissesTheTargetAndABetterPlaceIsFound) {
  const Office deep(false), window(true);
  const auto found = [](const Office& office) {
    return room_energy(office.plan, office.space, {{400.0}, {500.0}, {}}, &office.day).energy;
  };
  const RoomEnergy well = found(deep), badly = found(window);
  ASSERT_TRUE(well.hourly && badly.hourly);
  EXPECT_EQ(well.hourly->zones[0].sensors.at(0).at.y(), 5) << "where the plane has least";
  EXPECT_EQ(well.hourly->zones[0].missed_h, 0);
  EXPECT_LT(badly.hourly->kwh, well.hourly->kwh);
  EXPECT_GT(badly.hourly->zones[0].missed_h, 500);
  EXPECT_GT(badly.hourly->zones[0].missed_by_lx, 10);
  ASSERT_TRUE(badly.hourly->zones[0].better);
  EXPECT_EQ(badly.hourly->zones[0].better->at.y(), 5);
  EXPECT_NEAR(badly.hourly->zones[0].better->kwh, well.hourly->kwh, 1e-6);
  for (const RoomEnergy& energy : {well, badly}) {
    double months = 0, days = 0, hours = 0;
    for (const double kwh : energy.hourly->by_month_kwh) months += kwh;
    for (const double kwh : energy.hourly->by_day_kwh) days += kwh;
    for (const int watts : energy.hourly->power_w) hours += watts / 1000.0;
    EXPECT_NEAR(months, energy.hourly->kwh, 1e-6);
    EXPECT_NEAR(days, energy.hourly->kwh, 1e-6);
    EXPECT_NEAR(hours, energy.hourly->kwh, 5) << "whole watts";
    ASSERT_TRUE(energy.estimate && energy.factors);
    EXPECT_LT(energy.estimate->low_kwh, energy.estimate->high_kwh);
    EXPECT_NEAR(energy.factors->leni, 400 * 2500 / 1000.0 / 20, 1e-9) << "no factor is stated";
  }
}

TEST(RoomEnergy, WhatIsMissingIsSaidAndTheEstimateStands) {
  Office office(false);
  const RoomEnergy no_year = room_energy(office.plan, office.space, {{400.0}, {500.0}, {}}, nullptr).energy;
  EXPECT_FALSE(no_year.hourly);
  ASSERT_TRUE(no_year.estimate);
  ASSERT_EQ(no_year.missing.size(), 1u);
  EXPECT_NE(no_year.missing[0].find("[year] with weather"), std::string::npos);
  const RoomEnergy no_watts =
      room_energy(office.plan, office.space, {{std::nullopt}, {500.0}, {}}, &office.day).energy;
  EXPECT_FALSE(no_watts.estimate || no_watts.hourly);
  EXPECT_NE(no_watts.missing.at(0).find("watts"), std::string::npos);
  office.plan.has_windows = false;
  const RoomEnergy inner = room_energy(office.plan, office.space, {{400.0}, {500.0}, {}}, nullptr).energy;
  ASSERT_TRUE(inner.hourly);
  EXPECT_NEAR(inner.hourly->saving(), 0, 1e-9) << "no window, no daylight saving";
}

}  // namespace energy_test
}  // namespace glow::studies
