// Glare through the built program: seats, maps, tabular values, verdicts and advice.
#include <fmt/format.h>

#include <cmath>

#include "cli/run_program.hpp"

namespace glow::cli {
namespace glare_test {

/// A room of 8 x 5 m with an even array of linear luminaires; `room` goes into it.
void write_office(const TemporaryFolder& folder, const std::string& room, const std::string& luminaire = {}) {
  for (const files::EmbeddedFile& file : files::embedded_demo())
    if (std::string(file.name).find("photometry/") == 0) folder.write(file.name, std::string(file.bytes));
  folder.write("office.toml",
               R"(format = 1
[project]
name = "Office"
standard = "EN 12464-1:2021"
[defaults]
reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }
maintenance_factor = 0.8
surfaces = false
[luminaires.P1]
file = "photometry/tarnfell-p1.ldt"
)" + luminaire + R"([[rooms]]
name = "Office"
size = [8, 5]
height = 3
task = "office.writing"
)" + room + R"(
[[rooms.luminaires]]
mark = "P1"
array = { rows = 2, columns = 3 }
rotation = 90
)");
}

json room_of(const TemporaryFolder& folder, int code = 0) {
  const Ran ran = run(folder, "run office.toml --json -q --no-cache --accuracy draft");
  EXPECT_EQ(ran.code, code) << ran.err;
  return ran.code == code && code == 0 ? json_of(ran.out).at("rooms").at(0) : json();
}

std::vector<json> checks_of(const json& room, const std::string& quantity) {
  std::vector<json> found;
  for (const json& check : room.at("checks"))
    if (check.at("quantity") == quantity) found.push_back(check);
  return found;
}

TEST(Glare, TheTableVerifiesWhereItHoldsAndEyesAreShown) {
  const TemporaryFolder folder;
  write_office(folder, "");
  const json room = room_of(folder), &table = room.at("glare").at("tabular");
  EXPECT_TRUE(table.at("why_not").empty()) << table;
  ASSERT_EQ(table.at("values").size(), 2u);
  // 1.8 m above the eye (0.05 m of it the luminaires' suspension below the ceiling at most).
  EXPECT_NEAR(table["values"][0]["y_h"].get<double>() / table["values"][0]["x_h"].get<double>(), 1.6, 1e-5);
  EXPECT_EQ(table["values"][0]["crosswise"], false);  // the long side lies along x
  EXPECT_EQ(table["reflectances"], "70/50/20");
  const auto checks = checks_of(room, "glare UGR");
  ASSERT_EQ(checks.size(), 2u);
  EXPECT_EQ(checks[0]["area"], "tabular method");
  EXPECT_EQ(checks[0]["binding"], true);
  EXPECT_EQ(checks[1]["area"], "eye");
  EXPECT_EQ(checks[1]["binding"], false);
  for (const json& check : checks) {
    EXPECT_EQ(check["required"], 19);
    EXPECT_NEAR(check["margin"].get<double>(), 19 - check["actual"].get<double>(), 1e-6);
  }
  EXPECT_EQ(room["status"], "not met");  // these luminaires are too bright for desks
  EXPECT_GE(checks[0]["why"].size(), 2u);
  EXPECT_GE(checks[0]["help"].size(), 1u);
}

TEST(Glare, EyesVerifyWhenTheProjectSaysSo) {
  const TemporaryFolder folder;
  write_office(folder, R"(glare = { verified_by = "eyes" }
[[rooms.eyes]]
name = "clerk"
at = [4, 1]
looking = 90
)");
  const json room = room_of(folder);
  for (const json& check : checks_of(room, "glare UGR")) {
    EXPECT_EQ(check["binding"], check["area"] == "eye") << check;
    EXPECT_EQ(check["where"], check["area"] == "eye" ? "clerk" : "tabular value");
  }
  const json &eyes = room["glare"]["eyes"][0], &worst = eyes["worst"];
  EXPECT_EQ(eyes["positions"].size(), 1u);
  double shares = 0, last = 1;
  for (const json& cause : worst["causes"]) {
    EXPECT_LE(cause["share"].get<double>(), last);
    last = cause["share"];
    shares += last;
  }
  EXPECT_NEAR(shares, 1, 1e-4);
  ASSERT_GE(worst["first_changed"].size(), 2u);
  EXPECT_LT(worst["first_changed"][0]["ugr"].get<double>(), worst["ugr"].get<double>());
  EXPECT_NE(content_of(folder.path() / "office-results/eyes/office--clerk.csv").find("ugr"),
            std::string::npos);
  EXPECT_NE(content_of(folder.path() / "office-results/figures/office--eyes--sheet.svg").find("clerk"),
            std::string::npos);
}

/// What is said to follow from a change follows when the project is changed.
TEST(Glare, DimmingTheWorstLuminaireDoesWhatWasSaid) {
  const TemporaryFolder folder;
  const std::string eye = "[[rooms.eyes]]\nname = \"clerk\"\nat = [1, 2.5]\nlooking = 0\n";
  const std::string single = "[[rooms.luminaires]]\nmark = \"P1\"\nat = [4, 2.5]\n";
  write_office(folder, eye + single);
  const json glare = room_of(folder).at("glare"), &worst = glare.at("eyes").at(0).at("worst");
  const json& source = glare["sources"][worst["causes"][0]["source"].get<std::size_t>()];
  ASSERT_EQ(source["at_m"][0], 4);
  ASSERT_EQ(source["at_m"][1], 2.5);
  ASSERT_EQ(worst["first_changed"][0]["change"], "dimmed to 50 %");
  write_office(folder, eye + single + "dimming = 0.5\n");
  const double dimmed = room_of(folder).at("glare")["eyes"][0]["worst"]["ugr"];
  EXPECT_NEAR(dimmed, worst["first_changed"][0]["ugr"].get<double>(), 0.01);
}

/// Five downlights in a row: by the table they are fine, to somebody who walks towards one of them not.
TEST(Glare, ARoomThatPassesByTheTableAndFailsAtASeatSaysBoth) {
  const TemporaryFolder folder;
  write_office(folder, "");
  folder.write("office.toml", R"(format = 1
[project]
standard = "EN 12464-1:2021"
[defaults]
reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }
maintenance_factor = 0.8
[luminaires.D2]
file = "photometry/quillon-d2.ies"
[[rooms]]
name = "Stairs"
size = [12, 1.8]
height = 2.6
task = "circulation.stairs"
[[rooms.luminaires]]
mark = "D2"
array = { rows = 1, columns = 5 }
[[rooms.eyes]]
name = "somebody"
at = [10.1, 0.9]
looking = 0
)");
  const Ran ran = run(folder, "run office.toml --no-cache --json -q --accuracy draft");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const json room = json_of(ran.out).at("rooms").at(0);
  const auto checks = checks_of(room, "glare UGR");
  ASSERT_EQ(checks.size(), 2u);
  EXPECT_EQ(checks[0]["verdict"], "met");
  EXPECT_EQ(checks[0]["binding"], true);
  EXPECT_EQ(checks[1]["verdict"], "not met");
  EXPECT_NE(checks[1]["why"].dump().find("the tabular value"), std::string::npos) << checks[1];
  const std::string words = shown(folder, "office.toml");
  EXPECT_NE(words.find("(not met)"), std::string::npos) << words;
  EXPECT_NE(words.find("tabular value, UGR"), std::string::npos) << words;
}

TEST(Glare, ATabularValueNearItsLimitSaysSo) {
  const TemporaryFolder folder;
  write_office(folder, "");
  const double value = checks_of(room_of(folder), "glare UGR").at(0)["actual"];
  // All luminaires dimmed alike lower it by 8 lg of the share: to just above the limit, and far below it.
  for (const auto& [aim, near] : {std::pair{19.3, true}, {17.0, false}}) {
    std::string text = content_of(folder.path() / "office.toml");
    if (const std::size_t at = text.find("dimming"); at != std::string::npos) text.resize(at);
    folder.write("office.toml",
                 text + fmt::format(FMT_STRING("dimming = {}\n"), std::pow(10, (aim - value) / 8)));
    const json table = room_of(folder).at("glare").at("tabular");
    EXPECT_EQ(says(table.at("remarks").dump(), "within 0.6 of the limit of 19"), near) << table;
  }
}

TEST(Glare, TheTableIsReadOnlyWhereItHolds) {
  const TemporaryFolder folder;
  struct Case {
    const char *room, *why;
  };
  for (const Case& c :
       {Case{"[[rooms.luminaires]]\nmark = \"P1\"\nat = [1, 1]\nrotation = 90\n", "not one even array"},
        Case{"[[rooms.luminaires]]\nmark = \"P1\"\nat = [1, 1]\ntilt = 20\n", "tilted"},
        Case{"[[rooms.ceiling]]\nover = [[0, 0], [1, 0], [1, 5], [0, 5]]\nheight = 2.7\n", "not flat"}}) {
    write_office(folder, c.room);
    const json room = room_of(folder);
    EXPECT_NE(room["glare"]["tabular"]["why_not"].dump().find(c.why), std::string::npos)
        << room["glare"]["tabular"];
    for (const json& check : checks_of(room, "glare UGR")) EXPECT_EQ(check["area"], "eye");
  }
  write_office(folder,
               "glare = { verified_by = \"table\" }\n[[rooms.luminaires]]\nmark = \"P1\"\nat = [1, 1]\n");
  EXPECT_NE(room_of(folder)["not_checked"].dump().find("the tabular method does not hold"),
            std::string::npos);
}

TEST(Glare, ScreensAndShieldingAreHeldAgainstTheirLimits) {
  const TemporaryFolder folder;
  write_office(folder, "", "lamp_luminance = 120000\nshielding = 15\n");
  json room = room_of(folder);
  auto luminance = checks_of(room, "luminance of luminaires");
  ASSERT_EQ(luminance.size(), 1u);
  EXPECT_EQ(luminance[0]["required"], 3000);
  EXPECT_NE(luminance[0]["reason"].get<std::string>().find("assumed"), std::string::npos);
  EXPECT_EQ(luminance[0]["verdict"], "not met");
  EXPECT_NE(luminance[0]["why"].dump().find("planes C 0 to 355"), std::string::npos) << luminance[0];
  auto shielding = checks_of(room, "shielding angle");
  ASSERT_EQ(shielding.size(), 1u);
  EXPECT_EQ(shielding[0]["required"], 20);
  EXPECT_EQ(shielding[0]["verdict"], "not met");
  write_office(folder, "glare = { screens = { luminance = 100, dark_background = true } }\n",
               "lamp_luminance = 120000\nlouvre = { depth = 0.05, opening = 0.05 }\n");
  room = room_of(folder);
  EXPECT_EQ(checks_of(room, "luminance of luminaires").at(0)["required"], 1000);
  EXPECT_EQ(checks_of(room, "shielding angle").at(0)["verdict"], "met");
}

/// The same room as an outdoor place of work.
void write_outdoors(const TemporaryFolder& folder, const std::string& room) {
  write_office(folder, room);
  std::string text = content_of(folder.path() / "office.toml");
  text.replace(text.find("EN 12464-1:2021"), 15, "EN 12464-2:2014");
  text.replace(text.find("office.writing"), 14, "outdoor.walkway");
  folder.write("office.toml", text);
}

TEST(Glare, OutdoorsIsRatedByGr) {
  const TemporaryFolder folder;
  write_outdoors(folder, "");
  const json room = room_of(folder);
  const auto checks = checks_of(room, "glare rating GR");
  ASSERT_EQ(checks.size(), 1u);
  EXPECT_EQ(checks[0]["required"], 50);
  EXPECT_TRUE(checks_of(room, "glare UGR").empty());
  const json& eyes = room["glare"]["eyes"][0];
  EXPECT_EQ(eyes["height_m"], 1.5);
  EXPECT_NEAR(eyes["worst_gr"]["gr"].get<double>(), checks[0]["actual"].get<double>(), 1e-6);
  EXPECT_EQ(std::fmod(eyes["worst_gr"]["azimuth_deg"].get<double>(), 5.0), 0);
  // As uncertain as the light of the plane: 24 * 0.9 / ln 10 for the whole of it.
  const json& plane = room["grids"][0];
  EXPECT_NEAR(checks[0]["uncertainty"].get<double>(),
              9.381 * plane["uncertainty"]["mean_lx"].get<double>() / plane["mean_lx"].get<double>(), 1e-3);
}

/// What is said to follow from a change follows when the project is changed, of GR as well.
TEST(Glare, ChangesOfGrDoWhatWasSaid) {
  const TemporaryFolder folder;
  const std::string eye = "[[rooms.eyes]]\nname = \"guard\"\nat = [1, 2.5]\nlooking = 0\n";
  const auto flood = [&](int tilt, const char* more) {
    return eye +
           "[[rooms.luminaires]]\nmark = \"P1\"\nat = [4, 2.5]\nmounting_height = 2.2\nrotation = 180\n" +
           fmt::format(FMT_STRING("tilt = {}\n"), tilt) + more;
  };
  write_outdoors(folder, flood(30, ""));
  const json glare = room_of(folder).at("glare"), worst = glare.at("eyes").at(0).at("worst_gr");
  ASSERT_EQ(glare["sources"][worst["source"].get<std::size_t>()]["at_m"][0], 4) << worst;
  const json& changes = worst["first_changed"];
  ASSERT_EQ(changes.size(), 2u) << changes;  // the ceiling is too near for raising it
  const auto gr = [&](int tilt, const char* more) {
    write_outdoors(folder, flood(tilt, more));
    return room_of(folder).at("glare")["eyes"][0]["worst_gr"]["gr"].get<double>();
  };
  EXPECT_EQ(changes[0]["change"], "dimmed to 50 %");
  EXPECT_NEAR(gr(30, "dimming = 0.5\n"), changes[0]["gr"].get<double>(), 0.02);
  EXPECT_EQ(changes[1]["change"], "tilted down by 10 deg");
  EXPECT_NEAR(gr(20, ""), changes[1]["gr"].get<double>(), 0.02);
}

TEST(Glare, EyesInsideAThingAreLeftOutAndSaidSo) {
  const TemporaryFolder folder;
  write_office(folder, R"([[rooms.eyes]]
name = "clerk"
at = [2, 2]
looking = 0
[[rooms.objects]]
name = "cupboard"
box = [1, 1, 2]
at = [1.5, 1.5, 0]
reflectance = 0.4
)");
  const Ran ran = run(folder, "run office.toml --no-cache --accuracy draft");
  EXPECT_EQ(ran.code, 0) << ran.err;
  EXPECT_NE(ran.err.find("clerk"), std::string::npos) << ran.err;
  EXPECT_NE(shown(folder, "office.toml").find("inside a thing"), std::string::npos);
}

TEST(Glare, TheDataSheetHasBothBlocks) {
  const TemporaryFolder folder;
  write_office(folder, "");
  const Ran text = run(folder, "inspect photometry/tarnfell-p1.ldt --tables -o curves");
  EXPECT_EQ(text.code, 0) << text.err;
  for (const char* words : {"crosswise: along C0-C180", "endwise: along C90-C270", "12H", "room index"})
    EXPECT_NE(text.out.find(words), std::string::npos) << words;
  const Ran ran = run(folder, "inspect photometry/tarnfell-p1.ldt --tables --json");
  const json ugr = json_of(ran.out).at("files").at(0).at("ugr");
  ASSERT_EQ(ugr["uncorrected_along_c0_c180"].size(), 19u);
  EXPECT_EQ(ugr["crosswise"], "along_c0_c180");
  // The headline is the entry at 4H x 8H, corrected.
  EXPECT_NEAR(ugr["uncorrected_along_c90_c270"][10][0].get<double>() + ugr["flux_correction"].get<double>(),
              ugr["headline_4h_8h_70_50_20"]["along_c90_c270"].get<double>(), 1e-4);
  const std::string csv = content_of(folder.path() / "curves/tarnfell-p1-ldt--ugr.csv");
  EXPECT_EQ(std::count(csv.begin(), csv.end(), '\n'), 20);
  EXPECT_EQ(csv.rfind("x_H,y_H,crosswise_70_50_20", 0), 0u);
  const std::string factors = content_of(folder.path() / "curves/tarnfell-p1-ldt--utilisation.csv");
  EXPECT_EQ(std::count(factors.begin(), factors.end(), '\n'), 11);
}

/// The rooms of the reference cases as projects, with the luminaires as files of both formats.
TEST(Glare, RoomsOfTheReferenceAsProjectFiles) {
  const std::string data = test_data("validation/");
  const json metrics = json_in(data + "metrics.json");
  int held = 0;
  for (const json& c : metrics.at("cases")) {
    if (c.at("id").get<std::string>().rfind("ugr-room", 0) != 0) continue;
    const json &in = c.at("inputs"), &rho = in.at("rho_ceiling_walls_floor"), &size = in.at("room");
    for (const char* format : {"ies", "ldt"}) {
      const std::string file = in.at("luminaires").at(0).at("photometry").get<std::string>() + "." + format;
      const TemporaryFolder folder;
      folder.write(file, content_of(data + "luminaires/" + file));
      std::string text = fmt::format(
          FMT_STRING("format = 1\n[defaults]\nmaintenance_factor = 1\nreflectance = {{ ceiling = {}, walls = "
                     "{}, floor = {} }}\n[luminaires.L]\nfile = \"{}\"\n[[rooms]]\nname = \"R\"\nsize = [{}, "
                     "{}]\nheight = {}\nsurfaces = false\n"),
          rho[0].dump(), rho[1].dump(), rho[2].dump(), file, size[0].dump(), size[1].dump(), size[2].dump());
      for (const json& l : in.at("luminaires"))
        text += fmt::format(FMT_STRING("[[rooms.luminaires]]\nmark = \"L\"\nat = [{}, {}]\nmounting_height = "
                                       "{}\n"),
                            l["pos"][0].dump(), l["pos"][1].dump(), l["pos"][2].dump());
      for (std::size_t k = 0; k < in.at("observers").size(); ++k)
        text += fmt::format(FMT_STRING("[[rooms.eyes]]\nname = \"eye {}\"\nat = {}\nlooking = {}\n"), k,
                            in["observers"][k]["eye"].dump(), in["observers"][k]["view_azimuth_deg"].dump());
      folder.write("room.toml", text);
      const Ran ran = run(folder, "run room.toml --json -q --no-cache");
      ASSERT_EQ(ran.code, 0) << ran.err;
      const json eyes = json_of(ran.out).at("rooms").at(0).at("glare").at("eyes");
      for (std::size_t k = 0; k < eyes.size(); ++k, ++held) {
        const json& expected = c.at("expected").at("observers").at(k);
        EXPECT_NEAR(eyes[k]["worst"]["ugr"].get<double>(), expected["ugr_table_range"].get<double>(), 0.15)
            << file << " eye " << k;
        EXPECT_NEAR(eyes[k]["worst"]["background_cd_m2"].get<double>(), expected["Lb"].get<double>(),
                    0.02 * expected["Lb"].get<double>());
      }
    }
  }
  EXPECT_EQ(held, 8);
}

}  // namespace glare_test
}  // namespace glow::cli
