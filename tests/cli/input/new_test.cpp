// A first project file from one line, or from a few answers.
#include "cli/run_program.hpp"

namespace glow::cli {
namespace new_test {

const std::string kOffice = "--room Store 4x3 --task storage.store-room --mark D2=photometry/quillon-d2.ies";

TEST(New, WritesAFileThatIsReadyToRunAndNeverOverwrites) {
  const TemporaryFolder folder;
  write_project(folder);
  const Ran made = run(folder, "new store.toml " + kOffice + " --arrange");
  ASSERT_EQ(made.code, 0) << made.err;
  EXPECT_TRUE(says(made.err, "Written: store.toml. Next: glowgrid run store.toml")) << made.err;
  EXPECT_FALSE(says(made.err, "warning") || says(made.err, "error")) << made.err;
  const std::string text = content_of(folder.path() / "store.toml");
  EXPECT_TRUE(says(text, "arrange = {}") && says(text, "size = [4, 3]") && says(text, "Quillon Kestrel"))
      << text;
  const Ran ran = run(folder, "run store.toml --strict -q");
  EXPECT_EQ(ran.code, 0) << ran.out;
  EXPECT_TRUE(says(ran.out, "Store") && says(ran.out, "met")) << ran.out;
  EXPECT_EQ(run(folder, "new store.toml " + kOffice).code, 2);
  EXPECT_EQ(content_of(folder.path() / "store.toml"), text);
}

TEST(New, GuessesAnArrayByFluxAndNamesFilesFromTheProject) {
  const TemporaryFolder folder;
  write_project(folder);
  std::filesystem::create_directory(folder.path() / "sub");
  const Ran made =
      run(folder,
          "new sub/p.toml --room \"Long \\\"room\\\"\" 12x3x3 --task circulation.corridor --mark "
          "\"P 1=photometry/tarnfell-p1.ldt\"");
  ASSERT_EQ(made.code, 0) << made.err;
  const std::string text = content_of(folder.path() / "sub/p.toml");
  EXPECT_TRUE(says(text, "file = \"../photometry/tarnfell-p1.ldt\"") && says(text, "files_outside = true") &&
              says(text, "mounting = \"suspended\"") && says(text, "array = { rows = 1, columns = 2 }"))
      << text;
  EXPECT_EQ(run(folder, "check sub/p.toml -q").code, 0);
}

TEST(New, ACupboardHasAPlaneToReadAndOtherUnitsAreWrittenOut) {
  const TemporaryFolder folder;
  write_project(folder);
  const std::string rest = " --task storage.store-room --mark D2=photometry/quillon-d2.ies";
  EXPECT_EQ(run(folder, "new c.toml --room C \"1000mm x 3 ft x 2.5\"" + rest).code, 0);
  EXPECT_TRUE(says(content_of(folder.path() / "c.toml"), "work_plane = { inset = 0.1 }"));
  EXPECT_EQ(run(folder, "check c.toml -q").code, 0);
}

TEST(New, AsksOnATerminalUntilAnAnswerWillDo) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("answers",
               "Hall\n10x\n8x6x4\nstore-room store\nnone.ies\nphotometry/quillon-d2.ies\nperhaps\nyes\n");
  const std::string command = "cd '" + folder.path().string() +
                              "' && script -qec \"'" GLOWGRID_PROGRAM
                              "' new t.toml\" /dev/null < answers > asked 2>&1";
  ASSERT_EQ(std::system(command.c_str()), 0) << content_of(folder.path() / "asked");
  const std::string text = content_of(folder.path() / "t.toml");
  EXPECT_TRUE(says(text, "name = \"Hall\"") && says(text, "size = [8, 6]") &&
              says(text, "storage.store-room") && says(text, "arrange = {}"))
      << text << content_of(folder.path() / "asked");
}

struct Fault {
  const char* name;
  const char* words;
  const char* says;
};
class NewFaults : public testing::TestWithParam<Fault> {};

TEST_P(NewFaults, AreToldAndNothingIsWritten) {
  const TemporaryFolder folder;
  write_project(folder);
  const Ran ran = run(folder, std::string("new p.toml ") + GetParam().words);
  EXPECT_EQ(ran.code, 2) << ran.out;
  EXPECT_TRUE(says(ran.err, GetParam().says)) << ran.err;
  EXPECT_FALSE(std::filesystem::exists(folder.path() / "p.toml"));
}

INSTANTIATE_TEST_SUITE_P(
    Each, NewFaults,
    testing::Values(
        Fault{"no_options", "", "--room takes a name and a size"},
        Fault{"size", "--room A 3x --task circulation.corridor --mark D2=photometry/quillon-d2.ies",
              "the size is \"3x\"; expected 6x4x2.8"},
        Fault{"no_task", "--room A 3x3 --mark D2=photometry/quillon-d2.ies", "what is done in the room?"},
        Fault{"several_tasks", "--room A 3x3 --task corridor --mark D2=photometry/quillon-d2.ies",
              "circulation.corridor"},
        Fault{"no_file", "--room A 3x3 --task circulation.corridor --mark D2=none.ies",
              "there is no file \"none.ies\""},
        Fault{"no_mark", "--room A 3x3 --task circulation.corridor --mark D2", "given as MARK=FILE"}),
    [](const auto& each) { return std::string(each.param.name); });

}  // namespace new_test
}  // namespace glow::cli
