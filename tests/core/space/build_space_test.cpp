// From what was written to a room that can be computed: heights, positions, doubts.
#include "core/space/build_space.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/space/outside/outside.hpp"

#include <gtest/gtest.h>

#include "rooms/written_room.hpp"

namespace glow::space {
namespace build_space_test {

using photometry::LuminousShape;
using rooms::downlight;
using Fixture = rooms::WrittenRoom;

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

TEST(Space, ObstructionsKeepTheirFinish) {
  model::Obstruction mill;
  mill.object.name = "mill";
  mill.object.shape = model::ObjectShape::block;
  mill.object.outline = {{-6, -24}, {16, -24}, {16, -15}, {-6, -15}};
  mill.object.top_m = 11;
  mill.object.finish.material.diffuse = 0.37;
  model::Site site;
  site.obstructions = {mill, mill};
  Problems problems;
  const std::vector<OutsidePart> parts = place_obstructions(site, 0, Space(), problems);
  ASSERT_EQ(parts.size(), 2u);
  for (const OutsidePart& part : parts) {
    ASSERT_FALSE(part.geometry.surfaces().empty());
    for (const geometry::Surface& surface : part.geometry.surfaces())
      EXPECT_EQ(surface.material.diffuse, 0.37) << surface.name;
  }
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

}  // namespace build_space_test
}  // namespace glow::space
