#include "files/results/results_reader.hpp"

#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

#include "cli/run_program.hpp"
#include "files/output/output_folder.hpp"
#include "files/results/results_json.hpp"
#include "files/text/json_text.hpp"

namespace glow::files {
namespace results_reader_test {

namespace fs = std::filesystem;
using ordered = nlohmann::ordered_json;

/// The results of a small furnished room, as the program writes them.
const std::string& results() {
  static const std::string bytes = [] {
    const cli::TemporaryFolder folder;
    cli::write_small_room(folder);
    const cli::Ran ran = cli::run(folder, "run small.toml -o out -q --accuracy draft");
    EXPECT_EQ(ran.code, 0) << ran.err;
    return cli::content_of(folder.path() / "out/results.json");
  }();
  return bytes;
}

std::optional<record::RunRecord> read(const std::string& bytes, std::string* fault = nullptr) {
  Problems problems;
  auto run = read_results(bytes, "results.json", problems);
  EXPECT_EQ(run.has_value(), problems.all().empty());
  if (fault && !problems.all().empty()) *fault = to_string(problems.all()[0]);
  return run;
}

TEST(ResultsReader, FindsEverythingThatFiguresNeed) {
  const auto run = read(results());
  ASSERT_TRUE(run);
  const record::RoomRecord& room = run->rooms.at(0);
  EXPECT_EQ(room.wall_names, (std::vector<std::string>{"wall 1", "street side", "wall 3", "wall 4"}));
  EXPECT_EQ(room.objects.size(), 3u);
  EXPECT_FALSE(room.objects[0].solid);
  EXPECT_EQ(room.openings.size(), 1u);
  EXPECT_EQ(room.luminaires().size(), 2u);
  EXPECT_EQ(room.marks().at(0).count, 2u);
  const ordered document = ordered::parse(results());
  const ordered& grids = document.at("rooms").at(0).at("grids");
  ASSERT_EQ(room.assessment.grids.size(), grids.size());
  for (std::size_t g = 0; g < grids.size(); ++g) {
    EXPECT_NEAR(room.assessment.grids[g].statistics.mean_lx, grids[g].at("mean_lx").get<double>(), 1e-3);
    EXPECT_EQ(room.assessment.grids[g].grid.points.size(), grids[g].at("points").get<std::size_t>());
  }
  // Points of the sloped ceiling lie on it, and look down along its slope.
  const assess::GridReading* ceiling = room.find_grid("ceiling");
  ASSERT_TRUE(ceiling);
  for (std::size_t i = 0; i < ceiling->grid.points.size(); ++i) {
    const Vec3& p = ceiling->grid.points[i];
    EXPECT_NEAR(p.z(), 2.6 + p.x() / 6, 1e-6);
    EXPECT_NEAR(ceiling->grid.normal_of(i).dot(Vec3(6, 0, 1)), 0, 1e-6);
    EXPECT_LT(ceiling->grid.normal_of(i).z(), 0);
  }
}

TEST(ResultsReader, RefusesWhatIsNotWhole) {
  struct Damage {
    const char* pointer;
    ordered value;
  };
  const Damage damages[] = {
      {"/format", 99},
      {"/made_by", "somebody else"},
      {"/rooms/0/outline_m", ordered::array({ordered::array({0, 0})})},
      {"/rooms/0/walls", ordered::array({"one"})},
      {"/rooms/0/name", "///"},
      {"/rooms/0/grids/0/counts", ordered::array({100000, 100000})},
      {"/rooms/0/grids/0/counts", ordered::array({0, 5})},
      {"/rooms/0/grids/0/cells", ordered::array({ordered::array({5000, 1})})},
      {"/rooms/0/grids/0/cells", ordered::array({ordered::array({6e79, 1})})},
      {"/rooms/0/grids/0/counts", ordered::array({6e79, 5})},
      {"/format", 6e79},
      {"/rooms/0/grids/0/direct_lx", ordered::array({1, 2})},
      {"/rooms/0/grids/0/direct_lx/0", -4},
      {"/rooms/0/grids/0/direct_lx/0", "bright"},
      {"/rooms/0/grids/0/role", "sky"},
      {"/rooms/0/grids/1/name", "Work Plane"},
      {"/rooms/0/grids/0/place/u", ordered::array({3, 0, 0})},
      {"/rooms/0/grids/0/spacing_m/0", 0},
      {"/rooms/0/luminaires/0/rotations_deg", ordered::array()},
      {"/figures", {{"steps", "none at all"}}},
      {"/rooms", 7},
  };
  for (const Damage& damage : damages) {
    ordered document = ordered::parse(results());
    document[ordered::json_pointer(damage.pointer)] = damage.value;
    std::string fault;
    EXPECT_FALSE(read(document.dump(), &fault)) << damage.pointer;
    EXPECT_NE(fault.find("results.json: error[R010]"), std::string::npos) << fault;
  }
}

/// Of a room whose daylight is verified, with the course of a day.
const std::string& daylit() {
  static const std::string bytes = [] {
    const cli::TemporaryFolder folder;
    folder.write(
        "day.toml",
        "format = 1\n[project]\nname = \"D\"\nstandard = \"EN 12464-1:2021\"\n[site]\nlatitude = "
        "50\nlongitude = "
        "8\ntime_zone = 1\nnorth = 0\nmedian_diffuse = 14000\n[moments.day]\nsky = \"clear\"\ndate = "
        "\"2026-04-01\"\nseries = { from = \"10:00\", to = \"13:00\", step = \"1 h\" }\n[[rooms]]\nname = "
        "\"R\"\n"
        "outline = [[0, 0], [6, 0], [6, 2], [2, 2], [2, 6], [0, 6]]\nheight = 3\nsurfaces = false\n"
        "reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }\nmaintenance_factor = 0.8\n"
        "daylight = { provision = \"high\", sunlight = \"high\", view = \"high\" }\n[[rooms.openings]]\nname "
        "= \"w\"\n"
        "kind = \"window\"\nwall = 2\nfrom = 0.3\nwidth = 1\nsill = 1\nheight = 1\n");
    const cli::Ran ran = cli::run(folder, "run day.toml -o out -q --accuracy draft");
    EXPECT_EQ(ran.code, 0) << ran.err;
    return cli::content_of(folder.path() / "out/results.json");
  }();
  return bytes;
}

TEST(ResultsReader, RefusesDaylightThatIsNotWhole) {
  const std::string verified = "/rooms/0/scenes/0", day = "/rooms/0/scenes/1";
  const std::pair<std::string, ordered> damages[] = {
      {verified + "/outlook/day/month", 13},
      {verified + "/outlook/day/month", 0},
      {verified + "/outlook/day/latitude_deg", "north"},
      {verified + "/outlook/sun/0/sky", "0101"},
      {verified + "/outlook/sun/0/intervals/0/from_h", ordered::array()},
      {verified + "/outlook/view/angle_deg", "wide"},
      {verified + "/checks/0/quantity", "daylight"},
      {verified + "/checks/0/target/kind", "windows"},
      {verified + "/checks/0/mends/0/change/what", "prettier"},
      {day + "/series/steps/0/time_h", "ten"},
      {day + "/series/lines/0/lux", ordered::array({1.0})},
      {day + "/grids/0/day/sky_seen", "011"},
      {day + "/grids/0/day/sky_parts", 1000},
      {day + "/grids/0/day/sun_lx", ordered::array({1.0})},
      {day + "/grids/0/day/within_lx", "all"},
  };
  for (const auto& [pointer, value] : damages) {
    ordered document = ordered::parse(daylit());
    ASSERT_TRUE(document.contains(ordered::json_pointer(pointer.substr(0, pointer.rfind('/'))))) << pointer;
    document[ordered::json_pointer(pointer)] = value;
    std::string fault;
    EXPECT_FALSE(read(document.dump(), &fault)) << pointer;
    EXPECT_NE(fault.find("results.json: error[R010]"), std::string::npos) << fault;
  }
}

TEST(ResultsReader, SurvivesEveryCut) {
  for (std::size_t length = 0; length + 1 < results().size(); length += 1 + results().size() / 200)
    EXPECT_FALSE(read(results().substr(0, length))) << length;
}

TEST(JsonText, IsTheSameDocumentInFewerLines) {
  const ordered document = ordered::parse(results());
  EXPECT_EQ(json_text(document), results());
  std::istringstream lines(results());
  std::size_t longest = 0;
  for (std::string line; std::getline(lines, line);) longest = std::max(longest, line.size());
  EXPECT_LT(longest, 260u);
  EXPECT_EQ(
      json_text(ordered::parse(R"({"a":[],"b":{},"c":[1,2,[3,4]],"d":["x",1]})")),
      "{\n  \"a\": [],\n  \"b\": {},\n  \"c\": [1, 2, [3,4]],\n  \"d\": [\n    \"x\",\n    1\n  ]\n}\n");
}

TEST(OutputFolder, TakesAwayItsOwnStaleFilesAndNoOthers) {
  const cli::TemporaryFolder folder;
  const fs::path target = folder.path() / "out";
  {
    OutputFolder output(target);
    output.write("grids/old.csv", "x\n");
    output.write("results.json",
                 R"({"made_by": "glowgrid 0", "files": ["grids/old.csv", "../keep.txt", "/etc/hosts"]})");
    output.commit({});
  }
  folder.write("out/grids/mine.csv", "mine");
  folder.write("keep.txt", "keep");
  const auto stale = files_of_earlier_run(target / "results.json");
  EXPECT_EQ(stale, std::vector<std::string>{"grids/old.csv"});  // nothing outside of the folder
  OutputFolder output(target);
  output.write("grids/new.csv", "y\n");
  output.write("results.json", "{}");
  output.commit(stale);
  EXPECT_TRUE(fs::exists(target / "grids/new.csv"));
  EXPECT_TRUE(fs::exists(target / "grids/mine.csv"));
  EXPECT_FALSE(fs::exists(target / "grids/old.csv"));
  EXPECT_TRUE(fs::exists(folder.path() / "keep.txt"));
}

TEST(OutputFolder, OtherProgramsResultsAreNotOurs) {
  const cli::TemporaryFolder folder;
  folder.write("a.json", R"({"files": ["x"]})");
  folder.write("b.json", "not json");
  folder.write("c.json", R"({"made_by": "glowgrid 1", "files": [1, "a/../../b", ""]})");
  for (const char* name : {"a.json", "b.json", "c.json", "missing.json"})
    EXPECT_TRUE(files_of_earlier_run(folder.path() / name).empty()) << name;
}

}  // namespace results_reader_test
}  // namespace glow::files
