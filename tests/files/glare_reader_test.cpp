// What the project file says about glare: eyes, what verifies it, screens, shielding.
#include <gtest/gtest.h>

#include <cmath>

#include "core/space/placing/eye_placing.hpp"
#include "files/project/project_reader.hpp"
#include "temporary_folder.hpp"

namespace glow::files {
namespace glare_reader_test {

std::optional<model::Project> read(const std::string& luminaire, const std::string& room,
                                   Problems& problems) {
  return read_project("format = 1\n[luminaires.A]\nfile = \"a.ies\"\n" + luminaire +
                          "[[rooms]]\nname = \"Glaze kitchen\"\nsize = [6, 4]\nheight = 3\n"
                          "reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }\n"
                          "maintenance_factor = 0.8\n" +
                          room,
                      "kitchen.toml", problems);
}

TEST(GlareReader, ReadsEyesScreensAndShielding) {
  Problems problems;
  const auto project = read("lamp_luminance = 60000\nlouvre = { depth = \"5 cm\", opening = \"5 cm\" }\n",
                            R"(posture = "standing"
glare = { verified_by = "eyes", screens = { luminance = 250, dark_background = true, from = 55 } }
[[rooms.eyes]]
name = "desk"
at = [1, "50 cm"]
posture = "seated"
looking = [90, 45]
[[rooms.eyes]]
height = 1.3
looking = "8 directions"
spacing = "60 cm"
inset = 0.3
verified = false
)",
                            problems);
  ASSERT_TRUE(project && problems.all().empty()) << to_string(problems.all().at(0));
  const model::Room& room = project->rooms.at(0);
  EXPECT_EQ(room.eyes, model::Eyes::standing);
  EXPECT_EQ(room.glare_method, model::GlareMethod::eyes);
  EXPECT_FALSE(room.screens.value().assumed);
  EXPECT_TRUE(room.screens->dark_background);
  EXPECT_EQ(room.screens->from_deg, 55);
  ASSERT_EQ(room.eye_wishes.size(), 2u);
  const model::EyesWish &desk = room.eye_wishes[0], &all = room.eye_wishes[1];
  EXPECT_EQ(desk.at.value().y(), 0.5);
  EXPECT_TRUE(std::isnan(desk.at->z()));
  EXPECT_EQ(desk.posture, model::Eyes::seated);
  EXPECT_EQ(desk.looking, "90, 45");
  EXPECT_EQ(all.name, "eyes");
  EXPECT_EQ(all.spacing_m.value(), 0.6);
  EXPECT_EQ(all.inset_m.value(), 0.3);
  EXPECT_EQ(all.verified.value(), false);
  EXPECT_NEAR(project->schedule.at(0).shielding_deg.value(), 45, 1e-9);
  EXPECT_EQ(project->schedule.at(0).lamp_luminance_cd_m2.value(), 60000);
}

TEST(GlareReader, AWordUnderEyesIsStillThePosture) {
  Problems problems;
  const auto project = read("", "eyes = \"seated\"\n", problems);
  ASSERT_TRUE(project && problems.all().empty());
  EXPECT_EQ(project->rooms.at(0).eyes, model::Eyes::seated);
}

struct Bad {
  const char *luminaire, *room, *code, *words;
};

class BadGlare : public ::testing::TestWithParam<Bad> {};

TEST_P(BadGlare, IsToldOnce) {
  Problems problems;
  read(GetParam().luminaire, GetParam().room, problems);
  ASSERT_EQ(problems.all().size(), 1u) << to_string(problems.all().back());
  const Problem& problem = problems.all()[0];
  EXPECT_EQ(problem.code, GetParam().code) << to_string(problem);
  EXPECT_NE(problem.text.find(GetParam().words), std::string::npos) << problem.text;
  EXPECT_GE(problem.place.line, 2);
}

INSTANTIATE_TEST_SUITE_P(
    GlareReader, BadGlare,
    ::testing::Values(Bad{"", "posture = \"lying\"\n", "P005", "seated (1.2 m) or standing"},
                      Bad{"", "glare = { verified_by = \"luck\" }\n", "P005", "expected table"},
                      Bad{"", "glare = { screens = { dark_background = true } }\n", "P004", "luminance"},
                      Bad{"", "glare = { screens = { luminance = 300, from = 20 } }\n", "P005", "from"},
                      Bad{"", "[[rooms.eyes]]\nname = \"a\"\nat = [1, 1, 1.2]\nposture = \"seated\"\n",
                          "P007", "once"},
                      Bad{"", "[[rooms.eyes]]\nname = \"a\"\nat = [1, 1]\nspacing = 1\n", "P007", "all over"},
                      Bad{"", "[[rooms.eyes]]\nat = [1, 1]\n", "P004", "name"},
                      Bad{"", "[[rooms.eyes]]\nname = \"a\"\nat = [1, 1]\nlokking = 90\n", "P002", "looking"},
                      Bad{"", "[[rooms.eyes]]\nname = \"a\"\nat = \"here\"\n", "P003", "at"},
                      Bad{"shielding = 20\n", "", "P004", "lamp_luminance"},
                      Bad{"lamp_luminance = 1e5\nshielding = 20\nlouvre = { depth = 1, opening = 1 }\n", "",
                          "P007", "once"}));

/// A room space with two things, as far as eyes need it.
space::Space space_with_objects() {
  space::Space space;
  space.outline = {{0, 0}, {6, 0}, {6, 4}, {0, 4}};
  space.height_m = 3;
  space.wall_names = {"wall 1", "wall 2", "wall 3", "wall 4"};
  space.objects = {{"cupboard", {{{0, 3}, {2, 3}, {2, 4}, {0, 4}}, 0, 2.0}, true},
                   {"step", {{{4, 0}, {6, 0}, {6, 2}, {4, 2}}, 0, 0.15}, true}};
  return space;
}

space::GlareBrief rated() {
  space::GlareBrief brief;
  brief.rates_ugr = true;
  return brief;
}

TEST(EyePlacing, AllOverKeepsOffWallsAndOutOfThings) {
  model::Room room;
  room.height_m = 3;
  model::EyesWish wish;
  wish.name = "eyes";
  wish.spacing_m = 0.5;
  room.eye_wishes = {wish};
  Problems problems;
  const auto sets = space::place_eyes(room, space_with_objects(), rated(), true, problems);
  ASSERT_EQ(sets.size(), 1u);
  const space::EyeSet& set = sets[0];
  EXPECT_EQ(set.height_m, 1.2);
  EXPECT_EQ(set.directions(), 4u);
  EXPECT_TRUE(set.verified);  // nobody else is there
  bool on_step = false;
  for (const Vec3& eye : set.positions) {
    EXPECT_GE(std::min({eye.x(), eye.y(), 6 - eye.x(), 4 - eye.y()}), 0.5);
    EXPECT_FALSE(eye.x() < 2 && eye.y() > 3) << eye.transpose();
    on_step = on_step || (eye.x() > 4 && eye.y() < 2);
  }
  EXPECT_TRUE(on_step);  // people stand on a step
  EXPECT_EQ(set.size(), 4 * set.positions.size());
}

TEST(EyePlacing, LooksTowardsThingsAndWalls) {
  model::Room room;
  room.height_m = 3;
  model::EyesWish wish;
  wish.name = "clerk";
  wish.at = Vec3(1, 1, NAN);
  wish.looking = "cupboard";
  room.eye_wishes = {wish};
  wish.name = "guest";
  wish.looking = "wall 2";
  room.eye_wishes.push_back(wish);
  wish.name = "all";
  wish.at.reset();
  wish.looking = "30";
  room.eye_wishes.push_back(wish);
  Problems problems;
  const auto sets = space::place_eyes(room, space_with_objects(), rated(), false, problems);
  ASSERT_EQ(sets.size(), 3u);
  EXPECT_EQ(sets[0].height_m, 1.6);
  EXPECT_NEAR(sets[0].azimuths_deg.at(0), 90, 1e-9);
  EXPECT_NEAR(sets[1].azimuths_deg.at(0), std::atan2(1, 5) / kDegree, 1e-9);
  EXPECT_EQ(sets[0].looking.at(0), "to cupboard");
  EXPECT_FALSE(sets[2].verified);  // seats are
  EXPECT_EQ(sets[2].looking.at(0), "30 deg");
}

TEST(EyePlacing, TellsWhatCannotBe) {
  struct Case {
    const char* code;
    std::function<void(model::EyesWish&)> spoil;
  };
  const Case cases[] = {
      {"P068", [](model::EyesWish& w) { w.at = Vec3(9, 1, 1.2); }},
      {"P068", [](model::EyesWish& w) { w.height_m = 3.5; }},
      {"P069", [](model::EyesWish& w) { w.inset_m = 2.5; }},
      {"P070", [](model::EyesWish& w) { w.looking = "cubboard"; }},
      {"P070", [](model::EyesWish& w) { w.looking = "90; 45"; }},
      {"P069", [](model::EyesWish& w) { w.spacing_m = 0.02; }},
  };
  for (const Case& c : cases) {
    model::Room room;
    room.height_m = 3;
    model::EyesWish wish;
    wish.name = "eyes";
    c.spoil(wish);
    room.eye_wishes = {wish};
    Problems problems;
    EXPECT_TRUE(space::place_eyes(room, space_with_objects(), rated(), true, problems).empty());
    ASSERT_EQ(problems.all().size(), 1u) << c.code;
    EXPECT_EQ(problems.all()[0].code, c.code) << to_string(problems.all()[0]);
  }
}

}  // namespace glare_reader_test
}  // namespace glow::files
