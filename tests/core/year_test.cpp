// A year of daylight in a room: its hours against moments, and what must hold of any year.
#include <gtest/gtest.h>

#include <random>

#include "core/daylight/sky_patches.hpp"
#include "core/daylight/sun.hpp"
#include "core/lighting/year_light.hpp"
#include "core/readings/statistics.hpp"
#include "core/transport/exchange/patch_response.hpp"
#include "core/transport/numerical_error.hpp"
#include "rooms/furnished_room.hpp"

namespace glow::lighting {
namespace year_test {

using space::YearHour;
using space::YearPlan;

/// 5 x 6 x 3 m with two windows in y = 0, the second with slats in a state, and a building opposite.
space::Space room_with_windows() {
  space::Space space;
  space.name = "R";
  geometry::RoomShell shell = geometry::RoomShell::flat({{0, 0}, {5, 0}, {5, 6}, {0, 6}}, 3, 0.2, 0.5, 0.7);
  shell.openings = {{0, {0.5, 1}, {2, 2.5}, "west", {}, false}, {0, {3, 1}, {4.5, 2.5}, "east", {}, false}};
  geometry::add_room(space.geometry, shell);
  geometry::add_room_outside(space.outside, shell);
  for (const geometry::WallOpening& hole : shell.openings) {
    space::Opening opening;
    opening.name = hole.name;
    opening.corners = geometry::opening_corners(shell, hole);
    opening.outwards = -Vec3::UnitY();
    opening.glazing.at_normal = 0.7;
    space.openings.push_back(opening);
  }
  model::Shade screen;
  screen.transmittance = 0.1;
  screen.state = "down";
  space.openings[1].screens = {screen};
  space::OutsidePart opposite;
  opposite.name = "opposite";
  geometry::Material wall;
  wall.diffuse = 0.4;
  opposite.geometry.add_box("opposite", {-6, -14, 0}, {3, -10, 6}, wall);
  space.outside_parts = {opposite};
  space.flat_outside = true;
  return space;
}

std::vector<readings::Receiver> points() {
  std::vector<readings::Receiver> list;
  for (const double y : {0.8, 2.0, 3.5, 5.2})
    for (const double x : {0.7, 2.5, 4.1}) {
      readings::Receiver receiver;
      receiver.position = {x, y, 0.8};
      receiver.normal = Vec3::UnitZ();
      list.push_back(receiver);
    }
  return list;
}

/// Hours at 52 N with skies from overcast to clear, by chance.
YearPlan some_year(int hours, unsigned seed) {
  std::mt19937 dice(seed);
  std::uniform_real_distribution<double> chance(0, 1);
  YearPlan plan;
  plan.levels_lx = {300};
  while (int(plan.hours.size()) < hours) {
    const int day = int(chance(dice) * 365), hour = int(chance(dice) * 24);
    const auto [month, date] = daylight::date_of_day(day);
    const daylight::SunPosition sun =
        daylight::sun_position({daylight::kSunYear, month, date, hour + 0.5}, 52, 0);
    if (sun.altitude_deg < 2) continue;
    const double sine = std::sin(sun.altitude_deg * kDegree);
    const double beam = chance(dice) < 0.4 ? 0 : 850 * std::sqrt(sine) * chance(dice);
    const auto sky =
        daylight::all_weather(sun.altitude_deg, beam, (0.08 + 0.25 * chance(dice)) * 1367 * sine, 1367, 8);
    YearHour own{day * 24 + hour,
                 true,
                 daylight::direction_of(sun.altitude_deg, sun.azimuth_deg),
                 sky->direct_normal_lx,
                 sky->diffuse_lx,
                 sky->shape};
    plan.hours.push_back(own);
    ++plan.used_hours;
  }
  return plan;
}

space::PlannedMoment moment_of(const YearHour& hour) {
  space::PlannedMoment moment;
  moment.sky = daylight::Sky::all_weather(hour.shape, hour.sun, hour.diffuse_lx);
  moment.sun = hour.sun;
  moment.sun_normal_lx = hour.sun_normal_lx;
  return moment;
}

std::vector<std::size_t> all_of(std::size_t count) {
  std::vector<std::size_t> list(count);
  for (std::size_t i = 0; i < count; ++i) list[i] = i;
  return list;
}

TEST(YearLight, HoursEqualMomentsWithinTheStatedUncertainty) {
  const space::Space space = room_with_windows();
  const transport::Transport room(space.geometry, points(), transport::Effort::fine(), {});
  const YearPlan plan = some_year(24, 7);
  const YearLight year(space, room, plan, {}, {});
  const YearLight::Hours hours = year.at(all_of(room.receivers().size()), {});
  const Daylight day(space, room, {}, {});
  int compared = 0, outside = 0;
  for (std::size_t h = 0; h < plan.hours.size(); ++h) {
    const MomentLight moment = day.at(moment_of(plan.hours[h]), {});
    const transport::LightError error(room, moment.light);
    for (std::size_t r = 0; r < room.receivers().size(); ++r) {
      const double lux = moment.light.total_lx(r),
                   other = double(hours.open(Eigen::Index(r), Eigen::Index(h)));
      const transport::Deviations d = error.deviations({{r, 1.0}});
      const double doubt = readings::half_width_95(d.of_sets) + 1.5 * std::abs(d.of_coarse_patches) +
                           moment.light.direct_error_lx[r];
      // The edge of a sun patch is sharp in a year and the sun's disc wide in a moment.
      const bool at_an_edge =
          std::abs(double(hours.sun(Eigen::Index(r), Eigen::Index(h))) - moment.parts[r].sun) > 1;
      if (at_an_edge) continue;
      ++compared;
      outside += std::abs(lux - other) > std::sqrt(2.0) * doubt + 0.003 * lux;
      EXPECT_NEAR(other, lux, 0.06 * lux + 3) << "hour " << plan.hours[h].number << " point " << r;
    }
  }
  EXPECT_GT(compared, 240);
  EXPECT_LE(outside, compared / 20);
}

TEST(YearLight, TheMeanIsThatOfItsHours) {
  const space::Space space = room_with_windows();
  const transport::Transport room(space.geometry, points(), transport::Effort::normal(), {});
  YearPlan plan = some_year(60, 3);
  plan.hours[5].is_used = plan.hours[17].is_used = false;
  plan.used_hours = 100;  // the others are dark
  plan.blinds.states = {"down"};
  plan.blinds.sun_lx = 2000;
  plan.blinds.share = 0.05;
  const auto all = all_of(room.receivers().size());
  const YearLight year(space, room, plan, all, {});
  ASSERT_TRUE(year.has_blinds());
  EXPECT_GT(year.hours_down().front(), 3);
  const YearLight::Hours hours = year.at(all, {});
  const MomentLight mean = year.mean({});
  for (std::size_t r = 0; r < all.size(); ++r) {
    double sum = 0;
    for (std::size_t h = 0; h < plan.hours.size(); ++h)
      if (plan.hours[h].is_used) sum += double(hours.used(Eigen::Index(r), Eigen::Index(h)));
    EXPECT_NEAR(mean.light.total_lx(r), sum / 100, 0.02 * sum / 100) << r;
  }
  EXPECT_TRUE((hours.used.array() <= hours.open.array() * 1.0001f + 0.01f).all()) << "a screen adds no light";
  const auto changed = (hours.open - hours.used).colwise().norm();
  int moved = 0;
  for (Eigen::Index h = 0; h < changed.size(); ++h) moved += changed[h] > 0.1f;
  EXPECT_GE(moved, year.hours_down().front()) << "where they are down they take light";
}

TEST(YearLight, DoublesWithTheSkyAndIsNothingWithoutWindows) {
  space::Space space = room_with_windows();
  const transport::Transport room(space.geometry, points(), transport::Effort::draft(), {});
  YearPlan plan = some_year(6, 5), twice = plan;
  for (YearHour& hour : twice.hours) {
    hour.diffuse_lx *= 2;
    hour.sun_normal_lx *= 2;
  }
  const auto all = all_of(room.receivers().size());
  const auto once = YearLight(space, room, plan, {}, {}).at(all, {});
  const auto doubled = YearLight(space, room, twice, {}, {}).at(all, {});
  EXPECT_LT((doubled.open - 2 * once.open).norm(), 1e-4f * doubled.open.norm());
  space.openings.clear();
  EXPECT_EQ(YearLight(space, room, plan, {}, {}).at(all, {}).open.norm(), 0);
}

TEST(PatchResponse, AnswersAsTheBalanceDoesWithPanesThatScatter) {
  geometry::RoomShell shell = geometry::RoomShell::flat({{0, 0}, {4, 0}, {4, 3}, {0, 3}}, 2.7, 0.2, 0.5, 0.7);
  geometry::Material pane;
  pane.diffuse = 0.2;
  pane.scattering = 0.4;
  pane.clear = 0.1;
  shell.openings = {{0, {1, 1}, {3, 2}, "window", pane, true}};
  geometry::Geometry geometry;
  geometry::add_room(geometry, shell);
  const transport::Transport room(geometry, {}, transport::Effort::draft(), {});
  const Eigen::Index n = Eigen::Index(room.patches().size());
  Eigen::MatrixXf onto = Eigen::MatrixXf::Zero(n, 3);
  for (Eigen::Index i = 0; i < n; ++i) onto(i, 0) = float(room.patches().patches()[std::size_t(i)].area_m2);
  for (std::size_t i = 0; i < std::size_t(n); ++i)
    if (room.patches().patches()[i].other_side >= 0) onto(Eigen::Index(i), 1) = 1;
  onto(n / 2, 2) = 5;
  for (const bool corrected : {false, true}) {
    const Eigen::MatrixXf found =
        transport::PatchResponse(room.patches(), room.exchange(), corrected).leaving(onto, {});
    const transport::LightBalance balance(room.patches(), room.exchange());
    for (Eigen::Index c = 0; c < 3; ++c) {
      double residual = 0;
      const Eigen::VectorXd direct = onto.col(c).cast<double>(), lux = balance.solve(direct, residual);
      const Eigen::VectorXd expected = corrected ? balance.leaving(direct, lux, room.exchange().reflectance)
                                                 : transport::exitance(room.exchange(), room.patches(), lux);
      // The balance leaves nothing darker than none.
      EXPECT_LT((found.col(c).cwiseMax(0.0f).cast<double>() - expected).norm(), 3e-3 * expected.norm())
          << corrected << c;
    }
  }
}

/// Of the luminances, all patches together.
double off_by(const std::vector<double>& quick, const daylight::SkyPatches& patches,
              const daylight::Sky& sky) {
  double off = 0, norm = 0;
  for (std::size_t p = 0; p < patches.size(); ++p) {
    const double exact = patches.luminance(sky, p);
    off += std::pow(quick[p] - exact, 2);
    norm += exact * exact;
  }
  return std::sqrt(off / norm);
}

TEST(SkyPatches, QuicklyAreTheSameSky) {
  const daylight::SkyPatches patches;
  EXPECT_LT(off_by(patches.luminances(daylight::Sky::uniform(1e4)), patches, daylight::Sky::uniform(1e4)),
            1e-6);
  EXPECT_LT(off_by(patches.luminances(daylight::Sky::overcast(1e4)), patches, daylight::Sky::overcast(1e4)),
            1e-6);
  for (int number = 1; number <= 15; ++number)
    for (const double altitude : {2.0, 35.0, 90.0}) {
      const double h = altitude * kDegree;
      const Vec3 sun(0.6 * std::cos(h), -0.8 * std::cos(h), std::sin(h));
      const daylight::Sky sky = daylight::Sky::general(daylight::general_sky(number), sun, 2e4);
      EXPECT_LT(off_by(patches.luminances(sky), patches, sky), 1e-4) << number << " " << altitude;
    }
  for (const YearHour& hour : some_year(12, 11).hours) {
    const daylight::Sky sky = daylight::Sky::all_weather(hour.shape, hour.sun, hour.diffuse_lx);
    EXPECT_LT(off_by(patches.luminances(sky), patches, sky), 2e-4);
    std::vector<float> own_scale(patches.size());
    patches.all_weather(hour.shape, hour.sun, hour.diffuse_lx, own_scale.data());
    EXPECT_LT(off_by({own_scale.begin(), own_scale.end()}, patches, sky), 4e-3);
  }
}

TEST(YearPlan, HoursOfUseGoByTheClock) {
  model::UseHours use;
  use.periods[0].days = {false, true, true, true, true, true, false};
  model::Site site;
  const int monday = 24, noon = 12;  // 1 January is a Sunday
  EXPECT_FALSE(space::is_used(use, site, 0, noon));
  EXPECT_TRUE(space::is_used(use, site, 0, monday + 8));
  EXPECT_FALSE(space::is_used(use, site, 0, monday + 7));
  EXPECT_FALSE(space::is_used(use, site, 0, monday + 18));
  EXPECT_EQ(space::to_words(use), "Monday to Friday 08:00 to 18:00");
  site.summer_time = model::SummerTime{{3, 0, 5, 2}, {10, 0, 5, 3}};
  const int july = daylight::hour_of_year(7, 3, 1);  // a Monday
  EXPECT_TRUE(space::is_used(use, site, 0, july + 7)) << "8:00 to 9:00 by the clock";
  EXPECT_FALSE(space::is_used(use, site, 0, july + 17));
  int hours = 0;
  for (int h = 0; h < daylight::kHoursOfYear; ++h) hours += space::is_used(use, site, 0, h);
  EXPECT_EQ(hours, 260 * 10);
  // 2 January is a Monday; a holiday past New Year, and mornings of Saturdays that no holiday touches.
  use.periods[0].holidays = {{358, 6}, {121, 121}};
  model::UseHours::Period saturday;
  saturday.days = {false, false, false, false, false, false, true};
  saturday.to_h = 12;
  use.periods.push_back(saturday);
  EXPECT_FALSE(space::is_used(use, site, 0, monday + 9));
  EXPECT_TRUE(space::is_used(use, site, 0, monday + 7 * 24 + 9));
  EXPECT_TRUE(space::is_used(use, site, 0, 6 * 24 + 9)) << "a Saturday in the holiday of others";
  EXPECT_FALSE(space::is_used(use, site, 0, 120 * 24 + 9)) << "1 May, a Monday";
  EXPECT_EQ(space::to_words(use),
            "Monday to Friday 08:00 to 18:00, 15 days of holiday; Saturday 08:00 to 12:00");
}

}  // namespace year_test
}  // namespace glow::lighting
