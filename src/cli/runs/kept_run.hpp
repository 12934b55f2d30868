#pragma once

#include <filesystem>
#include <optional>
#include <string>

#include "cli/open_project.hpp"
#include "store/kept_runs.hpp"

namespace glow::cli {

/// Where a project's kept runs lie: "<project>-runs.db" beside it.
std::filesystem::path kept_runs_file(const std::filesystem::path& project);

/// Whether a run may be kept under this name, looked at before it is computed; says why not.
bool can_keep(const std::filesystem::path& project, const std::string& name);

/// Keeps a run that was just made, under a name, or unnamed where `name` is empty. Says what became of it;
/// false where it could not be kept.
bool keep_run(const OpenProject& open, const std::filesystem::path& project,
              const std::filesystem::path& results, const record::RunRecord& run, const std::string& name);

/// "2026-03-01 14:05 UTC".
std::string time_words(std::int64_t seconds);

}  // namespace glow::cli
