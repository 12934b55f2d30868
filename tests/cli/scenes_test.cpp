// Ways to use an installation, by the built program.
#include "run_program.hpp"

namespace glow::cli {
namespace scenes_test {

/// A plain room with two groups and these scenes; `more` goes into the room before them.
std::string project(const std::string& scenes, const std::string& more = "", double front = 1,
                    double back = 1) {
  return "format = 1\n[project]\nname = \"P\"\nstandard = \"EN 12464-1:2021\"\n[defaults]\n"
         "maintenance_factor = 0.8\nreflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }\n"
         "[luminaires.D2]\nfile = \"photometry/quillon-d2.ies\"\n"
         "[luminaires.P1]\nfile = \"photometry/tarnfell-p1.ldt\"\n"
         "[[rooms]]\nname = \"Class\"\nsize = [6, 4]\nheight = 3\nsurfaces = false\n"
         "work_plane = { height = 0.75 }\n" +
         more +
         "\n[[rooms.luminaires]]\nmark = \"D2\"\nname = \"front\"\ndimming = " + std::to_string(front) +
         "\nrow = { from = [1, 1], to = [5, 1], count = 3 }\n"
         "[[rooms.luminaires]]\nmark = \"P1\"\nname = \"back\"\ndimming = " +
         std::to_string(back) + "\nsuspension = 0.5\narray = { rows = 1, columns = 2 }\n" + scenes;
}

json room_of(const TemporaryFolder& folder, const std::string& text, const std::string& options = "") {
  folder.write("p.toml", text);
  const Ran ran = run(folder, "run p.toml -q " + options);
  EXPECT_EQ(ran.code, 0) << ran.err;
  return json_in(folder.path() / "p-results/results.json").at("rooms").at(0);
}

std::vector<double> values_of(const json& of) {
  const json& grid = of.at("grids").at(0);
  std::vector<double> values = grid.at("direct_lx").get<std::vector<double>>();
  const std::vector<double> rest = grid.at("interreflected_lx").get<std::vector<double>>();
  for (std::size_t i = 0; i < values.size(); ++i) values[i] += rest.at(i);
  return values;
}

const json& scene(const json& room, const std::string& name) {
  for (const json& each : room.at("scenes"))
    if (each.at("name") == name) return each;
  throw std::runtime_error("no scene " + name);
}

void expect_near(const std::vector<double>& a, const std::vector<double>& b, const std::string& about) {
  ASSERT_EQ(a.size(), b.size());
  for (std::size_t i = 0; i < a.size(); ++i) EXPECT_NEAR(a[i], b[i], 2e-5 * std::abs(b[i])) << about << i;
}

TEST(Scenes, AreWeightedSumsOfWhatGroupsGive) {
  const TemporaryFolder folder;
  write_project(folder);
  const json room =
      room_of(folder, project("[rooms.scenes.all]\nrest = 1\n[rooms.scenes.half]\nrest = \"50 %\"\n"
                              "[rooms.scenes.front]\ngroups = { front = 1 }\n"
                              "[rooms.scenes.back]\ngroups = { P1 = 1 }\n"
                              "[rooms.scenes.mixed]\ngroups = { front = 0.3, back = 0.8 }\n"));
  const std::vector<double> plain = values_of(room);
  json grid = room.at("grids").at(0), all = scene(room, "all").at("grids").at(0);
  EXPECT_EQ(all.at("csv"), "grids/all/class--work-plane.csv");
  grid.erase("between");  // only drawn of what is as placed
  for (json* each : {&grid, &all}) each->erase("csv");
  EXPECT_EQ(all, grid) << "all ones is the plain result";
  std::vector<double> half = plain, sum = values_of(scene(room, "front"));
  for (double& value : half) value *= 0.5;
  expect_near(values_of(scene(room, "half")), half, "shares scale ");
  const std::vector<double> back = values_of(scene(room, "back"));
  for (std::size_t i = 0; i < sum.size(); ++i) sum[i] += back[i];
  expect_near(sum, plain, "scenes add ");
  const json own = room_of(folder, project("", "", 0.3, 0.8));
  expect_near(values_of(scene(room, "mixed")), values_of(own), "as calculated by itself ");
  EXPECT_EQ(scene(room, "mixed").at("power"), own.at("power")) << "installed, whatever shines";
  // How sure it is was not found for it alone; it is near enough to what is.
  for (const char* of : {"mean_lx", "min_lx"}) {
    const auto doubt = [&](const json& in) {
      return in.at("grids").at(0).at("uncertainty").at(of).get<double>();
    };
    EXPECT_GT(doubt(scene(room, "mixed")), 0.5 * doubt(own)) << of;
    EXPECT_LT(doubt(scene(room, "mixed")), 4 * doubt(own)) << of;
  }
  EXPECT_TRUE(own.at("scenes").empty());
}

TEST(Scenes, TellWhatTheyDraw) {
  const TemporaryFolder folder;
  write_project(folder);
  const json room = room_of(folder, project("[rooms.scenes.mixed]\ngroups = { front = 0.5, back = 0.25 }\n"));
  EXPECT_NEAR(scene(room, "mixed").at("drawn_w").get<double>(), 0.5 * 3 * 14.5 + 0.25 * 2 * 36, 1e-6);
  EXPECT_EQ(scene(room, "mixed").at("shares"), json({0.5, 0.25}));
}

TEST(Scenes, HaveVerdictsTablesAndFiguresOfTheirOwn) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write(
      "p.toml",
      project(
          "[rooms.scenes.lesson]\nrest = 1\n[rooms.scenes.\"evening class\"]\nrest = 1\n"
          "level = { steps = 1, reason = \"adults in the evening\" }\n[rooms.scenes.cleaning]\nrest = 0.5\n"
          "task = \"none\"\n",
          "task = \"education.classroom\""));
  const Ran ran = run(folder, "run p.toml");
  EXPECT_EQ(ran.code, 0) << ran.err;
  EXPECT_TRUE(says(ran.out, "\n  lesson ") && says(ran.out, "\n  evening class ")) << ran.out;
  EXPECT_TRUE(says(ran.out, "  cleaning             no target")) << ran.out;
  const json room = json_in(folder.path() / "p-results/results.json").at("rooms").at(0);
  const auto required = [](const json& of) { return of.at("checks").at(0).at("required").get<double>(); };
  EXPECT_EQ(scene(room, "lesson").at("checks").size(), room.at("checks").size());
  EXPECT_EQ(required(scene(room, "lesson")), required(room));
  EXPECT_TRUE(scene(room, "cleaning").at("checks").empty());
  EXPECT_EQ(required(room), 500);
  EXPECT_EQ(required(scene(room, "evening class")), 750);
  for (const char* file : {"grids/class--work-plane.csv", "grids/evening-class/class--work-plane.csv",
                           "figures/cleaning/class--work-plane.svg", "figures/class--scenes--work-plane.svg"})
    EXPECT_TRUE(std::filesystem::exists(folder.path() / "p-results" / file)) << file;
  EXPECT_TRUE(says(content_of(folder.path() / "p-results/figures/cleaning/class--work-plane.svg"),
                   "Class, cleaning"));
  const Ran shown = run(folder, "show p.toml grids --scene cleaning");
  EXPECT_TRUE(says(shown.out, "Class, cleaning: no target")) << shown.out << shown.err;
  const Ran none = run(folder, "show p.toml --scene party");
  EXPECT_EQ(none.code, 2);
  EXPECT_TRUE(says(none.err, "there are: lesson, evening class, cleaning") || says(none.err, "there are: "))
      << none.err;
}

TEST(Scenes, OfTheProjectAreOfRoomsThatHaveAPartInThem) {
  const TemporaryFolder folder;
  write_project(folder);
  std::string text = project(
      "[[rooms]]\nname = \"Store\"\nsize = [3, 3]\nheight = 3\nsurfaces = false\n"
      "[[rooms.luminaires]]\nmark = \"D2\"\nat = [1.5, 1.5]\n"
      "[scenes.pendants]\ngroups = { back = 1 }\n[scenes.night]\nrest = 0.1\n");
  folder.write("p.toml", text);
  EXPECT_EQ(run(folder, "run p.toml -q").code, 0);
  const json rooms = json_in(folder.path() / "p-results/results.json").at("rooms");
  const auto names = [](const json& room) {
    std::string all;
    for (const json& each : room.at("scenes")) all += each.at("name").get<std::string>() + " ";
    return all;
  };
  EXPECT_TRUE(says(names(rooms[0]), "pendants ") && says(names(rooms[0]), "night "));
  EXPECT_EQ(names(rooms[1]), "night ");
}

/// A class with groups of its own kinds, and one more scene.
std::string classroom(const std::string& scene, const std::string& task = "task = \"education.classroom\"") {
  const auto row = [](const char* name, const char* y) {
    return std::string("[[rooms.luminaires]]\nmark = \"H\"\nname = \"") + name + "\"\nrow = { from = [1, " +
           y + "], to = [8, " + y + "], count = 5 }\n";
  };
  return "format = 1\n[project]\nname = \"S\"\nstandard = \"EN "
         "12464-1:2021\"\n[defaults]\nmaintenance_factor = 0.8\n"
         "reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }\n"
         "[luminaires.H]\nfile = \"shelf/tarnfell-heron-600-prism.ldt\"\n"
         "[[rooms]]\nname = \"Class\"\nsize = [9, 7]\nheight = 3\n" +
         task + "\n" + row("window", "1.4") + row("middle", "3.5") + row("corridor", "5.6") + scene;
}

TEST(Scenes, AreSolvedForTheLeastWatts) {
  const TemporaryFolder folder;
  write_project(folder);
  const json room = room_of(folder, classroom("[rooms.scenes.solved]\nsolve = \"least watts\"\n"));
  const json& solved = scene(room, "solved");
  EXPECT_EQ(solved.at("status"), "met");
  EXPECT_TRUE(solved.at("solution").at("possible").get<bool>());
  const auto shares = solved.at("shares").get<std::vector<double>>();
  ASSERT_EQ(shares.size(), 3u);
  EXPECT_LT(solved.at("drawn_w").get<double>(), 0.99 * 15 * 27) << "less than all of it";
  // Less of any one group, and something is no longer surely met.
  const char* names[] = {"window", "middle", "corridor"};
  std::string fewer;
  for (int less = 0; less < 3; ++less) {
    if (shares[std::size_t(less)] < 0.05) continue;
    fewer += fmt::format(FMT_STRING("[rooms.scenes.less-{}]\n"), names[less]);
    fewer += "groups = { ";
    for (int g = 0; g < 3; ++g)
      fewer += fmt::format(FMT_STRING("{}{} = {}"), g ? ", " : "", names[g],
                           shares[std::size_t(g)] - (g == less ? 0.05 : 0));
    fewer += " }\n";
  }
  const json again = room_of(folder, classroom(fewer));
  EXPECT_GE(again.at("scenes").size(), 2u);
  for (const json& each : again.at("scenes")) EXPECT_NE(each.at("status"), "met") << each.at("name");
}

TEST(Scenes, SayWhatStandsAgainstASolution) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write(
      "p.toml",
      classroom("[rooms.scenes.more]\nsolve = \"least watts\"\nlevel = { steps = 2, reason = \"x\" }\n"
                "[rooms.scenes.\"off at the window\"]\nsolve = \"least watts\"\n"
                "groups = { window = 0 }\n"));
  const Ran ran = run(folder, "run p.toml");
  EXPECT_EQ(ran.code, 0) << ran.err;
  EXPECT_TRUE(says(ran.out, "cannot be, with any shares: work plane, mean 1000 lx")) << ran.out;
  const json results = json_in(folder.path() / "p-results/results.json");  // outlives the loop
  EXPECT_EQ(results.at("rooms").at(0).at("scenes").size(), 2u);
  for (const json& each : results.at("rooms").at(0).at("scenes")) {
    EXPECT_FALSE(each.at("solution").at("possible").get<bool>());
    EXPECT_FALSE(each.at("solution").at("contradicting").empty());
    EXPECT_NE(each.at("status"), "met");
  }
}

/// One row alone gives light enough, and evenly enough when it is off; not both.
TEST(Scenes, NameConditionsThatContradictEachOther) {
  const TemporaryFolder folder;
  write_project(folder);
  const json room = room_of(folder, classroom("[rooms.scenes.edge]\nsolve = \"least watts\"\n"
                                              "groups = { middle = 0, corridor = 0 }\n",
                                              "task = \"education.entrance-hall\"\nsurfaces = false\n"
                                              "level = { steps = -1, reason = \"few people\" }"));
  const json& solution = scene(room, "edge").at("solution");
  EXPECT_FALSE(solution.at("possible").get<bool>());
  EXPECT_FALSE(solution.at("each_alone").get<bool>());
  ASSERT_EQ(solution.at("contradicting").size(), 2u);
  EXPECT_EQ(solution.at("contradicting")[0].at("quantity"), "mean illuminance");
  EXPECT_EQ(solution.at("contradicting")[1].at("quantity"), "uniformity U0");
}

TEST(Scenes, OnBatteryOnlyDirectLightCountsAlongTheWayOut) {
  const TemporaryFolder folder;
  write_project(folder);
  const json room =
      room_of(folder, project("[rooms.scenes.dark]\nemergency = true\nbattery = \"1 %\"\ndelay = \"6 s\"\n"
                              "groups = { front = 1 }\n",
                              "open_area = true\n[[rooms.escape_routes]]\nname = \"out\"\nwidth = 1.2\n"
                              "path = [[1, 3.5], [1, 1], [5.5, 1]]\n",
                              1, 0));
  const json& dark = scene(room, "dark");
  std::map<std::string, json> grids;
  double low = 1e9, high = 0;
  for (std::size_t g = 0; g < dark.at("grids").size(); ++g) {
    const json &lit = room.at("grids")[g], &grid = dark.at("grids")[g];
    grids[grid.at("name")] = grid;
    for (std::size_t i = 0; i < lit.at("direct_lx").size(); ++i) {
      const double lux = grid.at("direct_lx")[i].get<double>();
      EXPECT_NEAR(lux, 0.01 * lit.at("direct_lx")[i].get<double>(), 1e-4 * lux);
      EXPECT_EQ(grid.at("interreflected_lx")[i].get<double>(), 0);
      if (grid.at("role") != "escape route") continue;
      low = std::min(low, lux);
      high = std::max(high, lux);
    }
  }
  // By the rule 0.2 x 5^lg(2.5 m) = 0.379 m and 0.2 x 5^lg(4.5 m) = 0.572 m apart.
  EXPECT_EQ(grids.at("out 1").at("direct_lx").size(), 7u);
  EXPECT_EQ(grids.at("out 2").at("direct_lx").size(), 8u);
  EXPECT_EQ(grids.at("out 1 band").at("role"), "escape route band");
  int ratios = 0;
  for (const json& check : dark.at("checks")) {
    EXPECT_EQ(check.at("standard"), "EN 1838:2013");
    const std::string quantity = check.at("quantity");
    if (quantity == "delay") {
      EXPECT_EQ(check.at("verdict"), "not met") << "half of it within 5 s";
    }
    if (quantity != "largest to smallest") continue;
    const bool whole_area =
        dark.at("grids").at(check.at("target").at("id").get<std::size_t>()).at("role") == "open area";
    if (!whole_area) {
      EXPECT_NEAR(check.at("actual").get<double>(), high / low, 1e-3 * high / low);
    }
    ++ratios;
  }
  EXPECT_EQ(ratios, 2) << "of the route as a whole, and of the open area";
  EXPECT_EQ(dark.at("checks").size(), 9u) << dark.at("checks").dump(1);
  EXPECT_TRUE(dark.at("drawn_w").is_null());
}

/// The front row is tunable; the back row has the file's 4000 K.
std::string tunable(const std::string& scenes, const std::string& placed = "") {
  std::string text = project(scenes);
  text.replace(text.find("[luminaires.P1]"), 0, "cct = [2700, 6500]\n");
  text.replace(text.find("name = \"front\""), 0, placed);
  return text;
}

TEST(Scenes, TuneTheColourOfLight) {
  const TemporaryFolder folder;
  write_project(folder);
  const json room =
      room_of(folder, tunable("[rooms.scenes.morning]\nrest = 1\ncct = { front = 6500 }\n"
                              "[rooms.scenes.evening]\ngroups = { front = 1 }\ncct = { D2 = \"2700 K\" }\n"));
  const json& placed = room.at("grids")[0].at("colour");
  EXPECT_GT(placed.at("known_share").get<double>(), 0.2);
  EXPECT_LT(placed.at("known_share").get<double>(), 0.9) << "nobody says what the front row is set to";
  const json& evening = scene(room, "evening").at("grids")[0].at("colour");
  EXPECT_NEAR(evening.at("warmest_k").get<double>(), 2700, 5);
  EXPECT_NEAR(evening.at("coolest_k").get<double>(), 2700, 5) << "grey surfaces leave it alone";
  EXPECT_NEAR(evening.at("known_share").get<double>(), 1, 1e-9);
  const json& morning = scene(room, "morning").at("grids")[0].at("colour");
  EXPECT_GT(morning.at("warmest_k").get<double>(), 4000);
  EXPECT_GT(morning.at("coolest_k").get<double>(), 1.1 * morning.at("warmest_k").get<double>());
  EXPECT_EQ(values_of(room), values_of(scene(room, "morning"))) << "colour moves no illuminance";
  const std::string csv = content_of(folder.path() / "p-results/grids/morning/class--work-plane.csv");
  EXPECT_TRUE(says(csv, ",direct_x,direct_y,total_x,total_y,cct_K,duv\n")) << csv.substr(0, 200);
  const Ran shown = run(folder, "show p-results grids --scene morning");
  EXPECT_TRUE(says(shown.out, "colour of the light")) << shown.out;
  const Ran drawn = run(folder, "draw p-results --difference \"morning, evening\" --format svg");
  EXPECT_EQ(drawn.code, 0) << drawn.err;
  EXPECT_TRUE(
      says(content_of(folder.path() / "p-results/figures/class--work-plane--morning-less-evening.svg"),
           "Difference in lx"));
  EXPECT_EQ(run(folder, "draw p-results --difference \"morning, night\"").code, 2);
}

TEST(Scenes, NoColourInTheProjectIsNoColourInTheResults) {
  const TemporaryFolder folder;
  write_project(folder);
  EXPECT_FALSE(room_of(folder, project("")).at("grids")[0].contains("colour")) << "both rows have 4000 K";
  std::string asked = project("");
  asked.replace(asked.find("[defaults]"), 0, "colour = true\n");
  const json told = room_of(folder, asked);
  EXPECT_NEAR(told.at("grids")[0].at("colour").at("mean_temperature").at("cct_k").get<double>(), 4000, 12);
  std::string clay = asked +
                     "[[rooms.walls]]\nwall = 1\nmaterial = \"clay\"\n"
                     "[materials.clay]\nreflectance = 0.4\ncolour = \"#c07a5a\"\n";
  const json tinted = room_of(folder, clay);
  EXPECT_LT(tinted.at("grids")[0].at("colour").at("warmest_k").get<double>(), 3950) << "near the wall";
  const std::string hue = "colour = \"#c07a5a\"\n";
  clay.erase(clay.find(hue), hue.size());
  EXPECT_EQ(values_of(tinted), values_of(room_of(folder, clay))) << "a colour moves no illuminance";
}

struct Fault {
  const char* scenes;
  const char* more;
  const char* says;
};

TEST(Scenes, FaultsAreToldWithTheirPlace) {
  const TemporaryFolder folder;
  write_project(folder);
  const Fault faults[] = {
      {"[rooms.scenes.a]\ngroups = { frnt = 1 }\n", "",
       "no group of \"Class\" is called that; there are: front, D2"},
      {"[scenes.a]\ngroups = { bak = 1 }\n", "", "did you mean \"back\"?"},
      {"[rooms.scenes.a]\ngroups = { front = 1.2 }\n", "", "\"front\" is 1.2"},
      {"[rooms.scenes.a]\nrest = \"120 %\"\n", "", "\"rest\" is"},
      {"[rooms.scenes.a]\n", "", "says nothing of what shines"},
      {"[rooms.scenes.\"a b\"]\nrest = 1\n[rooms.scenes.\"a-b\"]\nrest = 1\n", "",
       "would write the same files"},
      {"[rooms.scenes.a]\nrest = 1\ntask = \"education.clasroom\"\n", "",
       "did you mean \"education.classroom\"?"},
      {"[rooms.scenes.a]\nrest = 1\nshare = 2\n", "", "share"},
      {"[rooms.scenes.a]\nsolve = \"least watts\"\n", "", "nothing is asked of the light"},
      {"[rooms.scenes.a]\nsolve = \"most light\"\n", "task = \"education.classroom\"",
       "expects \"least watts\""},
      {"[rooms.scenes.a]\nsolve = \"least watts\"\nrest = 0.5\n", "task = \"education.classroom\"",
       "take \"rest\" out"},
      {"[rooms.scenes.a]\nrest = 1\nemergency = true\n", "", "\"battery\""},
      {"[rooms.scenes.a]\nrest = 1\nbattery = 0.2\n", "", "is said of a scene with emergency = true"},
      {"[rooms.scenes.a]\nrest = 1\nemergency = true\nbattery = 0.2\ntask = \"education.classroom\"\n", "",
       "has no place in an emergency scene"},
      {"[rooms.scenes.a]\nrest = 1\ncct = { front = 3000 }\n", "", "it is not tunable"},
      {"[rooms.scenes.a]\nrest = 1\ncct = { frnt = 3000 }\n", "", "no group of \"Class\" is called that"},
      {"[rooms.scenes.a]\nrest = 1\ncct = { front = 900 }\n", "", "\"front\" is 900"},
      {"", "[[rooms.escape_routes]]\npath = [[1, 1], [9, 1]]", "outside of its room"},
      {"", "[[rooms.escape_routes]]\npath = [[1, 1], [1, 1]]", "at the same place"},
  };
  for (const Fault& fault : faults) {
    folder.write("p.toml", project(fault.scenes, fault.more));
    const Ran ran = run(folder, "check p.toml");
    EXPECT_EQ(ran.code, 2) << fault.scenes;
    EXPECT_TRUE(says(ran.err, fault.says)) << fault.scenes << ran.err;
    EXPECT_TRUE(says(ran.err, "1 error")) << fault.scenes << ran.err;
  }
}

}  // namespace scenes_test
}  // namespace glow::cli
