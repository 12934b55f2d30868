// The shelf: what is kept of photometric files between two looks.
#include <gtest/gtest.h>
#include <sqlite3.h>

#include <thread>

#include "store/shelf.hpp"
#include "temporary_folder.hpp"
#include "test_files.hpp"

namespace glow::store {
namespace shelf_store_test {

namespace fs = std::filesystem;

/// A shelf of three good files and a bad one, with the store beside it.
class ShelfStore : public testing::Test {
 protected:
  ShelfStore() {
    for (const char* name : {"e01-panel.ldt", "e02-pendant.ldt", "i03-downlight-1991.ies"})
      folder.write(std::string("shelf/deep/") + name, valid(name));
    folder.write("shelf/bad.IES", "IESNA:LM-63-2002\nnothing follows\n");
    folder.write("shelf/notes.txt", "not for us");
  }

  static std::string valid(const std::string& name) {
    return test::content_of(test::test_data("photometry/valid/" + name));
  }
  fs::path database() const { return folder.path() / "cache" / "shelf.sqlite"; }
  fs::path file(const std::string& name) const { return folder.path() / "shelf" / name; }
  Shelf look() const { return look_at_shelf({(folder.path() / "shelf").string()}, database(), {}); }
  /// After so long files count as settled.
  static void settle() { std::this_thread::sleep_for(std::chrono::milliseconds(2100)); }

  void expect_whole(const Shelf& shelf, const std::string& about) const {
    ASSERT_EQ(shelf.entries.size(), 3u) << about;
    EXPECT_EQ(shelf.refusals.size(), 1u) << about;
    EXPECT_EQ(shelf.entries[1].facts.name, look_once().entries[1].facts.name) << about;
    EXPECT_EQ(shelf.entries[0].facts.values, look_once().entries[0].facts.values) << about;
  }
  /// Without a store.
  Shelf look_once() const { return look_at_shelf({(folder.path() / "shelf").string()}, {}, {}); }

  const test::TemporaryFolder folder;
};

TEST_F(ShelfStore, IsReadOnceAndKeptWordForWord) {
  const Shelf first = look();
  expect_whole(first, "first look");
  EXPECT_EQ(first.fresh, 4u);
  EXPECT_NE(first.refusals[0].reason.find("TILT"), std::string::npos) << first.refusals[0].reason;
  settle();
  look();
  const Shelf second = look();
  EXPECT_EQ(second.fresh, 0u);
  expect_whole(second, "second look");
  EXPECT_EQ(second.refusals[0].reason, first.refusals[0].reason);
  for (std::size_t i = 0; i < 3; ++i) {
    EXPECT_EQ(second.entries[i].file, first.entries[i].file);
    EXPECT_EQ(second.entries[i].facts.values, first.entries[i].facts.values);
    EXPECT_EQ(second.entries[i].facts.distribution, first.entries[i].facts.distribution);
    EXPECT_EQ(second.entries[i].facts.kind, first.entries[i].facts.kind);
    EXPECT_EQ(second.entries[i].findings, first.entries[i].findings);
  }
}

TEST_F(ShelfStore, NoticesChangedAndDeletedFiles) {
  look();
  settle();
  look();
  // Of the same length, and with its old time put back: the change is in the inode's own time.
  std::string other = valid("e01-panel.ldt");
  const auto before = fs::last_write_time(file("deep/e01-panel.ldt"));
  other.replace(other.find("Fellside"), 8, "Hillside");
  folder.write("shelf/deep/e01-panel.ldt", other);
  fs::last_write_time(file("deep/e01-panel.ldt"), before);
  fs::remove(file("deep/e02-pendant.ldt"));
  folder.write("shelf/new.ies", valid("i03-downlight-1991.ies"));
  const Shelf shelf = look();
  ASSERT_EQ(shelf.entries.size(), 3u);
  EXPECT_NE(shelf.entries[0].facts.name.find("Hillside"), std::string::npos) << shelf.entries[0].facts.name;
  EXPECT_EQ(shelf.gone, 1u);
  EXPECT_EQ(shelf.fresh, 2u);
  EXPECT_EQ(shelf.entries[1].facts.values, shelf.entries[2].facts.values) << "the same content at two places";
  EXPECT_EQ(look().gone, 0u);
}

TEST_F(ShelfStore, ReadsWhatHangsOnAnotherFileEveryTime) {
  folder.write("shelf/tilted.ies", valid("i33-tilt-file.ies"));
  folder.write("shelf/quillon-400.tlt", valid("quillon-400.tlt"));
  look();
  settle();
  look();
  EXPECT_EQ(look().entries.size(), 4u);
  folder.write("shelf/quillon-400.tlt", "no tilt data\n");
  const Shelf shelf = look();
  EXPECT_EQ(shelf.entries.size(), 3u);
  EXPECT_EQ(shelf.refusals.size(), 2u);
}

TEST_F(ShelfStore, IsMadeAnewWhenDamaged) {
  look();
  settle();
  look();
  const std::string sound = test::content_of(database());
  ASSERT_GT(sound.size(), 8192u);
  std::string flipped = sound;
  for (std::size_t i = 4096 + 700; i < flipped.size(); i += 997) flipped[i] = char(flipped[i] ^ 0x55);
  const std::string damages[] = {"not a database, but long enough to look at",
                                 sound.substr(0, sound.size() / 2), sound.substr(0, 5000),
                                 std::string(sound.size(), '\0'), flipped};
  for (const std::string& damage : damages) {
    folder.write("cache/shelf.sqlite", damage);
    const Shelf shelf = look();
    expect_whole(shelf, damage.substr(0, 10));
    EXPECT_EQ(shelf.why_not_kept, "");
    look();
    EXPECT_EQ(look().fresh, 0u) << "sound again";
  }
}

/// What SQLite itself would not see: a value that is another one.
TEST_F(ShelfStore, NoticesAValueThatWasTamperedWith) {
  look();
  settle();
  look();
  sqlite3* handle = nullptr;
  ASSERT_EQ(sqlite3_open(database().c_str(), &handle), SQLITE_OK);
  ASSERT_EQ(sqlite3_exec(handle, "UPDATE contents SET flux_lm = 7", nullptr, nullptr, nullptr), SQLITE_OK);
  sqlite3_close(handle);
  expect_whole(look(), "tampered");
}

TEST_F(ShelfStore, IsDoneWithoutWhereItCannotBe) {
  folder.write("file", "");
  const Shelf shelf =
      look_at_shelf({(folder.path() / "shelf").string()}, folder.path() / "file" / "shelf.sqlite", {});
  expect_whole(shelf, "no folder");
  EXPECT_NE(shelf.why_not_kept, "");
}

TEST_F(ShelfStore, ServesSeveralAtOnce) {
  for (int i = 0; i < 40; ++i)
    folder.write("shelf/more" + std::to_string(i) + ".ldt",
                 valid("e01-panel.ldt") + std::string(std::size_t(i), ' '));
  std::vector<Shelf> shelves(4);
  std::vector<std::thread> threads;
  for (Shelf& shelf : shelves) threads.emplace_back([&] { shelf = look(); });
  for (std::thread& thread : threads) thread.join();
  for (const Shelf& shelf : shelves) {
    EXPECT_EQ(shelf.entries.size(), 43u);
    EXPECT_EQ(shelf.why_not_kept, "");
  }
}

TEST_F(ShelfStore, TellsEachPathOnceAndThoseThatAreNotThere) {
  const std::string root = (folder.path() / "shelf").string();
  const Shelf shelf =
      look_at_shelf({root, root + "/deep", root + "/deep/e01-panel.ldt", root + "/none"}, database(), {});
  EXPECT_EQ(shelf.entries.size(), 3u);
  ASSERT_EQ(shelf.refusals.size(), 2u);
  EXPECT_NE(shelf.refusals[1].file.find("none"), std::string::npos);
}

}  // namespace shelf_store_test
}  // namespace glow::store
