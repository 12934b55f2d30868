// Several processes, started together by mpirun: the same bytes as from one, and nothing lost when one dies.
#include <fmt/format.h>

#include <set>

#include "run_program.hpp"

namespace glow::cli {
namespace crew_test {

/// What starts three of the program, as tests may, whoever runs them.
const std::string kCrew =
    "OMPI_ALLOW_RUN_AS_ROOT=1 OMPI_ALLOW_RUN_AS_ROOT_CONFIRM=1 mpirun --oversubscribe --bind-to none -np 3 ";

bool has_mpi() {
  return std::system((kCrew + "true > /dev/null 2>&1").c_str()) == 0;
}

/// Rooms of several sizes, some of which are yet to be arranged, one cannot be, and a variant.
std::string rooms() {
  std::string text =
      "format = 1\n[project]\nname = \"Rooms\"\nstandard = \"EN 12464-1:2021\"\n[defaults]\n"
      "maintenance_factor = 0.8\nreflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }\n"
      "[luminaires.P1]\nfile = \"photometry/tarnfell-p1.ldt\"\n"
      "[luminaires.D2]\nfile = \"photometry/quillon-d2.ies\"\n";
  for (int k = 0; k < 7; ++k)
    text += fmt::format(FMT_STRING("\n[[rooms]]\nname = \"R{}\"\nsize = [{}, {}]\nheight = 2.8\n"
                                   "task = \"office.filing\"\n[[rooms.luminaires]]\nmark = \"P1\"\n"
                                   "mounting = \"suspended\"\nsuspension = 0.4\n{}\n"),
                        k, 2 + (k * 3) % 5, 2.5 + k % 3,
                        k == 5  ? "arrange = { most = 1 }"  // of which none gives 300 lx there
                        : k > 3 ? "arrange = { most = 12 }"
                                : "array = { rows = 1, columns = 2 }");
  return text +
         "\n[variants.white]\n[[variants.white.rooms]]\nname = \"R0\"\nreflectance = { walls = 0.8 }\n";
}

std::set<std::string> files_below(const std::filesystem::path& folder) {
  std::set<std::string> files;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(folder))
    if (entry.is_regular_file()) files.insert(entry.path().lexically_relative(folder).generic_string());
  return files;
}

class Crew : public ::testing::Test {
 protected:
  void SetUp() override {
    if (!has_mpi()) GTEST_SKIP() << "mpirun is not there, or does not start";
    write_project(folder_);
    folder_.write("rooms.toml", rooms());
  }

  TemporaryFolder folder_;
};

TEST_F(Crew, WritesTheSameBytesAsOneProcess) {
  const Ran one = run_as_it_is(folder_, "run rooms.toml -q --no-cache -o one");
  const Ran three = run_as_it_is(folder_, "run rooms.toml -q --no-cache -o three", kCrew);
  EXPECT_EQ(one.code, 2) << one.err;  // R5 cannot be arranged
  EXPECT_EQ(three.code, one.code) << three.err;
  const std::set<std::string> files = files_below(folder_.path() / "one");
  EXPECT_GT(files.size(), 40u);
  EXPECT_EQ(files_below(folder_.path() / "three"), files);
  for (const std::string& file : files)
    EXPECT_TRUE(content_of(folder_.path() / "one" / file) == content_of(folder_.path() / "three" / file))
        << file;
}

TEST_F(Crew, ArrangesAndRanksAsOneProcessDoes) {
  for (const char* words : {"arrange rooms.toml --json", "arrange rooms.toml",
                            "rank rooms.toml photometry/*.ldt photometry/*.ies --room R6 --json"}) {
    const Ran one = run(folder_, std::string(words) + " -q");
    const Ran three = run(folder_, std::string(words) + " -q", kCrew);
    EXPECT_EQ(three.code, one.code) << words << three.err;
    std::string told = three.out;  // a made-up terminal ends lines in its own way
    told.erase(std::remove(told.begin(), told.end(), '\r'), told.end());
    EXPECT_EQ(told, one.out) << words;
  }
}

TEST_F(Crew, SpeaksWithOneVoice) {
  const Ran checked = run(folder_, "check rooms.toml", kCrew);
  EXPECT_EQ(checked.code, 0) << checked.err;
  const std::string once = run(folder_, "check rooms.toml").out;
  EXPECT_EQ(std::count(checked.out.begin(), checked.out.end(), '\n'),
            std::count(once.begin(), once.end(), '\n'));
  const Ran broken = run(folder_, "run nothing.toml", kCrew);
  EXPECT_EQ(broken.code, 2);
  const std::size_t said = broken.err.find("nothing was calculated");
  EXPECT_NE(said, std::string::npos) << broken.err;
  EXPECT_EQ(broken.err.find("nothing was calculated", said + 1), std::string::npos) << broken.err;
  const Ran watching = run(folder_, "run rooms.toml --watch", kCrew);
  EXPECT_EQ(watching.code, 2);
  EXPECT_NE(watching.err.find("--watch is for one process"), std::string::npos) << watching.err;
}

/// Kills one that does not lead, at several moments: what was there stays, or all of the new is there where
/// its work was done, and the next start goes on.
TEST_F(Crew, LosesNothingWhenOneIsKilled) {
  ASSERT_EQ(run_as_it_is(folder_, "run rooms.toml -q -a draft").code, 2);
  const std::string before = content_of(folder_.path() / "rooms-results/results.json");
  const std::set<std::string> files = files_below(folder_.path() / "rooms-results");
  std::vector<std::string> left;  // by those that were killed
  for (const char* moment : {"0.4", "0.8", "1.3"}) {
    folder_.write("kill.sh", kCrew +
                                 " '" GLOWGRID_PROGRAM
                                 "' run rooms.toml -q -a 0.5 > out 2> err & crew=$!\n"
                                 "sleep " +
                                 moment +
                                 "\n"
                                 "for one in $(pgrep -P $crew); do tr '\\0' '\\n' < /proc/$one/environ | "
                                 "grep -q '^OMPI_COMM_WORLD_RANK=2$' && kill -9 $one; done\n"
                                 "wait $crew\n");
    const std::string command = "cd '" + folder_.path().string() + "' && bash kill.sh";
    const int status = std::system(command.c_str());
    if (WEXITSTATUS(status) <= 2) continue;  // it was done before
    left.push_back(content_of(folder_.path() / "rooms-results/results.json"));
    EXPECT_EQ(files_below(folder_.path() / "rooms-results"), files) << moment;
  }
  EXPECT_GE(left.size(), 2u);
  const Ran again = run_as_it_is(folder_, "run rooms.toml -q -a 0.5", kCrew);
  EXPECT_EQ(again.code, 2) << again.err;
  const std::string after = content_of(folder_.path() / "rooms-results/results.json");
  for (const std::string& results : left) EXPECT_TRUE(results == before || results == after);
  ASSERT_EQ(run_as_it_is(folder_, "run rooms.toml -q -a 0.5 --no-cache").code, 2);
  EXPECT_TRUE(content_of(folder_.path() / "rooms-results/results.json") == after);
}

}  // namespace crew_test
}  // namespace glow::cli
