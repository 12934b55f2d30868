// From what was written to a room that can be computed: heights, positions, doubts; and what a computed room
// reports.
#include "core/space/build_space.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/run/compute_room.hpp"

#include <gtest/gtest.h>

namespace glow::space {
namespace {

using photometry::LuminousShape;

/// A cosine downlight of 1000 lm and 10 W with the given luminous size.
std::shared_ptr<const photometry::Photometry> downlight(double c0, double c90, double high,
                                                        bool with_watts = true) {
  std::vector<double> gammas, candela;
  for (int g = 0; g <= 90; g += 5) {
    gammas.push_back(g);
    candela.push_back(1000 / kPi * std::max(0.0, std::cos(g * kDegree)));
  }
  photometry::Photometry p{"EULUMDAT",
                           "",
                           "Quillon",
                           "Test",
                           "",
                           "",
                           {},
                           false,
                           1000.0,
                           {},
                           {},
                           {},
                           photometry::Symmetry::rotational,
                           photometry::IntensityTable({0}, gammas, candela),
                           {LuminousShape::rectangle, c0, c90, {high, high, high, high}},
                           {}};
  if (with_watts) p.watts = 10.0;
  return std::make_shared<const photometry::Photometry>(std::move(p));
}

struct Fixture {
  model::Project project;
  model::Room room;
  standards::RequirementTable table{{}};
  Problems problems;

  Fixture() {
    project.schedule.emplace_back();
    project.schedule.back().mark = "P1";
    project.schedule.back().photometry = downlight(0.6, 0.3, 0.1);
    room.name = "Kiln store";
    room.outline = {{0, 0}, {6, 0}, {6, 4}, {0, 4}};
    room.height_m = 3;
    room.maintenance_factor = 0.8;
    standards::Requirement floor;
    floor.standard = "EN 12464-1";
    floor.key = "circulation.corridor";
    floor.em_lx = 100;
    floor.uo = 0.4;
    floor.plane_height_m = 0;
    table = standards::RequirementTable({floor});
  }
  model::LuminairePlacement& place(const Vec2& at) {
    model::LuminairePlacement placement;
    placement.mark = "P1";
    placement.at = at;
    room.luminaires.push_back(placement);
    return room.luminaires.back();
  }
  std::optional<Space> build() {
    planned = build_space(project, room, {table}, problems);
    return planned ? std::optional(planned->space) : std::nullopt;
  }
  record::RoomRecord compute() {
    return run::compute_room(project, *planned, *run::Accuracy::parse("draft"), nullptr, {}).record;
  }
  std::optional<PlannedRoom> planned;
  bool told(const std::string& code) const {
    for (const Problem& p : problems.all())
      if (p.code == code) return true;
    return false;
  }
};

struct Mounting {
  std::optional<double> mounting_height, suspension;
  double middle;  ///< expected height of the middle of the luminous area, 0.1 m high
};

TEST(Space, HangsTheLuminousAreaAtItsLowerSide) {
  for (const Mounting& m :
       {Mounting{{}, {}, 2.95}, Mounting{2.5, {}, 2.55}, Mounting{{}, 0.4, 2.65}, Mounting{0.0, {}, 0.05}}) {
    Fixture f;
    auto& placement = f.place({3, 2});
    placement.mounting_height_m = m.mounting_height;
    placement.suspension_m = m.suspension;
    const auto space = f.build();
    ASSERT_TRUE(space);
    EXPECT_NEAR(space->groups[0].luminaires[0].frame.origin.z(), m.middle, 1e-12);
  }
}

TEST(Space, TakesThePlaneFromTheTaskUnlessOneIsGiven) {
  Fixture f;
  f.place({3, 2});
  EXPECT_DOUBLE_EQ(f.build()->work_plane()->plane.origin.z(), 0.8);  // neither
  f.room.task = "circulation.corridor";
  EXPECT_DOUBLE_EQ(f.build()->work_plane()->plane.origin.z(), 0);
  f.room.work_plane.height_m = 1.2;
  EXPECT_DOUBLE_EQ(f.build()->work_plane()->plane.origin.z(), 1.2);
}

TEST(Space, WarnsOfWhatWouldMakeTheResultDoubtful) {
  Fixture dark;
  EXPECT_TRUE(dark.build());
  EXPECT_TRUE(dark.told("P020"));  // no luminaires
  Fixture wall;
  wall.place({0.2, 2});  // 0.6 m wide, 0.2 m from the wall
  EXPECT_TRUE(wall.build());
  EXPECT_TRUE(wall.told("P025"));
  Fixture pitch;
  pitch.room.luminaires.push_back({});
  pitch.room.luminaires[0].mark = "P1";
  pitch.room.luminaires[0].array = model::Array{3, 5, {}, {}};  // 1.2 m apart along x
  pitch.room.work_plane.spacing_m = 1.25;                       // 4 cells of 1.25 m over 5 m
  EXPECT_TRUE(pitch.build());
  EXPECT_FALSE(pitch.told("P022"));
  pitch.room.work_plane.inset_m = 0.0;
  pitch.room.work_plane.spacing_m = 1.2;  // 5 cells of 1.2 m over 6 m
  EXPECT_TRUE(pitch.build());
  EXPECT_TRUE(pitch.told("P022"));
}

TEST(Space, RotationIsCounterClockwiseFromAbove) {
  Fixture f;
  f.place({3, 2}).rotation_deg = 90;
  const auto space = f.build();
  const geometry::Frame& frame = space->groups[0].luminaires[0].frame;
  EXPECT_NEAR((frame.c0 - Vec3::UnitY()).norm(), 0, 1e-12);
  EXPECT_NEAR((frame.c90 + Vec3::UnitX()).norm(), 0, 1e-12);
  EXPECT_NEAR((frame.c0.cross(frame.c90) + frame.g0).norm(), 0, 1e-12);
}

TEST(Assessment, AppliesTheMaintenanceFactorOnceAndAddsUpPower) {
  Fixture f;
  f.place({2, 2});
  f.place({4, 2});
  f.room.task = "circulation.corridor";
  const auto space = f.build();
  ASSERT_TRUE(space);
  ASSERT_TRUE(space);
  const assess::Assessment result = f.compute().assessment;
  const assess::GridReading& grid = result.grids.at(0);
  EXPECT_NEAR(grid.statistics.mean_lx, 0.8 * grid.initial.mean_lx, 1e-9);
  for (std::size_t i = 0; i < grid.total_lx.size(); ++i)
    EXPECT_DOUBLE_EQ(grid.total_lx[i], grid.direct_lx[i] + grid.interreflected_lx[i]);
  EXPECT_DOUBLE_EQ(*result.power.installed_w, 20);
  EXPECT_DOUBLE_EQ(*result.power.w_per_m2, 20.0 / 24);
  EXPECT_DOUBLE_EQ(*result.power.w_per_m2_100lx, 20.0 / 24 / (grid.statistics.mean_lx / 100));
  EXPECT_EQ(result.checks.size(), 2u);
  EXPECT_EQ(result.status == assess::Status::met, result.checks[0].verdict == standards::Verdict::met &&
                                                      result.checks[1].verdict == standards::Verdict::met);
  // The total flux on the floor and above it is what the luminaires give: no more than 2000 lm over 24 m2
  // directly.
  EXPECT_LT(readings::statistics(grid.direct_lx).mean_lx, 0.8 * 2000 / (5 * 3));
}

TEST(Assessment, UnknownWattsStayUnknown) {
  Fixture f;
  f.project.schedule[0].photometry = downlight(0.6, 0.3, 0, false);
  f.place({3, 2});
  const auto space = f.build();
  ASSERT_TRUE(space);
  const assess::Assessment result = f.compute().assessment;
  EXPECT_FALSE(result.power.installed_w);
  EXPECT_EQ(result.status, assess::Status::no_target);
}

}  // namespace
}  // namespace glow::space
