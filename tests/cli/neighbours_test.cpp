// Outdoor areas and their neighbours through the built program.
#include <fmt/format.h>

#include <cmath>

#include "cli/run_program.hpp"
#include "validation/expect_metric.hpp"

namespace glow::cli {
namespace neighbours_test {

using reference::expect_as;

std::string list(const json& numbers) {
  return numbers.dump();
}

/// A case of light on a window as a project: black ground, one window, zone E2.
std::string project_of(const json& in, const std::string& extra = "") {
  std::string text =
      "format = 1\n[project]\nname = \"N\"\nstandard = \"EN 12464-2:2014\"\n[defaults]\nmaintenance_factor = "
      "0.8\n"
      "[spill_light]\nzone = \"E2\"\nsmall_angles = \"as they are\"\n";
  std::string placed;
  int number = 0;
  for (const json& l : in.at("luminaires")) {
    const std::string mark = "L" + std::to_string(++number);
    text += fmt::format(FMT_STRING("[luminaires.{}]\nfile = \"{}.ies\"\n"), mark,
                        l.at("photometry").get<std::string>());
    // Positions are of the luminous middle; a project states its lower side.
    const double high = l.at("photometry") == "O8" ? 0.12 : 0;
    placed += fmt::format(
        FMT_STRING(
            "[[outdoors.luminaires]]\nmark = \"{}\"\nat = [{}, {}]\nmounting_height = {}\nrotation = {}\n"
            "tilt = {}\n"),
        mark, l.at("pos")[0].dump(), l.at("pos")[1].dump(), l.at("pos")[2].get<double>() - high / 2,
        l.at("rotation_deg").dump(), l.at("tilt_deg").dump());
  }
  const json& n = in.at("window_normal");
  const double azimuth = std::atan2(n[1].get<double>(), n[0].get<double>()) / kDegree;
  return text + "[[outdoors]]\nname = \"Yard\"\nsize = [20, 10]\nground = 0\nsurfaces = false\n" + placed +
         extra +
         fmt::format(
             FMT_STRING("[[neighbours]]\nname = \"window\"\nat = {}\nazimuth = {}\nuse = \"dwelling\"\n"
                        "background = 0.3\n"),
             list(in.at("window")), azimuth);
}

json run_of(const TemporaryFolder& folder, const std::string& text) {
  for (const char* file : {"O5.ies", "O8.ies"})
    folder.write(file, content_of(test::test_data(std::string("validation/luminaires/") + file)));
  folder.write("n.toml", text);
  const Ran ran = run(folder, "run n.toml -q");
  EXPECT_EQ(ran.code, 0) << ran.err;
  return json_in(folder.path() / "n-results/results.json").at("rooms").at(0);
}

const json& check_of(const json& room, const std::string& quantity) {
  for (const json& check : room.at("checks"))
    if (check.at("quantity") == quantity) return check;
  throw std::runtime_error("no check of " + quantity);
}

class ObtrusiveCase : public testing::TestWithParam<std::string> {};

TEST_P(ObtrusiveCase, OfTheReferenceByProjectFile) {
  const json c = reference::metric_cases(GetParam()).at(0);
  const TemporaryFolder folder;
  const json room = run_of(folder, project_of(c.at("inputs")));
  const json& spill = room.at("spill_light");
  const json& window = spill.at("neighbours").at(0);
  double most = 0;
  for (const json& expected : c.at("expected").at("towards_window")) {
    bool found = false;
    for (const json& own : window.at("luminaires")) {
      if (std::abs(own.at("intensity_cd").get<double>() - expected.at("I").get<double>()) >
          0.01 * expected.at("I").get<double>())
        continue;
      found = true;
      expect_as(c, "d", own.at("distance_m"), expected.at("d"));
      expect_as(c, "Ap", own.at("projected_area_m2"), expected.at("Ap"));
      expect_as(c, "L", own.at("luminance_cd_m2"), expected.at("L"));
      expect_as(c, "Omega", own.at("solid_angle_sr"), expected.at("Omega"));
      expect_as(c, "gamma", own.at("gamma_deg"), expected.at("gamma"));
      expect_as(c, "k_for_Lu_0.3", own.at("k"), expected.at("k_for_Lu_0.3"));
    }
    EXPECT_TRUE(found) << expected << window;
    most = std::max(most, expected.at("I").get<double>());
  }
  expect_as(c, "E_window", check_of(room, "illuminance on the window").at("actual"));
  expect_as(c, "R_UL", spill.at("upward_percent").get<double>() / 100);
  EXPECT_NEAR(check_of(room, "intensity towards the property").at("actual").get<double>(), most, 0.01 * most);
  const json& ok = c.at("expected").at("en12464_2_ok_E2");
  const bool lit = check_of(room, "illuminance on the property").at("met");
  EXPECT_EQ(lit, ok[1].get<bool>()) << "all night, so after curfew";
  EXPECT_EQ(check_of(room, "intensity towards the property").at("met").get<bool>(), ok[3].get<bool>());
  EXPECT_EQ(check_of(room, "upward light ratio").at("met").get<bool>(), ok[4].get<bool>());
}

INSTANTIATE_TEST_SUITE_P(Reference, ObtrusiveCase, testing::Values("obtrusive-1", "obtrusive-2"));

/// Two areas of one neighbour: each keeps its limit, both together do not, and that is said.
TEST(Neighbours, LightOfSeveralAreasIsAddedUp) {
  const TemporaryFolder folder;
  folder.write("O5.ies", content_of(test::test_data("validation/luminaires/O5.ies")));
  const auto project = [](double share) {
    std::string text =
        "format = 1\n[project]\nname = \"N\"\nstandard = \"EN 12464-2:2014\"\n[defaults]\nmaintenance_factor "
        "= "
        "0.8\n[luminaires.L]\nfile = \"O5.ies\"\n"
        "[[neighbours]]\nname = \"window\"\nat = [40, 5, 4]\nazimuth = 180\nuse = \"dwelling\"\nbackground = "
        "0.3\n";
    for (const char* area : {"West yard", "East yard"})
      text += fmt::format(
          FMT_STRING("[[outdoors]]\nname = \"{}\"\nsize = [20, 10]\nground = 0\nsurfaces = false\n"
                     "[[outdoors.luminaires]]\nmark = \"L\"\nat = [18, 5]\nmounting_height = 6\ntilt = 40\n"
                     "dimming = {}\n"),
          area, share);
    return text;
  };
  const auto illuminance_of = [&](double share) {
    folder.write("n.toml", project(share));
    EXPECT_EQ(run(folder, "run n.toml -q").code, 0);
    const json rooms = json_in(folder.path() / "n-results/results.json").at("rooms");
    EXPECT_EQ(check_of(rooms.at(0), "illuminance on the window").at("actual"),
              check_of(rooms.at(1), "illuminance on the window").at("actual"));
    return check_of(rooms.at(0), "illuminance on the window").at("actual").get<double>();
  };
  const double full = illuminance_of(1), share = 0.7 / full;  // 1 lx is allowed at night
  ASSERT_LT(share, 1) << full;
  EXPECT_NEAR(illuminance_of(share), 0.7, 1e-6);
  const std::string shown = run(folder, "show n-results neighbours").out;
  EXPECT_TRUE(says(shown, "! window: 1.40 lx on its window from all areas together")) << shown;
  EXPECT_TRUE(says(run(folder, "run n.toml -q").out, "! window: 1.40 lx")) << "the answer tells it";
}

/// A yard under one flood that has a shed and a path, on the ground that is written.
json yard_on(const TemporaryFolder& folder, const std::string& ground) {
  return run_of(
      folder,
      "format = 1\n[project]\nname = \"N\"\nstandard = \"EN 12464-2:2014\"\n[luminaires.L]\nfile = "
      "\"O5.ies\"\n[[outdoors]]\nname = \"Yard\"\nsize = [20, 10]\nground = " +
          ground +
          "\nmaintenance_factor = 0.8\n[[outdoors.objects]]\nname = \"shed\"\nbox = [3, 2, 2.5]\nat = "
          "[15, 6, 0]\nreflectance = 0.4\n[[outdoors.luminaires]]\nmark = \"L\"\nat = [2, 5]\n"
          "mounting_height = 5\naim = [10, 5, 0]\n[[outdoors.areas]]\nname = \"path\"\ntask = "
          "\"outdoor.walkway\"\nrectangle = { at = [4, 3], size = [10, 3] }\n"
          "[[outdoors.points]]\nname = \"spot\"\nat = [8, 5, 0.5]\n");
}

double mean_of(const json& room, const std::string& grid) {
  for (const json& own : room.at("grids"))
    if (own.at("name") == grid) return own.at("mean_lx");
  throw std::runtime_error("no grid " + grid);
}

/// Raised ground raises all that stands on it; a slope turns what is level with it; a mesh of the same shape
/// is the same ground.
TEST(Outdoors, AllStandsOnTheGroundAsItIs) {
  const TemporaryFolder folder;
  const json level = yard_on(folder, "0.2");
  const json raised = yard_on(
      folder, "{ reflectance = 0.2, slope = { from = [0, 0], to = [20, 0], height = 3, to_height = 3 } }");
  EXPECT_NEAR(mean_of(raised, "path"), mean_of(level, "path"), 1e-3 * mean_of(level, "path"));
  EXPECT_NEAR(raised.at("points").at(0).at("at_m")[2].get<double>(), 3.5, 1e-9);
  const json sloped =
      yard_on(folder, "{ reflectance = 0.2, slope = { from = [0, 0], to = [20, 0], to_height = 4 } }");
  folder.write("slope.obj", "v 0 0 0\nv 20 0 4\nv 20 10 4\nv 0 10 0\nf 1 2 3\nf 1 3 4\n");
  const json mesh = yard_on(folder, "{ reflectance = 0.2, mesh = \"slope.obj\" }");
  EXPECT_NEAR(mean_of(mesh, "path"), mean_of(sloped, "path"), 0.01 * mean_of(sloped, "path"));
  // Nearer to the flood and turned towards it, the path gets more.
  EXPECT_GT(mean_of(sloped, "path"), 1.05 * mean_of(level, "path"));
  EXPECT_NEAR(sloped.at("objects").at(0).at("bottom_m").get<double>(), 3, 1e-9) << "where it is lowest";
}

/// A shield that takes all of an uplight's light leaves nothing, and nothing that is no number.
TEST(Outdoors, ALuminaireThatIsShieldedWhollyGivesNothing) {
  const TemporaryFolder folder;
  folder.write("up.ies", content_of(test::test_data("photometry/valid/i11-uplight-90-180.ies")));
  folder.write(
      "n.toml",
      "format = 1\n[project]\nname = \"N\"\n[luminaires.L]\nfile = \"up.ies\"\n[[outdoors]]\nname = "
      "\"Yard\"\nsize = [12, 10]\nmaintenance_factor = 0.8\nground = 0.2\ntask = \"outdoor.vehicles\"\n"
      "[[outdoors.luminaires]]\nmark = \"L\"\nat = [2, 5]\nmounting_height = 8\nshield = 38\n");
  const Ran ran = run(folder, "run n.toml -q --accuracy draft");
  EXPECT_EQ(ran.code, 0) << ran.err;
  const json room = json_in(folder.path() / "n-results/results.json").at("rooms").at(0);
  EXPECT_EQ(room.at("flux_balance").at("emitted_lm").get<double>(), 0);
  EXPECT_EQ(room.at("grids").at(0).at("mean_lx").get<double>(), 0);
}

TEST(Outdoors, GroundThatDoesNotReachUnderTheAreaIsRefused) {
  const TemporaryFolder folder;
  folder.write("O5.ies", content_of(test::test_data("validation/luminaires/O5.ies")));
  folder.write("small.obj", "v 0 0 0\nv 5 0 1\nv 0 5 0\nf 1 2 3\n");
  const auto refused = [&](const std::string& ground) {
    folder.write(
        "n.toml",
        "format = 1\n[project]\nname = \"N\"\n[luminaires.L]\nfile = \"O5.ies\"\n[[outdoors]]\nname = "
        "\"Yard\"\nsize = [20, 10]\nmaintenance_factor = 0.8\nground = " +
            ground + "\n[[outdoors.luminaires]]\nmark = \"L\"\nat = [2, 5]\nmounting_height = 5\n");
    const Ran ran = run(folder, "check n.toml");
    EXPECT_EQ(ran.code, 2);
    return ran.err;
  };
  EXPECT_TRUE(says(refused("{ reflectance = 0.2, mesh = \"small.obj\" }"), "does not reach its corner (20"));
  EXPECT_TRUE(
      says(refused("{ slope = { from = [0, 0], to = [0, 0], to_height = 1 } }"), "are the same point"));
  EXPECT_TRUE(says(refused("{ mesh = \"small.obj\", slope = { from = [0, 0], to = [1, 0], to_height = 1 } }"),
                   "expected one of them"));
}

TEST(Neighbours, WallsTakeAllAndWindowsThatLookAwayGetNothing) {
  const json in = reference::metric_cases("obtrusive-1").at(0).at("inputs");
  const TemporaryFolder folder;
  const json walled =
      run_of(folder, project_of(in,
                                "[[outdoors.objects]]\nname = \"wall\"\nbox = [0.3, 60, 20]\nat = "
                                "[30, -25, 0]\nreflectance = 0.5\n"));
  EXPECT_EQ(walled.at("spill_light").at("neighbours").at(0).at("luminaires").size(), 0u);
  EXPECT_EQ(check_of(walled, "glare value k").at("actual").get<double>(), 0);
  EXPECT_LT(check_of(walled, "illuminance on the window").at("actual").get<double>(), 0.01);
  json away = in;
  away["window_normal"] = {1, 0, 0};
  folder.write("n.toml", project_of(away));
  EXPECT_TRUE(says(run(folder, "check n.toml").err, "looks away from all luminaires"));
  const json behind = run_of(folder, project_of(away));
  EXPECT_EQ(check_of(behind, "illuminance on the window").at("actual").get<double>(), 0);
}

TEST(Neighbours, HoursOfScenesChooseTheLimitsAndTablesTellThem) {
  const json in = reference::metric_cases("obtrusive-1").at(0).at("inputs");
  const TemporaryFolder folder;
  const json room = run_of(
      folder,
      project_of(in,
                 "[outdoors.hours]\nfrom = \"7:00\"\nto = \"19:00\"\n[outdoors.scenes.late]\nrest = 0.1\n"
                 "hours = { from = \"21:00\", to = \"23:00\" }\n"
                 "[[outdoors.road_users]]\nname = \"lane\"\nat = [45, 7, 1.5]\nazimuth = 180\n"
                 "road_luminance = 0.05\n"));
  EXPECT_EQ(check_of(room, "glare value k").at("required").get<double>(), 96) << "by day only";
  const json& late = room.at("scenes").at(0);
  EXPECT_EQ(check_of(late, "glare value k").at("required").get<double>(), 32);
  EXPECT_NEAR(check_of(late, "glare value k").at("actual").get<double>(),
              0.1 * check_of(room, "glare value k").at("actual").get<double>(), 0.5);
  EXPECT_GT(check_of(room, "threshold increment").at("actual").get<double>(), 1);
  EXPECT_TRUE(says(content_of(folder.path() / "n-results/figures/project--status.svg"), "lane, "));
  const Ran shown = run(folder, "show n-results neighbours");
  EXPECT_TRUE(says(shown.out, "window") && says(shown.out, "late") && says(shown.out, "cd/m2")) << shown.out;
  const Ran csv = run(folder, "show n-results neighbours --csv");
  EXPECT_TRUE(says(csv.out, "room,scene,neighbour,luminaire,x_m")) << csv.out;
  EXPECT_TRUE(
      says(content_of(folder.path() / "n-results/figures/yard--neighbours.svg"), "Section from window"));
}

TEST(Neighbours, AMendThatIsToldIsWhatARunGives) {
  const json in = reference::metric_cases("obtrusive-1").at(0).at("inputs");
  const TemporaryFolder folder;
  json one = in;
  one["luminaires"] = json::array({in.at("luminaires")[1]});
  const json before = run_of(folder, project_of(one));
  double told = -1, tilted_by = 0;
  for (const json& mend : check_of(before, "glare value k").at("mends"))
    if (mend.at("change").at("kind") == "spill" && mend.at("change").at("what") == "tilted") {
      told = mend.at("value");
      tilted_by = mend.at("change").at("amount");
    }
  ASSERT_GE(told, 0) << check_of(before, "glare value k");
  one["luminaires"][0]["tilt_deg"] = in.at("luminaires")[1].at("tilt_deg").get<double>() - tilted_by;
  const json after = run_of(folder, project_of(one));
  const double found = check_of(after, "glare value k").at("actual");
  EXPECT_NEAR(found, told, 0.01 * told);
  EXPECT_LT(found, check_of(before, "glare value k").at("actual").get<double>());
}

TEST(Neighbours, AnAreaWithGlareRatingsIsRefinedAsRoomsAre) {
  const json in = reference::metric_cases("obtrusive-1").at(0).at("inputs");
  const TemporaryFolder folder;
  std::string text = project_of(in);
  text.replace(text.find("ground = 0\n"), 11, "ground = 0.3\ntask = \"outdoor.crossing\"\n");
  run_of(folder, text);
  const Ran finer = run(folder, "run n.toml -q --accuracy 0.1");
  EXPECT_EQ(finer.code, 0) << finer.err;
  const json room = json_in(folder.path() / "n-results/results.json").at("rooms").at(0);
  EXPECT_GT(room.at("engine").at("refinements").get<int>(), 0);
  EXPECT_GT(check_of(room, "glare rating GR").at("actual").get<double>(), 10);
}

TEST(Neighbours, FacadesAreRastersWithTheirWorstPoint) {
  const json in = reference::metric_cases("obtrusive-1").at(0).at("inputs");
  const TemporaryFolder folder;
  const json room =
      run_of(folder, project_of(in) +
                         "[[neighbours]]\nname = \"mill\"\nuse = \"mixed\"\nbackground = \"computed\"\n"
                         "facade = { from = [38, 0], to = [38, 12], bottom = 1, top = 7, spacing = 1 }\n");
  // From (38, 0) to (38, 12) the outside lies to the right, at +x: turned round it looks at the yard.
  EXPECT_EQ(room.at("spill_light").at("neighbours").at(1).at("k").get<double>(), 0);
  const json turned =
      run_of(folder, project_of(in) +
                         "[[neighbours]]\nname = \"mill\"\nuse = \"mixed\"\nbackground = \"computed\"\n"
                         "facade = { from = [38, 12], to = [38, 0], bottom = 1, top = 7, spacing = 1 }\n");
  const json& facade = turned.at("spill_light").at("neighbours").at(1);
  ASSERT_EQ(facade.at("k_by_point").size(), 72u);
  double most = 0;
  for (const json& k : facade.at("k_by_point")) most = std::max(most, k.get<double>());
  EXPECT_NEAR(most, facade.at("k").get<double>(), 0.01 * most);
  EXPECT_TRUE(says(content_of(folder.path() / "n-results/figures/yard--mill--glare.svg"), "Glare value k"));
}

TEST(Neighbours, FaultsAreToldOnceWithTheirMend) {
  const json in = reference::metric_cases("obtrusive-1").at(0).at("inputs");
  const std::string good = project_of(in);
  struct Fault {
    std::string text;
    const char* says;
  };
  const std::string at = "[[neighbours]]\nname = \"n\"\nat = [38, 6, 5]\nazimuth = 180\n";
  const Fault faults[] = {
      {good + at + "use = \"dwelling\"\n", "nothing says how bright its surroundings are"},
      {good + at + "use = \"flat\"\n", "expected spa or hospital, dwelling, mixed or business"},
      {good + at + "of = [\"Yrd\"]\n", "did you mean \"Yard\"?"},
      {good + at + "size = [1200, 1300]\n", "expected width and height"},
      {good + "[[neighbours]]\nname = \"window\"\nat = [38, 6, 5]\nazimuth = 180\n",
       "two neighbours are called"},
      {good + "[[neighbours]]\nname = \"f\"\nfacade = { from = [1, 1], to = [1, 1], top = 4 }\n",
       "has no area"},
      {good + "[[neighbours]]\nname = \"f\"\nfacade = { from = [38, 90], to = [38, -90], top = 99, spacing = "
              "0.5 }\n",
       "expected at most 20000"},
      {project_of(in, "[[outdoors.objects]]\nname = \"house\"\nbox = [8, 8, 9]\nat = [36, 2, 0]\n"),
       "lies inside \"house\""},
      {project_of(in, "[[outdoors.openings]]\nname = \"w\"\n"), "unknown key \"openings\""},
      {project_of(in, "[[outdoors.road_users]]\nat = [1, 1, 1.5]\nazimuth = 0\n"),
       "\"road_luminance\" is missing"}};
  const TemporaryFolder folder;
  run_of(folder, good);
  for (const Fault& fault : faults) {
    folder.write("f.toml", fault.text);
    const Ran ran = run(folder, "check f.toml");
    EXPECT_TRUE(says(ran.err + ran.out, fault.says)) << fault.says << "\n" << ran.err;
  }
  std::string other = good;
  other.replace(other.find("\"E2\""), 4, "\"E5\"");
  folder.write("f.toml", other);
  EXPECT_TRUE(says(run(folder, "check f.toml").err, "of E0 no limits are held"));
}

}  // namespace neighbours_test
}  // namespace glow::cli
