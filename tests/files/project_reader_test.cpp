#include "files/project/project_reader.hpp"

#include <gtest/gtest.h>

#include "core/model/file_names.hpp"
#include "files/output/embedded_files.hpp"
#include "files/requirements/requirement_table_reader.hpp"

namespace glow::files {
namespace project_reader_test {

constexpr const char* kProject = R"(format = 1
[project]
name = "Millrace Pottery"
standard = "EN 12464-1:2021"
[defaults]
reflectance = { ceiling = "70 %", walls = 0.5, floor = 0.2 }
maintenance_factor = 0.8
work_plane = { inset = "1 ft" }
[luminaires.P1]
file = "p1.ldt"
[luminaires.A9]
file = "a9.ies"
[[rooms]]
name = "Passage"
outline = [[0, 0], ["9 ft 6 in", 0], [2.8956, 4], [0, 4]]
height = "270 cm"
[[rooms]]
name = "Throwing room"
size = [9.6, 6.4]
height = 3.2
task = "ceramics.glazing"
maintenance_factor = 0.7
reflectance = { walls = 0.6 }
work_plane = { height = "30 in", spacing = "auto" }
[[rooms.luminaires]]
mark = "P1"
array = { rows = 2, columns = 4 }
rotation = 90
suspension = "50 cm"
[[rooms.luminaires]]
mark = "A9"
at = [1.5, "2 m"]
mounting_height = 2.6
)";

TEST(ProjectReader, ResolvesUnitsAndDefaults) {
  Problems problems;
  const auto project = read_project(kProject, "millrace.toml", problems);
  ASSERT_TRUE(project);
  for (const Problem& problem : problems.all()) ADD_FAILURE() << to_string(problem);
  EXPECT_EQ(project->name, "Millrace Pottery");
  ASSERT_EQ(project->schedule.size(), 2u);
  EXPECT_EQ(project->schedule[0].mark, "P1");  // in the order of the file, not by name
  EXPECT_EQ(project->schedule[1].file_place.line, 12);
  ASSERT_EQ(project->rooms.size(), 2u);
  const model::Room& passage = project->rooms[0];
  EXPECT_DOUBLE_EQ(passage.outline[1].x(), 9 * 0.3048 + 6 * 0.0254);
  EXPECT_DOUBLE_EQ(passage.height_m, 2.7);
  EXPECT_DOUBLE_EQ(passage.reflectances.ceiling, 0.7);
  EXPECT_DOUBLE_EQ(*passage.work_plane.inset_m, 0.3048);
  EXPECT_FALSE(passage.work_plane.height_m);
  EXPECT_FALSE(passage.task);
  const model::Room& room = project->rooms[1];
  EXPECT_EQ(room.outline.size(), 4u);
  EXPECT_DOUBLE_EQ(*room.maintenance_factor, 0.7);
  EXPECT_DOUBLE_EQ(room.reflectances.walls, 0.6);
  EXPECT_DOUBLE_EQ(room.reflectances.floor, 0.2);
  EXPECT_DOUBLE_EQ(*room.work_plane.height_m, 0.762);
  EXPECT_FALSE(room.work_plane.spacing_m);
  ASSERT_EQ(room.luminaires.size(), 2u);
  EXPECT_EQ(room.luminaires[0].array->columns, 4);
  EXPECT_DOUBLE_EQ(*room.luminaires[0].suspension_m, 0.5);
  EXPECT_DOUBLE_EQ(room.luminaires[1].at->y(), 2);
  EXPECT_EQ(room.luminaires[1].place.line, 30);
}

TEST(ProjectReader, SurvivesEveryTruncationAndDamage) {
  const std::string whole = kProject;
  for (std::size_t at = 0; at < whole.size(); ++at) {
    Problems cut;
    read_project(whole.substr(0, at), "cut.toml", cut);
    for (const char damage : {'[', '"', '9', '\0', '\xC3'}) {
      std::string damaged = whole;
      damaged[at] = damage;
      Problems problems;
      const auto project = read_project(damaged, "damaged.toml", problems);
      ASSERT_TRUE(project || problems.has_errors()) << "byte " << at;
    }
  }
}

TEST(ProjectReader, RefusesHostileNesting) {
  std::string deep = "format = 1\n";
  for (int i = 0; i < 100000; ++i) deep += "a.";
  deep += "a = 1\n";
  Problems problems;
  EXPECT_FALSE(read_project(deep, "deep.toml", problems));
  ASSERT_EQ(problems.error_count(), 1);
  EXPECT_EQ(problems.all()[0].place.line, 2);
  Problems brackets;
  EXPECT_FALSE(read_project("a = " + std::string(100000, '['), "brackets.toml", brackets));
  EXPECT_EQ(brackets.error_count(), 1);
}

TEST(ProjectReader, NamesFilesAfterRooms) {
  EXPECT_EQ(model::file_name_part("Throwing room"), "throwing-room");
  EXPECT_EQ(model::file_name_part("../../etc"), "etc");
  EXPECT_EQ(model::file_name_part("Bay 3 / east"), "bay-3-east");
  EXPECT_EQ(model::file_name_part("K\xC3\xBC"
                                  "che"),
            "k\xC3\xBC"
            "che");
  EXPECT_EQ(model::file_name_part("..."), "");
}

TEST(RequirementTable, BuiltInOnesAreReadWhole) {
  for (const auto& [name, rows] : {std::pair{"EN 12464-1:2021", 295},
                                   {"EN 12464-1:2011", 285},
                                   {"ISO 8995-1:2002", 87},
                                   {"EN 12464-2:2014", 41},
                                   {"EN 12193:2007/2018", 54},
                                   {"EN 1838:2013", 6}}) {
    const auto* table = built_in_table(name);
    ASSERT_TRUE(table) << name;
    EXPECT_EQ(table->rows().size(), std::size_t(rows)) << name;
    for (const standards::Requirement& r : table->rows()) {
      EXPECT_TRUE(r.em_lx || r.emin_lx || r.is_not_held("Em_lx") || !r.remark.empty() || !r.others.empty())
          << r.key;
      EXPECT_TRUE(r.certainty == "agreed" || r.certainty == "single" || r.certainty == "disputed") << r.key;
      EXPECT_TRUE(r.plane_height_m || r.orientation() != standards::PlaneOrientation::horizontal ||
                  r.plane_note.find("not held") != std::string::npos)
          << r.key << ": " << r.plane_note;
    }
  }
  const standards::Requirement* row = built_in_table("EN 12464-1:2021")->find("ceramics.glazing");
  ASSERT_TRUE(row);
  EXPECT_EQ(row->em_lx, 300);
  EXPECT_EQ(row->uo, 0.60);
  EXPECT_EQ(row->rugl, 25);
  EXPECT_FALSE(row->ez_lx);
  EXPECT_EQ(row->plane_height_m, 0.85);
  EXPECT_EQ(row->source(), "EN 12464-1:2021, 17.3");
  // The 2011 edition asks for light on walls in a clause, not in its rows.
  EXPECT_EQ(built_in_table("EN 12464-1:2011")->find("office.writing")->ewall_lx, 75);
  EXPECT_FALSE(built_in_table("EN 12464-1:1999"));
}

TEST(RequirementTable, FaultsAreNamedWithTheirLine) {
  Problems problems;
  EXPECT_FALSE(read_requirement_table(
      "standard,edition,key,task,Em_lx,colour\nx,1,a.b,300\nx,1,,t,many,red\nx,1,c.d,t,5,\nx,1,c.d,t,-5,\n",
      "t.csv", problems));
  std::vector<std::string> found;
  for (const Problem& p : problems.all())
    found.push_back(p.code + ":" + std::to_string(p.place.line) + ":" + std::to_string(p.place.column));
  EXPECT_EQ(found, (std::vector<std::string>{"S001:1:33", "S002:2:1", "S003:3:8", "S004:3:1", "S003:5:11",
                                             "S006:5:1"}));
}

}  // namespace project_reader_test
}  // namespace glow::files
