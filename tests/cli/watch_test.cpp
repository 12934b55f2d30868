// `run --watch`: what it says and shows when files are saved, and its page in a browser.
#include <chrono>
#include <csignal>
#include <thread>

#include "browser.hpp"
#include "run_program.hpp"

namespace glow::cli {
namespace watch_test {

/// The program watching small.toml; what it says is in a file.
class Watched {
 public:
  explicit Watched(const TemporaryFolder& folder, const std::string& options = "") : folder_(folder) {
    const std::string command =
        "cd '" + folder.path().string() + "' && { '" GLOWGRID_PROGRAM "' run small.toml --watch " +
        "--no-views -a draft " + options + " > said 2> errors & } ; echo $! > pid; wait $! ; echo $? > code";
    runner_ = std::thread(
        [command] { EXPECT_GE(std::system(("bash -c \"" + escaped(command) + "\"").c_str()), 0); });
  }
  ~Watched() {
    if (runner_.joinable()) end();
  }
  /// Waits until it has said the words so many times.
  bool says(const std::string& words, int times = 1) const {
    for (int k = 0; k < 600; ++k) {
      const std::string said = content_of(folder_.path() / "said") + content_of(folder_.path() / "errors");
      int count = 0;
      for (std::size_t at = said.find(words); at != std::string::npos; at = said.find(words, at + 1)) ++count;
      if (count >= times) return true;
      std::this_thread::sleep_for(std::chrono::milliseconds(50));
    }
    return false;
  }
  void replace(const std::string& from, const std::string& to) const {
    std::string text = content_of(folder_.path() / "small.toml");
    const std::size_t at = text.find(from);
    ASSERT_NE(at, std::string::npos) << from;
    text.replace(at, from.size(), to);
    folder_.write("small.toml", text);
  }
  /// The exit code after Ctrl-C.
  int end() {
    ::kill(std::stoi(content_of(folder_.path() / "pid")), SIGINT);
    runner_.join();
    return std::stoi(content_of(folder_.path() / "code"));
  }

 private:
  static std::string escaped(const std::string& command) {
    std::string text;
    for (const char c : command) text += (c == '"' || c == '$' || c == '\\' ? "\\" : "") + std::string(1, c);
    return text;
  }
  const TemporaryFolder& folder_;
  std::thread runner_;
};

TEST(Watch, TellsWhatMovedAfterEachSaveAndEndsCleanly) {
  const TemporaryFolder folder;
  write_small_room(folder);
  Watched watched(folder);
  ASSERT_TRUE(watched.says("complete after"));
  const std::string before = content_of(folder.path() / "small-results/results.json");
  watched.replace("[[rooms.luminaires]]", "[[rooms.luminaires]]\ndimming = 0.5");
  ASSERT_TRUE(watched.says("complete after", 2)) << content_of(folder.path() / "said");
  EXPECT_TRUE(watched.says("light in"));
  EXPECT_TRUE(watched.says("power"));
  EXPECT_NE(content_of(folder.path() / "small-results/results.json"), before);
  const std::string data = content_of(folder.path() / "small-results/watch/data.js");
  EXPECT_NE(data.find("\"moved\":[{"), std::string::npos);

  watched.replace("format = 1", "format = 1\n# the same");
  EXPECT_TRUE(watched.says("nothing that counts"));

  watched.replace("dimming = 0.5", "dimming = 5");
  EXPECT_TRUE(watched.says("the results shown are those of before"));
  EXPECT_NE(content_of(folder.path() / "small-results/watch/data.js").find("dimming"), std::string::npos);
  watched.replace("dimming = 5", "dimming = 0.8");
  EXPECT_TRUE(watched.says("complete after", 3));
  EXPECT_EQ(watched.end(), 0);

  // What was written last is what a run of its own finds.
  const std::string last = content_of(folder.path() / "small-results/results.json");
  ASSERT_EQ(run(folder, "run small.toml -q -a draft -o own --no-cache").code, 0);
  json kept = json::parse(last), own = json_in(folder.path() / "own/results.json");
  for (json* each : {&kept, &own}) each->erase("files");
  EXPECT_EQ(kept, own);
}

TEST(Watch, SavingAPhotometricFileCounts) {
  const TemporaryFolder folder;
  write_small_room(folder);
  Watched watched(folder);
  ASSERT_TRUE(watched.says("complete after"));
  for (const files::EmbeddedFile& file : files::embedded_demo())
    if (file.name == "shelf/quillon-goshawk-100.ies")
      folder.write("photometry/quillon-d2.ies", std::string(file.bytes));
  EXPECT_TRUE(watched.says("light in"));
  EXPECT_EQ(watched.end(), 0);
}

TEST(Watch, RefusesWhatNeedsAnEnd) {
  const TemporaryFolder folder;
  write_small_room(folder);
  for (const char* other : {"--keep a", "--then true", "--strict", "--json", "--spread"}) {
    const Ran ran = run(folder, std::string("run small.toml --watch ") + other);
    EXPECT_EQ(ran.code, 2) << other;
    EXPECT_TRUE(says(ran.err, "--watch has no end")) << ran.err;
  }
}

TEST(WatchPage, ShowsValuesInABrowserAndTakesNewResults) {
  if (!test::has_browser()) GTEST_SKIP() << "chromium is not installed";
  const TemporaryFolder folder;
  write_small_room(folder);
  {
    Watched watched(folder);
    ASSERT_TRUE(watched.says("complete after"));
    const auto page = folder.path() / "small-results/watch";
    for (const char* name : {"data", "stamp"})  // the state that comes later
      std::filesystem::copy_file(page / (name + std::string(".js")),
                                 page / (name + std::string("-first.js")));
    watched.replace("[[rooms.luminaires]]", "[[rooms.luminaires]]\ndimming = 0.5");
    ASSERT_TRUE(watched.says("complete after", 2));
    EXPECT_EQ(watched.end(), 0);
  }
  // First the earlier files; then, as if they had just been saved, those of now.
  const std::string seen = test::seen_in_browser(folder.path() / "small-results/watch/page.html", R"js(
    const loadNow = load;
    let later = false;
    load = (file, done) => loadNow(later ? file : file.replace('.js', '-first.js'), done);
    const told = [];
    const note = () => {
      const plan = byId('plan');
      plan.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight' }));
      plan.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight' }));
      const box = plan.querySelector('rect').getBoundingClientRect();
      const byKey = byId('value').textContent;
      plan.dispatchEvent(new PointerEvent('pointermove', { clientX: box.x + box.width / 2, clientY: box.y + box.height / 2 }));
      told.push({ facts: byId('facts').textContent, byKey, byPointer: byId('value').textContent,
                  moved: byId('moved').rows.length, checks: byId('checks').rows.length });
    };
    setTimeout(() => { note(); later = true; }, 3000);
    setTimeout(() => {
      note();
      byId('steps').value = 'log';
      byId('steps').onchange();
      told.push({ marks: byId('marks').textContent });
      document.body.append(make('pre', JSON.stringify(told), { id: 'told' }));
    }, 6500);
  )js");
  const std::size_t at = seen.find("<pre id=\"told\">");
  ASSERT_NE(at, std::string::npos) << seen.substr(0, 2000);
  EXPECT_EQ(seen.find("CONSOLE"), std::string::npos) << seen.substr(0, 2000);
  const json told = json::parse(seen.substr(at + 15, seen.find("</pre>", at) - at - 15));
  const json results = json_in(folder.path() / "small-results/results.json");
  const json& plane = results["rooms"][0]["grids"][0];
  const double first = plane["direct_lx"][0].get<double>() + plane["interreflected_lx"][0].get<double>();
  const std::string lux = fmt::format(FMT_STRING("{:.{}f} lx"), first, first < 10 ? 1 : 0);
  EXPECT_EQ(told[1]["byPointer"].get<std::string>().rfind(lux, 0), 0u) << told;
  EXPECT_NE(told[0]["facts"], told[1]["facts"]);
  EXPECT_NE(told[1]["byKey"], told[1]["byPointer"]);
  EXPECT_EQ(told[0]["moved"], 0);
  EXPECT_GT(told[1]["moved"].get<int>(), 0);
  EXPECT_GT(told[1]["checks"].get<int>(), 0);
  EXPECT_TRUE(says(told[2]["marks"], "lx"));
}

}  // namespace watch_test
}  // namespace glow::cli
