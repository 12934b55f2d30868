#pragma once

#include <filesystem>

#include "cli/open_project.hpp"
#include "cli/run_project.hpp"
#include "core/run/arrange_room.hpp"
#include "core/run/run_rooms.hpp"

namespace glow::cli {

/// Rooms of a run that are computed, with what to compute them by.
struct PlannedRun {
  run::RunPlan plan;
  std::vector<const OpenProject::Room*> rooms;  ///< by the plan's
  bool has_faults = false;                      ///< a room cannot be computed
  bool draws = false;                           ///< figures of each room by itself
  units::ShownUnits units;
};

/// `cache`: of traced light, where the options give no other. All must outlive it.
PlannedRun planned_run(const OpenProject& open, const RunOptions& options, transport::TransportStore* cache);

/// What a run of the project computes of each of its variants.
RunOptions options_of_variants(const RunOptions& options);

/// The same as run::run_rooms, by all processes of the crew: the largest first. `done`: told from the same
/// thread as the sink which share of the rooms is.
void share_rooms(const OpenProject& open, const PlannedRun& run,
                 const std::function<Watch(const std::string& room)>& watch_of, const run::RoomSink& sink,
                 const std::function<void(double share)>& done);

/// Fields for rooms that are yet to be arranged, by all processes of the crew; laid in the same rooms
/// everywhere. `lay` gets them in the order of the rooms.
void share_arrangements(const OpenProject& open, const std::vector<std::size_t>& rooms,
                        const std::function<run::SettledFields(std::size_t room)>& find,
                        const std::function<void(std::size_t room, const run::SettledFields&)>& lay,
                        const Watch& watch);

/// `run` for a process that does not lead: computes what it is given until it is let go.
int serve_run(const std::filesystem::path& project, const RunOptions& options);

}  // namespace glow::cli
