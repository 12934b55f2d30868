// A year of daylight by the built program, from project files.
#include <cmath>
#include <cstring>
#include <map>
#include <nlohmann/json.hpp>

#include "cli/daylight/small_office.hpp"

namespace glow::cli {
namespace year_test {

std::string number(const json& j) {
  return std::to_string(j.get<double>());
}

/// A case of the reference as a project: its points, in a room whose blinds let 0.15 of all light through.
std::string project_of(const json& of, const std::string& weather) {
  const json& room = of.at("scene").at("room");
  const json& glazing = of.at("scene").at("openings")[0].at("glazing");
  const double at_normal = glazing.at("tau_normal").get<double>() * glazing.at("factor").get<double>();
  const auto share = [&](double cosine) {
    double sum = 0, power = 1;
    for (const json& c : glazing.at("coefficients")) {
      sum += c.get<double>() * power;
      power *= cosine;
    }
    return std::max(0.0, sum);
  };
  std::string table;
  for (int angle = 0; angle <= 90; ++angle)
    table += (angle ? ", [" : "[") + std::to_string(angle) + ", " +
             std::to_string(share(std::cos(angle * kDegree))) + "]";
  double even = 0;  // of the glass behind the blind
  for (int k = 0; k < 2000; ++k) even += 2 * (k + 0.5) / 2000 * share((k + 0.5) / 2000) / 2000;
  const double blind = of.at("tau_blind_scattered").get<double>() / (at_normal * even);
  std::string text =
      "format = 1\n[project]\nname = \"Y\"\nstandard = \"EN 12464-1:2021\"\n[site]\nnorth = " +
      number(of.at("y_axis_azimuth_deg")) + "\nground_reflectance = 0.2\n[year]\nweather = \"" + weather +
      "\"\nblinds = { states = [\"down\"] }\n[defaults]\nmaintenance_factor = 1\n"
      "reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }\n[[rooms]]\nname = \"A\"\nsize = [" +
      number(room.at("size")[0]) + ", " + number(room.at("size")[1]) +
      "]\nheight = " + number(room.at("size")[2]) +
      "\nsurfaces = false\nwork_plane = { height = 0.76, inset = 0, spacing = 0.9 }\n";
  for (const json& opening : of.at("scene").at("openings")) {
    const json &low = opening.at("min"), &high = opening.at("max");
    text += "[[rooms.openings]]\nname = " + opening.at("name").dump() +
            "\nkind = \"window\"\nwall = 1\nframe = 0\nreflectance = 0\nfrom = " + number(low[0]) +
            "\nwidth = " + std::to_string(high[0].get<double>() - low[0].get<double>()) +
            "\nsill = " + number(low[2]) +
            "\nheight = " + std::to_string(high[2].get<double>() - low[2].get<double>()) +
            "\ntransmittance = " + std::to_string(at_normal) + "\nglazing = [" + table +
            "]\nscreen = { transmittance = " + std::to_string(blind) +
            ", scattered = 1, state = \"down\" }\n";
  }
  return text;
}

/// By the reference's names: the metric, and whether blinds move.
const std::map<std::string, std::pair<std::string, bool>> kMetrics = {
    {"DA300_pct", {"daylight autonomy", false}},
    {"cDA300_pct", {"continuous autonomy", false}},
    {"UDI_below_100_pct", {"useful, below 100 lx", false}},
    {"UDI_100_300_pct", {"useful, 100 to 300 lx", false}},
    {"UDI_300_3000_pct", {"useful, 300 to 3000 lx", false}},
    {"UDI_3000_plus_pct", {"useful, above 3000 lx", false}},
    {"DA300_blinds_pct", {"daylight autonomy", true}},
    {"exposure_klxh", {"light exposure", false}},
    {"hours_sun_1000_occupied", {"hours of strong sun", false}},
    {"hours_direct_sun_year", {"hours of sun", false}},
    {"EN17037_E_half_daylight_hours_lx", {"half of daylight", false}}};

class YearCase : public testing::TestWithParam<const char*> {
 protected:
  static json case_of(const std::string& id) {
    const json all = json_in(test_data("validation/daylight.json"));
    for (const json& each : all.at("cases"))
      if (each.at("id") == id) return each;
    return nullptr;
  }
};

/// Numbers and hours of a file of hours, point by point within each hour.
struct Hours {
  std::uint32_t points = 0;
  std::vector<std::uint16_t> numbers;
  std::vector<float> lux;
  explicit Hours(const std::string& bytes) {
    std::uint32_t count = 0;
    EXPECT_EQ(bytes.substr(0, 8), "GLOWHRS1");
    std::memcpy(&points, bytes.data() + 8, 4);
    std::memcpy(&count, bytes.data() + 12, 4);
    numbers.resize(count);
    std::memcpy(numbers.data(), bytes.data() + 16, 2 * count);
    const std::size_t begin = 16 + 2 * (count + count % 2);
    EXPECT_EQ(bytes.size(), begin + 4 * std::size_t(points) * count);
    lux.resize(std::size_t(points) * count);
    std::memcpy(lux.data(), bytes.data() + begin, bytes.size() - begin);
  }
};

TEST_P(YearCase, OfTheReferenceByProjectFile) {
  const json of = case_of(GetParam());
  const std::string file = of.at("weather").get<std::string>().substr(8);
  const TemporaryFolder folder;
  folder.write(file, content_of(test_data("validation/weather/" + file)));
  folder.write("y.toml", project_of(of, file));
  const Ran ran = run(folder, "run y.toml -q --accuracy fine --hours binary");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const json room = json_in(folder.path() / "y-results/results.json").at("rooms").at(0);
  const json& year = room.at("scenes").at(0).at("year");
  const json& grid = year.at("grids").at(0);
  int compared = 0;
  for (const auto& [name, metric] : kMetrics)
    for (const json& map : grid.at("maps")) {
      if (map.at("metric") != metric.first || map.at("blinds") != metric.second) continue;
      const json &values = of.at("points").at(name).at("value"),
                 &allowed = of.at("points").at(name).at("tol");
      ASSERT_EQ(map.at("values").size(), values.size());
      for (std::size_t p = 0; p < values.size(); ++p, ++compared)
        EXPECT_NEAR(map.at("values")[p].get<double>(), values[p].get<double>(), allowed[p].get<double>())
            << name << " " << p;
    }
  EXPECT_EQ(compared, 11 * 48);
  const std::map<std::string, double> shares = {
      {"sDA300_50_pct", grid.at("spatial_autonomy_without_blinds").at("percent")},
      {"sDA300_50_blinds_pct", grid.at("spatial_autonomy").at("percent")},
      {"ASE1000_250_pct", grid.at("sun_exposure").at("percent")},
      {"hours with blinds down, 08-18 h, group 0", year.at("blinds").at("hours_down")[0]}};
  for (const json& reference : of.at("reference"))
    if (const auto own = shares.find(reference.at("quantity")); own != shares.end()) {
      EXPECT_NEAR(own->second, reference.at("value").get<double>(), reference.at("abs_tol").get<double>())
          << own->first;
    }
  const Hours hours(content_of(folder.path() / "y-results/hours/a--work-plane.bin"));
  constexpr int kBefore[] = {0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334};
  int met = 0;
  for (const json& hour : of.at("hours").at("list")) {
    const int day = kBefore[hour.at("month").get<int>() - 1] + hour.at("day").get<int>() - 1;
    const auto at =
        std::find(hours.numbers.begin(), hours.numbers.end(), day * 24 + hour.at("hour").get<int>() - 1);
    ASSERT_NE(at, hours.numbers.end());
    for (std::size_t k = 0; k < of.at("hours").at("receivers").size(); ++k) {
      const json& expected = hour.at("with_blind_rule")[k];
      if (expected.is_null()) continue;
      std::size_t p = 0;
      while (of.at("receivers")[p].at("id") != of.at("hours").at("receivers")[k]) ++p;
      const double lux = hours.lux[std::size_t(at - hours.numbers.begin()) * hours.points + p];
      EXPECT_NEAR(lux, expected.get<double>(), 0.04 * expected.get<double>() + 5) << hour;
      ++met;
    }
  }
  EXPECT_GT(met, 80);
}

/// The energy cases of the reference: the room of a year with a group of luminaires of so many watts.
TEST_P(YearCase, EnergyOfTheReferenceByProjectFile) {
  const std::string id = std::string(GetParam()) == "Y01" ? "E01-dimming" : "E02-dimming-south";
  const json of = case_of(GetParam()), energy = case_of(id);
  const std::string file = of.at("weather").get<std::string>().substr(8);
  const TemporaryFolder folder;
  folder.write(file, content_of(test_data("validation/weather/" + file)));
  std::string ies = "IESNA:LM-63-2002\nTILT=NONE\n1 3000 1 3 1 1 2 0 0 0\n1 1 " +
                    number(energy.at("power_W")) + "\n0 45 90\n0\n1000 700 0\n";
  folder.write("lamp.ies", ies);
  std::size_t p = 0;
  while (of.at("receivers")[p].at("id") != energy.at("sensor")) ++p;
  const std::string sensor =
      "[[rooms.points]]\nname = \"sensor\"\nat = " + of.at("receivers")[p].at("p").dump() + "\n";
  std::map<std::string, json> expected;
  for (const json& reference : energy.at("reference")) expected[reference.at("quantity")] = reference;
  int compared = 0;
  for (const char* kind : {"dimmed", "switched"})
    for (const bool blinds : {false, true}) {
      std::string text = project_of(of, file);
      if (!blinds) text.erase(text.find("blinds = "), text.find("[defaults]") - text.find("blinds = "));
      const std::string hours =
          "[energy]\nhours = { days = \"Monday to Friday\", from = \"8:00\", to = \"18:00\" }\n";
      text.insert(text.find("[[rooms]]"), hours + "[luminaires.L]\nfile = \"lamp.ies\"\n");
      text +=
          "[[rooms.luminaires]]\nmark = \"L\"\nat = [2.7, 3.6]\n" + sensor +
          "[[rooms.control]]\nname = \"all\"\nkind = \"" + kind +
          "\"\nsensor = \"sensor\"\ntarget = 500\nleast_power = " + number(energy.at("standby_fraction")) +
          "\n";
      folder.write("e.toml", text);
      ASSERT_EQ(run(folder, "run e.toml -q").code, 0);
      const json found =
          json_in(folder.path() / "e-results/results.json").at("rooms").at(0).at("energy").at("hourly");
      const std::string of_year =
          std::string(kind) + (blinds ? ", blind rule" : ", no blinds") + ": kWh in the year";
      for (const auto& [name, value] : {std::pair(of_year, found.at("kwh").get<double>()),
                                        std::pair(std::string("uncontrolled, no blinds: kWh in the year"),
                                                  found.at("uncontrolled_kwh").get<double>())}) {
        if (!expected.count(name)) continue;
        const json& reference = expected.at(name);
        const double wanted = reference.at("value");
        EXPECT_NEAR(value, wanted,
                    reference.at("rel_tol").get<double>() * wanted + reference.at("abs_tol").get<double>())
            << name;
        ++compared;
      }
    }
  EXPECT_GE(compared, 7);
}

INSTANTIATE_TEST_SUITE_P(Reference, YearCase, testing::Values("Y01", "Y02"));

TEST(Year, IsVerifiedExplainedAndShown) {
  TemporaryFolder folder;
  with_weather(folder).write(
      "o.toml",
      office(
          "hours = { days = \"Monday to Friday\", from = \"8:00\", to = \"17:00\" }\nlevels = [300, 500]\n",
          "[rooms.year]\nautonomy = \"95 %\"\nsun_exposure = \"5 %\"\nspatial_autonomy = \"1 %\"\n"
          "exposure = 1e8\nprovision = \"minimum\"\n"));
  const Ran ran = run(folder, "run o.toml -q --accuracy draft");
  ASSERT_EQ(ran.code, 0) << ran.err;
  EXPECT_TRUE(says(ran.out, "the year")) << ran.out;
  const json scene = json_in(folder.path() / "o-results/results.json").at("rooms").at(0).at("scenes").at(0);
  EXPECT_EQ(scene.at("year").at("used_hours"), 260 * 9);
  EXPECT_EQ(scene.at("year").at("mean_by_hour_lx").size(), 8760u);
  std::map<std::string, json> checks;
  for (const json& check : scene.at("checks")) checks[check.at("quantity")] = check;
  ASSERT_EQ(checks.size(), 6u);
  EXPECT_EQ(checks.at("spatial daylight autonomy").at("verdict"), "met");
  EXPECT_EQ(checks.at("light exposure").at("verdict"), "met");
  EXPECT_EQ(checks.at("daylight autonomy").at("verdict"), "not met");
  EXPECT_EQ(checks.at("annual sun exposure").at("verdict"), "not met");
  EXPECT_TRUE(checks.count("half of daylight over 50 %") && checks.count("half of daylight over 95 %"));
  const Ran shown = run(folder, "show o-results checks --scene \"the year\"");
  EXPECT_TRUE(says(shown.out, "if the building were turned") && says(shown.out, "openings wider by 25 %") &&
              says(shown.out, "overhangs of 1.0 m over the windows"))
      << shown.out;
  EXPECT_FALSE(says(run(folder, "show o-results year").out, "nothing")) << "of floors, times and points";
  const Ran table = run(folder, "show o-results year --csv");
  EXPECT_TRUE(says(table.out, "autonomy_percent") && says(table.out, "Office,work plane,300,")) << table.out;
  for (const char* file : {"figures/the-year/office--year.svg",
                           "figures/the-year/office--work-plane--daylight-autonomy-300-lx.svg"})
    EXPECT_TRUE(std::filesystem::exists(folder.path() / "o-results" / file)) << file;
}

TEST(Year, AMendThatIsToldIsWhatARunGives) {
  TemporaryFolder folder;
  const std::string wish = "[rooms.year]\nsun_exposure = \"1 %\"\n";
  with_weather(folder).write("o.toml", office("", wish));
  ASSERT_EQ(run(folder, "run o.toml -q").code, 0);
  const json told = json_in(folder.path() / "o-results/results.json")
                        .at("rooms")
                        .at(0)
                        .at("scenes")
                        .at(0)
                        .at("checks")
                        .at(0);
  double with_overhang = NAN;
  for (const json& mend : told.at("mends"))
    if (mend.at("change").at("what") == "overhangs" && mend.at("change").at("amount") == 1.0)
      with_overhang = mend.at("value");
  std::string text = office("", wish);
  const std::string at = "glazing = \"clear double\"\n";
  text.insert(text.find(at), "overhang = { depth = 1, beyond = 0.5 }\n");
  folder.write("m.toml", text);
  ASSERT_EQ(run(folder, "run m.toml -q").code, 0);
  const json check = json_in(folder.path() / "m-results/results.json")
                         .at("rooms")
                         .at(0)
                         .at("scenes")
                         .at(0)
                         .at("checks")
                         .at(0);
  EXPECT_NEAR(check.at("actual").get<double>(), with_overhang, 6);
}

TEST(Year, FaultsAreToldOnceWithTheirMend) {
  struct Fault {
    std::string text;
    const char* says;
  };
  const Fault faults[] = {
      {office("hours = { days = \"Mondays\", from = \"8:00\", to = \"9:00\" }\n"), "expected \"every day\""},
      {office("hours = { from = \"18:00\", to = \"8:00\" }\n"), "end before they begin"},
      {office("hours = { from = \"8:70\", to = \"9:00\" }\n"), "expected a time of the day"},
      {office("levels = [300, -1]\n"), "1 to 6 numbers"},
      {office("blinds = { states = [\"dwn\"] }\n"),
       "in which nothing stands or hangs outside; there are: down"},
      {office("blinds = { share = 0.1 }\n"), "names no states"},
      {office("weather_file = 1\n"), "weather_file"},
      {office("hours = [{ from = \"8:00\", to = \"12:00\" }, { days = \"Monday\", from = \"11:00\", to = "
              "\"13:00\" }]\n"),
       "overlap others of the same days"},
      {office("hours = { from = \"8:00\", to = \"9:00\", holidays = [\"02-30\"] }\n"), "\"12-24 to 01-06\""},
      {office("hours = { from = \"8:00\", to = \"9:00\", holidays = [\"12-93\"] }\n"), "\"12-24 to 01-06\""},
      {office("times.dawn = { months = \"Janury\", from = \"5:00\", to = \"6:00\" }\n"), "expected a month"},
      {office("times.dawn = { within = [900, 300], from = \"5:00\", to = \"6:00\" }\n"),
       "expects the lower limit first"},
      {office("times.never = { from = \"5:35\", to = \"6:25\" }\n"), "\"never\" holds no hour's middle"},
      {office("", "[rooms.year]\nautonomy = 70\n"), "autonomy"},
      {office("", "[rooms.year]\nprovision = \"some\"\n"), "expected a level of EN 17037"},
      {office("", "", "latitude = -52.3\nlongitude = -7.6\ntime_zone = 0\n"),
       "are not of one place: latitude -52.3 here"}};
  TemporaryFolder folder;
  with_weather(folder);
  for (const Fault& fault : faults) {
    folder.write("f.toml", fault.text);
    const Ran ran = run(folder, "check f.toml");
    EXPECT_TRUE(says(ran.err + ran.out, fault.says)) << fault.says << "\n" << ran.err;
  }
  std::string without = office("");
  without.replace(without.find("w.epw"), 5, "x.epw");
  folder.write("f.toml", without);
  EXPECT_TRUE(says(run(folder, "check f.toml").err, "there is no file")) << "the weather";
  std::string no_year = office("", "[rooms.year]\nautonomy = \"70 %\"\n");
  no_year.erase(no_year.find("[year]"), no_year.find("[defaults]") - no_year.find("[year]"));
  folder.write("f.toml", no_year);
  EXPECT_TRUE(says(run(folder, "check f.toml").err, "nothing says the weather"));
  EXPECT_TRUE(says(run(folder, "run f.toml --hours xml").err, "expected csv or binary"));
}

TEST(Year, ABuildingOppositeIsComparedAsAVariant) {
  TemporaryFolder folder;
  with_weather(folder).write("o.toml",
                             office("", "",
                                    "[[site.obstructions]]\nname = \"opposite\"\nstate = \"built\"\n"
                                    "block = [[-10, -9], [14, -9], [14, -6], [-10, -6]]\ntop = 12\n") +
                                 "[variants.built]\nyear = { states = [\"built\"] }\n");
  const Ran ran = run(folder, "run o.toml -q --accuracy draft");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const Ran compared = run(folder, "compare o.toml \"o.toml@built\" --json");
  double before = 0, after = 0;
  const json told = json_of(compared.out);
  for (const json& row : told.at("rooms").at(0).at("measures"))
    if (row.at("measure") == "daylight_autonomy_percent") {
      before = row.at("values")[0].at("value");
      after = row.at("values")[1].at("value");
    }
  EXPECT_GT(before, 30) << compared.out;
  EXPECT_LT(after, 0.7 * before) << "a high building near by takes daylight";
  ASSERT_EQ(run(folder, "compare o.toml \"o.toml@built\" -o beside").code, 0);
  const std::string name = "beside/office--work-plane--daylight-autonomy-300-lx";
  EXPECT_TRUE(says(content_of(folder.path() / (name + "--compared.svg")), "Daylight autonomy in %"));
  EXPECT_TRUE(says(content_of(folder.path() / (name + "--difference-b.svg")), "Difference in %"));
}

TEST(Weather, IsShownWithItsSheetAndRefusedPlainly) {
  TemporaryFolder folder;
  with_weather(folder);
  const Ran shown = run(folder, "weather w.epw -o sheet");
  EXPECT_EQ(shown.code, 0);
  EXPECT_TRUE(says(shown.out, "Brackmere") && says(shown.out, "15426 lx") && says(shown.out, "w--weather"))
      << shown.out;
  EXPECT_TRUE(says(content_of(folder.path() / "sheet/w--weather.svg"), "21 Jun"));
  const json sheet = json_of(run(folder, "weather w.epw --json").out);
  EXPECT_NEAR(sheet.at("median_diffuse_lx").get<double>(), 15425.5, 0.015 * 15425.5);
  EXPECT_EQ(sheet.at("months").size(), 12u);
  folder.write("cut.epw", content_of(folder.path() / "w.epw").substr(0, 700011));
  const Ran cut = run(folder, "weather cut.epw");
  EXPECT_EQ(cut.code, 2);
  EXPECT_TRUE(says(cut.err, "cut.epw:4648:1: error[cut]")) << cut.err;
  EXPECT_EQ(run(folder, "weather none.epw").code, 2);
}

}  // namespace year_test
}  // namespace glow::cli
