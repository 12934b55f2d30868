// Boxes about things against looking at each of them.
#include "core/geometry/occluders.hpp"
#include "core/sources/luminaire_inflow.hpp"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <set>

#include "core/geometry/room_shell.hpp"
#include "rooms/furnished_room.hpp"

namespace glow::transport {

using namespace readings;
using namespace sources;
using geometry::Occluders;
namespace occluders_test {

struct PlacedObject {
  Eigen::AlignedBox3d box;
};

class OccludersTest : public testing::TestWithParam<int> {
 protected:
  /// A room with so many boxes.
  OccludersTest() {
    geometry::add_room(geometry_, {{0, 0}, {20, 0}, {20, 10}, {0, 10}}, 4, 0.2, 0.5, 0.7);
    for (int k = 0; k < GetParam(); ++k) {
      const Vec3 low(19 * number(), 9 * number(), 3 * number());
      const Vec3 size(0.1 + 0.8 * number(), 0.1 + 0.8 * number(), 0.1 + 0.8 * number());
      geometry_.add_box(fmt::format(FMT_STRING("box {}"), k), low, low + size, rooms::diffuse(0.5));
      things_.push_back({{low, low + size}});
    }
  }
  double number() { return unit_interval(mixed(7, k_++)); }
  Vec3 spot() {
    const double x = 20 * number(), y = 10 * number();
    return {x, y, 4 * number()};
  }
  /// Whether the line comes within `radius` of the box along each axis, by very many spots on it.
  static bool meets(const PlacedObject& thing, const Vec3& a, const Vec3& b, double radius) {
    constexpr int kSpots = 2000;
    const Vec3 low = thing.box.min().array() - radius, high = thing.box.max().array() + radius;
    for (int k = 0; k <= kSpots; ++k) {
      const Vec3 p = a + double(k) / kSpots * (b - a);
      if ((p.array() >= low.array()).all() && (p.array() <= high.array()).all()) return true;
    }
    return false;
  }

  geometry::Geometry geometry_;
  std::vector<PlacedObject> things_;

 private:
  std::uint64_t k_ = 0;
};

TEST_P(OccludersTest, NothingThatMayHideIsMissedAndLittleElseIsTaken) {
  const Occluders occluders(geometry_);
  EXPECT_EQ(occluders.any(), GetParam() > 0);
  int met = 0, taken = 0;
  for (int line = 0; line < 200; ++line) {
    const Vec3 a = spot(), b = spot();
    const double radius = 0.3 * number();
    std::vector<Occluders::Edge> edges;
    ASSERT_TRUE(occluders.edges_between(a, b, radius, edges));
    std::size_t expected = 0;
    for (const PlacedObject& thing : things_) {
      if (!meets(thing, a, b, radius)) continue;
      ++expected;
      const Vec3 corner = thing.box.min();
      EXPECT_TRUE(std::any_of(edges.begin(), edges.end(), [&](const Occluders::Edge& edge) {
        return (edge.a - corner).norm() < 1e-9 || (edge.b - corner).norm() < 1e-9;
      }));
    }
    EXPECT_TRUE(expected == 0 || occluders.may_block(a, b, radius));
    EXPECT_EQ(occluders.may_block(a, b, radius), !edges.empty());
    EXPECT_EQ(edges.size() % 12, 0u) << "each of a box's edges once";
    met += int(expected);
    taken += int(edges.size() / 12);
  }
  // Spots on the line are so close together that a grazed corner may slip between them.
  EXPECT_GE(taken, met);
  EXPECT_LE(taken, met + met / 50 + 2);
}

INSTANTIATE_TEST_SUITE_P(Boxes, OccludersTest, testing::Values(0, 1, 2, 7, 60));

TEST(Occluders, TooManyEdgesAreNotLookedAtOneByOne) {
  geometry::Geometry geometry;
  geometry::add_room(geometry, {{0, 0}, {20, 0}, {20, 10}, {0, 10}}, 4, 0.2, 0.5, 0.7);
  for (int k = 0; k < 100; ++k)
    geometry.add_box(fmt::format(FMT_STRING("slat {}"), k), {0.15 * k + 1, 4, 1}, {0.15 * k + 1.1, 6, 2},
                     rooms::diffuse(0.5));
  const Occluders occluders(geometry);
  std::vector<Occluders::Edge> edges;
  EXPECT_FALSE(occluders.edges_between({0.5, 5, 1.5}, {19, 5, 1.5}, 0.1, edges));
  EXPECT_TRUE(edges.empty());
  EXPECT_TRUE(occluders.may_block({0.5, 5, 1.5}, {19, 5, 1.5}, 0.1));
  EXPECT_TRUE(occluders.edges_between({0.5, 5, 1.5}, {8, 5, 1.5}, 0.1, edges));
}

}  // namespace occluders_test
}  // namespace glow::transport
