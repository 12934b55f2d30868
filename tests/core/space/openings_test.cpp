// Openings and what hangs before them, what a room looks like from outside, and the clock and sun over it.
#include <gtest/gtest.h>

#include "core/daylight/sky.hpp"
#include "core/daylight/sun.hpp"
#include "core/daylight/sun_hours.hpp"
#include "core/geometry/room_shell.hpp"
#include "core/space/outside/outside.hpp"
#include "core/space/times/moments.hpp"
#include "core/units/clock.hpp"

namespace glow::space {
namespace openings_test {

using geometry::CeilingOpening;
using geometry::Geometry;
using geometry::RoomShell;

/// Areas of all facets along their normals, m2: nothing of what is closed.
Vec3 areas(const Geometry& geometry) {
  Vec3 sum = Vec3::Zero();
  for (const geometry::Facet& facet : geometry.facets())
    if (facet.is_front || facet.back < 0) sum += facet.area() * facet.normal;
  return sum;
}

struct ShellCase {
  const char* name;
  RoomShell shell;
  double roof_m2;  ///< of its roof, seen from above
};

geometry::Polygon rectangle(double x0, double y0, double x1, double y1) {
  return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}

RoomShell shell_of(std::vector<geometry::CeilingPlane> planes, std::vector<geometry::LowerCeiling> steps,
                   const geometry::Polygon& window, std::size_t step) {
  RoomShell shell = RoomShell::flat(rectangle(0, 0, 8, 6), 4, 0.2, 0.5, 0.7);
  if (!planes.empty()) shell.ceiling = std::move(planes);
  shell.steps = std::move(steps);
  CeilingOpening opening;
  opening.over = window;
  opening.step = step;
  opening.name = "roof window";
  opening.has_pane = true;
  opening.pane.diffuse = 0.1;
  shell.roof_openings = {opening};
  return shell;
}

std::vector<ShellCase> shells() {
  const geometry::Polygon window = rectangle(1, 1, 2, 2);
  const geometry::CeilingPlane north{2, {0, 0.5}}, south{5, {0, -0.5}};
  return {{"level", shell_of({}, {}, window, geometry::kNoStep), 48},
          {"shed", shell_of({{2.5, {0.2, 0}}}, {}, window, geometry::kNoStep), 48},
          {"ridge", shell_of({north, south}, {}, window, geometry::kNoStep), 48},
          {"lower part in a corner", shell_of({}, {{rectangle(0, 0, 3, 3), 2.5}}, window, 0), 48},
          {"lower part in the middle",
           shell_of({}, {{rectangle(2, 2, 5, 4), 2.5}}, rectangle(3, 2.5, 4, 3.5), 0), 48},
          {"window beside a lower part",
           shell_of({}, {{rectangle(5, 0, 8, 6), 2.5}}, window, geometry::kNoStep), 48},
          {"lower part under a ridge",
           shell_of({north, south}, {{rectangle(0, 0, 3, 6), 2.2}}, rectangle(1, 2, 2, 3), 0), 48}};
}

/// With a pane in its hole a room is closed, whatever its roof; and so is what is seen of it from outside,
/// but for the ground that it stands on.
TEST(Openings, RoomsWithRoofWindowsAreClosedInsideAndOutside) {
  for (const ShellCase& each : shells()) {
    Geometry inside, outside;
    geometry::add_room(inside, each.shell);
    geometry::add_steps(inside, each.shell);
    EXPECT_LT(areas(inside).norm(), 1e-9) << each.name;
    geometry::add_room_outside(outside, each.shell);
    EXPECT_LT((areas(outside) - Vec3(0, 0, each.roof_m2)).norm(), 1e-9) << each.name;
    const std::vector<Vec3> pane = geometry::opening_corners(each.shell, each.shell.roof_openings.front());
    const Vec3 out = (pane[3] - pane[0]).cross(pane[1] - pane[0]);
    EXPECT_GT(out.z(), 0) << each.name << ": it lets light out upwards";
    EXPECT_NEAR(out.z(), 1, 1e-9) << each.name << ": as large in plan as its hole";
  }
}

TEST(Openings, BarsTakeTheShareThatTheyHide) {
  const Vec2 size(2.1, 1.4);
  for (const daylight::Bars& bars : {daylight::Bars{0.06, 0.04, 3, 2}, daylight::Bars{0.1, 0.1, 1, 1},
                                     daylight::Bars{0, 0.05, 4, 1}, daylight::Bars{}}) {
    constexpr int kPlaces = 700;
    int hidden = 0;
    for (int i = 0; i < kPlaces; ++i)
      for (int j = 0; j < kPlaces; ++j)
        hidden += !bars.is_glass({(i + 0.5) / kPlaces * size.x(), (j + 0.5) / kPlaces * size.y()}, size);
    EXPECT_NEAR(double(hidden) / kPlaces / kPlaces, bars.share(size), 0.004);
  }
}

model::Shade screen(double transmittance, double scattered, const char* state) {
  model::Shade shade;
  shade.transmittance = transmittance;
  shade.scattered_share = scattered;
  shade.state = state;
  return shade;
}

/// Screens act one after the other, each in its state; what one scatters passes the glass from all sides.
TEST(Openings, ScreensTakeTheirShareInTheirStates) {
  Opening opening;
  opening.glazing.at_normal = 0.8;
  opening.screens = {screen(0.5, 0, ""), screen(0.4, 0.25, "down")};
  const daylight::Glazing up = glazing_in(opening, {}), down = glazing_in(opening, {"down", "other"});
  EXPECT_NEAR(up.at_normal, 0.4, 1e-12);
  EXPECT_EQ(up.scattered, 0);
  EXPECT_NEAR(down.at_normal, 0.8 * 0.5 * 0.4 * 0.75, 1e-12);
  EXPECT_NEAR(down.scattered, 0.8 * 0.5 * 0.4 * 0.25, 1e-12);
}

Opening window_of(double width, double height) {
  Opening opening;
  opening.name = "w";
  opening.corners = {{width, 0, 1}, {0, 0, 1}, {0, 0, 1 + height}, {width, 0, 1 + height}};
  opening.outwards = -Vec3::UnitY();
  return opening;
}

/// Overhangs, fins and slats lie where they are said to lie, outside of the wall, seen from both sides.
TEST(Openings, ShadesLieWhereTheyAreSaidTo) {
  using Kind = model::Shade::Kind;
  model::Shade overhang, fins, slats, tilted;
  overhang.kind = Kind::overhang;
  overhang.depth_m = 0.8;
  overhang.gap_m = 0.2;
  overhang.beyond_m = 0.5;
  fins.kind = Kind::fins;
  fins.depth_m = 0.4;
  slats.kind = Kind::horizontal_slats;
  slats.depth_m = 0.1;
  slats.spacing_m = 0.25;
  slats.gap_m = 0.3;
  tilted = slats;
  tilted.tilt_deg = 30;
  struct Expected {
    model::Shade shade;
    std::size_t boards;
    double m2;                 ///< of one side of all of them
    double nearest, farthest;  ///< m from the wall
    double lowest, highest;    ///< m above the floor
  };
  for (const Expected& each :
       {Expected{overhang, 1, 3 * 0.8, 0, 0.8, 2.7, 2.7}, Expected{fins, 2, 2 * 1.5 * 0.4, 0, 0.4, 1, 2.5},
        Expected{slats, 6, 6 * 2 * 0.1, 0.25, 0.35, 1.125, 2.375},
        Expected{tilted, 6, 6 * 2 * 0.1, 0.3 - 0.05 * std::cos(30 * kDegree),
                 0.3 + 0.05 * std::cos(30 * kDegree), 1.1, 2.4}}) {
    std::vector<OutsidePart> parts;
    add_shades(window_of(2, 1.5), {each.shade}, 0, parts);
    ASSERT_EQ(parts.size(), 1u);
    double m2 = 0, nearest = 9, farthest = 0, lowest = 9, highest = 0;
    std::size_t boards = 0;
    for (const geometry::Facet& facet : parts[0].geometry.facets()) {
      EXPECT_GE(facet.back, 0) << "from both sides";
      if (!facet.is_front) continue;
      ++boards;
      m2 += facet.area();
      for (const Vec2& p : facet.vertices) {
        const Vec3 at = facet.at(p);
        nearest = std::min(nearest, -at.y());
        farthest = std::max(farthest, -at.y());
        lowest = std::min(lowest, at.z());
        highest = std::max(highest, at.z());
      }
    }
    EXPECT_EQ(boards, each.boards);
    EXPECT_NEAR(m2, each.m2, 1e-9);
    EXPECT_NEAR(nearest, each.nearest, 1e-9);
    EXPECT_NEAR(farthest, each.farthest, 1e-9);
    EXPECT_NEAR(lowest, each.lowest, 1e-9);
    EXPECT_NEAR(highest, each.highest, 1e-9);
  }
}

/// The sides of a shaft are closed all around and look into it, in however many pieces.
TEST(Openings, RevealsAreWholeInPieces) {
  for (const double depth : {0.1, 0.35, 3.0}) {
    geometry::Geometry outside;
    add_reveal(window_of(1.2, 0.9), depth, 0.6, outside);
    double m2 = 0;
    for (const geometry::Facet& facet : outside.facets()) {
      m2 += facet.area();
      EXPECT_GT(facet.normal.dot(Vec3(0.6, -depth / 2, 1.45) - facet.at(facet.vertices.front())), 0);
    }
    EXPECT_NEAR(m2, 2 * (1.2 + 0.9) * depth, 1e-9);
    EXPECT_LT(areas(outside).norm(), 1e-9);
  }
}

/// Clocks in the north and in the south, on both sides of each change.
TEST(Clock, IsAheadWhileTheRuleSaysSo) {
  const model::SummerTime north{{3, 0, 5, 2}, {10, 0, 5, 3}}, south{{10, 0, 1, 2}, {4, 0, 1, 3}};
  struct At {
    const model::SummerTime& rule;
    int month, day;
    double hour;
    bool ahead, exists, twice;
  };
  for (const At& at :
       {At{north, 1, 10, 12, false, true, false}, At{north, 3, 29, 1.9, false, true, false},
        At{north, 3, 29, 2.5, true, false, false}, At{north, 3, 29, 3, true, true, false},
        At{north, 7, 1, 12, true, true, false}, At{north, 10, 25, 1.9, true, true, false},
        At{north, 10, 25, 2.5, true, true, true}, At{north, 10, 25, 3, false, true, false},
        At{south, 1, 10, 12, true, true, false}, At{south, 4, 5, 2.5, true, true, true},
        At{south, 4, 5, 3, false, true, false}, At{south, 7, 1, 12, false, true, false},
        At{south, 10, 4, 2.2, true, false, false}, At{south, 12, 31, 23.9, true, true, false}}) {
    const ClockReading clock = read_clock(at.rule, 2026, at.month, at.day, at.hour);
    EXPECT_EQ(clock.exists, at.exists) << at.month << "-" << at.day << " " << at.hour;
    EXPECT_EQ(clock.twice, at.twice) << at.month << "-" << at.day << " " << at.hour;
    EXPECT_EQ(clock.exists && clock.ahead, at.exists && at.ahead)
        << at.month << "-" << at.day << " " << at.hour;
  }
  EXPECT_EQ(units::clock_words(8 + 5 / 60.0), "08:05");
  EXPECT_EQ(units::clock_words(23.9999), "00:00");
  EXPECT_EQ(units::clock_words(-0.5), "23:30");
}

/// What is lit while the sun stands in one half of the sky is lit for half of the day; together with the
/// other half, for all of it.
TEST(SunHours, OfBothHalvesAreThoseOfTheDay) {
  daylight::SunDay day;
  day.year = 2025;
  std::tie(day.month, day.day) = std::pair(6, 21);
  std::tie(day.latitude_deg, day.longitude_deg) = std::pair(50.0, 15.0);
  day.time_zone_h = 1;
  const auto east = daylight::lit_intervals(day, [](const Vec3& sun) { return sun.x() > 0; });
  const auto west = daylight::lit_intervals(day, [](const Vec3& sun) { return sun.x() <= 0; });
  const auto all = daylight::lit_intervals(day, [](const Vec3&) { return true; });
  ASSERT_EQ(all.size(), 1u);
  EXPECT_NEAR(daylight::hours_of(east) + daylight::hours_of(west), daylight::hours_of(all), 1e-3);
  EXPECT_NEAR(daylight::hours_of(east), daylight::hours_of(west), 0.02);
  auto together = east;
  together.insert(together.end(), west.begin(), west.end());
  EXPECT_NEAR(daylight::hours_of(daylight::joined(together)), daylight::hours_of(all), 1e-3);
  together.insert(together.end(), all.begin(), all.end());
  EXPECT_NEAR(daylight::hours_of(daylight::joined(together)), daylight::hours_of(all), 1e-3) << "not twice";
  day.latitude_deg = 80;
  EXPECT_NEAR(daylight::hours_of(daylight::lit_intervals(day, [](const Vec3&) { return true; })), 24, 1e-9);
  day.month = 12;
  EXPECT_TRUE(daylight::lit_intervals(day, [](const Vec3&) { return true; }).empty()) << "polar night";
}

/// The level that a sky is made for is what a much finer sum over it gives, low suns included.
TEST(Sky, HasTheHorizontalIlluminanceThatItIsMadeFor) {
  for (const int number : {3, 7, 12, 15})
    for (const double altitude : {3.0, 30.0, 70.0}) {
      const daylight::Sky sky =
          daylight::Sky::general(daylight::general_sky(number), daylight::direction_of(altitude, 120), 10000);
      constexpr int kRings = 400, kSectors = 800;
      double sum = 0;
      for (int i = 0; i < kRings; ++i) {
        const double h = (i + 0.5) / kRings * 90;
        for (int k = 0; k < kSectors; ++k)
          sum += sky.luminance(daylight::direction_of(h, 360.0 * (k + 0.5) / kSectors)) *
                 std::sin(h * kDegree) * std::cos(h * kDegree);
      }
      sum *= (kPi / 2 / kRings) * (2 * kPi / kSectors);
      EXPECT_NEAR(sum, 10000, 3) << number << " " << altitude;
      EXPECT_NEAR(sky.of_zenith(2 * sky.zenith_luminance()).diffuse_lx(), 20000, 1e-6);
    }
}

}  // namespace openings_test
}  // namespace glow::space
