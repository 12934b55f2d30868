#pragma once

#include <memory>

#include "cli/run_project.hpp"

namespace glow::cli {

/// Variants of a project that was computed.
struct VariantRuns {
  const OpenProject& base;
  const record::RunRecord& computed;              ///< rooms of the project as it is, whole
  const std::map<std::string, RoomFiles>& files;  ///< of those rooms
  const std::vector<std::unique_ptr<OpenProject>>& variants;
  const std::vector<std::string>& names;  ///< of the variants
  const std::filesystem::path& project;
  const std::filesystem::path& output;  ///< the project's; variants have folders below it
};

/// Rooms of a variant that are not as the project has them; of those that are, the project's results hold.
std::vector<std::string> rooms_that_differ(const OpenProject& variant, const OpenProject& base,
                                           const std::vector<std::string>& chosen);

/// What is to be computed of them: of the chosen rooms those that are not as the project has them.
std::vector<run::Workload> work_of_variants(const OpenProject& base,
                                            const std::vector<std::unique_ptr<OpenProject>>& variants,
                                            const std::vector<std::string>& chosen);

/// Computes them, several at once, into folders of their own: only rooms that differ, whose light is traced
/// only where their surfaces do; then tells them side by side. The worst exit code. `asked`: the project's
/// options.
int run_variants(const VariantRuns& runs, const RunOptions& asked);

}  // namespace glow::cli
