// What the project file says about targets: tasks, areas, levels, maintenance, spreads, tables of one's own.
#include <gtest/gtest.h>

#include <cmath>

#include "files/project/project_reader.hpp"
#include "files/project/project_tables.hpp"
#include "files/requirements/requirement_table_reader.hpp"
#include "temporary_folder.hpp"

namespace glow::files {
namespace targets_test {

constexpr const char* kHead = R"(format = 1
[luminaires.A]
file = "a.ies"
[[rooms]]
name = "Glaze kitchen"
size = [6, 4]
height = 3
reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }
maintenance_factor = 0.8
)";
constexpr int kHeadLines = 9;

std::optional<model::Project> read(const std::string& more, Problems& problems) {
  return read_project(kHead + more, "kitchen.toml", problems);
}

TEST(Targets, AreReadWithTheirUnits) {
  Problems problems;
  const auto project = read(R"(task = "education.classroom"
level = { steps = -1, reason = "large letters" }
verify = "room"
eyes = "standing"
room_surfaces = { factor = "94 %", cleaning_years = 3 }
[[rooms.areas]]
name = "by the task"
rectangle = { at = [1, "50 cm"], size = [2, 0.8], rotation = 30 }
task = "office.writing"
level = { modified = true, reason = "older eyes" }
surroundings = false
[[rooms.areas]]
name = "clockwise"
outline = [[1, 1], [1, 2], [3, 2], [3, 1]]
height = 0.7
[[rooms.areas]]
on = "wall 2"
[spread]
samples = 50
seed = 7
flux = "8 %"
reflectance = 0
mounting = "2 cm"
[project]
also_verify = ["EN 12464-1:2011"]
tables = ["own.csv", "more.csv"]
[luminaires.B]
file = "b.ies"
ra = 90
maintenance = { lamp_flux = 0.93, lamp_survival = 0.99, luminaire = 0.89, lamp_hours = 50000, cleaning_years = 2 }
)",
                            problems);
  ASSERT_TRUE(project && !problems.has_errors()) << to_string(problems.all().at(0));
  const model::Room& room = project->rooms.at(0);
  EXPECT_EQ(room.level->steps, -1);
  EXPECT_EQ(room.level->reason, "large letters");
  EXPECT_EQ(room.verification, model::Verification::whole_room);
  EXPECT_EQ(room.eyes, model::Eyes::standing);
  EXPECT_DOUBLE_EQ(room.room_surfaces->factor, 0.94);
  ASSERT_EQ(room.areas.size(), 3u);
  EXPECT_TRUE(std::isnan(room.areas[0].grid.rectangle->at.z()));
  EXPECT_DOUBLE_EQ(room.areas[0].grid.rectangle->at.y(), 0.5);
  EXPECT_TRUE(room.areas[0].level->modified);
  EXPECT_FALSE(room.areas[0].surroundings);
  const auto& outline = *room.areas[1].grid.polygon;
  ASSERT_EQ(outline.size(), 4u);
  EXPECT_DOUBLE_EQ(outline[0].z(), 0.7);
  const Vec3 first = outline[1] - outline[0], second = outline[2] - outline[1];
  EXPECT_GT(first.cross(second).z(), 0) << "seen from above";
  EXPECT_EQ(room.areas[2].grid.on, "wall 2");
  EXPECT_EQ(room.areas[2].grid.name, "wall 2");
  EXPECT_EQ(project->spread.samples, 50);
  EXPECT_EQ(project->spread.seed, 7u);
  EXPECT_DOUBLE_EQ(project->spread.flux, 0.08);
  EXPECT_DOUBLE_EQ(project->spread.reflectance, 0);
  EXPECT_DOUBLE_EQ(project->spread.mounting_m, 0.02);
  EXPECT_DOUBLE_EQ(project->spread.maintenance, 0.05);
  EXPECT_EQ(project->also_verify.at(0).name, "EN 12464-1:2011");
  EXPECT_EQ(project->tables.at(1).file, "more.csv");
  EXPECT_EQ(project->tables.at(1).place.line, 35);
  const model::ScheduledLuminaire* b = project->find("B");
  ASSERT_TRUE(b && b->maintenance);
  EXPECT_DOUBLE_EQ(*b->ra, 90);
  EXPECT_NEAR(model::maintenance_factor(*b->maintenance, 0.94), 0.93 * 0.99 * 0.89 * 0.94, 1e-12);
}

struct Fault {
  const char* more;
  int line;  ///< after the head
  const char *code, *words;
};

class TargetFault : public ::testing::TestWithParam<Fault> {};

TEST_P(TargetFault, IsToldOnceWithItsPlaceAndItsMend) {
  const Fault& fault = GetParam();
  Problems problems;
  read(fault.more, problems);
  ASSERT_EQ(problems.all().size(), 1u) << to_string(problems.all().back());
  const Problem& problem = problems.all()[0];
  EXPECT_EQ(problem.code, fault.code) << problem.text;
  EXPECT_EQ(problem.place.line, fault.line + kHeadLines) << problem.text;
  EXPECT_NE(problem.text.find(fault.words), std::string::npos) << problem.text;
}

INSTANTIATE_TEST_SUITE_P(
    Faults, TargetFault,
    ::testing::Values(
        Fault{"level = { reason = \"x\" }\n", 1, "P007", "\"modified\" = true"},
        Fault{"level = { modified = true, steps = 1, reason = \"x\" }\n", 1, "P007", "either by"},
        Fault{"level = { steps = 1 }\n", 1, "P004", "\"reason\""},
        Fault{"level = { steps = 9, reason = \"x\" }\n", 1, "P005", "expected -5 to 5"},
        Fault{"verify = \"area\"\n", 1, "P005", "expected room"},
        Fault{"eyes = \"lying\"\n", 1, "P005", "seated (1.2 m) or standing"},
        Fault{"room_surfaces = { factor = 1.2 }\n", 1, "P005", "expected from 0.01 to 1"},
        Fault{"room_surfaces = { cleaning_years = 2 }\n", 1, "P004", "\"factor\""},
        Fault{"[[rooms.areas]]\nname = \"x\"\n", 1, "P007", "exactly one of"},
        Fault{"[[rooms.areas]]\nrectangle = { at = [1, 1], size = [1, 1] }\n", 1, "P004", "needs a \"name\""},
        Fault{"[[rooms.areas]]\nname = \"x\"\nrectangle = { at = [1, 1, 1], height = 1, size = [1, 1] }\n", 3,
              "P007", "its height once"},
        Fault{"[[rooms.areas]]\nname = \"x\"\non = \"floor\"\nheight = 1\n", 4, "P007",
              "goes with \"outline\""},
        Fault{"[[rooms.areas]]\nname = \"x\"\non = \"floor\"\ntasc = \"a\"\n", 4, "P002",
              "did you mean \"task\"?"},
        Fault{"[spread]\nflux = 0.9\n", 2, "P005", "from 0 to 0.5"},
        Fault{"[spread]\nsamples = 1\n", 2, "P005", "expected 10 to 100000"},
        Fault{"[project]\nalso_verify = \"EN 12464-1:2011\"\n", 2, "P003", "a list of texts"},
        Fault{"[project]\ntables = [\"a.csv\", 3]\n", 2, "P003", "a list of texts"},
        Fault{"[luminaires.B]\nfile = \"b.ies\"\nmaintenance = { lamp_flux = 0.9 }\n", 3, "P004",
              "\"luminaire\""},
        Fault{"[luminaires.B]\nfile = \"b.ies\"\nra = 120\n", 3, "P005", "from 0 to 100"}));

TEST(OwnTables, TakeThePlaceOfRowsAndAddOthers) {
  const test::TemporaryFolder folder;
  folder.write("own.csv",
               "standard,edition,key,task,Em_lx\r\nHouse,2026,office.writing,by hand,450\r\n"
               "House,2026,pottery.mixing,mixing clay,220\r\n\r\n");
  model::Project project;
  project.rooms.resize(1);
  project.standard = "EN 12464-1:2021";
  project.also_verify = {{"House:2026", {}}};
  project.tables = {{"own.csv", {}}};
  Problems problems;
  const auto tables = requirement_tables(project, folder.path(), problems);
  ASSERT_EQ(tables.size(), 2u) << to_string(problems.all().at(0));
  EXPECT_EQ(tables[0].rows().size(), 296u);
  EXPECT_EQ(tables[0].find("office.writing")->em_lx, 450);
  EXPECT_TRUE(tables[0].find("office.writing")->own);
  EXPECT_EQ(tables[0].find("office.writing")->certainty, "not stated");
  EXPECT_EQ(tables[0].name(), "EN 12464-1:2021");
  EXPECT_EQ(tables[1].rows().size(), 2u);
  EXPECT_EQ(tables[1].name(), "House:2026");
  // What is not there is told; what cannot be read is not taken for an unknown standard as well.
  project.tables = {{"none.csv", {"kitchen.toml", 3, 1}}};
  EXPECT_TRUE(requirement_tables(project, folder.path(), problems).empty());
  ASSERT_EQ(problems.error_count(), 1);
  EXPECT_EQ(problems.all().back().code, "R001");
}

TEST(OwnTables, SurviveWhateverStandsInThem) {
  const std::string row = "House,2026,a.b,task,300\n";
  for (const std::string& bytes :
       std::vector<std::string>{std::string(), std::string("\n\n\n"), std::string(3000000, ','),
                                "standard,edition,key,task," + std::string(1000000, 'x'),
                                std::string(200, 'k') + "," + std::string(400, '\n'), std::string("key"),
                                std::string("standard;edition;key;task\nx;y;z;t\n"),
                                "standard,edition,key,task,Em_lx\n" + std::string(100000, ','),
                                std::string("standard,edition,key,task\n\xFF\xFE\x00,", 29),
                                "standard,edition,key,task,Em_lx\nHouse,2026,a.b,task,nan\n",
                                "standard,edition,key,task,Em_lx\nHouse,2026,a.b,task,1e999\n",
                                "standard,standard,edition,key,task\nHouse,House,2026,a.b,task\n"}) {
    Problems problems;
    EXPECT_FALSE(read_requirement_table(bytes, "own.csv", problems));
    EXPECT_TRUE(problems.has_errors());
  }
  Problems empty;
  EXPECT_FALSE(read_requirement_table("", "own.csv", empty));
  EXPECT_EQ(empty.all().size(), 1u);
  std::string many = "standard,edition,key,task,Em_lx\n";
  for (int i = 0; i < 30000; ++i) many += "House,2026,k." + std::to_string(i) + ",task,300\n";
  Problems problems;
  EXPECT_FALSE(read_requirement_table(many, "own.csv", problems));
  EXPECT_NE(problems.all().front().text.find("more than 20000 rows"), std::string::npos);
  // Every beginning of a good table is read, or refused in words.
  const std::string good = "standard,edition,key,task,Em_lx\n" + row;
  for (std::size_t size = 0; size < good.size(); ++size) {
    Problems cut;
    const bool is_read = read_requirement_table(good.substr(0, size), "own.csv", cut).has_value();
    EXPECT_EQ(is_read, !cut.has_errors()) << size;
  }
}

}  // namespace targets_test
}  // namespace glow::files
