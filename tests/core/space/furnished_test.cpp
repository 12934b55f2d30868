// Furnished spaces drawn at random, against a slow path tracer that shares nothing with the program's
// transport but the description of the space.
#include <gtest/gtest.h>

#include "core/photometry/placed_luminaire.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "rooms/path_tracer.hpp"
#include "rooms/random_scene.hpp"

namespace glow::transport {

using namespace readings;
using namespace sources;
namespace furnished_test {

constexpr int kPaths = 60000;
constexpr double kOwn = 0.012;  // what a normal calculation may be off at one point

class FurnishedTest : public testing::TestWithParam<unsigned> {};

TEST_P(FurnishedTest, AgreesWithAnIndependentPathTracer) {
  const rooms::TestRoom space = rooms::random_scene(GetParam());
  const Transport transport(space.geometry, space.receivers, Effort{}, Watch{});
  const GroupLight light = sources::relight(transport, space.luminaires, {});
  const FluxBalance& b = light.balance;
  EXPECT_NEAR(b.absorbed_lm + b.escaped_lm + b.lost_lm, b.emitted_lm, 1e-3 * b.emitted_lm);
  const rooms::EveryTriangle first_met(space.geometry);
  rooms::PathTracer tracer(space, first_met, GetParam());
  for (std::size_t r = 0; r < space.receivers.size(); ++r) {
    const rooms::Estimate expected = rooms::estimate(tracer, space.receivers[r], kPaths);
    const double ours = light.direct_lx[r] + light.interreflected_lx[r];
    EXPECT_NEAR(ours, expected.mean, kOwn * expected.mean + 3.5 * expected.standard_error + 0.05)
        << "receiver " << r << ", direct " << light.direct_lx[r];
  }
}

INSTANTIATE_TEST_SUITE_P(Scenes, FurnishedTest, testing::Range(1u, 13u));

}  // namespace furnished_test
}  // namespace glow::transport
