// Figures made again from results, by the built program.
#include "cli/run_program.hpp"

namespace glow::cli {
namespace draw_test {

namespace fs = std::filesystem;

/// A folder with small.toml and its results, computed once.
const TemporaryFolder& computed() {
  static const TemporaryFolder folder;
  static const bool done = [] {
    write_small_room(folder);
    return run(folder, "run small.toml -q --accuracy draft").code == 0;
  }();
  EXPECT_TRUE(done);
  return folder;
}

std::set<std::string> files_in(const fs::path& folder) {
  std::set<std::string> names;
  if (fs::exists(folder))
    for (const auto& entry : fs::directory_iterator(folder)) names.insert(entry.path().filename().string());
  return names;
}

TEST(Draw, GivesTheSameBytesAsTheRunAndEveryFigure) {
  const TemporaryFolder& folder = computed();
  const fs::path figures = folder.path() / "small-results/figures";
  const std::set<std::string> by_run = files_in(figures);
  const Ran ran = run(folder, "draw small.toml -f svg -o again --threads 1");
  ASSERT_EQ(ran.code, 0) << ran.err;
  EXPECT_EQ(ran.err, "");
  const std::set<std::string> again = files_in(folder.path() / "again");
  for (const char* name : {"office--work-plane.svg", "office--work-plane--columns.svg", "office--floor.svg",
                           "office--ceiling.svg", "office--walls--sheet.svg", "office--room--sheet.svg",
                           "office--table-1-top.svg", "office--table-2-top.svg",
                           "office--display-board-front.svg", "office--display-board-front--columns.svg"})
    EXPECT_EQ(again.count(name), 1u) << name;
  int compared = 0;
  for (const std::string& name : by_run) {
    if (name.find(".svg") == std::string::npos) continue;
    EXPECT_EQ(content_of(figures / name), content_of(folder.path() / "again" / name)) << name;
    ++compared;
  }
  EXPECT_GE(compared, 5);
}

TEST(Draw, MakesTheFormatsThatAreAskedForAndOnlyTheFiguresThatAreNamed) {
  const TemporaryFolder& folder = computed();
  const Ran ran = run(folder, "draw small-results --only COLUMNS -f png,pdf,script -o three");
  ASSERT_EQ(ran.code, 0) << ran.err;
  std::set<std::string> expected;
  for (const char* grid : {"work-plane", "table-1-top", "table-2-top", "display-board-front"})
    for (const char* suffix : {".png", ".pdf", ".gp", ".dat"})
      expected.insert(std::string("office--") + grid + "--columns" + suffix);
  EXPECT_EQ(files_in(folder.path() / "three"), expected);
  EXPECT_EQ(content_of(folder.path() / "three/office--work-plane--columns.pdf").substr(0, 5), "%PDF-");
  const Ran none = run(folder, "draw small-results/results.json --only kitchen");
  EXPECT_EQ(none.code, 2);
  EXPECT_TRUE(says(none.err, "no figure is called kitchen; there are:\n  project--status")) << none.err;
}

TEST(Draw, ScriptsAreTakenByThePlotProgram) {
  if (std::system("command -v gnuplot > /dev/null 2>&1") != 0) GTEST_SKIP() << "gnuplot is not installed";
  const TemporaryFolder& folder = computed();
  ASSERT_EQ(
      run(folder, "draw small.toml -f script -o scripts -q --only sheet --only columns --only ceiling").code,
      0);
  int plotted = 0;
  for (const std::string& name : files_in(folder.path() / "scripts")) {
    if (name.find(".gp") == std::string::npos) continue;
    const std::string command =
        "cd '" + (folder.path() / "scripts").string() + "' && gnuplot '" + name + "' > plot.log 2>&1";
    EXPECT_EQ(std::system(command.c_str()), 0) << name << content_of(folder.path() / "scripts/plot.log");
    EXPECT_GT(fs::file_size(folder.path() / "scripts" / (name.substr(0, name.size() - 3) + ".svg")), 3000u)
        << name;
    ++plotted;
  }
  EXPECT_GE(plotted, 6);
}

TEST(Draw, OptionsAndTheProjectsOwnSettingsChangeTheFigures) {
  const TemporaryFolder& folder = computed();
  const auto drawn = [&](const std::string& options) {
    const Ran ran =
        run(folder, "draw small-results --only office--work-plane -f svg -q -o styled " + options);
    EXPECT_EQ(ran.code, 0) << options << ran.err;
    return content_of(folder.path() / "styled/office--work-plane.svg");
  };
  const std::string usual = drawn("");
  EXPECT_TRUE(says(usual, "Illuminance in lx"));
  EXPECT_TRUE(says(drawn("--units fc,ft"), "Illuminance in fc"));
  EXPECT_TRUE(says(drawn("--units fc,ft"), "x in ft"));
  const std::string limited = drawn("--limits 150,160");
  EXPECT_TRUE(says(limited, "above 160") && says(limited, "below 150") && says(limited, "url(#above)"));
  EXPECT_TRUE(says(drawn("--levels 101,202"), ">202<"));
  EXPECT_TRUE(says(drawn("--isolux 177"), ">177<"));
  std::set<std::string> different = {usual};
  for (const char* options :
       {"--limits 20,2000", "--limits 20,2000 --scale log", "--steps 3", "--steps smooth", "--values none",
        "--values all", "--lines no", "--common-scale yes"})
    EXPECT_TRUE(different.insert(drawn(options)).second) << options;
  const Ran bad = run(folder, "draw small-results --levels 5,4");
  EXPECT_EQ(bad.code, 2);
  EXPECT_TRUE(says(bad.err, "--levels is \"5,4\"; expected rising light levels")) << bad.err;
  EXPECT_EQ(run(folder, "draw small-results --format gif").code, 2);
}

TEST(Draw, TellsWhenTheResultsAreOfAnEarlierState) {
  const TemporaryFolder folder;
  write_small_room(folder);
  const Ran early = run(folder, "draw small.toml");
  EXPECT_EQ(early.code, 2);
  EXPECT_TRUE(says(early.err, "has no results")) << early.err;
  ASSERT_EQ(run(folder, "run small.toml -q --accuracy draft").code, 0);
  write_small_room(folder, "[[rooms]]", "[figures]\nscale = \"log\"\n\n[[rooms]]");
  const std::string draw = "draw small.toml --only office--work-plane -f svg";
  EXPECT_FALSE(says(run(folder, draw).err, "R011"));  // only the pictures changed
  write_small_room(folder, "height = 3.2", "height = 3.3");
  const Ran stale = run(folder, draw);
  EXPECT_EQ(stale.code, 0);
  EXPECT_TRUE(says(stale.err, "small.toml: warning[R011]: has changed since")) << stale.err;
  // The next run takes away what was drawn from the old results.
  ASSERT_EQ(run(folder, "draw small.toml --only ceiling -f pdf -q").code, 0);
  const fs::path pdf = folder.path() / "small-results/figures/office--ceiling.pdf";
  EXPECT_TRUE(fs::exists(pdf));
  ASSERT_EQ(run(folder, "run small.toml -q --accuracy draft").code, 0);
  EXPECT_FALSE(fs::exists(pdf));
  EXPECT_FALSE(fs::exists(folder.path() / "small-results/figures/drawn.txt"));
}

}  // namespace draw_test
}  // namespace glow::cli
