// Targets, task areas, maintenance and verdicts, through the built program.
#include <regex>

#include "cli/run_program.hpp"
#include "core/standards/glare_rules.hpp"

namespace glow::cli {
namespace verdicts_test {

json run_json(const TemporaryFolder& folder, const std::string& words, int code = 0) {
  const Ran ran = run(folder, "run " + words + " --json -q --no-cache --accuracy draft");
  EXPECT_EQ(ran.code, code) << ran.err;
  return ran.code == code && !ran.out.empty() ? json_of(ran.out) : json();
}

json named(const json& list, const std::string& name) {
  for (const json& entry : list)
    if (entry.at("name") == name) return entry;
  ADD_FAILURE() << "nothing is called " << name;
  return {};
}

std::vector<json> checks_at(const json& room, const std::string& where) {
  std::vector<json> found;
  for (const json& check : room.at("checks"))
    if (check.at("where") == where) found.push_back(check);
  return found;
}

void write_demo(const TemporaryFolder& folder) {
  for (const files::EmbeddedFile& file : files::embedded_demo())
    folder.write(file.name, std::string(file.bytes));
}

void replace(const TemporaryFolder& folder, const std::string& file, const std::string& from,
             const std::string& to) {
  std::string text = content_of(folder.path() / file);
  const std::size_t at = text.find(from);
  ASSERT_NE(at, std::string::npos) << from;
  folder.write(file, text.replace(at, from.size(), to));
}

/// The demo's electric light alone: daylight and its year take most of a run's time.
void take_daylight_out(const TemporaryFolder& folder) {
  std::string text = content_of(folder.path() / "millrace.toml");
  for (const auto& [from, to] : {std::pair("\n[site]", "\n# The luminaire schedule"),
                                 std::pair("\n[rooms.daylight]", "\n[[rooms.control]]")}) {
    const std::size_t begin = text.find(from), end = text.find(to);
    ASSERT_TRUE(begin < end && end != std::string::npos) << from;
    text.erase(begin, end - begin);
  }
  folder.write("millrace.toml", text);
}

/// Points on the face of a board do not lie under the board.
TEST(Verdicts, WhatIsReadOnAThingIsNotDarkenedByIt) {
  const TemporaryFolder folder;
  write_demo(folder);
  folder.write("board.toml", R"(format = 1
[project]
standard = "EN 12464-1:2021"
[defaults]
reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }
maintenance_factor = 0.8
[luminaires.H1]
file = "shelf/tarnfell-heron-600-prism.ldt"
[[rooms]]
name = "Atelier"
size = [8.4, 6.2]
height = 3.2
task = "education.art-room"
[[rooms.luminaires]]
mark = "H1"
array = { rows = 2, columns = 5 }
[[rooms.objects]]
name = "easels"
furniture = "board"
size = [4.0, 0.03, 1.4]
at = [2.2, 6.17, 0.9]
[[rooms.areas]]
name = "on easels"
on = "easels"
task = "education.board"
)");
  const json room = run_json(folder, "board.toml").at("rooms").at(0);
  bool failed = false;
  for (const json& check : checks_at(room, "on easels"))
    if (check.at("verdict") == "not met") {
      failed = true;
      EXPECT_EQ(check.at("why").dump().find("in or under"), std::string::npos) << check.at("why");
    }
  EXPECT_TRUE(failed) << "an upright plane gets too little from the ceiling";
}

/// The demo's showroom fails one check on purpose. Doing what the message says mends it.
TEST(Verdicts, DoingWhatTheShowroomsMessageSaysMendsIt) {
  const TemporaryFolder folder;
  write_demo(folder);
  take_daylight_out(folder);
  const json failing = named(run_json(folder, "millrace.toml --room Showroom").at("rooms"), "Showroom");
  EXPECT_EQ(failing.at("status"), "not met");
  const json* failed = nullptr;
  for (const json& check : failing.at("checks"))
    if (check.at("verdict") == "not met") {
      EXPECT_EQ(failed, nullptr) << "one check only";
      failed = &check;
    }
  ASSERT_TRUE(failed);
  EXPECT_EQ(failed->at("quantity"), "uniformity U0");
  EXPECT_GE(failed->at("why").size(), 3u);
  std::smatch found;
  std::string advice;
  for (const json& sentence : failed->at("help"))
    if (sentence.get<std::string>().find("one more") == 0) advice = sentence;
  const std::regex pattern(
      R"(one more (\w+) above the low points, at \(([\d.]+), ([\d.]+)\): U0 ([\d.]+), mean \d+ lx, met)");
  ASSERT_TRUE(std::regex_match(advice, found, pattern)) << advice;
  replace(
      folder, "millrace.toml", "[[rooms.luminaires]]                  # around the display table",
      "[[rooms.luminaires]]\nmark = \"" + found[1].str() + "\"\nat = [" + found[2].str() + ", " +
          found[3].str() +
          "]\nmounting = \"recessed\"\n\n[[rooms.luminaires]]                  # around the display table");
  const json mended = named(run_json(folder, "millrace.toml --room Showroom").at("rooms"), "Showroom");
  EXPECT_EQ(mended.at("status"), "met");
  for (const json& check : checks_at(mended, "work plane"))
    if (check.at("quantity") == "uniformity U0") {
      EXPECT_NEAR(check.at("actual").get<double>(), std::stod(found[4].str()), 0.02);
    }
}

constexpr const char* kAreas =
    "verify = \"areas\"\n\n[[rooms.areas]]\nname = \"bench\"\nrectangle = { at = [1.0, 0.6], size = [4.0, "
    "0.8] }\n"
    "task = \"ceramics.machine-work\"\n\n[[rooms.areas]]\nname = \"board\"\n"
    "rectangle = { at = [2.0, 6.35, 0.9], size = [2.4, 1.2], tilt = 90 }\ntask = \"education.board\"\n"
    "surroundings = false\n\n";

TEST(Verdicts, TaskAreasCarryTheirOwnChecks) {
  const TemporaryFolder folder;
  write_project(folder, "[[rooms.luminaires]]", kAreas + std::string("[[rooms.luminaires]]"));
  const json room = run_json(folder, "millrace.toml").at("rooms").at(0);
  // No area is for the room's own task: the work plane is.
  EXPECT_EQ(checks_at(room, "work plane").size(), 2u);
  EXPECT_EQ(named(room.at("grids"), "work plane").at("role"), "work plane");
  for (const auto& [where, area, first] : {std::tuple{"bench", "task area", 300.0},
                                           {"bench surrounding", "surrounding area", 200.0},
                                           {"bench background", "background area", 200.0 / 3}}) {
    const auto checks = checks_at(room, where);
    ASSERT_EQ(checks.size(), 2u) << where;
    EXPECT_EQ(checks[0].at("area"), area);
    EXPECT_NEAR(checks[0].at("required").get<double>(), first, 0.01);
    EXPECT_EQ(checks[0].at("standard"), "EN 12464-1:2021");
    EXPECT_EQ(checks[1].at("quantity"), "uniformity U0");
  }
  EXPECT_TRUE(
      says(room.at("verified_as"), "the room's task on the whole work plane, since no task area is for it"));
  EXPECT_TRUE(says(shown(folder), "bench surrounding, U0"));
  EXPECT_TRUE(std::filesystem::exists(folder.path() / "millrace-results/figures/project--status.svg"));
  // As a whole room the work plane counts again, and areas keep their task only.
  replace(folder, "millrace.toml", "verify = \"areas\"", "verify = \"room\"");
  const json whole = run_json(folder, "millrace.toml").at("rooms").at(0);
  EXPECT_EQ(checks_at(whole, "work plane").size(), 2u);
  EXPECT_EQ(checks_at(whole, "bench").size(), 2u);
  EXPECT_EQ(checks_at(whole, "bench surrounding").size(), 0u);
}

TEST(Verdicts, StandardsSideBySideOwnTablesAndChangedLevels) {
  const TemporaryFolder folder;
  write_project(folder, "standard = \"EN 12464-1:2021\"",
                "standard = \"EN 12464-1:2021\"\nalso_verify = [\"EN 12464-1:2011\", \"House:2026\"]\ntables "
                "= [\"own.csv\"]");
  folder.write(
      "own.csv",
      "standard,edition,ref,key,area,task,Em_lx,Uo,Ewall_lx,plane_height_m,plane_note,certainty\n"
      "House,2026,3,office.writing,offices,writing by hand,450,0.70,90,0.74,horizontal; our desks,agreed\n");
  replace(folder, "millrace.toml", "task = \"ceramics.glazing\"",
          "task = \"office.writing\"\nlevel = { steps = 1, reason = \"small print\" }\neyes = \"seated\"");
  const json room = run_json(folder, "millrace.toml").at("rooms").at(0);
  const auto checks = checks_at(room, "work plane");
  ASSERT_EQ(checks.size(), 6u);
  // The own row takes the place of the one with its key in the first standard.
  EXPECT_EQ(checks[0].at("source"), "House:2026, 3 (own table)");
  EXPECT_NEAR(checks[0].at("required").get<double>(), 500, 1e-9);  // one step up from 450
  EXPECT_TRUE(says(checks[0].at("reason"), "1 step up from 450 lx: small print"));
  EXPECT_NEAR(named(room.at("grids"), "work plane").at("place").at("origin_m")[2].get<double>(), 0.74, 1e-9);
  EXPECT_EQ(checks_at(room, "wall 1").size(), 6u);
  folder.write("own.csv", "standard,edition,key,task,Em_lx,Uo\nHouse,2026,office.x,t,-3,2\n");
  const Ran broken = run(folder, "run millrace.toml");
  EXPECT_EQ(broken.code, 2);
  EXPECT_TRUE(says(broken.err, "own.csv:2:23: error[S003]: Em_lx is \"-3\"")) << broken.err;
}

TEST(Verdicts, AThousandTimesTheFluxIsNoMend) {
  const TemporaryFolder folder;
  for (const auto& [dimming, told] : {std::pair("0.01", true), std::pair("1e-14", false)}) {
    write_project(folder);
    std::string text = content_of(folder.path() / "millrace.toml");
    for (std::size_t at = 0; (at = text.find("\nmark = ", at)) != std::string::npos; ++at)
      text.insert(text.find('\n', at + 1), std::string("\ndimming = ") + dimming);
    folder.write("millrace.toml", text);
    const json room = run_json(folder, "millrace.toml").at("rooms").at(0);
    const auto checks = checks_at(room, "work plane");
    ASSERT_FALSE(checks.empty());
    EXPECT_EQ(checks[0].at("verdict"), "not met");
    EXPECT_EQ(says(checks[0].at("mends").dump(), "times_flux"), told) << checks[0].at("mends");
  }
}

TEST(Verdicts, MaintenanceComesFromItsPartsOrOneNumber) {
  const TemporaryFolder folder;
  write_project(folder);
  const json plain = run_json(folder, "millrace.toml").at("rooms").at(0);
  replace(folder, "millrace.toml", "maintenance_factor = 0.80",
          "room_surfaces = { factor = 0.94, cleaning_years = 3 }");
  const Ran lacking = run(folder, "check millrace.toml");
  EXPECT_EQ(lacking.code, 2);
  EXPECT_TRUE(says(lacking.err, "P004")) << lacking.err;
  std::string text = content_of(folder.path() / "millrace.toml");
  const std::string parts =
      "maintenance = { lamp_flux = 0.9, lamp_survival = 0.95, luminaire = 0.82, lamp_hours = 50000, "
      "cleaning_years = 2 }\n";
  for (const char* mark : {"[luminaires.P1]", "[luminaires.D2]"}) {
    const std::size_t at = text.find('\n', text.find(mark)) + 1;
    if (text.find(mark) != std::string::npos) text.insert(at, parts);
  }
  folder.write("millrace.toml", text);
  const json room = run_json(folder, "millrace.toml").at("rooms").at(0);
  const double mf = 0.659034;  // case mf-2
  EXPECT_NEAR(room.at("maintenance_factor").get<double>(), mf, 1e-6);
  const json& maintenance = room.at("luminaires").at(0).at("maintenance");
  EXPECT_EQ(maintenance.at("lamp_hours"), 50000);
  EXPECT_EQ(maintenance.at("room_surfaces"), 0.94);
  const auto plane = [](const json& r) { return named(r.at("grids"), "work plane"); };
  EXPECT_NEAR(plane(room).at("mean_lx").get<double>() / plane(plain).at("mean_lx").get<double>(), mf / 0.8,
              1e-4);
  EXPECT_NEAR(plane(room).at("initial").at("mean_lx").get<double>(),
              plane(plain).at("initial").at("mean_lx").get<double>(), 0.1);
}

TEST(Verdicts, CylindersWallsAndCeilingAreHeldWhereTheTaskAsks) {
  const TemporaryFolder folder;
  write_project(folder, "ceramics.glazing", "office.meeting-room");
  const json room = run_json(folder, "millrace.toml --spread").at("rooms").at(0);
  const auto faces = checks_at(room, "faces at 1.2 m");
  ASSERT_EQ(faces.size(), 2u);
  EXPECT_EQ(faces[0].at("required"), 150);
  EXPECT_EQ(faces[1].at("required"), 0.1);
  EXPECT_EQ(checks_at(room, "ceiling").size(), 2u);
  for (int wall = 1; wall <= 4; ++wall) EXPECT_EQ(checks_at(room, "wall " + std::to_string(wall)).size(), 2u);
  const json& m = room.at("modelling");
  EXPECT_LE(m.at("min").get<double>(), m.at("mean").get<double>());
  EXPECT_LE(m.at("mean").get<double>(), m.at("max").get<double>());
  // The ratio at each point, anew from the values.
  const json ez = named(room.at("grids"), "faces at 1.2 m"),
             eh = named(room.at("grids"), "faces at 1.2 m level");
  double sum = 0;
  const auto total = [](const json& grid, std::size_t i) {
    return grid.at("direct_lx")[i].get<double>() + grid.at("interreflected_lx")[i].get<double>();
  };
  const std::size_t points = ez.at("cells").size();
  ASSERT_EQ(points, eh.at("cells").size());
  for (std::size_t i = 0; i < points; ++i) sum += total(ez, i) / total(eh, i);
  EXPECT_NEAR(m.at("mean").get<double>(), sum / double(points), 1e-3);
  EXPECT_EQ(room.at("spread").at("samples"), 300);
  EXPECT_GE(faces[0].at("spread").at("share_met").get<double>(), 0);
}

/// A check knows what it is about by a number: names are free.
/// What only an own table knows is verified once, however many standards there are; all of them are named.
TEST(Verdicts, AnOwnTaskIsVerifiedOnceAndEveryStandardIsNamed) {
  const TemporaryFolder folder;
  write_project(
      folder, "standard = \"EN 12464-1:2021\"",
      "standard = \"EN 12464-1:2021\"\nalso_verify = [\"EN 12464-1:2011\"]\ntables = [\"own.csv\"]");
  folder.write("own.csv",
               "standard,edition,key,task,Em_lx,Uo,plane_height_m\nHouse,2026,zoo.cage,K\xe4"
               "fig,200,0.4,0\n");
  replace(folder, "millrace.toml", "task = \"ceramics.glazing\"", "task = \"zoo.cage\"");
  const Ran ran = run(folder, "run millrace.toml --json --accuracy draft");
  EXPECT_EQ(ran.code, 0);
  EXPECT_FALSE(says(ran.err, "P054")) << ran.err;
  const json results = json_of(ran.out);
  EXPECT_EQ(results.at("standards"), json({"EN 12464-1:2021", "EN 12464-1:2011"}));
  EXPECT_EQ(checks_at(results.at("rooms").at(0), "work plane").size(), 2u);
  EXPECT_TRUE(says(content_of(folder.path() / "millrace-results/figures/project--status.svg"),
                   "verdicts by EN 12464-1:2021 and EN 12464-1:2011"));
}

/// The value that one standard does not hold and the other does is not called unverified as such.
TEST(Verdicts, SayWhichStandardHoldsNoValue) {
  const TemporaryFolder folder;
  write_project(folder, "standard = \"EN 12464-1:2021\"",
                "standard = \"EN 12464-1:2021\"\nalso_verify = [\"EN 12464-1:2011\"]");
  run(folder, "run millrace.toml -q --accuracy draft");
  EXPECT_TRUE(says(shown(folder), "(values of EN 12464-1:2021"));
  EXPECT_TRUE(says(content_of(folder.path() / "millrace-results/figures/throwing-room--work-plane.svg"),
                   "required by EN 12464-1:2021"));
}

/// Each by its own limits: one standard goes by the screen's class, not by its luminance.
TEST(Verdicts, ScreensAreHeldToTheLimitsOfTheirStandard) {
  for (const auto& [standard, limit] : {std::pair{"EN 12464-1:2011", 3000.0}, {"ISO 8995-1:2002", 1000.0}})
    EXPECT_EQ(standards::luminance_limit({300, false}, standard), limit);
}

TEST(Verdicts, ATaskAreaMayBeCalledAnything) {
  const TemporaryFolder folder;
  write_project(folder, "[[rooms.luminaires]]\nmark = \"P1\"",
                "[[rooms.areas]]\nname = \"luminaires\"\nrectangle = { at = [3, 2], size = [2, 1] }\n\n"
                "[[rooms.luminaires]]\nmark = \"P1\"");
  const json odd = run_json(folder, "millrace.toml --spread").at("rooms").at(0);
  const std::string project = content_of(folder.path() / "millrace.toml");
  const std::size_t at = project.find("name = \"luminaires\"");
  folder.write("millrace.toml", project.substr(0, at) + "name = \"bench\"" + project.substr(at + 19));
  const json plain = run_json(folder, "millrace.toml --spread").at("rooms").at(0);
  EXPECT_EQ(odd.at("spread"), plain.at("spread"));
  EXPECT_GT(odd.at("spread").at("share_met").get<double>(), 0);
  for (const json& check : odd.at("checks")) {
    if (check.at("where") != "luminaires") continue;
    const bool colour = check.at("quantity") == "colour rendering Ra";
    EXPECT_EQ(check.at("target").at("kind"), colour ? "light" : "grid");
  }
}

TEST(Verdicts, ValuesOfLessThanFullCertaintyAreMarked) {
  const TemporaryFolder folder;
  write_project(folder, "ceramics.glazing", "vehicles.final-inspection");
  EXPECT_TRUE(says(run(folder, "run millrace.toml -q --accuracy draft").out, "of 1000 lx*"));
  const std::string table = shown(folder);
  EXPECT_TRUE(says(table, "1000 lx*")) << table;
  EXPECT_TRUE(says(table, "* certainty of the required value: single (EN 12464-1:2021, "));
  EXPECT_TRUE(
      says(content_of(folder.path() / "millrace-results/figures/project--status.svg"), "of 1000 lx*"));
}

struct Doubt {
  const char *from, *to, *code, *words;
};

class DoubtTest : public ::testing::TestWithParam<Doubt> {};

TEST_P(DoubtTest, IsToldBeforeComputing) {
  const Doubt& d = GetParam();
  const TemporaryFolder folder;
  write_project(folder, d.from, d.to);
  const Ran ran = run(folder, "check millrace.toml");
  EXPECT_TRUE(says(ran.err, std::string("[") + d.code + "]")) << ran.err;
  EXPECT_TRUE(says(ran.err, d.words)) << ran.err;
}

INSTANTIATE_TEST_SUITE_P(
    Projects, DoubtTest,
    ::testing::Values(
        Doubt{"ceiling = 0.70", "ceiling = 0.40", "P060", "EN 12464-1:2021 advises 0.7 to 0.9"},
        Doubt{"task = \"ceramics.glazing\"", "task = \"ceramics.decorating\"", "P061",
              "the task asks for 90"},
        Doubt{"file = \"photometry/tarnfell-p1.ldt\"", "file = \"photometry/tarnfell-p1.ldt\"\nflux = 52000",
              "P062", "check the flux"},
        Doubt{
            "[[rooms.luminaires]]",
            "[[rooms.objects]]\nname = \"loft\"\nbox = [9, 6, 1]\nat = [0.3, 0.2, 2.2]\n[[rooms.luminaires]]",
            "P063", "is inside \"loft\""},
        Doubt{"[[rooms.luminaires]]", "work_plane = { spacing = 2 }\n[[rooms.luminaires]]", "P064",
              "is coarser"},
        Doubt{"maintenance_factor = 0.80", "maintenance_factor = 1", "P065", "nothing ages"},
        Doubt{"height = 3.2\ntask = \"ceramics.glazing\"", "height = 9\ntask = \"office.writing\"", "P067",
              "say height = \"9 ft\""},
        Doubt{"height = 3.2", "height = 3200", "P005", "say \"3200 mm\""},
        Doubt{"task = \"ceramics.glazing\"", "task = \"circulation.corridor\"\nwork_plane = { height = 0.8 }",
              "P058", "leave the height out"},
        Doubt{"task = \"ceramics.glazing\"", "task = \"logistics.rack-face\"", "P056",
              "say where with [[rooms.areas]]"},
        Doubt{"standard = \"EN 12464-1:2021\"",
              "standard = \"EN 12464-1:2021\"\nalso_verify = [\"EN 12193:2007/2018\"]", "P054",
              "in EN 12193:2007/2018; it is verified by EN 12464-1:2021 only"},
        Doubt{"task = \"ceramics.glazing\"",
              "task = \"ceramics.glazing\"\nlevel = { modified = true, reason = \"fine work\" }", "P053",
              "holds no modified level"},
        Doubt{"task = \"ceramics.glazing\"", "task = \"ceramics.glazing\"\nverify = \"all\"", "P005",
              "expected room"}));

/// A factor that nobody gave is one fault, not also a doubt about a factor of 1.
TEST(Doubts, AMissingMaintenanceFactorIsSaidOnce) {
  const TemporaryFolder folder;
  write_project(folder, "maintenance_factor = 0.80\n", "");
  const Ran ran = run(folder, "check millrace.toml");
  EXPECT_TRUE(says(ran.err, "has no maintenance_factor")) << ran.err;
  EXPECT_FALSE(says(ran.err, "[P065]")) << ran.err;
}

struct TaskCall {
  const char* words;
  int code;
  std::vector<const char*> says;
};

TEST(Tasks, ShowEveryRequirementAndThePlaneThatCounts) {
  const TemporaryFolder folder;
  write_project(folder, "standard = \"EN 12464-1:2021\"",
                "standard = \"EN 12464-1:2021\"\ntables = [\"own.csv\"]");
  folder.write(
      "own.csv",
      "standard,edition,key,task,Em_lx,words\nHouse,2026,pottery.yard,sorting clay in the yard,80,mud\n");
  for (const TaskCall& call :
       {TaskCall{"tasks circulation.corridor",
                 0,
                 {"100 lx", "0.40", "RUGL", "0 m above the floor", "floor level stated"}},
        TaskCall{"tasks evening class", 0, {"EN 12464-1:2011 has", "education.classroom-adult"}},
        TaskCall{
            "tasks corridor --standard 'EN 12464-1:2011'", 0, {"education.corridor", "* held with less"}},
        TaskCall{"tasks inspection", 0, {"final-inspection", "food.inspection"}},
        TaskCall{"tasks football --standard 'EN 12193:2007/2018'", 0, {"football-outdoor.class-1"}},
        TaskCall{"tasks mud --project millrace.toml", 0, {"pottery.yard", "House:2026 (own table)", "80 lx"}},
        TaskCall{"tasks", 0, {"295 tasks", "ceramics and glass"}},
        TaskCall{"tasks zeppelin", 2, {"has no task with \"zeppelin\""}},
        TaskCall{"tasks corridor --standard 'EN 12464-1:2012'", 2, {"did you mean \"EN 12464-1:201"}}}) {
    const Ran ran = run(folder, call.words);
    EXPECT_EQ(ran.code, call.code) << call.words << ran.err;
    for (const char* words : call.says)
      EXPECT_TRUE(says(ran.out + ran.err, words)) << call.words << "\n" << ran.out << ran.err;
  }
  const json rows = json_of(run(folder, "tasks circulation.corridor --json").out);
  EXPECT_EQ(rows.at("tasks").at(0).at("em_lx"), 100);
  EXPECT_EQ(rows.at("tasks").at(0).at("certainty"), "agreed");
}

TEST(Verdicts, RoomsOneByOneAndTheLinesAtTheEnd) {
  const TemporaryFolder folder;
  write_demo(folder);
  const Ran ran = run(folder, "run millrace.toml -q --room Passage --room 'Kiln store' --accuracy draft");
  EXPECT_EQ(ran.code, 0) << ran.err;
  EXPECT_TRUE(says(ran.out, "Throwing room          not computed")) << ran.out;
  EXPECT_TRUE(says(ran.out, "Kiln store             no target"));
  EXPECT_TRUE(says(ran.out, "Millrace Pottery: 1 of 1 rooms with a target meet it"));
  const std::string figure = content_of(folder.path() / "millrace-results/figures/project--status.svg");
  for (const char* words : {"not computed: 4", "no target set: 1", "met: 1", "Showroom"})
    EXPECT_TRUE(says(figure, words)) << words;
  const Ran wrong = run(folder, "run millrace.toml --room Pasage");
  EXPECT_EQ(wrong.code, 2);
  EXPECT_TRUE(says(wrong.err, "did you mean \"Passage\"?")) << wrong.err;
}

}  // namespace verdicts_test
}  // namespace glow::cli
