// What is told after a run, from its results alone; and what a run of some rooms leaves as it was.
#include "run_program.hpp"

namespace glow::cli {
namespace show_test {

bool says(const std::string& text, const std::string& words) {
  return text.find(words) != std::string::npos;
}

std::size_t count_lines(const std::string& text) {
  return std::size_t(std::count(text.begin(), text.end(), '\n'));
}

const std::string kHead =
    "format = 1\n[project]\nstandard = \"EN 12464-1:2021\"\n[defaults]\nmaintenance_factor = 0.8\n"
    "reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }\n[luminaires.D2]\nfile = "
    "\"photometry/quillon-d2.ies\"\n[luminaires.P1]\nfile = \"photometry/tarnfell-p1.ldt\"\n";

std::string room_of(const std::string& name, const std::string& more) {
  return "[[rooms]]\nname = \"" + name + "\"\nsize = [6, 4]\nheight = 3\nsurfaces = false\n" + more;
}

const std::string kOffice =
    "task = \"office.writing\"\n[[rooms.luminaires]]\nmark = \"P1\"\narray = { rows = 2, columns = 2 }\n"
    "mounting = \"suspended\"\nsuspension = 0.5\n";
const std::string kStore =
    "task = \"storage.store-room\"\n[[rooms.luminaires]]\nmark = \"D2\"\narray = { rows = 2, columns = 3 }\n";

Ran run_draft(const TemporaryFolder& folder, const std::string& more = "") {
  return run(folder, "run p.toml --accuracy draft --no-cache -q " + more);
}

TEST(Show, TheAnswerOfTenRoomsFitsOnAScreen) {
  const TemporaryFolder folder;
  write_project(folder);
  std::string project = kHead;
  for (int k = 1; k <= 9; ++k) project += room_of("store " + std::to_string(k), kStore);
  folder.write("p.toml", project + room_of("office", kOffice));
  const Ran ran = run_draft(folder);
  EXPECT_EQ(ran.code, 0) << ran.err;
  EXPECT_LE(count_lines(ran.out), 34u) << ran.out;
  EXPECT_TRUE(says(ran.out, "\n  - work plane, mean ") && says(ran.out, "\n  + ")) << ran.out;
  const std::string again = run(folder, "show p.toml").out;
  EXPECT_EQ(ran.out.substr(0, again.size()), again);
}

TEST(Show, SectionsComeFromTheResultsAlone) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("p.toml", kHead + room_of("office", kOffice) + room_of("store", kStore));
  EXPECT_EQ(run_draft(folder, "-o out").code, 0);
  std::filesystem::remove(folder.path() / "p.toml");
  for (const auto& [section, has, has_not] : {std::tuple{"checks", "What would help", "min/max"},
                                              {"grids", "min/max", "What would help"},
                                              {"glare", "tabular UGR", "verdict"},
                                              {"luminaires", "rotation", "verdict"}}) {
    const Ran ran = run(folder, "show out " + std::string(section));
    EXPECT_TRUE(ran.code == 0 && says(ran.out, has) && !says(ran.out, has_not))
        << section << ran.out << ran.err;
    EXPECT_TRUE(says(ran.out, "office: ") && says(ran.out, "store: ")) << ran.out;
  }
  const std::string all = run(folder, "show out all --room store").out;
  EXPECT_TRUE(says(all, "store: ") && !says(all, "office: ") && says(all, "min/max") &&
              says(all, "rotation"));
  for (const char* wrong :
       {"show", "show out chekcs", "show out all --room stroe", "show nowhere", "show out all x"})
    EXPECT_EQ(run(folder, wrong).code, 2) << wrong;
  EXPECT_TRUE(says(run(folder, "show out all --room stor").err, "did you mean \"store\"?"));
}

TEST(Show, ARunOfOneRoomKeepsTheOthersAndSaysWhatHasChanged) {
  const TemporaryFolder folder;
  write_project(folder);
  const std::string both = kHead + room_of("office", kOffice) + room_of("store", kStore);
  folder.write("p.toml", both);
  EXPECT_EQ(run_draft(folder).code, 0);
  const auto rooms = [&] { return json_in(folder.path() / "p-results/results.json").at("rooms"); };
  const json before = rooms();
  // Nothing changed: the other room is as current as it was.
  Ran ran = run_draft(folder, "--room office");
  EXPECT_EQ(rooms(), before) << ran.err;
  EXPECT_FALSE(says(ran.out, "older"));
  // A room's own text, and a luminaire that only the other one uses.
  for (const auto& [from, to, what] :
       {std::tuple{"storage.store-room", "storage.packing", "the room"},
        {"[luminaires.D2]\n", "[luminaires.D2]\nflux = 900\n", "luminaire D2"},
        {"maintenance_factor = 0.8", "maintenance_factor = 0.7", "[defaults]"}}) {
    std::string changed = both;
    changed.replace(changed.find(from), std::string(from).size(), to);
    folder.write("p.toml", changed);
    EXPECT_TRUE(says(run(folder, "show p.toml").err, what)) << what;
    EXPECT_TRUE(says(run(folder, "draw p.toml --only status --format svg").err, what)) << what;
    ran = run_draft(folder, "--room office");
    EXPECT_TRUE(says(ran.out, "! older: since then " + std::string(what) + " changed")) << ran.out;
    EXPECT_EQ(rooms()[0].at("changed_since").size(), 0u);
    EXPECT_EQ(rooms()[1].at("changed_since"), json({what}));
    EXPECT_EQ(rooms()[1].at("grids")[0].at("direct_lx"), before[1].at("grids")[0].at("direct_lx"));
    EXPECT_EQ(rooms()[1].at("grids")[0].at("csv"), "grids/store--work-plane-older.csv");
    EXPECT_TRUE(std::filesystem::exists(folder.path() / "p-results/grids/store--work-plane-older.csv"));
    EXPECT_FALSE(std::filesystem::exists(folder.path() / "p-results/grids/store--work-plane.csv"));
    EXPECT_TRUE(says(content_of(folder.path() / "p-results/figures/project--status.svg"), "older"));
    for (const auto& [figure, words] :
         {std::pair{"store--work-plane", "older: since then"}, {"store--eyes--ugr", "older: since then"}})
      EXPECT_TRUE(
          says(content_of(folder.path() / "p-results/figures" / (figure + std::string(".svg"))), words));
    folder.write("p.toml", both);
    EXPECT_EQ(run_draft(folder).code, 0);
    EXPECT_EQ(rooms(), before);
  }
  // What draws figures only makes nothing old; a room of another name has no results.
  folder.write("p.toml", both + "[figures]\nsteps = 5\n");
  EXPECT_FALSE(says(run_draft(folder, "--room office").out, "older"));
  folder.write("p.toml", kHead + room_of("office", kOffice) + room_of("cellar", kStore));
  ran = run_draft(folder, "--room office");
  EXPECT_TRUE(says(ran.out, "cellar                 not computed")) << ran.out;
  EXPECT_EQ(rooms().size(), 1u);
}

TEST(Show, StandardsStandSideBySide) {
  const TemporaryFolder folder;
  write_project(folder);
  std::string project = kHead + room_of("office", kOffice);
  const std::string standard = "standard = \"EN 12464-1:2021\"\n";
  project.replace(project.find(standard), standard.size(),
                  standard + "also_verify = [\"EN 12464-1:2011\"]\n");
  folder.write("p.toml", project);
  const Ran ran = run_draft(folder);
  EXPECT_TRUE(says(ran.out, "EN 12464-1:2021     EN 12464-1:2011\n")) << ran.out;
  EXPECT_TRUE(says(ran.out, "office                 not met ")) << ran.out;
  const std::string checks = run(folder, "show p.toml checks").out;
  EXPECT_TRUE(says(checks, "found    +/-  EN 12464-1:2021   EN 12464-1:2011\n")) << checks;
  EXPECT_TRUE(says(checks, "500 lx not met")) << checks;
}

TEST(Show, ThingsThatRepeatStandTogether) {
  const TemporaryFolder folder;
  write_project(folder);
  std::string project = kHead + room_of("office", kOffice);
  for (int k = 1; k <= 4; ++k)
    project += fmt::format(
        FMT_STRING("[[rooms.areas]]\nname = \"seat {}\"\ntask = \"storage.store-room\"\nsurroundings = "
                   "false\nrectangle = {{ at = [{}, 1, 0.8], size = [0.6, 0.6] }}\n"),
        k, 0.5 + k);
  folder.write("p.toml", project);
  EXPECT_EQ(run_draft(folder).code, 0);
  const std::string all = shown(folder, "p.toml");
  EXPECT_TRUE(says(all, "4 x seat, least ") && says(all, "4 x seat  ")) << all;
  EXPECT_FALSE(says(all, "seat 2, mean")) << all;
}

TEST(Show, TheScheduleHasARowForEachLuminaire) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("p.toml", kHead + room_of("A, B",
                                         "[[rooms.luminaires]]\nmark = \"D2\"\nat = [1, 2]\naim = [3, 2, "
                                         "0]\ndimming = 0.5\nmounting_height = 2.5\n" +
                                             kStore.substr(kStore.find("[[rooms"))));
  EXPECT_EQ(run_draft(folder).code, 0);
  const std::string csv = content_of(folder.path() / "p-results/luminaires.csv");
  EXPECT_EQ(count_lines(csv), 1u + 1 + 6) << csv;
  EXPECT_TRUE(says(csv, "\n\"A, B\",D2 1,D2,Quillon,Kestrel downlight 150,1,2,2.5,0,38.65")) << csv;
  EXPECT_TRUE(says(csv, ",3,2,0,0.5,1649.6")) << csv;
  const json group = json_in(folder.path() / "p-results/results.json").at("rooms")[0].at("luminaires")[0];
  EXPECT_NEAR(group.at("tilts_deg")[0].get<double>(), std::atan2(2, 2.5) * 180 / M_PI, 0.01);
  EXPECT_EQ(group.at("aim_m"), json({3, 2, 0}));
  EXPECT_TRUE(says(run(folder, "show p.toml luminaires").out, "(3.0, 2.0, 0.0)"));
}

TEST(Show, TheCatalogueListsFinishesAndFurniture) {
  const TemporaryFolder folder;
  const std::string all = run(folder, "catalogue").out;
  EXPECT_TRUE(says(all, "white paint") && says(all, "shelf rack")) << all;
  const std::string wood = run(folder, "catalogue finishes wood").out;
  EXPECT_TRUE(says(wood, "light wood") && !says(wood, "white paint") && !says(wood, "shelf rack")) << wood;
  EXPECT_EQ(run(folder, "catalogue finishes unobtainium").code, 2);
}

TEST(Show, ManyPhotometricFilesTakeALineEach) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("bad.ies", "IESNA:LM-63-2002\nTILT=NONE\n1 2 3\n");
  const std::string files =
      "inspect photometry/tarnfell-p1.ldt photometry/quillon-d2.ies photometry/tarnfell-w3.ldt ";
  const Ran ran = run(folder, files + "bad.ies");
  EXPECT_EQ(ran.code, 2);
  EXPECT_EQ(count_lines(ran.out), 5u) << ran.out;
  EXPECT_TRUE(says(ran.out, "bad.ies                    refused")) << ran.out;
  EXPECT_EQ(count_lines(run(folder, files + "--table").out), 4u);
  EXPECT_GT(count_lines(run(folder, files + "bad.ies --sheets").out), 30u);
}

}  // namespace show_test
}  // namespace glow::cli
