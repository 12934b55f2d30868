#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "core/record/record.hpp"

namespace glow::report {

/// The page beside `run --watch`: files in a folder, no server; an open browser takes what is written.
class WatchPage {
 public:
  /// Writes the page itself. Throws files::OutputError where the folder takes nothing.
  explicit WatchPage(const std::filesystem::path& folder);

  /// The file to open.
  std::filesystem::path file() const { return folder_ / "page.html"; }

  /// What is told of a state of the project.
  struct State {
    std::string words;                ///< "light in 0.12 s; moments and pictures follow"
    std::vector<std::string> faults;  ///< of the project as it is saved; the results are then those before
    const record::RunRecord* before = nullptr;  ///< that changed rooms are held against; null: nothing
  };
  /// Takes the place of what the page shows. Throws as the constructor.
  void show(const record::RunRecord& run, const State& state);

 private:
  std::filesystem::path folder_;
  int stamp_ = 0;
};

}  // namespace glow::report
