#pragma once

#include <gtest/gtest.h>
#include <sys/wait.h>

#include <algorithm>
#include <cstdlib>
#include <nlohmann/json.hpp>
#include <sstream>

#include "files/output/embedded_files.hpp"
#include "files/results/results_json.hpp"
#include "files/results/results_reader.hpp"
#include "temporary_folder.hpp"
#include "test_files.hpp"

namespace glow::cli {

using nlohmann::json;
using test::TemporaryFolder;

using test::content_of;
using test::json_in;
using test::json_of;
using test::test_data;

struct Ran {
  int code = -1;
  std::string out, err;
};

/// Results that a run wrote are lossless: read and written again they are the same, byte for byte.
inline void expect_lossless_results(const TemporaryFolder& folder) {
  for (const auto& entry : std::filesystem::recursive_directory_iterator(folder.path())) {
    if (entry.path().filename() != "results.json") continue;
    const std::string bytes = content_of(entry.path());
    Problems problems;
    const auto run = files::read_results(bytes, entry.path().string(), problems);
    if (!run) continue;  // not ours: other tests put such files there
    const std::string again = files::results_json(*run);
    const auto differ = std::mismatch(bytes.begin(), bytes.end(), again.begin(), again.end());
    const auto from = std::size_t(differ.first - bytes.begin());
    EXPECT_TRUE(again == bytes) << "at " << from << ": " << bytes.substr(from > 200 ? from - 200 : 0, 300)
                                << "\nagain: " << again.substr(from > 50 ? from - 50 : 0, 150);
  }
}

/// Runs `glowgrid WORDS` with the folder as current directory.
inline Ran run_as_it_is(const TemporaryFolder& folder, const std::string& words,
                        const std::string& before = "") {
  const std::string command = "cd '" + folder.path().string() + "' && " + before +
                              " '" GLOWGRID_PROGRAM "' " + words + " > .stdout 2> .stderr < /dev/null";
  const int status = std::system(command.c_str());
  if (words.rfind("run ", 0) == 0 && status == 0) expect_lossless_results(folder);
  return {WIFEXITED(status) ? WEXITSTATUS(status) : -1, content_of(folder.path() / ".stdout"),
          content_of(folder.path() / ".stderr")};
}

/// The same; `run` makes no pictures of rooms, which take longer than most of what is tested.
inline Ran run(const TemporaryFolder& folder, const std::string& words, const std::string& before = "") {
  return run_as_it_is(folder, words.rfind("run ", 0) == 0 ? words + " --no-views" : words, before);
}

/// The demo's photometric files and, as millrace.toml, its first room with nothing in it; with one text of
/// the project replaced.
inline void write_project(const TemporaryFolder& folder, const std::string& from = "",
                          const std::string& to = "") {
  for (const files::EmbeddedFile& file : files::embedded_demo()) {
    std::string content(file.bytes);
    if (file.name == "millrace.toml") content = content_of(test_data("cli/plain_room.toml"));
    if (file.name == "millrace.toml" && !from.empty()) {
      const std::size_t at = content.find(from);
      ASSERT_NE(at, std::string::npos) << from;
      content.replace(at, from.size(), to);
    }
    folder.write(file.name, content);
  }
}

/// All tables of a run's results.
inline std::string shown(const TemporaryFolder& folder, const std::string& results = "millrace.toml") {
  const Ran ran = run(folder, "show " + results + " all -q");
  EXPECT_EQ(ran.code, 0) << ran.err;
  return ran.out;
}

/// small.toml, a furnished room, with one text of it replaced, and the photometric files.
inline void write_small_room(const TemporaryFolder& folder, const std::string& from = "",
                             const std::string& to = "") {
  write_project(folder);
  std::string content = content_of(test_data("cli/small_room.toml"));
  const std::size_t at = content.find(from);
  ASSERT_NE(at, std::string::npos) << from;
  content.replace(at, from.size(), to);
  folder.write("small.toml", content);
}

inline bool says(const std::string& text, const std::string& words) {
  return text.find(words) != std::string::npos;
}

}  // namespace glow::cli
