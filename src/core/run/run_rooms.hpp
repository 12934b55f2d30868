#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/run/compute_room.hpp"
#include "core/run/workload.hpp"

namespace glow::run {

/// One room to compute. Its space is built when its turn comes, and let go when it is done: memory does not
/// grow with the building.
struct RoomJob {
  std::string name;
  Workload work;
  std::function<space::PlannedRoom()> plan;
  std::string day_key = {};  ///< see Memory
};

/// What to compute. All that it points at must outlive the run.
struct RunPlan {
  const model::Project* project = nullptr;
  std::vector<RoomJob> rooms;
  Accuracy accuracy;
  Studies studies;
  TransportStore* store = nullptr;  ///< may be null
  DayMemory* days = nullptr;        ///< likewise
  std::vector<Workload> after;      ///< rooms of variants that follow, of which the cost is told with these
  double memory_bytes = 1.5e9;      ///< that rooms side by side may take, by memory_of; one room always goes
};

/// A room that is done, or that failed.
struct FinishedRoom {
  record::RoomRecord record;
  bool reused = false;
  std::vector<views::Picture> pictures;
  std::vector<YearHours> hours;
  std::string fault;  ///< what went wrong: the machine's fault or ours; empty: nothing did
  /// Drawings that were made of it where it was computed, by name; nothing: they are yet to be made.
  std::optional<std::vector<std::pair<std::string, std::string>>> drawn = {};
};

/// Takes each room of the plan once by its number, in their order, as soon as it and all before it are done.
/// Never called from two threads at a time.
using RoomSink = std::function<void(std::size_t room, FinishedRoom finished)>;

/// One room of the plan; a fault of it is told, not thrown. Throws Cancelled.
FinishedRoom compute_job(const RunPlan& plan, std::size_t room, const Watch& watch);

/// Computes rooms, side by side where threads and memory allow: the records are the same either way. A fault
/// in one room leaves the others as they are. `watch_of`: for each room by its name. Throws Cancelled, and
/// what the sink throws.
void run_rooms(const RunPlan& plan, const std::function<Watch(const std::string& room)>& watch_of,
               const RoomSink& sink);

}  // namespace glow::run
