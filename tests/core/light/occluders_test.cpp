// Boxes about things against looking at each of them.
#include "core/geometry/occluders.hpp"
#include "core/sources/luminaire_inflow.hpp"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <array>
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
  /// Whether the line comes within a distance of the box along each axis, by very many spots on it; the
  /// distance grows from `at_a` to `at_b`.
  static bool meets(const PlacedObject& thing, const Vec3& a, const Vec3& b, double at_a, double at_b) {
    constexpr int kSpots = 2000;
    for (int k = 0; k <= kSpots; ++k) {
      const double t = double(k) / kSpots, radius = at_a + t * (at_b - at_a);
      const Vec3 p = a + t * (b - a);
      if ((p.array() >= thing.box.min().array() - radius).all() &&
          (p.array() <= thing.box.max().array() + radius).all())
        return true;
    }
    return false;
  }
  /// Edges of the box between a side that is seen and one that is not.
  static std::set<std::array<double, 6>> outline(const PlacedObject& thing, const Vec3& eye) {
    const auto seen = [&](int axis, bool high) {
      return high ? eye[axis] > thing.box.max()[axis] : eye[axis] < thing.box.min()[axis];
    };
    std::set<std::array<double, 6>> edges;
    for (int along = 0; along < 3; ++along) {
      const int u = (along + 1) % 3, v = (along + 2) % 3;
      for (const bool at_u : {false, true})
        for (const bool at_v : {false, true}) {
          if (seen(u, at_u) == seen(v, at_v)) continue;
          Vec3 a = thing.box.min(), b;
          if (at_u) a[u] = thing.box.max()[u];
          if (at_v) a[v] = thing.box.max()[v];
          b = a;
          b[along] = thing.box.max()[along];
          edges.insert(known_by(a, b));
        }
    }
    return edges;
  }
  static std::array<double, 6> known_by(const Vec3& a, const Vec3& b) {
    const Vec3 low = a.cwiseMin(b), high = a.cwiseMax(b);
    std::array<double, 6> ends;
    for (int axis = 0; axis < 3; ++axis) {
      ends[std::size_t(axis)] = std::round(1e7 * low[axis]);
      ends[std::size_t(axis + 3)] = std::round(1e7 * high[axis]);
    }
    return ends;
  }

  geometry::Geometry geometry_;
  std::vector<PlacedObject> things_;

 private:
  std::uint64_t k_ = 0;
};

TEST_P(OccludersTest, NothingThatMayHideIsMissedAndLittleElseIsTaken) {
  const Occluders occluders(geometry_);
  EXPECT_EQ(occluders.any(), GetParam() > 0);
  std::size_t met = 0, taken = 0;
  int blocked = 0, wanted = 0;
  for (int line = 0; line < 200; ++line) {
    const Vec3 a = spot(), b = spot();
    const double radius = 0.3 * number();
    std::vector<Occluders::Edge> edges;
    ASSERT_TRUE(occluders.edges_between(a, {b, radius}, edges));
    std::set<std::array<double, 6>> known;
    for (const Occluders::Edge& edge : edges)
      EXPECT_TRUE(known.insert(known_by(edge.a, edge.b)).second) << "twice";
    taken += known.size();
    const double other = 0.3 * number();  // radius at the near end, where lines come from a ball
    bool any = false;
    for (const PlacedObject& thing : things_) {
      any = any || meets(thing, a, b, other, radius);
      if (!meets(thing, a, b, 0, radius)) continue;
      const std::set<std::array<double, 6>> outline = OccludersTest::outline(thing, a);
      EXPECT_TRUE(std::includes(known.begin(), known.end(), outline.begin(), outline.end()));
      met += outline.size();
    }
    EXPECT_TRUE(!any || occluders.may_block({a, other}, {b, radius}));
    blocked += occluders.may_block({a, other}, {b, radius});
    wanted += any;
  }
  // Spots on the line are so close together that a grazed corner may slip between them.
  EXPECT_GE(taken, met);
  EXPECT_LE(taken, met + met / 30 + 12);
  EXPECT_LE(blocked, wanted + wanted / 30 + 2);
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
  EXPECT_FALSE(occluders.edges_between({0.5, 5, 1.5}, {{19, 5, 1.5}, 0.1}, edges));
  EXPECT_TRUE(edges.empty());
  EXPECT_TRUE(occluders.may_block({{0.5, 5, 1.5}}, {{19, 5, 1.5}, 0.1}));
  EXPECT_TRUE(occluders.edges_between({0.5, 5, 1.5}, {{8, 5, 1.5}, 0.1}, edges));
}

}  // namespace occluders_test
}  // namespace glow::transport
