#include "core/transport/sampling.hpp"

#include <gtest/gtest.h>

#include "core/transport/hit_tally.hpp"

namespace glow::transport {
namespace {

TEST(HemisphereDirections, FollowTheCosineLawInEveryBlock) {
  // Under the cosine law the mean of z is 2/3, of z^2 1/2 and of x^2 and y^2 1/4 each.
  for (std::uint64_t b = 0; b < HemisphereDirections::kBlocks; ++b) {
    Vec3 sum = Vec3::Zero(), squares = Vec3::Zero();
    for (const Vec3f& d : HemisphereDirections::table().block(b)) {
      EXPECT_NEAR(d.norm(), 1, 1e-6);
      EXPECT_GT(d.z(), 0);
      sum += d.cast<double>();
      squares += d.cast<double>().cwiseAbs2();
    }
    const double n = HemisphereDirections::kBlockSize;
    EXPECT_NEAR(sum.z() / n, 2.0 / 3, 0.005) << b;
    EXPECT_NEAR(sum.head<2>().norm() / n, 0, 0.02) << b;
    EXPECT_NEAR((squares / n - Vec3(0.25, 0.25, 0.5)).norm(), 0, 0.02) << b;
  }
}

TEST(HemisphereFrame, StandsOnItsNormal) {
  for (const Vec3& normal : {Vec3(0, 0, 1), Vec3(0, 0, -1), Vec3(1, 0, 0), Vec3(0.6, -0.48, 0.64)}) {
    const HemisphereFrame frame(normal, mixed(1, 2));
    EXPECT_NEAR((frame.world({0, 0, 1}).cast<double>() - normal).norm(), 0, 1e-6);
    EXPECT_NEAR(frame.x.cross(frame.y).dot(frame.z), 1, 1e-6);
  }
}

TEST(SpreadPoints, FillTheSquareEvenlyWhateverTheShift) {
  constexpr std::uint32_t kCount = 1024;
  for (const auto& shift : {Eigen::Vector2f(0, 0), Eigen::Vector2f(0.37f, 0.91f)}) {
    int in_cell[16] = {};
    for (std::uint32_t i = 0; i < kCount; ++i) {
      const Eigen::Vector2f p = SpreadPoints::table().shifted(i, shift);
      ASSERT_TRUE(p.minCoeff() >= 0 && p.maxCoeff() <= 1);
      ++in_cell[4 * std::min(3, int(4 * p.y())) + std::min(3, int(4 * p.x()))];
    }
    for (const int count : in_cell) EXPECT_NEAR(count, kCount / 16.0, 6);
  }
}

TEST(HitTally, ListsByRisingPatchAndEmptiesItself) {
  HitTally& tally = HitTally::of_this_thread(200);
  for (const int patch : {130, 3, 64, 3, 199, 63, 3}) tally.add(patch);
  std::vector<std::pair<int, int>> found;
  const auto keep = [&](std::int32_t patch, std::int32_t hits) { found.emplace_back(patch, hits); };
  tally.take(keep);
  EXPECT_EQ(found, (std::vector<std::pair<int, int>>{{3, 3}, {63, 1}, {64, 1}, {130, 1}, {199, 1}}));
  found.clear();
  tally.take(keep);
  EXPECT_TRUE(found.empty());
}

}  // namespace
}  // namespace glow::transport
