// Daylight by the built program, from project files.
#include <nlohmann/json.hpp>

#include "cli/run_program.hpp"
#include "test_files.hpp"

namespace glow::cli {
namespace daylight_test {

/// A room of the reference as a project: its size, reflectances, one window, and where the points are.
std::string day_project(const json& of, const std::string& window, const std::string& site,
                        const std::string& moment) {
  const json& room = of.at("scene").at("room");
  const auto number = [](const json& j) { return std::to_string(j.get<double>()); };
  std::string text = "format = 1\n[project]\nname = \"D\"\nstandard = \"EN 12464-1:2021\"\n" + site + moment +
                     "[defaults]\nmaintenance_factor = 0.8\nreflectance = { ceiling = " +
                     number(room.at("reflectance").at("ceiling")) +
                     ", walls = " + number(room.at("reflectance").at("wall_x0")) +
                     ", floor = " + number(room.at("reflectance").at("floor")) +
                     " }\n[[rooms]]\nname = \"R\"\nsize = [" + number(room.at("size")[0]) + ", " +
                     number(room.at("size")[1]) + "]\nheight = " + number(room.at("size")[2]) +
                     "\nsurfaces = false\n[[rooms.openings]]\nname = \"window\"\n"
                     "kind = \"window\"\nframe = 0\n" +
                     window;
  for (const json& receiver : of.at("receivers")) {
    text += "[[rooms.points]]\nname = \"" + receiver.at("id").get<std::string>() +
            "\"\nat = " + receiver.at("p").dump() + "\nfacing = \"";
    for (int k = 0; k < 3; ++k) text += (k ? "," : "") + number(receiver.at("n")[std::size_t(k)]);
    text += "\"\n";
  }
  return text;
}

struct Case {
  const char* id;
  const char* window;
  const char* site;
  const char* moment;
};

const Case kCases[] = {
    {"P03-window-overcast-16",
     "wall = 1\nfrom = 0.8\nwidth = 3.4\nsill = 0.9\nheight = 1.5\ntransmittance = 0.78\ndirt = 0.85\n"
     "glazing = \"clear double\"\n",
     "[site]\nground_reflectance = 0.2\n", "[moments.now]\nsky = \"overcast\"\ndiffuse = 10000\n"},
    {"P01-roof-uniform-black",
     "at = [2, 2.5]\nwidth = 2\nlength = 2\ntransmittance = 0.65\ndirt = 0.72\nglazing = \"even\"\n",
     "[site]\nground_reflectance = 0\n", "[moments.now]\nsky = \"uniform\"\ndiffuse = 3141.592653589793\n"},
    {"P04-window-overcast-1",
     "wall = 1\nfrom = 0.8\nwidth = 3.4\nsill = 0.9\nheight = 1.5\ntransmittance = 0.78\ndirt = "
     "0.85\nglazing = \"even\"\n",
     "[site]\nground_reflectance = 0.2\n", "[moments.now]\nsky = 1\ndiffuse = 10000\n"},
    {"P05-clear-sky-sun-patch",
     "wall = 1\nfrom = 0.6\nwidth = 1.6\nsill = 0.8\nheight = 1.7\ntransmittance = 0.76\ndirt = 0.9\nglazing "
     "= \"clear "
     "double\"\n[[rooms.openings]]\nname = \"second\"\nkind = \"window\"\nframe = 0\nwall = 1\nfrom = "
     "2.8\nwidth = 1.6\n"
     "sill = 0.8\nheight = 1.7\ntransmittance = 0.76\ndirt = 0.9\nglazing = \"clear double\"\n",
     "[site]\nground_reflectance = 0.2\nnorth = 0\n",
     "[moments.now]\nsky = 12\ndiffuse = 12000\nsun = 72000\nsun_at = [35, 200]\n"},
    {"P06-two-windows-intermediate",
     "wall = 1\nfrom = 1.5\nwidth = 3\nsill = 0.9\nheight = 1.5\ntransmittance = 0.6\nglazing = \"even\"\n"
     "[[rooms.openings]]\nname = \"east\"\nkind = \"window\"\nframe = 0\nwall = 2\nfrom = 1\nwidth = "
     "2.5\nsill = 1\n"
     "height = 1.5\ntransmittance = 0.74\nglazing = \"clear double\"\n",
     "[site]\nground_reflectance = 0.15\nnorth = 0\n",
     "[moments.now]\nsky = \"intermediate\"\ndiffuse = 20000\nsun = 24000\nsun_at = [22, 75]\n"},
    {"P08-overhang-sun",
     "wall = 1\nfrom = 0.6\nwidth = 3.3\nsill = 0.7\nheight = 1.7\ntransmittance = 0.75\nglazing = \"clear "
     "double\"\noverhang = { depth = 1.2, above = 0.2, beyond = 1.1, reflectance = 0.4 }\n",
     "[site]\nground_reflectance = 0.25\nnorth = 0\n",
     "[moments.now]\nsky = 12\ndiffuse = 14000\nsun = 80000\nsun_at = [48, 170]\n"},
    {"P11-blind-scattering",
     "wall = 1\nfrom = 0.5\nwidth = 3.5\nsill = 0.8\nheight = 1.7\ntransmittance = 0.5\nmaterial = "
     "\"blind\"\nglazing = "
     "\"even\"\nblind = { transmittance = 0.52, scattered = 0.8461538, state = \"down\" }\n",
     "[site]\nground_reflectance = 0.2\nnorth = 0\n[materials.blind]\nreflectance = 0.45\n",
     "[moments.now]\nsky = 12\ndiffuse = 13000\nsun = 75000\nsun_at = [40, 190]\nstates = [\"down\"]\n"},
    {"P12-screen-and-bare-window",
     "wall = 1\nfrom = 0.7\nwidth = 2.2\nsill = 0.9\nheight = 1.7\ntransmittance = 0.77\nglazing = \"clear "
     "double\"\n"
     "[[rooms.openings]]\nname = \"screened\"\nkind = \"window\"\nframe = 0\nwall = 1\nfrom = 4.1\nwidth = "
     "2.2\n"
     "sill = 0.9\nheight = 1.7\ntransmittance = 0.77\nglazing = \"clear double\"\nscreen = { transmittance = "
     "0.12, state = "
     "\"down\" }\n",
     "[site]\nground_reflectance = 0.2\nnorth = 0\n",
     "[moments.now]\nsky = 14\ndiffuse = 16000\nsun = 60000\nsun_at = [30, 165]\nstates = [\"down\"]\n"},
    {"P09-opposite-building-overcast",
     "wall = 1\nfrom = 0.7\nwidth = 3.6\nsill = 0.9\nheight = 1.6\ntransmittance = 0.78\ndirt = 0.9\n"
     "glazing = \"clear double\"\n",
     "", "[moments.now]\nsky = \"overcast\"\ndiffuse = 10000\nstates = [\"built\"]\n"},
    {"P14-thick-wall",
     "wall = 1\nfrom = 1\nwidth = 2\nsill = 0.9\nheight = 1.4\ntransmittance = 0.78\nglazing = \"clear "
     "double\"\n"
     "reveal = 0.35\n",
     "[site]\nground_reflectance = 0.2\n", "[moments.now]\nsky = \"overcast\"\ndiffuse = 10000\n"},
    {"P15-place-and-time",
     "wall = 2\nfrom = 0.5\nwidth = 3\nsill = 0.8\nheight = 1.6\ntransmittance = 0.76\ndirt = 0.9\n"
     "glazing = \"clear double\"\n",
     "[site]\nlatitude = 52.3\nlongitude = -7.6\ntime_zone = 0\nnorth = 30\nground_reflectance = 0.2\n",
     "[moments.now]\ndate = \"2017-04-18\"\ntime = \"09:30\"\n"
     "irradiance = { direct = 480, diffuse = 150, dew_point = 4 }\n"}};

class DayCase : public testing::TestWithParam<Case> {};

/// The building opposite, where the case has one, stands in the state "built".
std::string site_of(const json& of, const Case& told) {
  std::string site = told.site;
  if (!site.empty()) return site;
  site = "[site]\nground_reflectance = " +
         std::to_string(of.at("scene").at("ground_reflectance").get<double>()) + "\n";
  for (const json& box : of.at("scene").at("exterior")) {
    const json &low = box.at("min"), &high = box.at("max");
    site += "[[site.obstructions]]\nname = \"opposite\"\nstate = \"built\"\nblock = [[" + low[0].dump() +
            ", " + low[1].dump() + "], [" + high[0].dump() + ", " + low[1].dump() + "], [" + high[0].dump() +
            ", " + high[1].dump() + "], [" + low[0].dump() + ", " + high[1].dump() +
            "]]\nbottom = " + low[2].dump() + "\ntop = " + high[2].dump() +
            "\nreflectance = " + box.at("reflectance").dump() + "\n";
  }
  return site;
}

TEST_P(DayCase, OfTheReferenceByProjectFile) {
  const Case& told = GetParam();
  json of;
  const json all = test::json_in(test::test_data("validation/daylight.json"));
  for (const json& each : all.at("cases"))
    if (each.at("id") == told.id) of = each;
  ASSERT_FALSE(of.is_null());
  const TemporaryFolder folder;
  folder.write("d.toml", day_project(of, told.window, site_of(of, told), told.moment));
  const Ran ran = run(folder, "run d.toml -q --accuracy fine");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const json result = json_in(folder.path() / "d-results/results.json");
  const json& moment = result.at("rooms").at(0).at("scenes").at(0);
  int compared = 0;
  for (const json& reference : of.at("reference"))
    for (const json& point : moment.at("points")) {
      if (reference.at("receiver") != point.at("name") || reference.at("component") != "total") continue;
      const double expected = reference.at("value").get<double>();
      const double allowed = reference.at("rel_tol").get<double>() * expected +
                             reference.value("abs_tol", 0.0) + 3 * reference.value("se", 0.0);
      EXPECT_NEAR(point.at("total_lx").get<double>(), expected, allowed)
          << told.id << " " << point.at("name");
      ++compared;
    }
  EXPECT_GT(compared, 4);
  if (std::string(told.id) == "P15-place-and-time") {
    EXPECT_NEAR(moment.at("moment").at("sun_altitude_deg").get<double>(), 35.12893674509481, 0.02);
    EXPECT_NEAR(moment.at("moment").at("diffuse_lx").get<double>(), 20113.3, 0.003 * 20113.3);
  }
}

INSTANTIATE_TEST_SUITE_P(Reference, DayCase, testing::ValuesIn(kCases),
                         [](const auto& of) { return std::string(of.param.id).substr(0, 3); });

std::string small(const std::string& top, const std::string& window = "") {
  return "format = 1\n[project]\nname = \"D\"\nstandard = \"EN 12464-1:2021\"\n" + top +
         "[defaults]\nmaintenance_factor = 0.8\nreflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }\n"
         "[luminaires.D2]\nfile = \"photometry/quillon-d2.ies\"\n[[rooms]]\nname = \"R\"\nsize = [4, "
         "4]\nheight = 3\n"
         "surfaces = false\n[[rooms.luminaires]]\nmark = \"D2\"\nat = [2, 3]\n[[rooms.openings]]\nname = "
         "\"w\"\n"
         "kind = \"window\"\nwall = 1\nfrom = 1\nwidth = 2\nsill = 1\nheight = 1.5\n" +
         window + "[rooms.scenes.evening]\nrest = 0.5\n";
}

TEST(Daylight, AddsToElectricLightAndIsToldByItsParts) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("d.toml",
               small("[site]\nground_reflectance = 0.2\n[moments.grey]\nsky = \"overcast\"\ndiffuse = 8000\n"
                     "[moments.mixed]\nsky = \"overcast\"\ndiffuse = 8000\nscene = \"evening\"\n") +
                   "[[rooms.eyes]]\nname = \"sitter\"\nat = [2, 2, 1.2]\nlooking = \"270\"\n"
                   "[[rooms.points]]\nname = \"the same\"\nat = [2, 2, 1.2]\nfacing = \"0,-1,0\"\n");
  ASSERT_EQ(run(folder, "run d.toml -q").code, 0);
  const json room = json_in(folder.path() / "d-results/results.json").at("rooms").at(0);
  std::map<std::string, json> grids, points;
  for (const json& scene : room.at("scenes")) {
    grids[scene.at("name")] = scene.at("grids").at(0);
    points[scene.at("name")] = scene.at("points");
  }
  const json &facing = points.at("grey").at(0), &eye = points.at("grey").at(1);
  EXPECT_EQ(eye.at("name"), "eye sitter, 270 deg");
  EXPECT_GT(eye.at("direct_lx").get<double>(), 0);
  EXPECT_NEAR(eye.at("direct_lx").get<double>(), facing.at("direct_lx").get<double>(),
              0.02 * facing.at("direct_lx").get<double>());
  const json &grey = grids.at("grey"), &mixed = grids.at("mixed"), &evening = grids.at("evening");
  for (std::size_t i = 0; i < grey.at("direct_lx").size(); ++i)
    for (const char* part : {"direct_lx", "interreflected_lx"}) {
      const double sum = grey.at(part)[i].get<double>() + evening.at(part)[i].get<double>();
      EXPECT_NEAR(mixed.at(part)[i].get<double>(), sum, 2e-3 * sum) << part;
    }
  const json& day = mixed.at("day");
  EXPECT_TRUE(day.at("has_factor").get<bool>());
  EXPECT_EQ(day.at("open_lx"), 8000);
  EXPECT_NEAR(day.at("sky_lx")[0].get<double>() + day.at("outside_lx")[0].get<double>(),
              grey.at("direct_lx")[0].get<double>(), 1e-3 * grey.at("direct_lx")[0].get<double>());
  EXPECT_TRUE(says(content_of(folder.path() / "d-results/grids/grey/r--work-plane.csv"),
                   ",sun_lx,sky_lx,outside_lx,daylight_lx,daylight_factor_percent,latitude_deg,longitude_deg,"
                   "date,local_time,solar_time\n"));
  const Ran shown = run(folder, "show d-results grids --scene grey");
  EXPECT_TRUE(says(shown.out, "overcast sky of 8000 lx") && says(shown.out, "factor")) << shown.out;
  EXPECT_TRUE(says(content_of(folder.path() / "d-results/figures/grey/r--work-plane--daylight-factor.svg"),
                   "Daylight factor in %"));
}

struct DayFault {
  const char* top;
  const char* window;
  const char* says;
};

/// What is tried for a room reads its daylight plane only, of which a cabinet takes some points.
TEST(Daylight, MendsAreFoundWhereFurnitureStandsInThePlane) {
  const TemporaryFolder folder;
  folder.write("store.toml", R"(format = 1
[defaults]
maintenance_factor = 0.8
reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }
[site]
median_diffuse = 15000
[[rooms]]
name = "Store"
size = [10, 4.4]
height = 2.6
[[rooms.openings]]
name = "window"
kind = "window"
wall = 1
from = 1
width = 1
sill = 1
height = 1
[[rooms.objects]]
name = "cabinet"
furniture = "cabinet"
at = [5.7, 2.2]
[rooms.daylight]
provision = "medium"
)");
  const Ran ran = run(folder, "run store.toml --accuracy draft --no-cache -q");
  EXPECT_EQ(ran.code, 0) << ran.err;
  const std::string shown = run(folder, "show store-results checks --scene \"EN 17037\"").out;
  EXPECT_TRUE(says(shown, "What would help") && says(shown, "openings wider")) << shown;
}

TEST(Daylight, FaultsAreToldOnceWithTheirMend) {
  const char* place = "[site]\nlatitude = 52\nlongitude = 10\ntime_zone = 1\nnorth = 0\n";
  const DayFault faults[] = {
      {"[moments.a]\nsky = \"clear\"\n", "", "give [site] latitude, longitude and time_zone"},
      {"[moments.a]\nsky = \"cloudy\"\n", "", "expected overcast, clear, intermediate, uniform"},
      {"[moments.a]\nsky = 16\n", "", "\"sky\" is 16"},
      {"[moments.a]\ndiffuse = 1000\n", "", "has no sky"},
      {"[moments.a]\nsky = \"uniform\"\n", "", "needs diffuse"},
      {"[moments.a]\nsky = \"overcast\"\ndiffuse = 1\ndate = \"2026-02-29\"\n", "", "expected a day from"},
      {"[moments.a]\nsky = \"overcast\"\ndiffuse = 1\ntime = \"25:00\"\n", "", "expected hours and minutes"},
      {"[moments.a]\nsky = \"overcast\"\ndiffuse = 1\nscene = \"evning\"\n", "", "did you mean \"evening\"?"},
      {"[moments.a]\nsky = \"overcast\"\ndiffuse = 1\nstates = [\"built\"]\n", "",
       "in which nothing stands or hangs outside"},
      {"[moments.evening]\nsky = \"overcast\"\ndiffuse = 1\n[scenes.Evening]\nrest = 1\n", "",
       "would write the same files"},
      {"[moments.a]\nsky = \"overcast\"\ndiffuse = 1\n", "glazing = \"redirecting\"\n", "are not computed"},
      {"[moments.a]\nsky = \"overcast\"\ndiffuse = 1\n", "glazing = { panes = 2 }\n",
       "expected text in quotes"},
      {"[moments.a]\nsky = \"overcast\"\ndiffuse = 1\n", "glazing = [[60, 0.9], [20, 1]]\n", "angles rising"},
      {"[moments.a]\nsky = \"overcast\"\ndiffuse = 1\nsun = 50000\n", "",
       "has no place in a sky that hides it"},
      {"[moments.a]\nsky = \"uniform\"\ndiffuse = 1\nturbidity = 3\n", "", "is said of clear skies"},
      {"[moments.a]\nsky = \"clear\"\nsun_at = [-5, 180]\n", "", "expected an altitude above 0"},
      {"[moments.a]\nsky = \"clear\"\nsun_at = [5, 180]\ntime = \"10:00\"\n", "",
       "says where the sun stands"},
      {"[moments.a]\nsky = 1\ndiffuse = 1\nseries = { from = \"12:00\", to = \"10:00\" }\n", "",
       "ends before it begins"},
      {"[moments.a]\nsky = 1\ndiffuse = 1\nseries = { from = \"00:00\", to = \"23:00\", step = \"1 min\" }\n",
       "", "expected at most 288"},
      {"[moments.a]\nsky = 1\ndiffuse = 1\nwithin = [3000, 300]\n", "", "expected low below high"},
      {"[site]\ntime_zone = \"CET\"\n", "", "such as 1, 5.5 or"},
      {"[site]\nsummer_time = { from = \"lest Sunday of March, 2:00\", to = \"last Sunday of October, 3:00\" "
       "}\n",
       "", "expected when clocks change"},
      {"[site]\nlatitude = 52\nlongitude = 10\ntime_zone = 1\nnorth = 0\nsummer_time = { from = \"last "
       "Sunday of March, "
       "2:00\", to = \"last Sunday of October, 3:00\" }\n[moments.a]\nsky = \"clear\"\ndate = "
       "\"2026-03-29\"\ntime = "
       "\"02:30\"\n",
       "", "there is no 02:30"},
      {"[site]\nclimate_of = \"Berln\"\n", "", "did you mean \"Berlin\""},
      {"[[site.obstructions]]\nname = \"b\"\nbox = [1, 1]\nat = [9, -9, 0]\n", "", "\"box\""},
      {"", "[[rooms.openings]]\nname = \"w\"\nwall = 2\nfrom = 1\nwidth = 1\nheight = 1\n",
       "are called \"w\""},
      {"[moments.\"EN 17037\"]\nsky = 1\ndiffuse = 1\n", "[rooms.daylight]\nview = \"high\"\n",
       "would write the same files"},
      {"[moments.evening]\nsky = 1\ndiffuse = 1\n", "", "would write the same files"},
      {"", "overhang = { above = 0.2 }\n", "\"depth\""},
      {"", "slats = { depth = 0.2, spacing = 0.1, distance = 0.05 }\n", "reach into the wall"},
      {"", "slats = { depth = 0.2, spacing = 0.1, direction = \"across\" }\n",
       "expected horizontal or vertical"},
      {"", "frame = { width = 1 }\n", "leave no glass"},
      {"[site]\nlatitude = 95\n[moments.a]\nsky = \"overcast\"\ndiffuse = 1\n", "", "\"latitude\" is 95"},
  };
  const TemporaryFolder folder;
  write_project(folder);
  for (const DayFault& fault : faults) {
    folder.write("d.toml", small(fault.top, fault.window));
    const Ran ran = run(folder, "check d.toml");
    EXPECT_EQ(ran.code, 2) << fault.top << fault.window;
    EXPECT_TRUE(says(ran.err, fault.says)) << fault.says << "\n" << ran.err;
    EXPECT_TRUE(says(ran.err, "1 error")) << fault.top << ran.err;
  }
  folder.write("d.toml", small(std::string(place) +
                               "[moments.a]\nsky = \"clear\"\ndate = \"2026-12-21\"\ntime = \"03:00\"\n"));
  EXPECT_TRUE(says(run(folder, "check d.toml").err, "below the horizon then, no daylight"));
  folder.write("d.toml",
               small("[site]\nlatitude = 52\nlongitude = -120\ntime_zone = 8\n[moments.a]\nsky = \"clear\"\n"
                     "date = \"2026-06-21\"\ntime = \"04:00\"\n"));
  const Ran doubtful = run(folder, "check d.toml");
  EXPECT_TRUE(says(doubtful.err, "check both signs")) << doubtful.err;
  EXPECT_TRUE(says(doubtful.err, "where north is")) << doubtful.err;
}

/// What a project may well say and hardly means.
TEST(Daylight, DoubtsAreToldBeforeComputing) {
  const char* grey = "[moments.grey]\nsky = 1\ndiffuse = 8000\n";
  const TemporaryFolder folder;
  write_project(folder);
  const auto check = [&](const std::string& text) {
    folder.write("d.toml", text);
    return run(folder, "check d.toml");
  };
  const Ran plain = check(small(grey));
  EXPECT_TRUE(says(plain.err, "clear double panes are taken for daylight")) << plain.err;
  EXPECT_TRUE(says(plain.out, "daylight comes in by: w")) << plain.out;
  const Ran stated = check(small(grey, "glazing = \"clear triple\"\n"));
  EXPECT_FALSE(says(stated.err, "P096")) << stated.err;
  std::string yard = small(grey);
  yard.replace(yard.find("surfaces = false"), 0, "roof = false\n");
  EXPECT_TRUE(says(check(yard).err, "open above")) << "the sky over it is not computed, and that is said";
  EXPECT_TRUE(
      says(check(small(std::string("[[site.obstructions]]\nname = \"tower\"\ntop = 9\nblock = [[1, 1], [6, "
                                   "1], [6, 6]]\n") +
                       grey))
               .err,
           "stands where \"R\" is"));
  const Ran inner = check(small(grey, "outside = false\n"));
  EXPECT_FALSE(says(inner.out, "grey")) << "no daylight comes in by a window to another room" << inner.out;
}

/// A sky that is alike all around needs no place and no time, and gives a factor; a clear one gives none.
TEST(Daylight, FactorsAreToldOfSkiesThatAreAlikeAllAround) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write(
      "d.toml",
      small(
          "[site]\nlatitude = 52\nlongitude = 10\ntime_zone = 1\nnorth = 0\n[moments.one]\nsky = 1\ndiffuse "
          "= 5000\n[moments.blue]\nsky = \"clear\"\ndiffuse = 9000\ndate = \"2026-06-21\"\ntime = "
          "\"10:00\"\n[moments.sunny]\nsky = \"clear\"\ndate = \"2026-06-21\"\ntime = \"12:30\"\n"));
  ASSERT_EQ(run(folder, "run d.toml -q").code, 0);
  const json room = json_in(folder.path() / "d-results/results.json").at("rooms").at(0);
  std::map<std::string, json> grids;
  for (const json& scene : room.at("scenes")) grids[scene.at("name")] = scene.at("grids").at(0);
  EXPECT_TRUE(grids.at("one").at("day").at("has_factor").get<bool>());
  EXPECT_FALSE(grids.at("blue").at("day").at("has_factor").get<bool>());
  EXPECT_FALSE(grids.at("sunny").at("day").at("has_factor").get<bool>());
}

/// Light falls off along a deep shaft; what a finer calculation finds lies within what both state.
TEST(Daylight, OfADeepWellIsAsSureAsItSays) {
  const TemporaryFolder folder;
  folder.write(
      "d.toml",
      "format = 1\n[project]\nname = \"D\"\nstandard = \"EN 12464-1:2021\"\n[site]\nground_reflectance = "
      "0.2\n"
      "[moments.grey]\nsky = \"overcast\"\ndiffuse = 10000\n[defaults]\nmaintenance_factor = 0.8\n"
      "reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }\n[[rooms]]\nname = \"R\"\nsize = [5, 5]\n"
      "height = 3\nsurfaces = false\n[[rooms.openings]]\nname = \"w\"\nkind = \"roof window\"\nat = [2.5, "
      "2.5]\n"
      "width = 0.9\nlength = 0.9\nreveal = 2.7\nreveal_reflectance = 0.75\nglazing = \"clear double\"\n");
  std::vector<json> planes;
  for (const char* accuracy : {"normal", "fine"}) {
    ASSERT_EQ(run(folder, std::string("run d.toml -q --accuracy ") + accuracy).code, 0);
    planes.push_back(json_in(folder.path() / "d-results/results.json")
                         .at("rooms")
                         .at(0)
                         .at("scenes")
                         .at(0)
                         .at("grids")
                         .at(0));
  }
  for (const char* value : {"mean_lx", "min_lx"}) {
    double doubt = 0;
    for (const json& plane : planes) doubt += plane.at("uncertainty").at(value).get<double>();
    const double normal = planes[0].at(value).get<double>(), fine = planes[1].at(value).get<double>();
    EXPECT_NEAR(normal, fine, doubt) << value;
    EXPECT_LT(doubt, 0.12 * fine) << value;
  }
}

}  // namespace daylight_test
}  // namespace glow::cli
