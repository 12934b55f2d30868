// Rays that were traced before: what they depend on, and what they are good for.
#include <gtest/gtest.h>

#include "core/sources/luminaire_inflow.hpp"
#include "core/transport/content_key.hpp"
#include "core/transport/transport.hpp"
#include "rooms/furnished_room.hpp"

namespace glow::transport {
namespace known_hits_test {

/// What was found and does not fit the room is traced anew, written anew, and not said to be reused.
TEST(KnownHits, ThatDoNotFitAreReplaced) {
  const rooms::TestRoom space = rooms::furnished_room();
  const Transport traced(std::nullopt, space.geometry, space.receivers, {}, {});
  EXPECT_TRUE(traced.traced());
  const Transport known(traced.hits(), space.geometry, space.receivers, {}, {});
  EXPECT_FALSE(known.traced());
  TracedHits others;
  others.patch_begin = {0, 3, 5};
  others.of_patches = {1, 1, -1, 0, -2};
  others.receiver_begin = {0, 2, 4};
  others.of_receivers = {0, 1, 1, 0};
  const Transport rejected(others, space.geometry, space.receivers, {}, {});
  EXPECT_TRUE(rejected.traced());
  EXPECT_EQ(rejected.hits().of_patches, traced.hits().of_patches);
}

TEST(ContentKey, DependsOnAllThatHitsDependOnAndOnNothingElse) {
  const rooms::TestRoom space = rooms::furnished_room();
  const auto key = content_key(space.geometry, space.receivers, {});
  EXPECT_EQ(key.size(), 32u);
  EXPECT_EQ(key, content_key(rooms::furnished_room().geometry, space.receivers, {}));
  auto receivers = space.receivers;
  receivers[3].position.z() += 1e-9;
  EXPECT_NE(key, content_key(space.geometry, receivers, {}));
  Effort effort;
  effort.seed = 2;
  EXPECT_NE(key, content_key(space.geometry, space.receivers, effort));
  geometry::Geometry more = space.geometry;
  more.add_box("crate", {4, 1, 0}, {4.5, 1.5, 0.4}, rooms::diffuse(0.3));
  geometry::Geometry renamed = space.geometry, brighter = space.geometry;
  renamed.add_box("chest", {4, 1, 0}, {4.5, 1.5, 0.4}, rooms::diffuse(0.3));
  brighter.add_box("crate", {4, 1, 0}, {4.5, 1.5, 0.4}, rooms::diffuse(0.31));
  EXPECT_NE(key, content_key(more, space.receivers, {}));
  EXPECT_EQ(content_key(more, space.receivers, {}), content_key(renamed, space.receivers, {}));
  EXPECT_NE(content_key(more, space.receivers, {}), content_key(brighter, space.receivers, {}));
}

TEST(KnownHits, GiveTheSameNumbersAndForeignOnesAreRefused) {
  const rooms::TestRoom space = rooms::furnished_room();
  const Effort effort{300, 32, 64, 1};
  const Transport first(space.geometry, space.receivers, effort, Watch{});
  const Transport again(first.hits(), space.geometry, space.receivers, effort, Watch{});
  EXPECT_EQ(sources::relight(first, space.luminaires, {}).interreflected_lx,
            sources::relight(again, space.luminaires, {}).interreflected_lx);
  TracedHits foreign = first.hits();
  foreign.of_patches[7] = 1 << 20;
  EXPECT_FALSE(foreign.fits(first.patches(), space.receivers, effort));
  std::vector<readings::Receiver> more = space.receivers;
  more.push_back(more.front());
  EXPECT_FALSE(first.hits().fits(first.patches(), more, effort));
  more = space.receivers;
  more[3].lean = true;
  EXPECT_FALSE(first.hits().fits(first.patches(), more, effort));
}

}  // namespace known_hits_test
}  // namespace glow::transport
