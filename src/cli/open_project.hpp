#pragma once

#include <filesystem>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/lighting/weights.hpp"
#include "core/space/build_space.hpp"

namespace glow::cli {

/// A project with all that it names, read and checked.
struct OpenProject {
  model::Project project;
  std::vector<space::PlannedRoom> rooms;
  std::vector<standards::RequirementTable> standards;  ///< the main one first
  std::string inputs;                                  ///< fingerprint of the files
  Problems problems;                                   ///< everything found, ordered by place
  std::map<std::string, std::string> sources;
  bool usable = false;  ///< no errors: `rooms` holds every room

  lighting::Weights weights_of(const space::PlannedRoom& room) const {
    return lighting::planned_weights(project, *room.room, room.space);
  }
};

/// Reads the project file, its photometric files and its standard, and builds every room. Never throws for
/// bad input: what is wrong is in `problems`.
std::unique_ptr<OpenProject> open_project(const std::filesystem::path& path);

/// "millrace.toml: 2 errors, nothing was calculated".
std::string error_summary(const OpenProject& open, const std::filesystem::path& path);

}  // namespace glow::cli
