// What the program refuses, warns of or leaves out, and how it ends when streams, folders or files misbehave:
// the built program, driven on files in a temporary folder.
#include "cli/run_program.hpp"

namespace glow::cli {
namespace robust_test {

constexpr const char* kHead =
    "format = 1\n[project]\nstandard = \"EN 12464-1:2021\"\n"
    "[defaults]\nreflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }\nmaintenance_factor = 0.8\n"
    "[luminaires.P1]\nfile = \"photometry/tarnfell-p1.ldt\"\ncct = 4000\n";
constexpr const char* kRoom = "[[rooms]]\nname = \"A\"\nsize = [6, 4.2]\nheight = 2.9\n";
constexpr const char* kArray =
    "[[rooms.luminaires]]\nmark = \"P1\"\narray = { rows = 2, columns = 2 }\nsuspension = 0.5\n";

void write(const TemporaryFolder& folder, const std::string& text) {
  write_project(folder);
  folder.write("p.toml", text);
}

struct Fault {
  const char* name;
  std::string text;
  int code;
  const char* words;  ///< that standard error holds
};

class CheckTest : public ::testing::TestWithParam<Fault> {};

TEST_P(CheckTest, SaysWhatIsWrong) {
  const TemporaryFolder folder;
  write(folder, GetParam().text);
  const Ran ran = run(folder, "check p.toml");
  EXPECT_EQ(ran.code, GetParam().code) << ran.err;
  EXPECT_TRUE(says(ran.err, GetParam().words)) << ran.err;
}

std::string room(const std::string& rest) {
  return kHead + std::string(kRoom) + rest;
}

std::string deep_key() {
  std::string key = "\"a\"";
  for (int k = 0; k < 40000; ++k) key += ".\"a\"";
  return "format = 1\n" + key + " = 1\n";
}

INSTANTIATE_TEST_SUITE_P(
    Projects, CheckTest,
    ::testing::Values(
        Fault{"outline_in_mm",
              kHead +
                  std::string(
                      "[[rooms]]\nname = \"A\"\noutline = [[0, 0], [9600, 0], [9600, 6400], [0, 6400]]\n"
                      "height = 2.9\n") +
                  kArray,
              2, "If these are millimetres"},
        Fault{"outline_of_a_country",
              kHead +
                  std::string("[[rooms]]\nname = \"A\"\noutline = [[0, 0], [9e6, 0], [9e6, 9e6], [0, 9e6]]\n"
                              "height = 2.9\n") +
                  kArray,
              2, "expected above 0 and up to 2000 m"},
        Fault{"plane_of_a_hair",
              kHead + std::string("[[rooms]]\nname = \"A\"\nsize = [\"39.3701 in\", 4.2]\nheight = 2.9\n") +
                  kArray,
              2, "leaves nothing of the work plane"},
        Fault{"names_of_one_file",
              room(kArray + std::string("[[rooms.grids]]\nname = \"bench +\"\nheight = 0.5\n"
                                        "[[rooms.grids]]\nname = \"bench -\"\nheight = 0.6\n")),
              2, "p.toml:21:1: error[P008]: grids \"bench +\" and \"bench -\""},
        Fault{"eyes_of_one_file",
              room(kArray + std::string("[[rooms.eyes]]\nname = \"At\"\nat = [1, 1]\n"
                                        "[[rooms.eyes]]\nname = \"at\"\nat = [2, 2]\n")),
              2, "sets of eyes \"At\" and \"at\""},
        Fault{"control_characters",
              kHead + std::string("[[rooms]]\nname = \"K\\u001b[31m\"\nsize = [3, 3]\nheight = 3\n"), 2,
              "other control character in it"},
        Fault{"deep_quoted_key", deep_key(), 2, "nested deeper than 64 levels"},
        Fault{"deep_lists", "format = 1\na = " + std::string(100, '[') + std::string(100, ']') + "\n", 2,
              "nested deeper than 64 levels"},
        Fault{"eyes_without_number",
              kHead + std::string("[[rooms]]\nname = \"A\"\nsize = [60, 60]\nheight = 2.9\n") + kArray +
                  "[[rooms.eyes]]\nname = \"all\"\nspacing = 0.1\n",
              2, "at most 40000 are rated"},
        Fault{"foreign_table", "format = 1\n[project]\ntables = [\"../secret.txt\"]\n" + std::string(kRoom),
              2, "lies outside the project's folder"},
        Fault{"on_wall_above_a_lower_ceiling",
              room("[[rooms.luminaires]]\nmark = \"P1\"\non_wall = { wall = 1, from = 1.5 }\nmounting_height "
                   "= 2.3\n"
                   "[[rooms.ceiling]]\nover = [[0, 0], [6, 0], [6, 1.7], [0, 1.7]]\nheight = 1.65\n"),
              2, "above the ceiling of \"A\" at 1.65 m"},
        Fault{"same_place",
              room("[[rooms.luminaires]]\nmark = \"P1\"\nat = [2, 2]\nsuspension = 0.5\n"
                   "[[rooms.luminaires]]\nmark = \"P1\"\nat = [2, 2]\nsuspension = 0.5\n"),
              0, "are in the same place"},
        Fault{"aim_beside_the_room",
              room("[[rooms.luminaires]]\nmark = \"P1\"\nat = [2, 2]\nsuspension = 0.5\naim = [9, 2, 1]\n"),
              0, "aimed at (9.00, 2.00, 1.00), outside \"A\""},
        Fault{"eye_in_a_box",
              room(kArray +
                   std::string("[[rooms.objects]]\nname = \"box\"\nbox = [1, 1, 2]\nat = [1, 1, 0]\n"
                               "reflectance = 0.5\n[[rooms.eyes]]\nname = \"here\"\nat = [1.5, 1.5]\n")),
              0, "1 of 1 eyes of \"here\" are inside \"box\""},
        Fault{"face_against_a_wall",
              room(kArray +
                   std::string("[[rooms.objects]]\nname = \"rack\"\nbox = [1, 0.4, 2]\nat = [1, 0, 0]\n"
                               "reflectance = 0.5\n[[rooms.grids]]\non = \"rack.front\"\n")),
              0, "stands against a wall"},
        Fault{"under_a_table",
              room("task = \"ceramics.glazing\"\nwork_plane = { height = 0.5 }\n" + std::string(kArray) +
                   "[[rooms.objects]]\nname = \"desk\"\nfurniture = \"table\"\nsize = [2, 2, 0.74]\nat = [3, "
                   "2]\n"),
              0, "lie under \"desk\"; they will be dark"},
        Fault{"no_plane_for_the_task",
              room("task = \"ceramics.glazing\"\nwork_plane = false\n" + std::string(kArray)), 0,
              "the task's illuminances are not verified"},
        Fault{"one_cause_in_two_rooms",
              room(kArray) +
                  "[[rooms]]\nname = \"B\"\nsize = [3, 3]\nheight = 2.9\nreflectance = { floor = 0.9 }\n" +
                  "task = \"ceramics.glazing\"\n" + kArray +
                  "[[rooms]]\nname = \"C\"\nsize = [3, 3]\nheight = 2.9\nreflectance = { floor = 0.9 }\n" +
                  "task = \"ceramics.glazing\"\n" + kArray,
              0, "\"B\", \"C\": floor of reflectance 0.90"}),
    [](const auto& of) { return of.param.name; });

TEST(Robust, OneLuminaireDoesNotFillItsRoom) {
  const TemporaryFolder folder;
  write(folder, room(kArray));
  std::string file = content_of(folder.path() / "photometry/tarnfell-p1.ldt");
  std::size_t line = 0;  // the luminous length, in mm, is the 16th
  for (int k = 0; k < 15; ++k) line = file.find('\n', line) + 1;
  file.replace(line, file.find_first_of("\r\n", line) - line, "1200000");
  folder.write("photometry/tarnfell-p1.ldt", file);
  const Ran ran = run(folder, "check p.toml");
  EXPECT_EQ(ran.code, 2);
  EXPECT_TRUE(says(ran.err, "1200 m long, more than the room")) << ran.err;
}

/// Surfaces that run through each other and through a wall: light stays above nothing, and is that of the
/// room.
TEST(Robust, ClashingTablesKeepTheirLight) {
  const TemporaryFolder folder;
  const std::string one = "[[rooms.luminaires]]\nmark = \"P1\"\nat = [3, 2]\nsuspension = 0.5\n";
  write(folder, room(one + "[[rooms.objects]]\nname = \"table\"\nat = [4.944, 3.823]\nfurniture = \"table\"\n"
                           "repeat = { columns = 4, rows = 2, step = [0.43, 0.07] }\n"));
  const auto mean_of = [&] {
    const Ran ran = run(folder, "run p.toml --json -q --accuracy draft --no-cache");
    EXPECT_EQ(ran.code, 0) << ran.err;
    return json_of(ran.out)["rooms"][0]["grids"][0]["mean_lx"].get<double>();
  };
  const double with_tables = mean_of();
  write(folder, room(one));
  EXPECT_NEAR(with_tables, mean_of(), 0.03 * mean_of());
}

/// A ray along a luminaire's own body once met it every tenth of a millimetre.
TEST(Robust, LongBodiesDoNotShadeThemselves) {
  const TemporaryFolder folder;
  write(folder,
        room("[[rooms.luminaires]]\nmark = \"P1\"\nring = { centre = [3, 2], radius = 0.12, count = 2 }\n"
             "suspension = 0.5\nblocks_light = true\n"));
  EXPECT_EQ(run(folder, "run p.toml -q --accuracy draft --no-cache").code, 0);
}

TEST(Robust, FootprintsCanBeLeftOut) {
  const TemporaryFolder folder;
  const std::string desk =
      "[[rooms.objects]]\nname = \"desk\"\nfurniture = \"table\"\nsize = [2, 2, 0.74]\nat = [3, 2]\n";
  const auto statistics = [&](const std::string& plane) {
    write(folder, room("work_plane = " + plane + "\n" + kArray + desk));
    return json_of(
        run(folder, "run p.toml --json -q --accuracy draft --no-cache").out)["rooms"][0]["grids"][0];
  };
  const json whole = statistics("{ height = 0.5 }"),
             open = statistics("{ height = 0.5, leave_out = [\"desk\"] }");
  EXPECT_LT(open["points"].get<int>(), whole["points"].get<int>());
  EXPECT_GT(open["min_lx"].get<double>(), 4 * whole["min_lx"].get<double>());
  write(folder, room("work_plane = { leave_out = [\"dusk\"] }\n" + std::string(kArray) + desk));
  EXPECT_TRUE(says(run(folder, "check p.toml").err, "did you mean \"desk\"?"));
}

/// Where every task area has a task of its own, the room's is held against its work plane.
TEST(Robust, ARoomsTaskIsNotDropped) {
  const TemporaryFolder folder;
  write(folder, room("task = \"ceramics.glazing\"\n" + std::string(kArray) +
                     "[[rooms.areas]]\nname = \"aisle\"\nrectangle = { at = [1, 1], size = [1, 1] }\n"
                     "task = \"circulation.corridor\"\n"));
  const json record =
      json_of(run(folder, "run p.toml --json -q --accuracy draft --no-cache").out)["rooms"][0];
  std::size_t of_plane = 0;
  for (const json& check : record["checks"]) of_plane += check.value("where", "") == "work plane";
  EXPECT_EQ(of_plane, 2u) << record["checks"].dump();
}

struct Ending {
  const char* name;
  const char* before;  ///< shell, in the folder
  const char* call;    ///< with redirections of its own, P for the program
  int code;
};

class EndingTest : public ::testing::TestWithParam<Ending> {};

TEST_P(EndingTest, EndsWithItsCode) {
  const TemporaryFolder folder;
  write(folder, room(kArray));
  std::string call = GetParam().call;
  call.replace(call.find('P'), 1, "'" GLOWGRID_PROGRAM "'");
  const std::string command =
      "cd '" + folder.path().string() + "' && " + GetParam().before + " { " + call + "; }";
  const int status = std::system(command.c_str());
  ASSERT_TRUE(WIFEXITED(status));
  EXPECT_EQ(WEXITSTATUS(status), GetParam().code);
}

INSTANTIATE_TEST_SUITE_P(
    Streams, EndingTest,
    ::testing::Values(
        Ending{"no_standard_error", "", "P check p.toml > /dev/null 2>&-", 0},
        Ending{"full_standard_error", "", "P check none.toml 2> /dev/full", 2},
        Ending{"nothing_at_all", "", "P 2>&-", 2},
        Ending{"no_standard_output", "", "P check p.toml >&- 2> /dev/null", 3},
        Ending{"full_standard_output", "", "P check p.toml > /dev/full 2> /dev/null", 3},
        Ending{"linked_folder", "mkdir real && ln -s real out &&",
               "P run p.toml -q --accuracy draft --no-cache -o out > /dev/null && test -L out -a -f "
               "real/results.json",
               0},
        Ending{"file_too_large", "ulimit -f 8;",
               "P run p.toml -q --accuracy draft --no-cache -o out > /dev/null 2>&1", 3},
        Ending{"folder_in_use", "mkdir out; { flock 9; sleep 2; } 9> out/.in-use & sleep 0.3;",
               "P run p.toml -q --accuracy draft --no-cache -o out > /dev/null 2>&1", 3},
        Ending{
            "left_behind", "mkdir -p out/.unfinished-1 && touch out/.unfinished-1/x &&",
            "P run p.toml -q --accuracy draft --no-cache -o out > /dev/null && test ! -e out/.unfinished-1",
            0}),
    [](const auto& of) { return of.param.name; });

/// Each holds the least of a project that once ended a run, or made of it what could not be read back.
class OnceBrokenTest : public ::testing::TestWithParam<std::filesystem::path> {};

TEST_P(OnceBrokenTest, IsRunToItsEnd) {
  const TemporaryFolder folder;
  folder.write("p.toml", content_of(GetParam()));
  std::filesystem::create_directory(folder.path() / "photometry");
  std::filesystem::copy(test_data("photometry/valid"), folder.path() / "photometry/valid");
  const Ran ran = run(folder, "run p.toml --accuracy draft --no-cache -o out");
  EXPECT_EQ(ran.code, 0) << ran.err;
  EXPECT_FALSE(says(ran.err, "error[")) << ran.err;
  EXPECT_EQ(json_in(folder.path() / "out/results.json").at("rooms").size(), 1u);
}

std::vector<std::filesystem::path> once_broken() {
  std::vector<std::filesystem::path> files;
  for (const auto& entry : std::filesystem::directory_iterator(test_data("cli/once_broken")))
    files.push_back(entry.path());
  std::sort(files.begin(), files.end());
  return files;
}

INSTANTIATE_TEST_SUITE_P(Projects, OnceBrokenTest, ::testing::ValuesIn(once_broken()), [](const auto& of) {
  std::string name = of.param.stem().string();
  std::replace(name.begin(), name.end(), '-', '_');
  return name;
});

TEST(Robust, AnEarlierRunsListDeletesNothingOutside) {
  const TemporaryFolder folder;
  write(folder, room(kArray));
  const std::string call = "run p.toml -q --accuracy draft --no-cache -o out";
  ASSERT_EQ(run(folder, call).code, 0);
  folder.write("kept/file", "x");
  std::filesystem::create_symlink("../kept", folder.path() / "out/link");
  json results = json_in(folder.path() / "out/results.json");
  for (const char* name : {"link/file", "../kept/file"}) results["files"].push_back(name);
  folder.write("out/results.json", results.dump());
  ASSERT_EQ(run(folder, call).code, 0);
  EXPECT_TRUE(std::filesystem::exists(folder.path() / "kept/file"));
}

TEST(Robust, NamesOfFilesMayBeAnyBytes) {
  const TemporaryFolder folder;
  write(folder, room("task = \"office.writing\"\n" + std::string(kArray)));
  const std::string odd = "photometry/t\xFF.ldt", quoted = "'" + odd + "'";
  folder.write(odd, content_of(folder.path() / "photometry/tarnfell-p1.ldt"));
  const json inspected = json::parse(run(folder, "inspect --json " + quoted).out);
  EXPECT_EQ(inspected.at("files")[0].at("file"), "photometry/t\uFFFD.ldt");
  EXPECT_EQ(json::parse(run(folder, "rank p.toml --json -q " + quoted).out).at("candidates").size(), 1u);
  ASSERT_EQ(run(folder, "inspect -o d " + quoted).code, 0);
  EXPECT_TRUE(says(content_of(folder.path() / "d/t\xFF-ldt--polar.svg"), "t\u00FF.ldt"));
  EXPECT_TRUE(std::filesystem::exists(folder.path() / "d/t\xFF-ldt--polar.png"));
  EXPECT_TRUE(says(run(folder, "shelf photometry --csv").out, "t\u00FF.ldt"));
  ASSERT_EQ(run(folder, "new n.toml --room A 6x4x2.8 --task office.writing --mark P1=" + quoted).code, 2);
  EXPECT_TRUE(says(content_of(folder.path() / "n.toml"), "file = \"photometry/t\u00FF.ldt\""));
}

TEST(Robust, ResultsAreTheSameFromAnyFolder) {
  const TemporaryFolder folder;
  write(folder, room(kArray));
  const std::string rest = " --accuracy draft --no-cache -q -o out";
  ASSERT_EQ(run(folder, "run p.toml" + rest).code, 0);
  const std::string here = content_of(folder.path() / "out/results.json");
  ASSERT_EQ(run(folder, "run '" + (folder.path() / "p.toml").string() + "'" + rest).code, 0);
  EXPECT_EQ(content_of(folder.path() / "out/results.json"), here);
}

}  // namespace robust_test
}  // namespace glow::cli
