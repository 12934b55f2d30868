// Runs kept, restored and held against each other, by the built program.
#include <csignal>
#include <random>

#include "run_program.hpp"

namespace glow::cli {
namespace runs_test {

namespace fs = std::filesystem;

void change(const TemporaryFolder& folder, const std::string& from, const std::string& to) {
  std::string text = content_of(folder.path() / "small.toml");
  const std::size_t at = text.find(from);
  ASSERT_NE(at, std::string::npos) << from;
  folder.write("small.toml", text.replace(at, from.size(), to));
}

const std::string kRun = "run small.toml -q --accuracy draft";

TEST(Runs, AreKeptListedComparedAndRestoredToTheSameBytes) {
  const TemporaryFolder folder;
  write_small_room(folder);
  const Ran none = run(folder, "runs small.toml");
  EXPECT_TRUE(none.code == 0 && says(none.out, "No run of small.toml is kept"));
  ASSERT_EQ(run(folder, kRun + " --keep 'first'").code, 0);
  const std::string results = content_of(folder.path() / "small-results/results.json");
  EXPECT_TRUE(says(run(folder, "runs small.toml").out, "since then: as the files are now"));
  change(folder, "reflectance = 0.6", "reflectance = 0.5");
  EXPECT_TRUE(says(run(folder, "runs small.toml").out, "since then: the room (Office)"));
  const Ran taken = run(folder, "runs small.toml restore first -o back");
  ASSERT_EQ(taken.code, 0) << taken.err;
  EXPECT_EQ(content_of(folder.path() / "back/small-results/results.json"), results);
  fs::remove_all(folder.path() / "back/small-results");
  ASSERT_EQ(run(folder, "run back/small.toml -q --accuracy draft").code, 0);
  EXPECT_EQ(content_of(folder.path() / "back/small-results/results.json"), results);
  const Ran again = run(folder, "runs small.toml restore first -o back");
  EXPECT_TRUE(again.code == 2 && says(again.err, "is there already and not empty"));
}

TEST(Runs, ANameIsTakenOnce) {
  const TemporaryFolder folder;
  write_small_room(folder);
  ASSERT_EQ(run(folder, kRun + " --keep first").code, 0);
  const Ran twice = run(folder, kRun + " --keep first -o other");
  EXPECT_TRUE(twice.code == 2 && says(twice.err, "there is a run called \"first\" already")) << twice.err;
  EXPECT_FALSE(fs::exists(folder.path() / "other"));  // said before anything is computed
  EXPECT_TRUE(says(run(folder, "show small.toml@frist").err, "did you mean \"first\"?"));
  const Ran shown = run(folder, "show small.toml@first grids");
  EXPECT_TRUE(shown.code == 0 && says(shown.out, "work plane")) << shown.err;
  EXPECT_EQ(run(folder, "runs small.toml drop first").code, 0);
  EXPECT_EQ(run(folder, "show small.toml@first").code, 2);
}

TEST(Runs, AreHeldAgainstEachOther) {
  const TemporaryFolder folder;
  write_small_room(folder);
  ASSERT_EQ(run(folder, kRun + " --keep before").code, 0);
  change(folder, "mark = ", "dimming = 0.5\nmark = ");
  const Ran stale = run(folder, "compare small.toml@before small.toml");
  EXPECT_TRUE(stale.code == 0 && says(stale.out, "out of date")) << stale.out;
  ASSERT_EQ(run(folder, kRun).code, 0);
  const Ran told = run(folder, "compare small.toml@before small.toml -o figures");
  EXPECT_TRUE(told.code == 0 && says(told.out, "+ dimming = 0.5") && says(told.out, "power W"))
      << told.out << told.err;
  std::size_t figures = 0;
  for (const auto& file : fs::directory_iterator(folder.path() / "figures"))
    figures += file.path().extension() == ".svg";
  EXPECT_GE(figures, 2u);
  EXPECT_EQ(run(folder, "compare small.toml small.toml@before --fail-if-worse -q").code, 1);  // more watts
  EXPECT_EQ(run(folder, "compare small.toml small.toml --fail-if-worse -q").code, 0);
  const auto document = nlohmann::json::parse(run(folder, "compare small.toml@before small.toml --json").out);
  EXPECT_EQ(document["runs"].size(), 2u);
  EXPECT_EQ(document["rooms"][0]["measures"][0]["measure"], "checks_met");
  for (const char* wrong :
       {"compare small.toml", "compare small.toml nowhere", "compare small.toml#x small.toml"})
    EXPECT_EQ(run(folder, wrong).code, 2) << wrong;
}

TEST(Runs, AreKeptUnnamedWhereTheProjectSaysSo) {
  const TemporaryFolder folder;
  write_small_room(folder);
  folder.write("small.toml", content_of(folder.path() / "small.toml") + "\n[runs]\nkeep = 2\n");
  for (int k = 0; k < 3; ++k) ASSERT_EQ(run(folder, kRun).code, 0);
  const std::string list = run(folder, "runs small.toml").out;
  EXPECT_TRUE(says(list, "2 kept runs") && says(list, "run 3") && !says(list, "run 1")) << list;
}

TEST(Runs, VariantsAreComputedBesideTheProjectAndComparedWithIt) {
  const TemporaryFolder folder;
  write_small_room(folder);
  const std::string text = content_of(folder.path() / "small.toml");
  folder.write("small.toml",
               text +
                   "\n[[variants.\"half\".rooms]]\nname = \"Office\"\nmaintenance_factor = 0.4\n"
                   "\n[variants.\"the same\"]\nnote = \"nothing\"\n");
  const Ran ran = run(folder, kRun);
  ASSERT_EQ(ran.code, 0) << ran.err;
  EXPECT_TRUE(says(ran.out, "variant \"half\"") && says(ran.out, "variant \"the same\"")) << ran.out;
  const json base = json_in(folder.path() / "small-results/results.json"),
             half = json_in(folder.path() / "small-results/variants/half/results.json"),
             same = json_in(folder.path() / "small-results/variants/the-same/results.json");
  const auto mean = [](const json& results) {
    return results["rooms"][0]["grids"][0]["mean_lx"].get<double>();
  };
  EXPECT_NEAR(mean(half), mean(base) / 2, 1e-6 * mean(base));
  EXPECT_EQ(same["rooms"], base["rooms"]);  // taken over, not computed again
  // Alone, a variant is what it is beside the others.
  const std::string beside = content_of(folder.path() / "small-results/variants/half/results.json");
  ASSERT_EQ(run(folder, kRun + " --variant half").code, 0);
  EXPECT_EQ(json_in(folder.path() / "small-results/variants/half/results.json")["rooms"],
            json::parse(beside)["rooms"]);
  const Ran compared = run(folder, "compare small.toml small.toml@half");
  EXPECT_TRUE(compared.code == 0 && says(compared.out, "small.toml@half, a variant")) << compared.err;
  change(folder, "maintenance_factor = 0.4", "maintenance_factor = 0.5");
  EXPECT_TRUE(says(run(folder, "compare small.toml small.toml@half").out, "out of date"));
  for (const std::string& wrong :
       {kRun + " --variant halff", std::string("compare small.toml small.toml@halff")}) {
    const Ran refused = run(folder, wrong);
    EXPECT_TRUE(refused.code == 2 && says(refused.err, "did you mean \"half\"?")) << refused.err;
  }
}

TEST(Runs, VariantsOfLuminairesTakeDaylightFromTheProjectAndAreTheSameAsAlone) {
  const TemporaryFolder folder;
  write_small_room(folder);
  folder.write("small.toml", content_of(folder.path() / "small.toml") + R"(
[site]
latitude = 52.3
longitude = 10.4
time_zone = 1
north = 0
[moments.overcast]
sky = "overcast"
diffuse = 10000
[moments.lit]
sky = "overcast"
diffuse = 10000
scene = "half"
[scenes.half]
rest = 0.5
[[variants."other lamps".rooms]]
name = "Office"
[[variants."other lamps".rooms.luminaires]]
mark = "D2"
dimming = 0.4
[[variants.darker.rooms]]
name = "Office"
reflectance = { walls = 0.2 }
)");
  ASSERT_EQ(run(folder, "run small.toml -q -a draft -o together").code, 0);
  for (const char* name : {"other lamps", "darker"}) {
    ASSERT_EQ(
        run(folder, "run small.toml -q -a draft -o alone --no-cache --variant '" + std::string(name) + "'")
            .code,
        0);
    const std::string results =
        "variants/" + std::string(name == std::string("darker") ? "darker" : "other-lamps") + "/results.json";
    json together = json_in(folder.path() / "together" / results),
         alone = json_in(folder.path() / "alone" / results);
    EXPECT_EQ(together["rooms"], alone["rooms"]) << name;
    // The day is the same in rooms whose surfaces are, and another where they are not.
    const json base = json_in(folder.path() / "together/results.json");
    const auto day = [](const json& of) {
      for (const json& scene : of["rooms"][0]["scenes"])
        if (scene["name"] == "overcast") return scene["grids"][0]["mean_lx"].get<double>();
      return 0.0;
    };
    EXPECT_GT(day(base), 0);
    EXPECT_EQ(day(base) == day(alone), name == std::string("other lamps"));
  }
}

/// Their files are taken from the project's run, but where the variant tells them in other units.
TEST(Runs, RoomsThatAVariantLeavesAloneAreWrittenAsItWritesThemAlone) {
  const TemporaryFolder folder;
  write_small_room(folder);
  const std::string office = content_of(folder.path() / "small.toml");
  std::string store = office.substr(office.find("[[rooms]]"));
  store.replace(store.find("Office"), 6, "Store");
  folder.write("small.toml", office + "\n" + store + R"(
[[variants.dimmed.rooms]]
name = "Store"
[[variants.dimmed.rooms.luminaires]]
mark = "D2"
dimming = 0.4
[variants.footcandles.project]
units = "fc, m"
)");
  ASSERT_EQ(run(folder, "run small.toml -q -a draft -o together").code, 0);
  for (const std::string name : {"dimmed", "footcandles"}) {
    ASSERT_EQ(run(folder, "run small.toml -q -a draft -o alone --no-cache --variant " + name).code, 0);
    const fs::path together = folder.path() / "together/variants" / name,
                   alone = folder.path() / "alone/variants" / name;
    const json results = json_in(together / "results.json"), same = json_in(alone / "results.json");
    EXPECT_EQ(results["rooms"].size(), 2u);
    EXPECT_EQ(results["rooms"], same["rooms"]) << name;
    int tables = 0;
    for (const json& file : results["files"]) {
      const std::string table = file.get<std::string>();
      tables += table.find("office") != std::string::npos;
      EXPECT_EQ(content_of(together / table), content_of(alone / table)) << name;
    }
    EXPECT_GT(tables, 1);
  }
}

TEST(Runs, PicturesOfViewsStandSideBySide) {
  const TemporaryFolder folder;
  write_small_room(folder);
  ASSERT_EQ(run_as_it_is(folder, "run small.toml -q -a draft -o before").code, 0);
  std::filesystem::copy(folder.path() / "before", folder.path() / "after",
                        std::filesystem::copy_options::recursive);
  std::filesystem::remove(folder.path() / "after/views/office--from-above.png");
  ASSERT_EQ(run(folder, "compare before after -o sides").code, 0);
  int sheets = 0;
  for (const auto& entry : std::filesystem::directory_iterator(folder.path() / "sides")) {
    if (entry.path().filename().string().find("--view--") == std::string::npos) continue;
    ++sheets;
    const std::string sheet = content_of(entry.path());
    EXPECT_TRUE(says(sheet, "A, before") && says(sheet, "B, after")) << entry.path();
  }
  EXPECT_GE(sheets, 2);
  EXPECT_FALSE(std::filesystem::exists(folder.path() / "sides/office--view--from-above--side-by-side.svg"));
}

TEST(Runs, ACommandIsRunWhenAllIsDone) {
  const TemporaryFolder folder;
  write_small_room(folder);
  ASSERT_EQ(
      run(folder, kRun + " --then 'echo code $GLOWGRID_EXIT > done; test -f small-results/results.json'")
          .code,
      0);
  EXPECT_EQ(content_of(folder.path() / "done"), "code 0\n");
  const Ran failing = run(folder, kRun + " --then 'exit 3'");
  EXPECT_TRUE(failing.code == 0 && says(failing.err, "ended with status")) << failing.err;
}

TEST(Runs, SharesByThresholdsAreToldEverywhere) {
  const TemporaryFolder folder;
  write_small_room(folder, "name = \"Small room\"", "name = \"Small room\"\nthresholds = [50, 150]");
  const Ran ran = run(folder, kRun);
  ASSERT_EQ(ran.code, 0) << ran.err;
  EXPECT_TRUE(says(ran.out, "Work planes: ") && says(ran.out, "above 150 lx")) << ran.out;
  const json results = json_in(folder.path() / "small-results/results.json");
  const json& shares = results["rooms"][0]["shares"][0];
  EXPECT_NEAR(shares["below"].get<double>() + shares["within"].get<double>() + shares["above"].get<double>(),
              1, 1e-9);
  EXPECT_EQ(results["work_plane_shares"]["project"]["within"], shares["within"]);
  EXPECT_TRUE(fs::exists(folder.path() / "small-results/figures/project--shares.svg"));
  EXPECT_TRUE(says(run(folder, "show small.toml grids").out, "share of points"));
  const TemporaryFolder wrong;
  write_small_room(wrong, "name = \"Small room\"", "name = \"Small room\"\nthresholds = [300, 50]");
  EXPECT_TRUE(says(run(wrong, "check small.toml").err, "expected low below high"));
}

/// Killed at any moment: what was kept before is whole, and the store can be used.
TEST(Runs, AKillLeavesEarlierRunsWhole) {
  const TemporaryFolder folder;
  write_small_room(folder);
  ASSERT_EQ(run(folder, kRun + " --keep first").code, 0);
  const std::string results = content_of(folder.path() / "small-results/results.json");
  std::mt19937 random(7);
  std::uniform_real_distribution<double> moment(0, 0.35);
  int killed = 0;
  for (int k = 0; k < 50; ++k) {
    const Ran ran = run(folder, fmt::format(FMT_STRING("{} --keep k{}"), kRun, k),
                        fmt::format(FMT_STRING("timeout -s KILL {:.3f} "), moment(random)));
    killed += ran.code != 0;
  }
  EXPECT_GE(killed, 10);
  const Ran list = run(folder, "runs small.toml");
  EXPECT_EQ(list.code, 0) << list.err;
  EXPECT_FALSE(says(list.out, "damaged")) << list.out;
  ASSERT_EQ(run(folder, "runs small.toml restore first -o back").code, 0);
  EXPECT_EQ(content_of(folder.path() / "back/small-results/results.json"), results);
  EXPECT_EQ(run(folder, kRun + " --keep last").code, 0);
}

}  // namespace runs_test
}  // namespace glow::cli
