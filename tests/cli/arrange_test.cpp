// Arrangements found by the built program: what they are called met is met by a run, and writing them leaves
// all else as it was.
#include <fmt/format.h>

#include <random>

#include "run_program.hpp"

namespace glow::cli {
namespace arrange_test {

const std::string kHead =
    "format = 1\n[project]\nname = \"Rooms\"\nstandard = \"EN 12464-1:2021\"\n[defaults]\n"
    "maintenance_factor = 0.8\n\n[luminaires.D2]  # round\nfile = \"photometry/quillon-d2.ies\"\n"
    "[luminaires.P1]\nfile = \"photometry/tarnfell-p1.ldt\"\n";

std::string room_of(const std::string& name, const std::string& size, const std::string& more) {
  return fmt::format(FMT_STRING("\n[[rooms]]\nname = \"{}\"\nsize = {}\nheight = 2.8\n{}"), name, size, more);
}

/// Rooms of random size and task, each with an arrangement that is yet to be found.
std::string random_rooms(int count) {
  std::mt19937 random(3);
  const auto between = [&](double low, double high) {
    return std::uniform_real_distribution<>(low, high)(random);
  };
  const std::vector<std::string> tasks = {"circulation.corridor", "office.filing", "storage.store-room",
                                          "office.filing"};
  std::string text = kHead;
  for (int k = 0; k < count; ++k) {
    const bool long_one = k % 2;
    text += room_of(fmt::format(FMT_STRING("R{}"), k),
                    fmt::format(FMT_STRING("[{:.1f}, {:.1f}]"), between(2.4, 5), between(2.2, 3.6)),
                    fmt::format(FMT_STRING("task = \"{}\"\n\n[[rooms.luminaires]]\nmark = \"{}\"\n"
                                           "arrange = {{ most = 12 }}\n{}"),
                                tasks[std::size_t(k / 2) % tasks.size()], long_one ? "P1" : "D2",
                                long_one ? "suspension = 0.4\nmounting = \"suspended\"\n" : ""));
  }
  return text;
}

TEST(Arrange, WhatItCallsMetIsMetByARunOfTheWrittenFile) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("rooms.toml", random_rooms(50));
  const Ran arranged = run(folder, "arrange rooms.toml --write --json -q");
  ASSERT_TRUE(arranged.code == 0 || arranged.code == 1) << arranged.err;
  std::map<std::string, bool> meets;
  for (const json& room : json::parse(arranged.out))
    meets[room.at("room").get<std::string>()] = !room.at("best").is_null();
  ASSERT_EQ(meets.size(), 50u);
  // Rooms without an arrangement have no luminaires to run.
  std::string text = content_of(folder.path() / "rooms.toml");
  for (std::size_t at; (at = text.find("arrange = { most = 12 }")) != std::string::npos;)
    text.replace(at, 23, "at = [1, 1]");
  folder.write("rooms.toml", text);
  ASSERT_EQ(run(folder, "run rooms.toml -q").code, 0);
  int met = 0;
  const json results = json_in(folder.path() / "rooms-results/results.json");
  for (const json& room : results.at("rooms"))
    if (meets.at(room.at("name").get<std::string>())) {
      EXPECT_EQ(room.at("status"), "met") << room.at("name");
      ++met;
    }
  EXPECT_GE(met, 25);
}

TEST(Arrange, WritesOnlyItsOwnLines) {
  const TemporaryFolder folder;
  write_project(folder);
  const std::string before = kHead +
                             room_of("A", "[4, 3]",
                                     "task = \"storage.store-room\" # filing\n\n"
                                     "[[rooms.luminaires]]   # to be found\nmark = \"D2\"\n"
                                     "at = [1, 1]\n\n# the door\n[[rooms.openings]]\nname = \"door\"\n"
                                     "kind = \"door\"\nwall = 1\nfrom = 1\nwidth = 0.9\nheight = 2\n") +
                             room_of("B", "[3, 3]", "task = \"circulation.corridor\"\n") + "# the end\n";
  folder.write("p.toml", before);
  const Ran ran = run(folder, "arrange p.toml --mark D2 --write -q");
  EXPECT_EQ(ran.code, 0) << ran.err << ran.out;
  EXPECT_TRUE(says(ran.out, "A: ") && says(ran.out, "B: ") && says(ran.out, "meets all") &&
              !says(ran.out, "Why"))
      << ran.out;
  const std::string after = content_of(folder.path() / "p.toml");
  const std::size_t door = before.find("\n# the door");
  EXPECT_EQ(after.find(before.substr(0, before.find("[[rooms.luminaires]]"))), 0u) << after;
  EXPECT_TRUE(says(after, before.substr(door, before.find("# the end") - door))) << after;
  EXPECT_FALSE(says(after, "at = [1, 1]")) << after;
  EXPECT_EQ(run(folder, "run p.toml -q --strict").code, 0);
  // The same again changes nothing.
  EXPECT_EQ(run(folder, "arrange p.toml --mark D2 --write -q").code, 0);
  EXPECT_EQ(content_of(folder.path() / "p.toml"), after);
}

TEST(Arrange, LeavesWhatIsYetToBeArrangedOfOtherMarksAlone) {
  const TemporaryFolder folder;
  write_project(folder);
  const std::string other =
      "\n[[rooms.luminaires]]\nmark = \"P1\"\narrange = { most = 2 }\nmounting_height = 2.2\n";
  folder.write("p.toml", kHead + room_of("A", "[4, 3]", "task = \"storage.store-room\"\n" + other));
  EXPECT_EQ(run(folder, "arrange p.toml --mark D2 --write -q").code, 0);
  const std::string text = content_of(folder.path() / "p.toml");
  EXPECT_TRUE(says(text, other) && says(text, "mark = \"D2\"\narray = ")) << text;
}

TEST(Arrange, SaysWhatStandsInTheWayAndDrawsIt) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("p.toml", kHead + room_of("A", "[5, 4]", "task = \"storage.store-room\"\n"));
  const Ran ran = run(folder, "arrange p.toml --mark D2 --most 1 --figure plans.svg -q");
  EXPECT_EQ(ran.code, 1) << ran.err;
  EXPECT_TRUE(says(ran.out, "no even array of up to 1 D2 meets all checks") && says(ran.out, "In the way: "))
      << ran.out;
  const Ran met = run(folder, "arrange p.toml --mark D2 --figure plans.svg -q");
  EXPECT_EQ(met.code, 0) << met.out;
  EXPECT_TRUE(says(met.out, "Why not fewer: ") &&
              says(met.out, "[[rooms.luminaires]]\nmark = \"D2\"\narray = { rows = "))
      << met.out;
  EXPECT_TRUE(says(content_of(folder.path() / "plans.svg"), "laid so that all checks are met"));
  EXPECT_FALSE(says(content_of(folder.path() / "p.toml"), "[[rooms.luminaires]]"));
}

TEST(Arrange, IsDoneByARunAndARoomWithoutOneLeavesTheOthersAlone) {
  const TemporaryFolder folder;
  write_project(folder);
  const std::string open = "\n[[rooms.luminaires]]\nmark = \"D2\"\narrange = { most = 4 }\n";
  folder.write("p.toml", kHead + room_of("A", "[4, 3]", "task = \"storage.store-room\"\n" + open) +
                             room_of("B", "[9, 8]", "task = \"office.writing\"\n" + open));
  const Ran ran = run(folder, "run p.toml -q");
  EXPECT_EQ(ran.code, 2) << ran.err;
  EXPECT_TRUE(says(ran.err, "p.toml:") &&
              says(ran.err, "no arrangement of D2 meets all that is asked of \"B\""))
      << ran.err;
  const json results = json_in(folder.path() / "p-results/results.json");
  ASSERT_EQ(results.at("rooms").size(), 1u);
  EXPECT_EQ(results.at("rooms")[0].at("status"), "met");
  EXPECT_EQ(results.at("rooms")[0].at("luminaires")[0].at("count"), 2);
  EXPECT_TRUE(says(run(folder, "check p.toml").out, "D2: run finds how many and where"));
}

struct Fault {
  const char* name;
  const char* options;
  const char* says;
};
class ArrangeFaults : public testing::TestWithParam<Fault> {};

TEST_P(ArrangeFaults, AreToldWithTheirMend) {
  const TemporaryFolder folder;
  write_project(folder);
  folder.write("p.toml", kHead + room_of("A", "[4, 3]", "task = \"storage.store-room\"\n") +
                             room_of("B", "[3, 3]", ""));
  const std::string before = content_of(folder.path() / "p.toml");
  const Ran ran = run(folder, std::string("arrange p.toml --write ") + GetParam().options);
  EXPECT_EQ(ran.code, 2) << ran.out;
  EXPECT_TRUE(says(ran.err, GetParam().says)) << ran.err;
  EXPECT_EQ(content_of(folder.path() / "p.toml"), before);
}

INSTANTIATE_TEST_SUITE_P(
    Each, ArrangeFaults,
    testing::Values(
        Fault{"which_mark", "--room A", "which luminaire in \"A\"? Give --mark with one of: D2, P1"},
        Fault{"unknown_mark", "--room A --mark D3", "there is no luminaire D3; did you mean D2?"},
        Fault{"nothing_asked", "--room B --mark D2", "nothing is asked of the light in \"B\""},
        Fault{"no_price", "--room A --mark D2 --least cost", "--least cost needs a price of D2"},
        Fault{"unknown_least", "--room A --mark D2 --least money", "expected luminaires, watts or cost"},
        Fault{"heights", "--room A --mark D2 --height 3..2", "expected a height, or two such as"},
        Fault{"keep", "--room A --mark D2 --keep spots", "no such group in \"A\""}),
    [](const auto& each) { return std::string(each.param.name); });

}  // namespace arrange_test
}  // namespace glow::cli
