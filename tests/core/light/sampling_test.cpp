#include "core/transport/tracing/sampling.hpp"
#include "core/sources/luminaire_inflow.hpp"

#include <gtest/gtest.h>

namespace glow::transport {

using namespace readings;
using namespace sources;
namespace sampling_test {

TEST(DirectionTable, BlocksFollowTheirKernel) {
  // Mean direction and mean squares under each kernel, in closed form.
  struct Expected {
    Kernel kernel;
    Vec3 mean, squares;
  };
  const Expected all[] = {{Kernel::plane, {0, 0, 2.0 / 3}, {0.25, 0.25, 0.5}},
                          {Kernel::cylinder, {0, 0, 0}, {0.375, 0.375, 0.25}},
                          // sin^2 (1 + cos a): mean of sin is 8 / (3 pi), of cos a 1/2, of cos^2 a 1/2.
                          {Kernel::semicylinder, {4 / (3 * kPi), 0, 0}, {0.375, 0.375, 0.25}},
                          {Kernel::hemisphere, {0, 0, 1.0 / 3}, {1.0 / 3, 1.0 / 3, 1.0 / 3}},
                          {Kernel::sphere, {0, 0, 0}, {1.0 / 3, 1.0 / 3, 1.0 / 3}}};
  for (const Expected& expected : all)
    for (const int size : {16, 32, 64, 128}) {
      const DirectionTable& table = DirectionTable::of(expected.kernel, size);
      ASSERT_EQ(table.size(), size);
      for (std::uint64_t b = 0; b < DirectionTable::kBlocks; ++b) {
        Vec3 sum = Vec3::Zero(), squares = Vec3::Zero();
        for (std::size_t i = 0; i < std::size_t(size); ++i) {
          const Vec3f d(table.block(b)[0][i], table.block(b)[1][i], table.block(b)[2][i]);
          EXPECT_NEAR(d.norm(), 1, 1e-5);
          sum += d.cast<double>();
          squares += d.cast<double>().cwiseAbs2();
        }
        EXPECT_NEAR((sum / size - expected.mean).norm(), 0, 2.0 / size + 0.01);
        EXPECT_NEAR((squares / size - expected.squares).norm(), 0, 2.0 / size + 0.01);
      }
    }
}

TEST(HemisphereFrame, StandsOnItsNormal) {
  for (const Vec3& normal : {Vec3(0, 0, 1), Vec3(0, 0, -1), Vec3(1, 0, 0), Vec3(0.6, -0.48, 0.64)}) {
    const HemisphereFrame frame(normal, mixed(1, 2));
    const geometry::RayBlock::Coordinates along_z = {{{0}, {0}, {1}}};
    geometry::RayBlock::Coordinates turned;
    frame.world(along_z, 1, turned);
    EXPECT_NEAR((Vec3(turned[0][0], turned[1][0], turned[2][0]) - normal).norm(), 0, 1e-6);
    EXPECT_NEAR(frame.x.cross(frame.y).dot(frame.z), 1, 1e-6);
  }
}

TEST(EvenPoints, FillTheSquareEvenlyWhateverTheShift) {
  constexpr std::uint32_t kCount = 1024;
  for (const auto& shift : {Eigen::Vector2f(0, 0), Eigen::Vector2f(0.37f, 0.91f)}) {
    int in_cell[16] = {};
    std::array<float, kCount> s, t;
    EvenPoints::table().shifted(EvenPoints::kLength, kCount, shift, s.data(), t.data());
    for (std::size_t i = 0; i < kCount; ++i) {
      ASSERT_TRUE(std::min(s[i], t[i]) >= 0 && std::max(s[i], t[i]) <= 1);
      ++in_cell[4 * std::min(3, int(4 * t[i])) + std::min(3, int(4 * s[i]))];
    }
    for (const int count : in_cell) EXPECT_NEAR(count, kCount / 16.0, 6);
  }
}

}  // namespace sampling_test
}  // namespace glow::transport
