// Placements put into project files: all else stays byte for byte, and what was written is read back the
// same.
#include "files/project/writers/placement_writer.hpp"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include "core/standards/usual_hours.hpp"
#include "files/project/project_reader.hpp"

namespace glow::files {
namespace placement_writer_test {

model::LuminairePlacement array_of_p1() {
  model::LuminairePlacement placement;
  placement.mark = "P1";
  placement.array = model::Array{2, 3, {}, {}};
  placement.array->staggered = true;
  placement.rotation_deg = 90;
  placement.mounting = model::Mounting::suspended;
  placement.suspension_m = 0.6;
  placement.dimming = 0.85;
  return placement;
}

const std::string kTable = placement_text(array_of_p1(), {});

const std::string kHead =
    "format = 1 # one\n[defaults]\nmaintenance_factor = 0.8\n[luminaires.P1]\nfile = \"p1.ldt\"\n\n";
const std::string kRoom = "[[rooms]]   # the first\nname = \"A\"\nsize = [4, 3]\nheight = 2.8\n";

struct Case {
  const char* name;
  std::string before, gone, after;  ///< a file is made of all three; `gone` gives way to the new table
  std::optional<std::size_t> instead;
  std::vector<std::size_t> taken_out;
  std::string lead;  ///< before the new table
};

class Writing : public testing::TestWithParam<Case> {};

TEST_P(Writing, ChangesOnlyItsOwnLines) {
  const Case& c = GetParam();
  const auto text = with_placement(c.before + c.gone + c.after, 0, array_of_p1(), c.instead, c.taken_out, {});
  ASSERT_TRUE(text);
  EXPECT_EQ(*text, c.before + c.lead + kTable + c.after);
}

const std::string kLight = "[[rooms.luminaires]] # to go\nmark = \"P1\"\nat = [1, 1]\n";
const std::string kWall = "\n# a wall\n[[rooms.walls]]\nwall = 1\nname = \"x\"\n";

INSTANTIATE_TEST_SUITE_P(
    Places, Writing,
    testing::Values(
        Case{"instead_of_another", kHead + kRoom + "\n", kLight, kWall, 0, {}, ""},
        Case{"at_the_end_without_a_line_break", kHead + kRoom, "", "", {}, {}, "\n"},
        Case{"after_the_rooms_last_table",
             kHead + kRoom + kWall,
             "",
             "\n# more\n[figures]\nsteps = 5\n",
             {},
             {},
             "\n"},
        Case{"before_the_next_room",
             kHead + kRoom + "\n[[rooms.openings]]\nname = \"d\"\n",
             "",
             "\n# what follows\n[[rooms]]\nname = \"B\"\n",
             {},
             {},
             "\n"},
        Case{"lists_over_several_lines",
             kHead + kRoom + "\n",
             "[[rooms.luminaires]]\nmark = \"P1\"\nrow = { from = [1, 1], to = [3, 1], count = 2 }\n",
             "[[rooms.grids]]\nname = \"g\"\npolygon = [\n[0, 0, 1],\n[1, 0, 1],\n[1, 1, 1]]\n",
             0,
             {},
             ""},
        Case{"carriage_returns", "format = 1\r\n[[rooms]]\r\nname = \"A\"\r\n", "", "", {}, {}, "\n"}),
    [](const auto& each) { return std::string(each.param.name); });

TEST(Writing, TakesFurtherTablesOutWithTheBlankLineThatLedToThem) {
  const auto text = with_placement(kHead + kRoom + "\n" + kLight + kWall + "\n" + kLight + "# end\n", 0,
                                   array_of_p1(), 0, {1}, {});
  ASSERT_TRUE(text);
  EXPECT_EQ(*text, kHead + kRoom + "\n" + kTable + kWall + "# end\n");
}

TEST(Writing, LeavesInlineTablesToPeople) {
  EXPECT_FALSE(with_placement(kHead + kRoom + "luminaires = [{ mark = \"P1\", at = [1, 1] }]\n", 0,
                              array_of_p1(), 0, {}, {}));
  EXPECT_FALSE(with_placement(kHead + kRoom, 3, array_of_p1(), {}, {}, {}));
}

TEST(Writing, IsReadBackTheSame) {
  const auto text = with_placement(kHead + kRoom, 0, array_of_p1(), {}, {}, {});
  Problems problems;
  const auto project = read_project(*text, "p.toml", problems);
  ASSERT_TRUE(project);
  ASSERT_EQ(problems.error_count(), 0) << to_string(problems.all().front());
  const model::LuminairePlacement& read = project->rooms.at(0).luminaires.at(0);
  EXPECT_EQ(placement_text(read, {}), kTable);
  EXPECT_TRUE(read.array->staggered);
  EXPECT_EQ(*read.suspension_m, 0.6);
  EXPECT_EQ(read.dimming, 0.85);
}

TEST(UsualHours, AreThoseOfTheKindOfBuilding) {
  struct Known {
    const char* area;
    double hours;
  };
  for (const Known& known : {Known{"offices", 2500},
                             {"education", 2000},
                             {"health: wards", 5000},
                             {"restaurants and hotels", 2500},
                             {"retail", 5000},
                             {"ceramics and glass", 4000}}) {
    const auto hours = standards::usual_hours(known.area);
    ASSERT_TRUE(hours) << known.area;
    EXPECT_EQ(hours->day_h + hours->night_h, known.hours) << known.area;
  }
  for (const char* area : {"circulation", "public assembly", "", "of no building"})
    EXPECT_FALSE(standards::usual_hours(area)) << area;
}

}  // namespace placement_writer_test
}  // namespace glow::files
