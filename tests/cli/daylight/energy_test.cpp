// Energy of a year by the built program: zones, scenes, times, what is paid back.
#include <nlohmann/json.hpp>

#include "cli/daylight/small_office.hpp"

namespace glow::cli {
namespace energy_test {

/// The office with two groups of luminaires.
std::string lit_office(const std::string& control, const std::string& top = "") {
  std::string text = office("") +
                     "[[rooms.luminaires]]\nmark = \"L\"\nname = \"front\"\nat = [2, 1.5]\n"
                     "[[rooms.luminaires]]\nmark = \"L\"\nname = \"back\"\nat = [2, 3.5]\n" +
                     control;
  text.insert(text.find("[[rooms]]"), top + "[luminaires.L]\nfile = \"lamp.ies\"\n");
  return text;
}

constexpr const char* kLamp =
    "IESNA:LM-63-2002\nTILT=NONE\n1 3000 1 3 1 1 2 0 0 0\n1 1 40\n0 45 90\n0\n1000 700 0\n";

TEST(Energy, IsToldByZonesAndVerified) {
  TemporaryFolder folder;
  with_weather(folder).write("lamp.ies", kLamp);
  folder.write("e.toml",
               lit_office("[[rooms.control]]\nname = \"front row\"\ngroups = [\"front\"]\nkind = \"dimmed\"\n"
                          "target = 200\n[rooms.energy]\nkwh_m2 = 1\nw_m2 = 100\n",
                          "[energy]\nprice = 0.3\ncurrency = \"EUR\"\n"));
  const Ran ran = run(folder, "run e.toml -q --accuracy draft --hours csv");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const json room = json_in(folder.path() / "e-results/results.json").at("rooms").at(0);
  const json& hourly = room.at("energy").at("hourly");
  ASSERT_EQ(hourly.at("zones").size(), 2u);
  EXPECT_NEAR(hourly.at("uncontrolled_kwh").get<double>(), 0.080 * 3650, 0.5);
  EXPECT_LT(hourly.at("zones")[0].at("kwh").get<double>(),
            hourly.at("zones")[0].at("uncontrolled_kwh").get<double>());
  std::map<std::string, json> checks;
  for (const json& check : room.at("checks")) checks[check.at("quantity")] = check;
  EXPECT_EQ(checks.at("energy of the year").at("verdict"), "not met");
  EXPECT_EQ(checks.at("power density").at("verdict"), "met");
  const Ran shown = run(folder, "show e-results energy");
  EXPECT_TRUE(says(shown.out, "front row") && says(shown.out, "hour by hour") &&
              says(shown.out, "keeps 200 lx"))
      << shown.out;
  EXPECT_TRUE(says(content_of(folder.path() / "e-results/hours/office--energy.csv"),
                   "month,day,hour,power_w\n1,1,1,0\n"));
  EXPECT_TRUE(
      says(content_of(folder.path() / "e-results/figures/office--energy.svg"), "daylight at the sensor"));
}

TEST(Energy, ScenesHolidaysChosenDaysAndTimesAreComputed) {
  TemporaryFolder folder;
  with_weather(folder).write("lamp.ies", kLamp);
  std::string text = lit_office(
      "[[rooms.control]]\ngroups = [\"front\"]\nkind = \"dimmed\"\ntarget = 200\n"
      "sensor = [\"desk\", \"shelf\"]\n[[rooms.points]]\nname = \"desk\"\nat = [2, 1, 0.8]\n"
      "[[rooms.points]]\nname = \"shelf\"\nat = [2, 4, 0.8]\n"
      "[rooms.scenes.cleaning]\nrest = 0.5\nhours = { days = \"Friday\", from = \"18:00\", to = "
      "\"20:00\" }\n",
      "[energy]\ndays = [\"12-12\", \"06-21\"]\nhours = { from = \"8:00\", to = \"18:00\", holidays = "
      "[\"12-24 to 01-06\"] }\n");
  text.insert(text.find("[defaults]"),
              "[year.times.mornings]\nmonths = \"November to February\"\nfrom = \"8:00\"\nto = \"10:00\"\n");
  folder.write("e.toml", text);
  const Ran ran = run(folder, "run e.toml -q --accuracy draft");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const json room = json_in(folder.path() / "e-results/results.json").at("rooms").at(0);
  const json& hourly = room.at("energy").at("hourly");
  EXPECT_EQ(hourly.at("used_h").get<int>(), (365 - 14) * 10 + 52 * 2) << "scenes are hours of use";
  EXPECT_NEAR(hourly.at("uncontrolled_kwh").get<double>(), 0.080 * 3510 + 0.040 * 104, 0.5);
  EXPECT_EQ(hourly.at("zones")[0].at("sensors").size(), 2u);
  ASSERT_EQ(hourly.at("days").size(), 2u);
  const json& summer = hourly.at("days")[1];
  EXPECT_EQ(summer.at("month"), 6);
  EXPECT_GT(summer.at("daylight_lx")[12].get<double>(), 300);
  EXPECT_LT(summer.at("power_w")[12].get<double>(), hourly.at("days")[0].at("power_w")[8].get<double>());
  const json& mornings = room.at("times_of_year").at(0);
  EXPECT_EQ(mornings.at("hours").get<int>(), 120 * 2);
  const json &day = mornings.at("daylight"), &all = mornings.at("with_electric_light");
  for (const json* light : {&day, &all})
    EXPECT_NEAR(light->at("below_percent").get<double>() + light->at("within_percent").get<double>() +
                    light->at("above_percent").get<double>(),
                100, 0.1);
  EXPECT_GT(all.at("mean_lx").get<double>(), day.at("mean_lx").get<double>() + 20);
  EXPECT_TRUE(says(content_of(folder.path() / "e-results/figures/office--energy--days.svg"), "21 June"));
  EXPECT_TRUE(says(run(folder, "show e-results year").out, "with electric"));
  ASSERT_EQ(run(folder, "draw e-results --only \"the year at desk\" -f svg -o drawn").code, 0);
  EXPECT_TRUE(says(content_of(folder.path() / "drawn/the-year/office--year--desk.svg"), "daylight at desk"));
}

TEST(Energy, WhatIsInvestedMoreIsPaidBack) {
  TemporaryFolder folder;
  with_weather(folder).write("lamp.ies", kLamp);
  std::string text = lit_office("[[rooms.control]]\nname = \"all\"\nkind = \"none\"\ntarget = 200\n",
                                "[energy]\nprice = 0.3\n");
  text.insert(text.find("file = \"lamp.ies\""), "price = 100\n");
  folder.write("e.toml",
               text +
                   "[[variants.dimmed.rooms]]\nname = \"Office\"\n[[variants.dimmed.rooms.control]]\n"
                   "name = \"all\"\nkind = \"dimmed\"\nprice = 60\n");
  const Ran ran = run(folder, "run e.toml -q --accuracy draft");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const json told = json_of(run(folder, "compare e.toml \"e.toml@dimmed\" --json").out);
  std::map<std::string, std::vector<double>> values;
  for (const json& row : told.at("rooms").at(0).at("measures"))
    for (const json& value : row.at("values"))
      if (value.contains("value") && value.at("value").is_number())
        values[row.at("measure")].push_back(value.at("value"));
  ASSERT_EQ(values["invested"].size(), 2u) << told;
  EXPECT_EQ(values["invested"][0], 200);
  EXPECT_EQ(values["invested"][1], 260);
  const double saved = values["energy_cost_a_year"].at(0) - values["energy_cost_a_year"].at(1);
  ASSERT_GT(saved, 5);
  EXPECT_NEAR(values["payback_years"].at(0), 60 / saved, 0.01 * 60 / saved);
}

TEST(Energy, ZonesAndScenesMayNameWhatAnArrangementTakesOut) {
  TemporaryFolder folder;
  with_weather(folder).write("lamp.ies", kLamp);
  std::string text = lit_office(
      "[[rooms.control]]\ngroups = [\"front\"]\n[rooms.scenes.half]\ngroups = { front = 1 }\nrest = 0\n");
  text.insert(text.find("size = [4, 5]"), "task = \"office.writing\"\n");
  folder.write("e.toml", text);
  ASSERT_EQ(run(folder, "check e.toml").code, 0);
  const Ran ran = run(folder, "arrange e.toml --room Office --mark L");
  EXPECT_TRUE(says(ran.out, "Office: ")) << ran.err;
  EXPECT_FALSE(says(ran.err, "internal failure")) << ran.err;
}

TEST(Energy, FaultsAreToldOnceWithTheirMend) {
  struct Fault {
    std::string text;
    const char* says;
  };
  const std::string zone = "[[rooms.control]]\n";
  const Fault faults[] = {
      {lit_office(zone + "groups = [\"frnt\"]\n"), "did you mean \"front\"?"},
      {lit_office(zone + "groups = [\"front\"]\n" + zone + "groups = [\"L\"]\n"), "is in two zones"},
      {lit_office(zone + "kind = \"dimmed\"\ntarget = 300\nsensor = \"ceiling\"\n"), "is no point of"},
      {lit_office(zone + "kind = \"dimmed\"\n"), "nothing says what level the zone"},
      {lit_office(zone + "kind = \"dims\"\n"), "expected one of \"none\", \"switched\", \"dimmed\""},
      {lit_office(zone + zone), "only one can take all that is left"},
      {lit_office(zone + "name = \"a\"\n" + zone + "name = \"a\"\ngroups = [\"back\"]\n"),
       "two zones are called"},
      {lit_office(zone + "standby = -1\n"), "standby"},
      {lit_office("", "[energy]\nprice = -0.3\n"), "price"},
      {lit_office("", "[energy]\ndays = [\"03-21 to 03-24\"]\n"), "expected single days"},
      {lit_office("[rooms.scenes.a]\nrest = 1\nhours = { from = \"8:00\", to = \"12:00\" }\n"
                  "[rooms.scenes.b]\nrest = 0.5\nhours = { from = \"11:00\", to = \"13:00\" }\n",
                  "[energy]\nprice = 0.3\n"),
       "are set in the same hours"},
      {lit_office("", "[energy]\nhours = { from = \"9:00\", to = \"8:00\" }\n"), "end before they begin"}};
  TemporaryFolder folder;
  with_weather(folder).write("lamp.ies", kLamp);
  for (const Fault& fault : faults) {
    folder.write("f.toml", fault.text);
    const Ran ran = run(folder, "check f.toml");
    EXPECT_TRUE(says(ran.err + ran.out, fault.says)) << fault.says << "\n" << ran.err;
  }
}

}  // namespace energy_test
}  // namespace glow::cli
