// Input that is nearly right is told how to mend it; and what newer keys of the project do.
#include "cli/run_program.hpp"

namespace glow::cli {
namespace input_mends_test {

bool says(const std::string& text, const std::string& words) {
  return text.find(words) != std::string::npos;
}

const std::string kRoom =
    "[[rooms]]\nname = \"A\"\nsize = [6, 4]\nheight = 3\ntask = \"office.writing\"\nsurfaces = false\n";
const std::string kArray =
    "[[rooms.luminaires]]\nmark = \"P1\"\nmounting = \"suspended\"\nsuspension = 0.5\narray = { rows = 2, "
    "columns = 2 }\n";

std::string project(const std::string& room, const std::string& luminaire = "",
                    const std::string& reflectance = "{ ceiling = 0.7, walls = 0.5, floor = 0.2 }") {
  return "format = 1\n[project]\nstandard = \"EN 12464-1:2021\"\n[defaults]\nmaintenance_factor = "
         "0.8\nreflectance = " +
         reflectance + "\n[luminaires.P1]\nfile = \"photometry/tarnfell-p1.ldt\"\n" + luminaire + room;
}

struct Mend {
  const char* name;
  std::string text, words;
};

class InputMend : public testing::TestWithParam<Mend> {};

TEST_P(InputMend, IsSaidOnce) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("p.toml", GetParam().text);
  const Ran ran = run(folder, "check p.toml");
  EXPECT_EQ(ran.code, 2) << ran.out;
  const std::size_t at = ran.err.find(GetParam().words);
  EXPECT_NE(at, std::string::npos) << ran.err;
  EXPECT_EQ(ran.err.find(GetParam().words, at + 1), std::string::npos) << ran.err;
  EXPECT_TRUE(says(ran.err, "p.toml: 1 error,")) << ran.err;
}

INSTANTIATE_TEST_SUITE_P(
    Words, InputMend,
    testing::Values(
        Mend{"percent", project(kRoom, "", "{ ceiling = 70, walls = 0.5, floor = 0.2 }"),
             "If this is a percentage, say \"70 %\" or 0.7"},
        Mend{"dimming", project(kRoom + kArray + "dimming = 60\n"), "say \"60 %\" or 0.6"},
        Mend{"height_in_at", project(kRoom + "[[rooms.luminaires]]\nmark = \"P1\"\nat = [1, 1, 2.4]\n"),
             "The height is mounting_height = 2.4"},
        Mend{"cri", project(kRoom, "cri = 80\n"), "did you mean \"ra\"?"},
        Mend{"lumens", project(kRoom, "lumens = 80\n"), "did you mean \"flux\"?"},
        Mend{"finish", project(kRoom + "[[rooms.walls]]\nwall = 1\nmaterial = \"whitewashed brick\"\n"),
             "there are \"pale brick\", \"red brick\". All"},
        Mend{"facing",
             project(kRoom + "[[rooms.points]]\nname = \"p\"\nat = [1, 1, 1]\nfacing = \"nobody\"\n"),
             "\"towards NAME\""},
        Mend{"within",
             project(kRoom + "[[rooms.luminaires]]\nmark = \"P1\"\narray = { rows = 1, columns = 1, within = "
                             "[[0, 0], [2, 2], [2, 0], [0, 2]] }\n"),
             "two opposite corners"},
        Mend{"spacing_and_counts",
             project(kRoom + "[[rooms.luminaires]]\nmark = \"P1\"\narray = { rows = 1, spacing = "
                             "[1, 1] }\n"),
             "both \"spacing\" and counts"},
        Mend{"screens", project(kRoom + kArray + "[rooms.glare.screens.leave_out]\nW3 = \"far away\"\n"),
             "there is no luminaire W3 in \"A\""},
        Mend{"together",
             project(kRoom + kArray + "[[rooms.grids]]\nname = \"g\"\nheight = 0.5\ntogether = true\n"),
             "\"together\" makes one grid"}),
    [](const auto& of) { return of.param.name; });

json room_of(const TemporaryFolder& folder, const std::string& text) {
  folder.write("p.toml", text);
  const Ran ran = run(folder, "run p.toml --accuracy draft --no-cache -q --json");
  EXPECT_EQ(ran.code, 0) << ran.err;
  return json_of(ran.out).at("rooms").at(0);
}

TEST(Input, AnArrayFillsAPartOfTheRoomByCountOrSpacing) {
  const TemporaryFolder folder;
  write_project(folder);
  const auto places = [&](const std::string& array) {
    return room_of(folder,
                   project(kRoom + "[[rooms.luminaires]]\nmark = \"P1\"\narray = { " + array + " }\n"))
        .at("luminaires")[0]
        .at("positions_m");
  };
  const json part = places("rows = 1, columns = 2, within = [[4, 3], [2, 1]]");
  ASSERT_EQ(part.size(), 2u);
  EXPECT_NEAR(part[0][0].get<double>(), 2.5, 1e-6);
  EXPECT_NEAR(part[1][0].get<double>(), 3.5, 1e-6);
  EXPECT_NEAR(part[0][1].get<double>(), 2, 1e-6);
  // 6 m by 1.6 m: four, 0.6 m from the walls; 4 m by 1.5 m: three.
  const json even = places("spacing = [1.6, 1.5]");
  ASSERT_EQ(even.size(), 12u);
  EXPECT_NEAR(even[0][0].get<double>(), 0.6, 1e-6);
  EXPECT_NEAR(even[0][1].get<double>(), 0.5, 1e-6);
}

TEST(Input, PostureFollowsTheTaskAndIsSaid) {
  const TemporaryFolder folder;
  write_project(folder);
  for (const auto& [task, words] :
       {std::pair{"health.waiting-room", "people are seated for health.waiting-room"},
        {"health.operating-theatre", "people are standing for health.operating-theatre"},
        {"office.writing", "people are seated for office.writing"}}) {
    std::string text = project(kRoom + kArray);
    text.replace(text.find("office.writing"), 14, task);
    folder.write("p.toml", text);
    EXPECT_TRUE(says(run(folder, "check p.toml").out, words)) << task;
    text.replace(text.find("surfaces = false"), 16, "posture = \"standing\"");
    folder.write("p.toml", text);
    EXPECT_FALSE(says(run(folder, "check p.toml").out, "people are")) << task;
  }
}

TEST(Input, OneGridLiesOverRepeatedThings) {
  const TemporaryFolder folder;
  write_project(folder);
  const std::string cages =
      "[[rooms.objects]]\nname = \"cage\"\nbox = [0.6, 0.6, 0.8]\nat = [0.5, 3, 0]\nreflectance = "
      "0.4\nrepeat = { "
      "columns = 4, rows = 1, step = [1.2, 0] }\n[[rooms.grids]]\nname = \"tops\"\non = \"cage.top\"\n";
  const json each = room_of(folder, project(kRoom + kArray + cages)).at("grids");
  const json one = room_of(folder, project(kRoom + kArray + cages + "together = true\n")).at("grids");
  EXPECT_EQ(each.size(), one.size() + 3);
  const json& tops =
      *std::find_if(one.begin(), one.end(), [](const json& grid) { return grid.at("name") == "tops"; });
  double least = 1e9, most = 0;
  for (const json& grid : each) {
    if (!says(grid.at("name").get<std::string>(), "tops")) continue;
    least = std::min(least, grid.at("mean_lx").get<double>());
    most = std::max(most, grid.at("mean_lx").get<double>());
  }
  EXPECT_GE(tops.at("mean_lx").get<double>(), 0.95 * least);
  EXPECT_LE(tops.at("mean_lx").get<double>(), 1.05 * most);
  EXPECT_GE(tops.at("points").get<int>(), 16);
  std::string steps = cages;
  steps.replace(steps.find("[0.5, 3, 0]"), 11, "[0.5, 3, 0]\nrotation = 90");
  steps.replace(steps.find("cage.top"), 8, "cage.left");
  folder.write("p.toml", project(kRoom + kArray + steps + "together = true\n"));
  EXPECT_TRUE(says(run(folder, "check p.toml").err, "do not lie in one plane"));
}

TEST(Input, ALuminaireIsLeftOutOfTheCheckOfScreensForAReasonThatIsTold) {
  const TemporaryFolder folder;
  write_project(folder);
  const std::string screens = project(kRoom + kArray);
  EXPECT_TRUE(says(room_of(folder, screens).at("checks").dump(), "luminance of luminaires"));
  const json room =
      room_of(folder, screens + "[rooms.glare.screens.leave_out]\nP1 = \"hangs behind the screens\"\n");
  EXPECT_FALSE(says(room.at("checks").dump(), "luminance of luminaires"));
  EXPECT_TRUE(says(room.at("not_checked").dump(), "P1, hangs behind the screens"));
  EXPECT_TRUE(says(run(folder, "show p.toml checks").out, "hangs behind the screens"));
}

TEST(Input, APointFacesAThingOrLiesOnIt) {
  const TemporaryFolder folder;
  write_project(folder);
  const auto normal = [&](const std::string& facing) {
    return room_of(
               folder,
               project(
                   kRoom + kArray +
                   "[[rooms.objects]]\nname = \"board\"\nbox = [2, 0.1, 1]\nat = [2, 3.8, 1]\nreflectance = "
                   "0.4\n[[rooms.points]]\nname = \"p\"\nat = [3, 3.7, 1.5]\nfacing = \"" +
                   facing + "\"\n"))
        .at("points")[0]
        .at("facing");
  };
  EXPECT_NEAR(normal("towards board")[1].get<double>(), 1, 1e-6);
  EXPECT_NEAR(normal("board")[1].get<double>(), 1, 1e-6);
  EXPECT_NEAR(normal("off board")[1].get<double>(), -1, 1e-6);
}

}  // namespace input_mends_test
}  // namespace glow::cli
