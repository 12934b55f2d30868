// Daylight verified by EN 17037, by the built program.
#include <nlohmann/json.hpp>

#include "cli/run_program.hpp"
#include "test_files.hpp"

namespace glow::cli {
namespace daylight_verdict_test {

json case_of(const std::string& id) {
  const json all = test::json_in(test::test_data("validation/daylight.json"));  // outlives the loop
  for (const json& each : all.at("cases"))
    if (each.at("id") == id) return each;
  return {};
}

double reference(const json& of, const std::string& quantity) {
  for (const json& each : of.at("reference"))
    if (each.at("quantity") == quantity) return each.at("value").get<double>();
  throw std::runtime_error("no " + quantity);
}

double allowed(const json& of, const std::string& quantity) {
  for (const json& each : of.at("reference"))
    if (each.at("quantity") == quantity)
      return each.value("rel_tol", 0.0) * each.at("value").get<double>() + each.value("abs_tol", 0.0);
  throw std::runtime_error("no " + quantity);
}

std::string project(const std::string& site, const std::string& room) {
  return "format = 1\n[project]\nname = \"D\"\nstandard = \"EN 12464-1:2021\"\n[site]\nlatitude = "
         "52.3\nlongitude = "
         "-7.6\ntime_zone = 0\n" +
         site +
         "[defaults]\nmaintenance_factor = 0.8\nreflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 "
         "}\n[[rooms]]\n"
         "name = \"R\"\nsurfaces = false\n" +
         room;
}

/// The reference's polynomial of clear double panes, as a measured table.
std::string double_panes() {
  const double k[] = {0.0, 1.5154, 6.2862, -19.2057, 18.5967, -6.1926};
  std::string table = "glazing = [";
  for (int a = 0; a <= 90; a += 5) {
    double share = 0;
    for (int i = 0; i < 6; ++i) share += k[i] * std::pow(std::cos(a * 3.14159265358979 / 180), i);
    table += (a ? ", [" : "[") + std::to_string(a) + ", " + std::to_string(a == 90 ? 0.0 : share) + "]";
  }
  return table + "]\n";
}

struct FactorCase {
  const char* id;
  const char* size;
  double height;
  const char* openings;
  bool from_above;
};

class FactorCases : public testing::TestWithParam<FactorCase> {};

/// Factors on the reference's points; which level is reached with the median of its place.
TEST_P(FactorCases, AgreeWithTheReference) {
  const FactorCase& told = GetParam();
  const json of = case_of(told.id);
  const double median = reference(of, "brackmere: median diffuse illuminance");
  std::string openings = told.openings;
  if (const auto at = openings.find("DOUBLE"); at != std::string::npos)
    openings.replace(at, 7, double_panes());
  const TemporaryFolder folder;
  const char* const levels[] = {"minimum", "medium", "high"};
  std::string reached = "none";
  json plane;
  for (const std::string level : levels) {
    folder.write("d.toml",
                 project("north = 0\nmedian_diffuse = " + std::to_string(median) + "\n",
                         std::string("size = ") + told.size + "\nheight = " + std::to_string(told.height) +
                             "\nwork_plane = { height = 0.85 }\ndaylight = { provision = \"" + level +
                             "\" }\n" + openings));
    const Ran ran = run(folder, "run d.toml -q");
    ASSERT_EQ(ran.code, 0) << ran.err;
    const json room = json_in(folder.path() / "d-results/results.json").at("rooms").at(0);
    const json& scene = room.at("scenes").at(0);
    EXPECT_EQ(scene.at("name"), "EN 17037");
    if (scene.at("status") == "met") reached = level;
    EXPECT_EQ(scene.at("checks").size(), told.from_above ? 1u : 2u);
    for (const json& grid : scene.at("grids"))
      if (grid.at("name") == "daylight plane") plane = grid;
  }
  EXPECT_EQ(reached, of.at("id") == "D01-side-lit" ? "minimum" : "medium");
  std::vector<double> factors;
  for (const json& lux : plane.at("day").at("day_lx")) factors.push_back(lux.get<double>() / 100);
  double mean = 0;
  for (const double factor : factors) mean += factor / double(factors.size());
  EXPECT_NEAR(mean, reference(of, "overcast: mean daylight factor"),
              allowed(of, "overcast: mean daylight factor"));
  const double share =
      double(std::count_if(factors.begin(), factors.end(), [&](double f) { return f >= 30000 / median; })) /
      double(factors.size());
  EXPECT_NEAR(100 * share, reference(of, "brackmere: share of points at 300 lx target factor"), 3);
}

INSTANTIATE_TEST_SUITE_P(
    Reference, FactorCases,
    testing::Values(
        FactorCase{"D01-side-lit", "[6, 6.6]", 2.9,
                   "[[rooms.openings]]\nname = \"w\"\nkind = \"window\"\nwall = 1\nfrom = 0.6\nsill = 0.9\n"
                   "width = 4.8\nheight = 1.7\ntransmittance = 0.76\ndirt = 0.9\nframe = 0\nDOUBLE\n",
                   false},
        FactorCase{"D02-roof-lit", "[7, 7]", 3.6,
                   "[[rooms.openings]]\nname = \"r1\"\nkind = \"roof window\"\nat = [2, 3.5]\nwidth = 0.8\n"
                   "length = 4\ntransmittance = 0.6\nframe = 0\nglazing = \"even\"\n"
                   "[[rooms.openings]]\nname = \"r2\"\nkind = \"roof window\"\nat = [5, 3.5]\nwidth = 0.8\n"
                   "length = 4\ntransmittance = 0.6\nframe = 0\nglazing = \"even\"\n",
                   true}),
    [](const auto& of) { return std::string(of.param.id).substr(0, 3); });

struct SunCase {
  const char* id;
  const char* site;
  const char* window;
};

class SunCases : public testing::TestWithParam<SunCase> {};

/// Hours of sun, and when it comes and goes, on every day of the reference.
TEST_P(SunCases, AgreeWithTheReference) {
  const SunCase& told = GetParam();
  const json of = case_of(told.id);
  const json& place = of.at("place");
  const TemporaryFolder folder;
  int days = 0;
  for (const json& each : of.at("reference")) {
    const std::string quantity = each.at("quantity").get<std::string>();
    if (quantity.rfind("hours of sun, ", 0) != 0) continue;
    const std::string day = quantity.substr(14), padded = (day.find('-') == 1 ? "0" : "") + day;
    std::string text =
        project("north = " + of.at("y_axis_azimuth_deg").dump() + "\n" + told.site,
                "size = [4, 4]\nheight = 3\ndaylight = { sunlight = \"minimum\", sun_above = " +
                    of.at("min_altitude_deg").dump() + ", sunlight_day = \"" + padded +
                    "\" }\n[[rooms.openings]]\nname = \"w\"\nkind = \"window\"\nwall = 1\n" + told.window);
    for (const auto& [ours, theirs] : {std::pair("latitude = 52.3", "latitude"),
                                       {"longitude = -7.6", "longitude_east"},
                                       {"time_zone = 0", "time_zone_h"}}) {
      const std::string key = std::string(ours).substr(0, std::string(ours).find(' '));
      text.replace(text.find(ours), std::string(ours).size(), key + " = " + place.at(theirs).dump());
    }
    folder.write("d.toml", text);
    const Ran ran = run(folder, "run d.toml -q");
    ASSERT_EQ(ran.code, 0) << ran.err;
    const json scene = json_in(folder.path() / "d-results/results.json").at("rooms").at(0).at("scenes").at(0);
    const json& sun = scene.at("outlook");
    EXPECT_NEAR(sun.at("sun_hours").get<double>(), each.at("value").get<double>(),
                each.at("abs_tol").get<double>())
        << day;
    const bool enough = each.at("value").get<double>() >= 1.5;
    EXPECT_EQ(scene.at("status"), enough ? "met" : "not met") << day;
    for (const json& when : of.at("reference")) {
      if (when.at("quantity") != "intervals, " + day + " (local standard time)") continue;
      const json& ours = sun.at("sun").at(0).at("intervals");
      ASSERT_EQ(ours.size(), when.at("value").size()) << day;
      for (std::size_t k = 0; k < ours.size(); ++k) {
        EXPECT_NEAR(ours[k].at("from_h").get<double>(), when.at("value")[k][0].get<double>(),
                    when.at("abs_tol").get<double>());
        EXPECT_NEAR(ours[k].at("to_h").get<double>(), when.at("value")[k][1].get<double>(),
                    when.at("abs_tol").get<double>());
      }
    }
    ++days;
  }
  EXPECT_GE(days, 2);
}

INSTANTIATE_TEST_SUITE_P(
    Reference, SunCases,
    testing::Values(
        SunCase{"S01-free-south", "", "from = 1\nwidth = 2\nsill = 0.9\nheight = 1.5\n"},
        SunCase{
            "S02-opposite-buildings",
            "[[site.obstructions]]\nname = \"left\"\nblock = [[-10, -25], [4, -25], [4, -15], [-10, -15]]\n"
            "top = 10\n[[site.obstructions]]\nname = \"right\"\nbox = [16, 15, 16]\nat = [9, -30, 0]\n",
            "from = 1\nwidth = 2\nsill = 0.9\nheight = 1.5\n"},
        SunCase{"S03-min-altitude-turned",
                "[[site.obstructions]]\nname = \"wall\"\nbox = [5, 2, 6]\nat = [-3, -9, 0]\n",
                "from = 2.5\nwidth = 1\nsill = 1.2\nheight = 1\n"},
        SunCase{"S04-overhang-and-reveal", "",
                "from = 1.2\nwidth = 1.6\nsill = 1\nheight = 1.7\nreveal = 0.3\noverhang = { depth = 0.7, "
                "beyond = "
                "1.2 }\n"}),
    [](const auto& of) { return std::string(of.param.id).substr(0, 3); });

/// A room that fails says which opening gives what, and what would mend it; doing that mends it.
TEST(DaylightVerdict, DoingWhatTheMessageSaysMendsIt) {
  const TemporaryFolder folder;
  const auto text = [](double reflectance) {
    return project(
        "north = 0\nclimate_of = \"Berlin\"\n[[site.obstructions]]\nname = \"mill\"\nbox = [30, 10, 12]\nat "
        "= [-13, "
        "-22, 0]\nreflectance = 0.3\nstate = \"rebuilt\"\n",
        "size = [5, 5]\nheight = 2.8\nreflectance = { ceiling = 0.7, walls = " + std::to_string(reflectance) +
            ", floor = 0.2 }\ndaylight = { provision = \"minimum\", view = \"medium\", states = "
            "[\"rebuilt\"] }\n"
            "[[rooms.openings]]\nname = \"south\"\nkind = \"window\"\nwall = 1\nfrom = 1\nwidth = 3\nsill = "
            "0.9\n"
            "height = 1.6\nglazing = \"clear double\"\n[[rooms.openings]]\nname = \"east\"\nkind = "
            "\"window\"\n"
            "wall = 2\nfrom = 1\nwidth = 0.8\nsill = 0.9\nheight = 1.2\nglazing = \"clear double\"\n");
  };
  folder.write("d.toml", text(0.5));
  const Ran ran = run(folder, "run d.toml");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const json room = json_in(folder.path() / "d-results/results.json").at("rooms").at(0);
  ASSERT_EQ(room.at("scenes").size(), 2u);
  const json &open = room.at("scenes").at(0), &built = room.at("scenes").at(1);
  EXPECT_EQ(built.at("name"), "EN 17037, rebuilt");
  std::map<std::string, double> factor;
  for (const json& check : open.at("checks")) factor[check.at("quantity")] = check.at("actual").get<double>();
  bool tried = false;
  for (const json& check : built.at("checks")) {
    const std::string quantity = check.at("quantity");
    const double actual = check.at("actual").get<double>();
    if (quantity.rfind("daylight factor", 0) == 0) {
      EXPECT_LT(actual, factor.at(quantity));
    } else if (quantity == "outside distance") {
      EXPECT_NEAR(actual, 1000, 1) << "to the east it is free";
    }
    if (quantity != "daylight factor over 50 %" || check.at("verdict") == "met") continue;
    EXPECT_TRUE(says(check.at("why").at(0), "south") && says(check.at("why").at(0), "east"))
        << check.at("why");
    double lighter = 0, brighter = 0;
    for (const json& mend : check.at("mends")) {
      if (mend.at("change").at("what") == "lighter_outside") lighter = mend.at("value").get<double>();
      if (mend.at("change").at("what") == "brighter_inside") brighter = mend.at("value").get<double>();
    }
    EXPECT_GT(lighter, check.at("actual").get<double>());
    EXPECT_GT(brighter, check.at("actual").get<double>());
    tried = true;
  }
  EXPECT_TRUE(tried) << ran.out;
  for (const char* figure : {"en-17037/r--daylight-plane--daylight-factor.svg",
                             "en-17037-rebuilt/r--daylight-plane--daylight-factor.svg"})
    EXPECT_TRUE(std::filesystem::exists(folder.path() / "d-results/figures" / figure)) << figure;
}

/// The course of a day is that of its steps, each a moment of its own.
TEST(DaylightSeries, IsThatOfItsMoments) {
  const TemporaryFolder folder;
  const char* day = "date = \"2026-03-29\"\nsky = \"clear\"\n";
  folder.write(
      "d.toml",
      project(std::string("north = 0\nsummer_time = { from = \"last Sunday of March, 1:00\", to = \"last "
                          "Sunday of October, "
                          "2:00\" }\n[moments.day]\n") +
                  day + "series = { from = \"00:30\", to = \"13:30\", step = \"30 min\" }\n[moments.noon]\n" +
                  day + "time = \"12:30\"\n",
              "size = [4, 4]\nheight = 3\n[[rooms.points]]\nname = \"desk\"\nat = [2, 1.5, "
              "0.8]\n[[rooms.openings]]\nname = "
              "\"w\"\nkind = \"window\"\nwall = 1\nfrom = 1\nwidth = 2\nsill = 0.9\nheight = 1.5\n"));
  const Ran ran = run(folder, "run d.toml -q");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const json room = json_in(folder.path() / "d-results/results.json").at("rooms").at(0);
  const json &series = room.at("scenes").at(0).at("series"), &noon = room.at("scenes").at(1);
  std::vector<std::string> times;
  for (const json& step : series.at("steps")) times.push_back(step.at("time"));
  EXPECT_EQ(std::count(times.begin(), times.end(), "01:00"), 0) << "clocks skip it";
  const auto at = std::size_t(std::find(times.begin(), times.end(), "12:30") - times.begin());
  ASSERT_LT(at, times.size());
  const double desk = series.at("lines").at(0).at("lux").at(at).get<double>();
  EXPECT_NEAR(desk, noon.at("points").at(0).at("total_lx").get<double>(), 1e-3 * desk);
  EXPECT_EQ(series.at("lines").at(0).at("lux").at(0).get<double>(), 0) << "at night the sky is off";
  EXPECT_TRUE(says(content_of(folder.path() / "d-results/grids/day/r--day.csv"),
                   "latitude_deg,longitude_deg,date,local_time,solar_time,sun_altitude_deg,sun_azimuth_deg,"
                   "open_lx,desk point_lx,work "
                   "plane mean_lx\n"));
  EXPECT_TRUE(std::filesystem::exists(folder.path() / "d-results/figures/day/r--day.svg"));
}

}  // namespace daylight_verdict_test
}  // namespace glow::cli
