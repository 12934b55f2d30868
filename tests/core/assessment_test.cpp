// What a computed room reports.
#include <gtest/gtest.h>

#include "core/run/compute_room.hpp"
#include "rooms/written_room.hpp"

namespace glow {
namespace assessment_test {

assess::Assessment assessed(const rooms::WrittenRoom& room) {
  return run::compute_room(room.project, *room.planned, *run::Accuracy::parse("draft"), nullptr, {})
      .record.assessment;
}

TEST(Assessment, AppliesTheMaintenanceFactorOnceAndAddsUpPower) {
  rooms::WrittenRoom f;
  f.place({2, 2});
  f.place({4, 2});
  f.room.task = "circulation.corridor";
  const auto space = f.build();
  ASSERT_TRUE(space);
  ASSERT_TRUE(space);
  const assess::Assessment result = assessed(f);
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
  rooms::WrittenRoom f;
  f.project.schedule[0].photometry = rooms::downlight(0.6, 0.3, 0, false);
  f.place({3, 2});
  const auto space = f.build();
  ASSERT_TRUE(space);
  const assess::Assessment result = assessed(f);
  EXPECT_FALSE(result.power.installed_w);
  EXPECT_EQ(result.status, assess::Status::no_target);
}

}  // namespace assessment_test
}  // namespace glow
