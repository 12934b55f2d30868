#pragma once

#include <filesystem>
#include <optional>

#include "core/problems/problems.hpp"
#include "core/record/record.hpp"

namespace glow::cli {

/// Results of a run, and where they lie.
struct OpenResults {
  std::filesystem::path file;  ///< the results.json
  record::RunRecord run;
};

/// A results.json, the folder that holds one, or a project whose results lie where `run` puts them. Of a
/// project, its units and [figures] count as they are now, and rooms that are no longer as they were computed
/// are marked and warned of (R011). Nothing comes back, and `problems` says why, where there are none.
std::optional<OpenResults> open_results(const std::filesystem::path& path, Problems& problems);

}  // namespace glow::cli
