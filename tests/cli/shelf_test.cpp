// Photometric files searched by the built program.
#include "run_program.hpp"

namespace glow::cli {
namespace shelf_test {

/// With a cache of the folder's own.
Ran shelf(const TemporaryFolder& folder, const std::string& words) {
  return run(folder, words, "XDG_CACHE_HOME='" + folder.path().string() + "/cache'");
}

TEST(Shelf, AnswersShortlyAndSaysWhatIsLeftOut) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("shelf/broken.ldt", "one line");
  const Ran ran = shelf(folder, "shelf shelf --kind direct --ugr ..19 --sort efficacy --falling -n 2");
  EXPECT_EQ(ran.code, 0) << ran.err;
  EXPECT_TRUE(says(ran.out, "6 of 18 files found, in shelf/")) << ran.out;
  EXPECT_TRUE(says(ran.out, "4 more: --first 6 shows all")) << ran.out;
  EXPECT_TRUE(says(ran.out, "1 file cannot be read:\n  shelf/broken.ldt: ")) << ran.out;
  EXPECT_FALSE(says(ran.out, "left out")) << ran.out;
  EXPECT_LT(ran.out.find("128"), ran.out.find("4 more")) << "the best first";
}

TEST(Shelf, GivesProgramsAllThatWasFound) {
  const TemporaryFolder folder;
  write_project(folder);
  const json found = json::parse(shelf(folder, "shelf shelf --words 'heron 600' --json").out);
  ASSERT_EQ(found.at("files").size(), 4u);
  for (const json& each : found.at("files")) {
    const json inspected =
        json::parse(run(folder, "inspect '" + each.at("file").get<std::string>() + "' --json").out)
            .at("files")[0];
    EXPECT_EQ(each.at("flux_lm"), inspected.at("flux_lm"));
    EXPECT_EQ(each.at("watts_w"), inspected.at("watts_w"));
    EXPECT_EQ(each.at("beam_c0_deg"), inspected.at("c0_c180").at("beam").at("width_deg"));
    EXPECT_EQ(each.at("luminance_above_65_cd_m2"), inspected.at("luminance_cd_m2").at("max_above_65"));
    EXPECT_EQ(each.at("name"), inspected.at("luminaire"));
  }
  const std::string csv = shelf(folder, "shelf shelf --words 'heron 600' --csv").out;
  EXPECT_EQ(std::count(csv.begin(), csv.end(), '\n'), 5);
  EXPECT_TRUE(says(csv, "\"Heron panel 600, opal\"")) << csv;
}

TEST(Shelf, DrawsASheet) {
  const TemporaryFolder folder;
  write_project(folder);
  EXPECT_EQ(shelf(folder, "shelf shelf --figure sheet.svg").code, 0);
  const std::string svg = content_of(folder.path() / "sheet.svg");
  EXPECT_TRUE(says(svg, "18 files found") && says(svg, "Curlew pendant")) << svg.substr(0, 500);
}

struct Fault {
  const char* words;
  const char* says;
};

TEST(Shelf, RefusesWhatItCannotMean) {
  const TemporaryFolder folder;
  write_project(folder);
  const Fault faults[] = {
      {"shelf shelf --flux 2000", "--flux: \"2000\" is one value"},
      {"shelf shelf --uplight 10..40", "write \"10 %\""},
      {"shelf shelf --kind sideways", "expected direct, direct-indirect"},
      {"shelf shelf --shape oblong", "expected point, round"},
      {"shelf shelf --sort fluxx", "did you mean \"flux\"?"},
      {"shelf", "which folder"},
      {"rank millrace.toml --room \"Throwing room\" --flux 1..2klm photometry/quillon-d2.ies",
       "--shelf FOLDER"},
      {"rank millrace.toml --room \"Throwing room\" --shelf shelf --flux 1..2", "no luminaire of 18"},
  };
  for (const Fault& fault : faults) {
    const Ran ran = shelf(folder, fault.words);
    EXPECT_EQ(ran.code, 2) << fault.words;
    EXPECT_TRUE(says(ran.err, fault.says)) << fault.words << ": " << ran.err;
  }
  const Ran none = shelf(folder, "shelf nowhere shelf");
  EXPECT_EQ(none.code, 2);
  EXPECT_TRUE(says(none.out, "nowhere: ")) << none.out;
}

TEST(Shelf, IsWhatRankChoosesFrom) {
  const TemporaryFolder folder;
  write_project(folder);
  const Ran ran =
      shelf(folder,
            "rank millrace.toml --room \"Throwing room\" --shelf shelf --words heron --shape square "
            "--cct 4000 --json -q");
  EXPECT_EQ(ran.code, 0) << ran.err;
  EXPECT_EQ(json::parse(ran.out).at("candidates").size(), 3u);
}

}  // namespace shelf_test
}  // namespace glow::cli
