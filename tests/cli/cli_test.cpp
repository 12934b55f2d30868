// The built program, run on files in a temporary folder.
#include "cli/run_program.hpp"

namespace glow::cli {
namespace cli_test {

namespace fs = std::filesystem;

// What the whole demo tells and writes is looked at by guide_test.py, which needs it anyway.
TEST(Program, DemoCanBeInterruptedRunAndIsLeftAloneOnceItIsChanged) {
  const TemporaryFolder folder;
  EXPECT_EQ(run(folder, "demo", "timeout --foreground --preserve-status -s INT 1").code, 130);
  EXPECT_FALSE(fs::exists(folder.path() / "millrace-demo/millrace-results/results.json"));
  const Ran rest = run(folder, "run millrace-demo/millrace.toml --room Yard --room Passage --room Kiln*");
  EXPECT_EQ(rest.code, 0) << rest.err;
  // No doubts: at most what it will cost, on a machine where that is worth telling.
  EXPECT_TRUE(rest.err.empty() ||
              (rest.err.rfind("3 rooms", 0) == 0 && rest.err.find('\n') + 1 == rest.err.size()))
      << rest.err;
  folder.write("millrace-demo/millrace.toml", "format = 1\n");
  const Ran refused = run(folder, "demo");
  EXPECT_EQ(refused.code, 2);
  EXPECT_TRUE(says(refused.err, "left alone")) << refused.err;
  EXPECT_EQ(content_of(folder.path() / "millrace-demo/millrace.toml"), "format = 1\n");
}

TEST(Program, TableFitsEightyColumnsAndHoldsNoColour) {
  const TemporaryFolder folder;
  write_project(folder);
  const std::string answer = run(folder, "run millrace.toml -q").out;
  std::istringstream lines(answer + shown(folder));
  for (std::string line; std::getline(lines, line);) {
    EXPECT_LE(line.size(), 80u) << line;
    EXPECT_FALSE(says(line, "\x1b"));
  }
}

TEST(Program, ResultsHoldWhatTheDocumentationNames) {
  const TemporaryFolder folder;
  write_project(folder);
  const Ran ran = run(folder, "run millrace.toml -o out --json --quiet");
  ASSERT_EQ(ran.code, 0) << ran.err;
  EXPECT_EQ(ran.out, content_of(folder.path() / "out/results.json"));
  const json room = json_of(ran.out).at("rooms").at(0);
  EXPECT_EQ(room.at("status"), "met");
  const json& grid = room.at("grids").at(0);
  for (const char* key : {"name", "kind", "points", "spacing_m", "mean_lx", "min_lx", "max_lx", "uniformity",
                          "csv", "uncertainty"})
    EXPECT_TRUE(grid.contains(key)) << key;
  EXPECT_NEAR(grid.at("uniformity").get<double>(),
              grid.at("min_lx").get<double>() / grid.at("mean_lx").get<double>(), 1e-6);
  EXPECT_NEAR(grid.at("direct_mean_lx").get<double>() + grid.at("interreflected_mean_lx").get<double>(),
              grid.at("mean_lx").get<double>(), 1e-4);
  EXPECT_NEAR(grid.at("initial").at("mean_lx").get<double>() * 0.8, grid.at("mean_lx").get<double>(), 1e-4);
  for (const json& check : room.at("checks")) {
    const double spare = check.at("actual").get<double>() - check.at("required").get<double>();
    EXPECT_NEAR(check.at("margin").get<double>(), check.at("limit") == "most" ? -spare : spare, 1e-6);
  }
  for (const json& eyes : room.at("glare").at("eyes"))
    EXPECT_TRUE(fs::exists(folder.path() / "out" / eyes.at("csv").get<std::string>())) << eyes.at("csv");
  EXPECT_NEAR(room.at("power").at("installed_w").get<double>(), 6 * 36 + 2 * 14.5, 1e-9);
  const json& flux = room.at("flux_balance");
  EXPECT_NEAR(flux.at("absorbed_lm").get<double>(), flux.at("emitted_lm").get<double>(),
              0.001 * flux.at("emitted_lm").get<double>());
  // The CSV's own mean is the mean that is reported.
  std::istringstream csv(content_of(folder.path() / "out" / grid.at("csv").get<std::string>()));
  std::string line;
  std::getline(csv, line);
  EXPECT_EQ(line, "x_m,y_m,z_m,normal_x,normal_y,normal_z,direct_lx,interreflected_lx,total_lx");
  double sum = 0;
  int count = 0;
  while (std::getline(csv, line)) {
    sum += std::stod(line.substr(line.rfind(',') + 1));
    ++count;
  }
  EXPECT_EQ(count, grid.at("points").get<int>());
  EXPECT_NEAR(sum / count, grid.at("mean_lx").get<double>(), 0.01);
}

TEST(Program, SameBytesForOneThreadAndTwo) {
  const TemporaryFolder folder;
  write_project(folder);
  ASSERT_EQ(run(folder, "run millrace.toml -q -o one --threads 1").code, 0);
  ASSERT_EQ(run(folder, "run millrace.toml -q -o two --threads 2").code, 0);
  for (const char* file :
       {"results.json", "grids/throwing-room--work-plane.csv", "figures/throwing-room--work-plane.svg",
        "figures/throwing-room--work-plane.svg"}) {
    const std::string one = content_of(folder.path() / "one" / file);
    EXPECT_FALSE(one.empty()) << file;
    EXPECT_EQ(one, content_of(folder.path() / "two" / file)) << file;
  }
}

TEST(Program, StrictExitsWithOneWhenARequirementIsMissed) {
  const TemporaryFolder folder;
  write_project(folder, "rows = 2, columns = 3", "rows = 1, columns = 2");
  EXPECT_EQ(run(folder, "run millrace.toml").code, 0);
  const Ran ran = run(folder, "run millrace.toml --strict");
  EXPECT_EQ(ran.code, 1);
  EXPECT_TRUE(says(ran.out, "Throwing room          not met")) << ran.out;
}

TEST(Program, ALargerRunsStaleFilesGoAway) {
  const TemporaryFolder folder;
  write_project(folder);
  ASSERT_EQ(run(folder, "run millrace.toml -o out -q").code, 0);
  write_project(folder, "\"Throwing room\"", "\"Glaze kitchen\"");
  ASSERT_EQ(run(folder, "run millrace.toml -o out -q").code, 0);
  EXPECT_TRUE(fs::exists(folder.path() / "out/grids/glaze-kitchen--work-plane.csv"));
  EXPECT_FALSE(fs::exists(folder.path() / "out/grids/throwing-room--work-plane.csv"));
}

struct BadProject {
  const char* from;
  const char* to;
  const char* code;
  const char* message;  ///< place and words, as printed
};

class BadProjectTest : public ::testing::TestWithParam<BadProject> {};

TEST_P(BadProjectTest, IsToldOnceWithItsPlaceAndNothingIsWritten) {
  const TemporaryFolder folder;
  write_project(folder, GetParam().from, GetParam().to);
  for (const char* command : {"check millrace.toml", "run millrace.toml -o out"}) {
    const Ran ran = run(folder, command);
    EXPECT_EQ(ran.code, 2) << ran.out;
    EXPECT_EQ(ran.out, "");
    EXPECT_TRUE(says(ran.err, std::string("error[") + GetParam().code + "]")) << ran.err;
    EXPECT_TRUE(says(ran.err, GetParam().message)) << ran.err;
    EXPECT_TRUE(says(ran.err, "millrace.toml: 1 error, nothing was calculated")) << ran.err;
  }
  EXPECT_FALSE(fs::exists(folder.path() / "out"));
}

INSTANTIATE_TEST_SUITE_P(
    Faults, BadProjectTest,
    ::testing::Values(
        BadProject{"name = \"Millrace Pottery\"", "name = Millrace", "P001", "millrace.toml:5:8: error"},
        BadProject{"height = 3.2", "hieght = 3.2\nheight = 3.2", "P002",
                   "unknown key \"hieght\" in rooms; did you mean \"height\"?"},
        BadProject{"height = 3.2", "height = true", "P003", "\"height\" is true or false; expected a number"},
        BadProject{"height = 3.2", "", "P004", "rooms: \"height\" is missing"},
        BadProject{"height = 3.2", "heigth = 3.2", "P004", "is it meant by \"heigth\"?"},
        BadProject{"size = [9.6, 6.4]", "sise = [9.6, 6.4]", "P004",
                   "\"size\" is missing; is it meant by \"sise\"?"},
        BadProject{"array = { rows", "aray = { rows", "P004",
                   "\"array\" is missing; is it meant by \"aray\"?"},
        BadProject{"height = 3.2", "height = -1", "P005",
                   "millrace.toml:22:10: error[P005]: \"height\" is -1"},
        BadProject{"height = 3.2", "height = \"3.2 lx\"", "P006", "\"lx\" is not a unit of length"},
        BadProject{"height = 3.2", "height = \"3,2 m\"", "P006", "not a comma"},
        BadProject{"maintenance_factor = 0.80", "", "P004", "has no maintenance_factor"},
        BadProject{"maintenance_factor = 0.80", "maintenance_factor = 80", "P005",
                   "\"maintenance_factor\" is 80"},
        BadProject{"format = 1", "format = 7", "P009", "format 7 is newer"},
        BadProject{"mark = \"D2\"", "mark = \"D3\"", "P010",
                   "unknown luminaire mark \"D3\"; did you mean \"D2\"?"},
        BadProject{"12464-1:2021", "12464-1:2012", "P011", "this version holds: EN 12464-1:2021"},
        BadProject{"ceramics.glazing", "ceramics.glasing", "P012", "did you mean \"ceramics.glazing\"?"},
        BadProject{"size = [9.6, 6.4]", "outline = [[0, 0], [9, 6], [9, 0], [0, 6]]", "P013",
                   "edge 1 crosses or touches edge 3"},
        BadProject{"at = [3.2, 5.8]", "at = [32, 5.8]", "P014", "lies outside the room"},
        BadProject{"suspension = 0.5", "mounting_height = 3.3", "P015", "above the ceiling"},
        BadProject{"suspension = 0.5", "suspension = 4", "P015", "below the floor"},
        BadProject{"height = 3.2", "height = 3.2\nwork_plane = { height = 3.2 }", "P016", "the work plane"},
        BadProject{"height = 3.2", "height = 3.2\nwork_plane = { inset = 4 }", "P017", "leaves nothing"},
        BadProject{"height = 3.2", "height = 3.2\nwork_plane = { spacing = 0.006 }", "P018", "200000 points"},
        BadProject{"array = { rows = 2, columns = 3 }", "", "P007", "exactly one of \"at\""},
        BadProject{"size = [9.6, 6.4]", "", "P007", "either \"size\""},
        BadProject{"photometry/quillon-d2.ies", "photometry/quillon.ies", "R001", "there is no file"},
        BadProject{"photometry/quillon-d2.ies", "photometry", "R001", "is not a file"},
        BadProject{"photometry/quillon-d2.ies", "millrace.toml", "unknown-format",
                   "only these two formats are read"}));

TEST(Program, TellsAllErrorsInOneGoInTheOrderOfTheFile) {
  const TemporaryFolder folder;
  folder.write(
      "p.toml",
      "format = 1\n[defaults]\nmaintenance_factor = 2\n[luminaires.P1]\nfile = \"none.ldt\"\n[[rooms]]\n"
      "name = \"A\"\nsize = [1]\nheight = 3\n[[rooms]]\nname = \"B\"\nsize = [4, 4]\nheight = 3\n"
      "task = \"nothing\"\n[[rooms.luminaires]]\nmark = \"P1\"\nat = [9, 9]\n"
      "[rooms.scenes.low]\ngroups = { P1 = 0.5 }\n");
  const Ran ran = run(folder, "check p.toml");
  EXPECT_EQ(ran.code, 2);
  std::vector<std::string> codes;
  std::istringstream lines(ran.err);
  for (std::string line; std::getline(lines, line);)
    if (const std::size_t at = line.find("error["); at != std::string::npos)
      codes.push_back(line.substr(at + 6, 4));
  EXPECT_EQ(codes, (std::vector<std::string>{"P005", "R001", "P003", "P012", "P014"})) << ran.err;
}

TEST(Program, ZeroFluxIsRefused) {
  const TemporaryFolder folder;
  write_project(folder);
  std::string ldt = content_of(folder.path() / "photometry/tarnfell-p1.ldt");
  const std::size_t at = ldt.find("\r\n4650\r\n");
  ASSERT_NE(at, std::string::npos);
  ldt.replace(at, 8, "\r\n0\r\n");
  folder.write("photometry/tarnfell-p1.ldt", ldt);
  const Ran ran = run(folder, "run millrace.toml");
  EXPECT_EQ(ran.code, 2);
  EXPECT_TRUE(says(ran.err, "photometry/tarnfell-p1.ldt:29: error[zero-flux]")) << ran.err;
}

TEST(Program, UnwritableOutputIsAFailureOfTheMachine) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("taken", "x");
  const Ran ran = run(folder, "run millrace.toml -o taken");
  EXPECT_EQ(ran.code, 3);
  EXPECT_TRUE(says(ran.err, "it is a file, not a folder")) << ran.err;
  EXPECT_EQ(run(folder, "run millrace.toml -o taken/below").code, 3);
}

TEST(Program, AFullDiskLeavesNothingHalfWritten) {
  const TemporaryFolder folder;
  write_project(folder);
  ASSERT_EQ(run(folder, "run millrace.toml -o out -q").code, 0);
  const std::string before = content_of(folder.path() / "out/results.json");
  // A limit on the size of files stands in for the full disk: the write fails in the same way.
  const Ran ran = run(folder, "run millrace.toml -o out -q", "ulimit -f 4; trap '' XFSZ;");
  EXPECT_EQ(ran.code, 3) << ran.err;
  EXPECT_TRUE(says(ran.err, "cannot write")) << ran.err;
  EXPECT_EQ(content_of(folder.path() / "out/results.json"), before);
  for (const auto& entry : fs::directory_iterator(folder.path() / "out"))
    EXPECT_FALSE(says(entry.path().filename().string(), "unfinished"));
}

TEST(Program, CtrlCEndsCleanly) {
  const TemporaryFolder folder;
  write_project(folder, "height = 3.2", "height = 3.2\nwork_plane = { spacing = 0.02 }");  // 128 000 points
  const Ran ran = run(folder, "run millrace.toml -o out", "timeout --foreground --preserve-status -s INT 1");
  EXPECT_EQ(ran.code, 130);
  EXPECT_EQ(ran.out, "");
  const std::string last = "glowgrid: interrupted; nothing was written\n";  // after what it would have cost
  EXPECT_TRUE(ran.err.size() >= last.size() && ran.err.substr(ran.err.size() - last.size()) == last)
      << ran.err;
  EXPECT_FALSE(fs::exists(folder.path() / "out"));
}

TEST(Program, TheReadmesFirstProjectRunsWithoutAWarning) {
  const TemporaryFolder folder;
  write_project(folder);
  const std::string readme = content_of(test_data("../README.md"));
  const std::size_t begin = readme.find("```toml\n") + 8;
  folder.write("kitchen.toml", readme.substr(begin, readme.find("```", begin) - begin));
  const Ran ran = run(folder, "run kitchen.toml --strict");
  EXPECT_EQ(ran.code, 0) << ran.out << ran.err;
  EXPECT_FALSE(says(ran.err, "warning")) << ran.err;
  EXPECT_TRUE(says(ran.out, "Glaze kitchen          met ")) << ran.out;
}

TEST(Program, PositionsOutsideAPolygonAreReported) {
  const TemporaryFolder folder;
  write_project(folder, "size = [9.6, 6.4]", "outline = [[0, 6.4], [0, 0], [9.6, 0], [9.6, 2], [7, 6.4]]");
  const Ran ran = run(folder, "run millrace.toml");
  EXPECT_EQ(ran.code, 0);
  EXPECT_TRUE(says(ran.err, "warning[P021]: 1 of 6 positions")) << ran.err;
  EXPECT_TRUE(says(ran.err, "(8.00, 4.80)")) << ran.err;
}

TEST(Program, InspectShowsWhatAFileHolds) {
  const TemporaryFolder folder;
  write_project(folder);
  const Ran ran =
      run(folder,
          "inspect photometry/tarnfell-p1.ldt photometry/quillon-d2.ies --at 90,45 -o curves --planes 45");
  EXPECT_EQ(ran.code, 0) << ran.err;
  EXPECT_EQ(ran.err, "");
  for (const char* words :
       {"tarnfell-p1.ldt: EULUMDAT", "4650 lm as installed", "semi-direct", "at               C 90, gamma 45",
        "quillon-d2.ies: IES LM-63", "circle, 0.145 m along C0", "findings         none"})
    EXPECT_TRUE(says(ran.out, words)) << words << "\n" << ran.out;
  std::istringstream lines(ran.out.substr(0, ran.out.find("Drawn:")));
  for (std::string line; std::getline(lines, line);) EXPECT_LE(line.size(), 80u) << line;
  for (const char* name :
       {"tarnfell-p1-ldt--polar", "tarnfell-p1-ldt--footprint", "quillon-d2-ies--polar", "together--polar"})
    for (const char* suffix : {".svg", ".png"})
      EXPECT_TRUE(fs::exists(folder.path() / "curves" / (std::string(name) + suffix))) << name;
}

TEST(Program, InspectAsJsonNamesFindingsAndLooksAtEveryFile) {
  const TemporaryFolder folder;
  const std::string corpus = test_data("photometry/");
  const Ran ran =
      run(folder, "inspect --json --at 0,0 '" + corpus + "broken/x01-cut-in-intensities.ies' '" + corpus +
                      "broken/x25-lumens-tenfold.ies' '" + corpus + "valid/i33-tilt-file.ies' missing.ies");
  EXPECT_EQ(ran.code, 2);
  EXPECT_EQ(ran.err, "");
  const json files = json_of(ran.out).at("files");
  ASSERT_EQ(files.size(), 4u);
  EXPECT_TRUE(files[0].at("format").is_null());
  EXPECT_EQ(files[0].at("findings")[0].at("severity"), "error");
  EXPECT_EQ(files[0].at("findings")[0].at("code"), "truncated");
  EXPECT_EQ(files[0].at("findings")[0].at("line"), 16);
  EXPECT_EQ(files[1].at("findings")[0].at("code"), "flux-mismatch");
  for (const char* key :
       {"file", "format", "flux_lm", "stated_lamp_flux_lm", "watts_w", "cct_k", "upward_share", "peak_cd",
        "peak_c_deg", "peak_gamma_deg", "extent_c0_m", "extent_c90_m", "height_m", "shape", "findings", "at"})
    EXPECT_TRUE(files[1].contains(key)) << key;
  EXPECT_NEAR(files[1].at("at")[0].at("cd").get<double>(), 412.67, 1e-6);
  EXPECT_TRUE(files[2].at("findings").empty()) << files[2].at("findings");  // the tilt file lies beside it
  EXPECT_EQ(files[3].at("findings")[0].at("code"), "R001");
}

TEST(Program, ConvertKeepsTheLightAndSaysWhatIsLost) {
  const TemporaryFolder folder;
  write_project(folder);
  const Ran ran = run(folder, "convert photometry/tarnfell-p1.ldt -o new/p1.ies --turn 90 --flux 5000");
  EXPECT_EQ(ran.code, 0) << ran.err;
  EXPECT_EQ(ran.out, "new/p1.ies: IES LM-63-2002, 5000.0 lm\n");
  EXPECT_TRUE(says(ran.err, "LM-63 has no outer size")) << ran.err;
  const json p1 = json_of(run(folder, "inspect --json new/p1.ies").out).at("files")[0];
  EXPECT_NEAR(p1.at("flux_lm").get<double>(), 5000, 0.01);
  EXPECT_NEAR(p1.at("extent_c0_m").get<double>(), 1.49, 1e-6);  // turned: the long side now lies along C0
  const Ran merged =
      run(folder, "convert photometry/tarnfell-p1.ldt photometry/quillon-d2.ies --merge -o both.ldt -q");
  EXPECT_EQ(merged.code, 0) << merged.err;
  const json both = json_of(run(folder, "inspect --json both.ldt").out).at("files")[0];
  EXPECT_NEAR(both.at("flux_lm").get<double>(), 4650.44 + 1650, 2);
  EXPECT_NEAR(both.at("watts_w").get<double>(), 50.5, 1e-6);
  EXPECT_EQ(
      run(folder, "convert photometry/tarnfell-p1.ldt photometry/quillon-d2.ies -o all --to ies -q").code, 0);
  EXPECT_TRUE(fs::exists(folder.path() / "all/tarnfell-p1.ies"));
  EXPECT_TRUE(fs::exists(folder.path() / "all/quillon-d2.ies"));
}

struct Call {
  const char* words;
  int code;
  const char* out;
  const char* err;
};

void PrintTo(const Call& call, std::ostream* out) {
  *out << "glowgrid " << call.words;
}

class CallTest : public ::testing::TestWithParam<Call> {};

TEST_P(CallTest, AnswersOnTheRightStreamWithTheRightCode) {
  const TemporaryFolder folder;
  const Ran ran = run(folder, GetParam().words);
  EXPECT_EQ(ran.code, GetParam().code);
  EXPECT_TRUE(says(ran.out, GetParam().out)) << ran.out;
  EXPECT_TRUE(says(ran.err, GetParam().err)) << ran.err;
  EXPECT_EQ(ran.out.empty(), GetParam().code != 0);
}

INSTANTIATE_TEST_SUITE_P(
    Calls, CallTest,
    ::testing::Values(
        Call{"--version", 0, "glowgrid 0.", ""}, Call{"--help", 0, "Example:\n  glowgrid demo\n", ""},
        Call{"", 2, "", "Usage"}, Call{"rum", 2, "", "did you mean \"run\"?"},
        Call{"frobnicate", 2, "", "see glowgrid --help"},
        Call{"run --help", 0, "Example:\n  glowgrid run millrace.toml -o out --strict\n", ""},
        Call{"check --help", 0, "Example:\n  glowgrid check millrace.toml\n", ""},
        Call{"demo --help", 0, "Example:\n  glowgrid demo my-first-project\n", ""},
        Call{"inspect --help", 0, "Example:\n  glowgrid inspect photometry/tarnfell-p1.ldt", ""},
        Call{"inspect", 2, "", "which files?"}, Call{"inspect a.ies --at 90", 2, "", "expected C,GAMMA"},
        Call{"inspect a.ies --at 0,200", 2, "", "gamma from 0 to 180"},
        Call{"inspect a.ies --planes x", 2, "", "--planes wants"},
        Call{"inspect a.ies --height 2,5", 2, "", "decimal sign"}, Call{"run", 2, "", "which project?"},
        Call{"run a b", 2, "", "one argument too many"},
        Call{"run a --fast", 2, "", "unrecognised option '--fast'"},
        Call{"run a --threads 0", 2, "", "--threads wants"},
        Call{"run missing.toml", 2, "", "there is no file \"missing.toml\""},
        Call{"check .", 2, "", "is not a file"}));

}  // namespace cli_test
}  // namespace glow::cli
