#include "files/output/output_folder.hpp"

#include <gtest/gtest.h>

#include <fstream>

#include "temporary_folder.hpp"
#include "test_files.hpp"

namespace glow::files {
namespace output_folder_test {

namespace fs = std::filesystem;

using test::TemporaryFolder;

std::size_t entries(const fs::path& folder) {
  return std::size_t(
      std::distance(fs::recursive_directory_iterator(folder), fs::recursive_directory_iterator()));
}

TEST(OutputFolder, NothingIsThereBeforeTheCommit) {
  const TemporaryFolder folder;
  const fs::path target = folder.path() / "out";
  {
    OutputFolder output(target);
    output.write("grids/a.csv", "x\n");
    EXPECT_FALSE(fs::exists(target / "grids"));
  }
  EXPECT_FALSE(fs::exists(target));  // abandoned: leaves no trace
}

TEST(OutputFolder, SaysWhyItCannotWrite) {
  const TemporaryFolder folder;
  folder.write("file", "x");
  EXPECT_THROW(OutputFolder(folder.path() / "file"), OutputError);
  EXPECT_THROW(OutputFolder(folder.path() / "file" / "below"), OutputError);
  EXPECT_EQ(entries(folder.path()), 1u);
}

/// Where one file cannot be put in place, the run before is whole again.
TEST(OutputFolder, ACommitThatFailsPutsTheEarlierRunBack) {
  const TemporaryFolder folder;
  const fs::path target = folder.path() / "out";
  {
    OutputFolder output(target);
    for (const char* name : {"a.csv", "b.csv", "results.json"}) output.write(name, "before");
    output.commit({});
  }
  fs::remove(target / "b.csv");
  folder.write("out/b.csv/in-the-way", "x");
  {
    OutputFolder output(target);
    for (const char* name : {"a.csv", "b.csv", "results.json"}) output.write(name, "after");
    EXPECT_THROW(output.commit({"stale.csv"}), OutputError);
  }
  EXPECT_EQ(test::content_of(target / "a.csv"), "before");
  EXPECT_EQ(test::content_of(target / "results.json"), "before");
  EXPECT_EQ(entries(target), 4u);  // and what is in the way
}

TEST(OutputFolder, HasOneWriterAndSweepsWhatADeadOneLeft) {
  const TemporaryFolder folder;
  folder.write("out/.unfinished-1/figures/x.svg", "x");
  folder.write("out/mine", "x");
  {
    const OutputFolder output(folder.path() / "out");
    EXPECT_FALSE(fs::exists(folder.path() / "out/.unfinished-1"));
    EXPECT_THROW(OutputFolder(folder.path() / "out"), OutputError);
  }
  EXPECT_NO_THROW(OutputFolder(folder.path() / "out"));
  EXPECT_EQ(entries(folder.path() / "out"), 1u);
}

/// An empty folder of the user's, and a link to one, are there afterwards.
TEST(OutputFolder, LeavesTheUsersFolderAndLink) {
  const TemporaryFolder folder;
  fs::create_directory(folder.path() / "real");
  fs::create_directory_symlink("real", folder.path() / "link");
  for (const char* name : {"real", "link"}) {
    OutputFolder given_up(folder.path() / name);
  }
  EXPECT_TRUE(fs::is_symlink(folder.path() / "link"));
  EXPECT_TRUE(fs::is_directory(folder.path() / "real"));
}

}  // namespace output_folder_test
}  // namespace glow::files
