// Runs that are kept: whole or not at all, never overwritten, damage told.
#include "store/kept_runs.hpp"

#include <gtest/gtest.h>
#include <sqlite3.h>

#include <thread>

#include "store/packed_bytes.hpp"
#include "temporary_folder.hpp"

namespace glow::store {
namespace kept_runs_test {

using test::TemporaryFolder;

KeptRun run_of(const std::string& name, bool named = true) {
  KeptRun run;
  run.name = name;
  run.named = named;
  run.made_at = 1'700'000'000;
  run.met = 2;
  run.judged = 3;
  run.rooms = {{"Hall", {{"the room", "aa"}, {"luminaire P1", "bb"}}}};
  return run;
}

std::vector<KeptFile> files_of(const std::string& text) {
  return {{"p.toml", text}, {"lamp.ies", std::string(5000, 'x')}, {kKeptResults, "{" + text + "}"}};
}

void run_sql(const std::filesystem::path& file, const char* sql) {
  sqlite3* handle = nullptr;
  ASSERT_EQ(sqlite3_open(file.c_str(), &handle), SQLITE_OK);
  EXPECT_EQ(sqlite3_exec(handle, sql, nullptr, nullptr, nullptr), SQLITE_OK);
  sqlite3_close(handle);
}

TEST(KeptRuns, ComeBackAsTheyWereAndAreNeverOverwritten) {
  const TemporaryFolder folder;
  KeptRuns runs(folder.path() / "runs.db");
  EXPECT_TRUE(runs.keep(run_of("wide"), files_of("one"), 0));
  EXPECT_FALSE(runs.keep(run_of("wide"), files_of("two"), 0));
  std::string fault;
  const auto files = runs.files("wide", fault);
  ASSERT_TRUE(files && files->size() == 3) << fault;
  EXPECT_EQ((*files)[0].name, "p.toml");
  EXPECT_EQ((*files)[0].bytes, "one");
  EXPECT_EQ((*files)[1].bytes, std::string(5000, 'x'));
  EXPECT_EQ(*runs.file("wide", kKeptResults, fault), "{one}");
  const auto list = runs.list();
  ASSERT_EQ(list.size(), 1u);
  EXPECT_EQ(list[0].met, 2u);
  EXPECT_EQ(list[0].rooms.at(0).inputs.at(1).print, "bb");
  EXPECT_TRUE(list[0].damage.empty());
  EXPECT_FALSE(runs.files("narrow", fault));
}

TEST(KeptRuns, UnnamedOnesBeyondTheNumberGoAndNamedOnesStay) {
  const TemporaryFolder folder;
  KeptRuns runs(folder.path() / "runs.db");
  EXPECT_TRUE(runs.keep(run_of("mine"), files_of("mine"), 2));
  for (int k = 0; k < 5; ++k)
    EXPECT_TRUE(runs.keep(run_of(runs.free_name(), false), files_of(std::to_string(k)), 2));
  std::vector<std::string> names;
  for (const KeptRun& run : runs.list()) names.push_back(run.name);
  EXPECT_EQ(names, (std::vector<std::string>{"mine", "run 5", "run 6"}));
  std::string fault;
  EXPECT_TRUE(runs.files("mine", fault));
  EXPECT_TRUE(runs.drop("mine"));
  EXPECT_FALSE(runs.drop("mine"));
  EXPECT_TRUE(runs.files("run 6", fault));  // what they share is still there
}

TEST(KeptRuns, DamagedEntriesAreNamedAndTheOthersStayUsable) {
  const TemporaryFolder folder;
  const auto file = folder.path() / "runs.db";
  {
    KeptRuns runs(file);
    EXPECT_TRUE(runs.keep(run_of("a"), files_of("one"), 0));
    EXPECT_TRUE(runs.keep(run_of("b"), files_of("two"), 0));
    EXPECT_TRUE(runs.keep(run_of("c"), files_of("three"), 0));
  }
  run_sql(file, "UPDATE runs SET summary = '{}' WHERE name = 'a'");
  run_sql(
      file,
      "UPDATE blobs SET bytes = x'00' WHERE key = (SELECT key FROM files WHERE run = 2 AND name = 'p.toml')");
  KeptRuns runs(file);
  const auto list = runs.list();
  ASSERT_EQ(list.size(), 3u);
  EXPECT_FALSE(list[0].damage.empty());
  EXPECT_TRUE(list[1].damage.empty() && list[2].damage.empty());
  std::string fault;
  EXPECT_FALSE(runs.files("b", fault));
  EXPECT_EQ(fault, "its file \"p.toml\" is damaged");
  EXPECT_TRUE(runs.files("c", fault));
}

TEST(KeptRuns, SeveralMayKeepAtOnce) {
  const TemporaryFolder folder;
  const auto file = folder.path() / "runs.db";
  std::vector<std::thread> threads;
  for (int t = 0; t < 4; ++t)
    threads.emplace_back([&, t] {
      for (int k = 0; k < 5; ++k) {
        KeptRuns runs(file);
        EXPECT_TRUE(runs.keep(run_of(std::to_string(t) + "-" + std::to_string(k)), files_of("x"), 0));
      }
    });
  for (std::thread& thread : threads) thread.join();
  EXPECT_EQ(KeptRuns(file).list().size(), 20u);
}

TEST(KeptRuns, AFileThatIsNoDatabaseIsSaid) {
  const TemporaryFolder folder;
  folder.write("runs.db", std::string(4096, 'z'));
  try {
    KeptRuns runs(folder.path() / "runs.db");
    FAIL() << "was opened";
  } catch (const DatabaseError& error) {
    EXPECT_TRUE(error.damaged());
  }
}

TEST(PackedBytes, AreWholeAgainOrNothing) {
  for (const std::string& bytes : {std::string(), std::string("a"), std::string(100000, 'q')}) {
    const std::string packed = packed_bytes(bytes);
    EXPECT_EQ(unpacked_bytes(packed, bytes.size()), bytes);
    EXPECT_FALSE(unpacked_bytes(packed, bytes.size() + 1));
  }
  EXPECT_FALSE(unpacked_bytes("no zlib at all", 10));
}

}  // namespace kept_runs_test
}  // namespace glow::store
