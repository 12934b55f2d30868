// Variants of a project: what they may change, and how a slip is told.
#include "files/project/variants.hpp"

#include <gtest/gtest.h>

#include "files/project/project_reader.hpp"

namespace glow::files {
namespace variants_test {

const std::string kBase = R"(format = 1
[project]
name = "Mill"
[defaults]
maintenance_factor = 0.8
reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }
[luminaires.A]
file = "a.ldt"
[[rooms]]
name = "Hall"
size = [6, 4]
height = 3
[[rooms.luminaires]]
name = "row"
mark = "A"
row = { from = [1, 1], to = [5, 1], count = 3 }
[[rooms.luminaires]]
mark = "A"
at = [3, 3]
[[rooms]]
name = "Store"
size = [3, 4]
height = 3
)";

struct Read {
  std::optional<model::Project> project;
  Problems problems;
};

Read read(const std::string& variant) {
  Read result;
  result.project = read_project(kBase + variant, "p.toml", result.problems, "v");
  return result;
}

const model::Room& hall(const Read& result) {
  return result.project->rooms.at(0);
}

TEST(Variants, ChangeWhatTheyName) {
  const Read changed = read(R"([variants.v]
note = "softer"
[variants.v.luminaires.A]
flux = 900
[[variants.v.rooms]]
name = "Hall"
height = 2.8
[[variants.v.rooms.luminaires]]
name = "row"
dimming = 0.5
)");
  ASSERT_TRUE(changed.project && !changed.problems.has_errors()) << to_string(changed.problems.all().front());
  EXPECT_EQ(hall(changed).height_m, 2.8);
  EXPECT_EQ(hall(changed).luminaires.at(0).dimming, 0.5);
  EXPECT_EQ(hall(changed).luminaires.at(0).row->count, 3);
  EXPECT_EQ(hall(changed).luminaires.at(1).dimming, 1);
  EXPECT_EQ(*changed.project->schedule.at(0).flux_lm, 900);
  EXPECT_EQ(changed.project->rooms.size(), 2u);
  EXPECT_EQ(changed.project->variants, std::vector<std::string>{"v"});
}

TEST(Variants, TakeOutPutInAndReplace) {
  const Read changed = read(R"([[variants.v.rooms]]
name = "Hall"
[[variants.v.rooms.luminaires]]
name = "row"
without = ["row"]
at = [2, 2]
[[variants.v.rooms.luminaires]]
name = "fresh"
mark = "A"
at = [4, 2]
[[variants.v.rooms]]
name = "Store"
remove = true
)");
  ASSERT_TRUE(changed.project && !changed.problems.has_errors()) << to_string(changed.problems.all().front());
  EXPECT_EQ(changed.project->rooms.size(), 1u);
  ASSERT_EQ(hall(changed).luminaires.size(), 3u);
  EXPECT_FALSE(hall(changed).luminaires[0].row);
  EXPECT_EQ(*hall(changed).luminaires[0].at, Vec2(2, 2));
}

struct SlipCase {
  const char *name, *text, *words;
};
void PrintTo(const SlipCase& one, std::ostream* out) {
  *out << one.name;
}
constexpr SlipCase kSlips[] = {
    {"NoName", "[[variants.v.rooms]]\nheight = 2\n", "which of [[rooms]] is meant"},
    {"NothingToRemove", "[[variants.v.rooms]]\nname = \"Halll\"\nremove = true\n",
     "there is no \"Halll\" in [[rooms]]"},
    {"TwoOfAMark",
     "[[variants.v.rooms]]\nname = \"Hall\"\n[[variants.v.rooms.luminaires]]\nmark = \"A\"\ndimming = 0.5\n",
     "2 of [[luminaires]] have mark \"A\""},
    {"NothingToLeaveOut", "[[variants.v.rooms]]\nname = \"Hall\"\nwithout = [\"ceilng\"]\n",
     "there is no \"ceilng\""},
    {"Format", "[variants.v]\nformat = 2\n", "a variant cannot change \"format\""},
    {"KeyThatIsUnknown", "[[variants.v.rooms]]\nname = \"Hall\"\nheigth = 2\n", "height"},
    {"NewRoomWithoutShape", "[[variants.v.rooms]]\nname = \"New\"\n", "size"},
    {"OtherName", "[variants.w]\nnote = \"\"\n", "the project has no variant \"v\""},
};

class SlipTest : public testing::TestWithParam<SlipCase> {};

TEST_P(SlipTest, IsToldWithItsLine) {
  const Read result = read(GetParam().text);
  ASSERT_TRUE(result.problems.has_errors());
  std::string all;
  for (const Problem& problem : result.problems.all()) all += to_string(problem) + "\n";
  EXPECT_NE(all.find(GetParam().words), std::string::npos) << all;
  const int base_lines = int(std::count(kBase.begin(), kBase.end(), '\n'));
  if (std::string(GetParam().name) != "OtherName") {
    EXPECT_GT(result.problems.all().front().place.line, base_lines) << all;
  }
}

INSTANTIATE_TEST_SUITE_P(Variants, SlipTest, testing::ValuesIn(kSlips),
                         [](const auto& one) { return std::string(one.param.name); });

}  // namespace variants_test
}  // namespace glow::files
