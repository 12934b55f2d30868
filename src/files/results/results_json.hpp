#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "core/model/project.hpp"
#include "core/assess/room_result.hpp"

namespace glow::files {

/// Everything that a run found, with the names of its files.
struct RunResult {
  const model::Project* project = nullptr;
  std::string standard;
  std::string inputs;  ///< fingerprint of the files that the results come from
  std::vector<assess::RoomResult> rooms;
  std::vector<const space::Space*> not_computed;  ///< left out of this run
  std::vector<Problem> warnings;
  std::vector<std::string> files;  ///< written beside results.json
};

/// The document as described in docs/results.md; SI units, same bytes for the same input.
std::string results_json(const RunResult& run);

/// The files that an earlier run lists in its results.json; empty when there is none or it is not ours.
/// Names that point outside of the folder are left out.
std::vector<std::string> files_of_earlier_run(const std::filesystem::path& results_file);

/// x_m,y_m,z_m,normal_x,normal_y,normal_z,direct_lx,interreflected_lx,total_lx, or ft and fc; header row,
/// maintained values.
std::string grid_csv(const assess::GridReading& grid, const units::ShownUnits& units);

}  // namespace glow::files
