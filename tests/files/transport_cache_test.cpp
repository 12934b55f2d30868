#include "store/transport_cache.hpp"

#include <fmt/format.h>
#include <gtest/gtest.h>

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

TEST(TransportCache, AFolderThatCannotBeMadeIsAsGoodAsNone) {
  const TemporaryFolder folder;
  folder.write("file", "");
  TransportCache cache(folder.path() / "file" / "cache");
  cache.keep(kKey, some_hits());
  EXPECT_FALSE(cache.find(kKey));
}

}  // namespace transport_cache_test
}  // namespace glow::store
