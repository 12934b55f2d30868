#include "store/transport_cache.hpp"
#include "core/sources/luminaire_inflow.hpp"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include "core/transport/content_key.hpp"
#include "rooms/furnished_room.hpp"
#include "temporary_folder.hpp"
#include "test_files.hpp"

namespace glow::store {
namespace transport_cache_test {

namespace fs = std::filesystem;
using test::content_of;
using test::TemporaryFolder;

const std::string kKey = "0123456789abcdef0123456789abcdef";

transport::TracedHits some_hits() {
  transport::TracedHits hits;
  hits.patch_begin = {0, 3, 5};
  hits.of_patches = {1, 1, -1, 0, -2};
  hits.receiver_begin = {0, 2, 4};
  hits.of_receivers = {0, 1, 1, 0};
  return hits;
}

TEST(TransportCache, GivesBackWhatItKept) {
  const TemporaryFolder folder;
  TransportCache cache(folder.path() / "cache");
  EXPECT_FALSE(cache.find(kKey));
  cache.keep(kKey, some_hits());
  const auto found = cache.find(kKey);
  ASSERT_TRUE(found);
  EXPECT_EQ(found->patch_begin, some_hits().patch_begin);
  EXPECT_EQ(found->of_patches, some_hits().of_patches);
  EXPECT_EQ(found->receiver_begin, some_hits().receiver_begin);
  EXPECT_EQ(found->of_receivers, some_hits().of_receivers);
}

TEST(TransportCache, TrustsNothingDamaged) {
  const TemporaryFolder folder;
  TransportCache cache(folder.path());
  cache.keep(kKey, some_hits());
  const std::string good = content_of(folder.path() / (kKey + ".hits"));
  const auto found_with = [&](const std::string& bytes) {
    folder.write(kKey + ".hits", bytes);
    return cache.find(kKey).has_value();
  };
  EXPECT_TRUE(found_with(good));
  for (std::size_t i = 0; i < good.size(); ++i) {
    std::string damaged = good;
    damaged[i] = char(damaged[i] ^ 0x20);
    EXPECT_FALSE(found_with(damaged)) << "byte " << i;
    EXPECT_FALSE(found_with(good.substr(0, i))) << "cut at " << i;
  }
  // Whole, but not what its name says.
  fs::rename(folder.path() / (kKey + ".hits"), folder.path() / "other");
  folder.write("ffff456789abcdef0123456789abcdef.hits", good);
  EXPECT_FALSE(cache.find("ffff456789abcdef0123456789abcdef"));
}

std::string key(int number) {
  return fmt::format(FMT_STRING("{:032}"), number);
}

/// Room for eight entries: nothing larger than an eighth of a cache is kept.
std::uintmax_t room_for_eight(const TemporaryFolder& folder) {
  TransportCache probe(folder.path() / "probe");
  probe.keep(kKey, some_hits());
  return 8 * fs::file_size(folder.path() / "probe" / (kKey + ".hits")) + 7;
}

TEST(TransportCache, DropsWhatOtherRunsUsedLongestAgo) {
  const TemporaryFolder folder;
  const std::uintmax_t most = room_for_eight(folder);
  const fs::path cache = folder.path() / "cache";
  TransportCache first(cache, most);
  for (int k = 0; k < 8; ++k) {
    first.keep(key(k), some_hits());
    fs::last_write_time(cache / (key(k) + ".hits"),
                        fs::file_time_type::clock::now() - std::chrono::hours(20 - k));
  }
  TransportCache second(cache, most);
  EXPECT_TRUE(second.find(key(0)));  // used just now
  second.keep(key(8), some_hits());
  EXPECT_TRUE(second.find(key(0)));
  EXPECT_FALSE(second.find(key(1)));
  EXPECT_TRUE(second.find(key(2)));
  EXPECT_TRUE(second.find(key(8)));
}

/// Of a building larger than the cache the same part is found every time.
TEST(TransportCache, StillHelpsWhenItIsTooSmall) {
  const TemporaryFolder folder;
  const std::uintmax_t most = room_for_eight(folder);
  std::vector<int> found;
  for (int run = 0; run < 3; ++run) {
    TransportCache cache(folder.path() / "cache", most);
    int hits = 0;
    for (int k = 0; k < 20; ++k) {
      if (cache.find(key(k)))
        ++hits;
      else
        cache.keep(key(k), some_hits());
    }
    found.push_back(hits);
  }
  EXPECT_EQ(found, (std::vector<int>{0, 8, 8}));
}

TEST(TransportCache, KeepsManyPatchesInFourBytes) {
  const TemporaryFolder folder;
  TransportCache cache(folder.path());
  transport::TracedHits hits = some_hits();
  hits.patch_begin.assign(40001, 0);
  hits.of_patches = {39999, -1, 33000};
  hits.patch_begin.back() = 3;
  cache.keep(kKey, hits);
  const auto found = cache.find(kKey);
  ASSERT_TRUE(found);
  EXPECT_EQ(found->of_patches, hits.of_patches);
}

/// What was found and does not fit the room is traced anew, written anew, and not said to be reused.
TEST(TransportCache, WhatDoesNotFitIsReplaced) {
  const rooms::TestRoom space = rooms::furnished_room();
  const transport::Transport traced(std::nullopt, space.geometry, space.receivers, {}, {});
  EXPECT_TRUE(traced.traced());
  const transport::Transport known(traced.hits(), space.geometry, space.receivers, {}, {});
  EXPECT_FALSE(known.traced());
  const transport::Transport rejected(some_hits(), space.geometry, space.receivers, {}, {});
  EXPECT_TRUE(rejected.traced());
  EXPECT_EQ(rejected.hits().of_patches, traced.hits().of_patches);
}

TEST(TransportCache, AFolderThatCannotBeMadeIsAsGoodAsNone) {
  const TemporaryFolder folder;
  folder.write("file", "");
  TransportCache cache(folder.path() / "file" / "cache");
  cache.keep(kKey, some_hits());
  EXPECT_FALSE(cache.find(kKey));
}

TEST(ContentKey, DependsOnAllThatHitsDependOnAndOnNothingElse) {
  using transport::content_key;
  const rooms::TestRoom space = rooms::furnished_room();
  const auto key = content_key(space.geometry, space.receivers, {});
  EXPECT_EQ(key.size(), 32u);
  EXPECT_EQ(key, content_key(rooms::furnished_room().geometry, space.receivers, {}));
  auto receivers = space.receivers;
  receivers[3].position.z() += 1e-9;
  EXPECT_NE(key, content_key(space.geometry, receivers, {}));
  transport::Effort effort;
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

TEST(Transport, FromKnownHitsGivesTheSameNumbersAndRefusesForeignOnes) {
  const rooms::TestRoom space = rooms::furnished_room();
  const transport::Effort effort{300, 32, 64, 1};
  const transport::Transport first(space.geometry, space.receivers, effort, Watch{});
  const transport::Transport again(first.hits(), space.geometry, space.receivers, effort, Watch{});
  EXPECT_EQ(sources::relight(first, space.luminaires, {}).interreflected_lx,
            sources::relight(again, space.luminaires, {}).interreflected_lx);
  transport::TracedHits foreign = first.hits();
  foreign.of_patches[7] = 1 << 20;
  EXPECT_FALSE(foreign.fits(first.patches(), space.receivers, effort));
  std::vector<readings::Receiver> more = space.receivers;
  more.push_back(more.front());
  EXPECT_FALSE(first.hits().fits(first.patches(), more, effort));
  more = space.receivers;
  more[3].lean = true;
  EXPECT_FALSE(first.hits().fits(first.patches(), more, effort));
}

}  // namespace transport_cache_test
}  // namespace glow::store
