#pragma once

#include <filesystem>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/lighting/weights.hpp"
#include "core/record/record.hpp"
#include "core/run/workload.hpp"
#include "core/space/build_space.hpp"
#include "files/project/project_text.hpp"

namespace glow::cli {

/// A project with all that it names, read and checked.
struct OpenProject {
  /// A room that can be planned. Plans are made when they are needed, since they are large.
  struct Room {
    const model::Room* written = nullptr;
    geometry::Polygon outline;
    run::Workload work;
    std::vector<record::InputPart> inputs;
    std::string day_key;    ///< see run::Memory
    bool arranged = false;  ///< its luminaires were laid by the search of this run, which traced its light
    std::string fault;      ///< why it cannot be computed although it can be planned; empty: it can
    const std::string& name() const { return written->name; }
  };

  std::string variant;                     ///< of it; empty: as it is
  std::optional<files::ProjectText> text;  ///< nothing where it cannot be read
  model::Project project;
  std::vector<Room> rooms;
  std::vector<standards::RequirementTable> standards;  ///< the main one first
  Problems problems;                                   ///< everything found, ordered by place
  std::map<std::string, std::string> sources;
  bool usable = false;  ///< no errors: `rooms` holds every room

  /// One of `rooms`, ready to compute.
  space::PlannedRoom plan(const Room& room) const;
  lighting::Weights weights_of(const space::PlannedRoom& room) const {
    return lighting::planned_weights(project, *room.room, room.space);
  }
};

/// Reads the project file, its photometric files and its standard, and plans every room once, for what is
/// wrong with it. Never throws for bad input: what is wrong is in `problems`.
/// `variant`: as this variant of it; empty: as it is.
std::unique_ptr<OpenProject> open_project(const std::filesystem::path& path, const std::string& variant = {});

/// Of its rooms.
std::vector<std::string> names_of(const OpenProject& open);

/// "millrace.toml: 2 errors, nothing was calculated".
std::string error_summary(const OpenProject& open, const std::filesystem::path& path);

}  // namespace glow::cli
