#include "core/space/objects/placed_objects.hpp"

#include <gtest/gtest.h>

#include "core/space/objects/clashes.hpp"

namespace glow::space {
namespace placed_objects_test {

using model::Object;
using model::ObjectShape;

constexpr double kCeiling = 2.8;

Object thing(const std::string& kind, const Vec3& at, const Vec3& size) {
  Object object;
  object.name = kind;
  object.kind = kind;
  object.shape = ObjectShape::furniture;
  object.at = at;
  object.size = size;
  object.thickness_m = 0.03;
  object.leg_m = 0.05;
  object.shelves = 3;
  return object;
}

std::vector<PlacedObject> placed(const std::vector<Object>& objects) {
  return place_objects(objects, [](const Vec2&) { return kCeiling; });
}

TEST(Things, ReachAsFarAsTheirSizeSaysAndHaveTheirFaces) {
  struct Case {
    const char *kind, *usual;
    Vec3 size;
    std::size_t solids;
  };
  for (const Case& c :
       {Case{"table", "top", {1.6, 0.8, 0.74}, 5}, Case{"desk", "top", {1.6, 0.8, 0.74}, 4},
        Case{"bench", "top", {2, 0.7, 0.9}, 8}, Case{"shelf rack", "front", {1, 0.4, 2}, 5},
        Case{"cabinet", "front", {1, 0.45, 2}, 1}, Case{"board", "front", {2.4, 0.03, 1.2}, 1},
        Case{"partition", "front", {2, 0.05, 1.6}, 1}, Case{"platform", "top", {2, 1, 0.2}, 1}}) {
    const Object object = thing(c.kind, {1, 2, 0.5}, c.size);
    const PlacedObject t = placed({object}).at(0);
    EXPECT_EQ(t.solids.size(), c.solids) << c.kind;
    EXPECT_NEAR(t.extent.top_m, 0.5 + c.size.z(), 1e-9) << c.kind;
    const geometry::Box2 box = geometry::bounding_box(t.extent.plan);
    EXPECT_TRUE(box.low.isApprox(Vec2(1, 2))) << c.kind;
    EXPECT_TRUE(box.size().isApprox(c.size.xy())) << c.kind;
    ASSERT_TRUE(t.face("")) << c.kind;
    EXPECT_EQ(t.face("")->name, c.usual) << c.kind;
    for (const Face& face : t.faces) {
      // Every face looks away from the middle of the thing it belongs to.
      Vec3 middle(box.low.x() + c.size.x() / 2, box.low.y() + c.size.y() / 2, 0.5 + c.size.z() / 2);
      if (face.name == "bottom" || face.name.rfind("shelf", 0) == 0)
        continue;  // of the slab, not of the whole
      const Vec3 normal = (face.corners[1] - face.corners[0]).cross(face.corners[2] - face.corners[0]);
      EXPECT_GT(normal.dot(face.corners[0] - middle), 0) << c.kind << " " << face.name;
    }
  }
}

TEST(Things, RowsAreNumberedAlongTheirOwnAxesAndColumnsReachTheCeiling) {
  Object bench = thing("bench", {1, 1, 0}, {2, 0.7, 0.9});
  bench.rotation_deg = 90;
  bench.repeat = model::Repeat{2, 2, {2.5, 3}};
  const auto benches = placed({bench});
  ASSERT_EQ(benches.size(), 4u);
  EXPECT_EQ(benches[3].name, "bench 4");
  EXPECT_EQ(benches[3].base, "bench");
  // Along is now +y, across is -x.
  EXPECT_TRUE(geometry::bounding_box(benches[1].extent.plan).low.isApprox(Vec2(0.3, 3.5), 1e-9));
  EXPECT_TRUE(geometry::bounding_box(benches[2].extent.plan).low.isApprox(Vec2(-2.7, 1), 1e-9));
  Object column = thing("column", {3, 3, 0}, {0.4, 0.4, 0});
  const PlacedObject round = placed({column}).at(0);
  EXPECT_NEAR(round.extent.top_m, kCeiling, 1e-12);
  EXPECT_NEAR(geometry::signed_area(round.extent.plan), kPi * 0.04, 1e-9);  // the circle's own area
}

struct ClashCase {
  std::vector<Object> objects;
  const char* code;  // empty: nothing is wrong
  const char* words;
};

TEST(Clashes, AreToldWithNamesAndPlaces) {
  const geometry::RoomShell shell =
      geometry::RoomShell::flat({{0, 0}, {6, 0}, {6, 5}, {0, 5}}, kCeiling, 0.2, 0.5, 0.7);
  const Object table = thing("table", {2, 2, 0}, {1.6, 0.8, 0.74});
  Object box = thing("cabinet", {2.2, 2.2, 0}, {0.5, 0.4, 0.6});  // under the table top, between its legs
  Object tall = thing("cabinet", {2.2, 2.2, 0}, {0.5, 0.4, 1.6});
  const ClashCase cases[] = {
      {{table, box}, "", ""},
      {{table, tall}, "P045", "\"table\" and \"cabinet\" stand inside each other"},
      {{thing("board", {1, 4.96, 0.9}, {2.4, 0.03, 1.2})}, "", ""},  // on the wall, nearly
      {{thing("board", {1, 3, 0.9}, {2.4, 0.03, 1.2})}, "P046", "\"board\" floats"},
      {{table, thing("cabinet", {2.1, 2.1, 0.74}, {0.5, 0.4, 0.6})}, "", ""},  // stands on the table
      {{thing("cabinet", {2, 2, kCeiling - 0.6}, {1, 1, 0.6})}, "", ""},       // hangs from the ceiling
      {{thing("cabinet", {5.5, 2, 0}, {1, 0.4, 2})}, "P037", "\"cabinet\" sticks out of \"Store\" at (6.50"},
      {{thing("cabinet", {2, 2, 0}, {1, 0.4, 3})}, "P037", "sticks out"},
  };
  for (const ClashCase& c : cases) {
    Problems problems;
    find_clashes("Store", shell, placed(c.objects), problems);
    ASSERT_EQ(problems.all().size(), *c.code ? 1u : 0u) << c.code << c.words;
    if (!*c.code) continue;
    EXPECT_EQ(problems.all()[0].code, c.code);
    EXPECT_NE(to_string(problems.all()[0]).find(c.words), std::string::npos) << to_string(problems.all()[0]);
  }
  Problems problems;
  const auto meetings = find_clashes(
      "Store", shell,
      placed({thing("cabinet", {0, 0, 0}, {1, 0.4, 2}), thing("bed", {1, 0, 0}, {2, 0.9, 0.5})}), problems);
  ASSERT_EQ(meetings.size(), 3u);
  EXPECT_EQ(meetings[0].object + "/" + meetings[0].other, "cabinet/");
  EXPECT_EQ(meetings[1].object + "/" + meetings[1].other, "cabinet/bed");
  EXPECT_EQ(meetings[2].object + "/" + meetings[2].other, "bed/");
}

}  // namespace placed_objects_test
}  // namespace glow::space
