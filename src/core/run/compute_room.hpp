#pragma once

#include <optional>
#include <string>

#include "core/model/maintenance.hpp"
#include "core/record/record.hpp"
#include "core/run/accuracy.hpp"
#include "core/run/daylight/day_memory.hpp"
#include "core/run/room_pass.hpp"
#include "core/run/room_pictures.hpp"
#include "core/transport/transport.hpp"

namespace glow::run {

/// All hours of light of a year on one grid, as the room is used.
struct YearHours {
  std::string grid;
  std::vector<int> numbers;  ///< daylight::hour_of_year
  Eigen::MatrixXf lux;       ///< the grid's readable points, by hours
};

/// What to do beyond computing and verifying.
struct Studies {
  std::optional<model::ToleranceWish> tolerance = {};
  std::optional<PictureChoice> pictures = {};
  bool hours = false;  ///< of years: all of them are handed on
  bool only_verdicts =
      false;  ///< no colours, nothing between points, no causes, nothing tried that would help
};

/// A room computed.
struct ComputedRoom {
  record::RoomRecord record;
  bool reused = false;  ///< nothing was traced: all that could be kept came from the store
  std::vector<views::Picture> pictures;
  std::vector<YearHours> hours;  ///< where they were asked for
};

/// What a room takes from others that were computed before.
struct Memory {
  Memory(TransportStore* store) : transports(store) {}
  Memory(TransportStore* store, DayMemory* of_days, std::string key)
      : transports(store), days(of_days), day_key(std::move(key)) {}

  TransportStore* transports = nullptr;  ///< may be null, as the next
  DayMemory* days = nullptr;
  std::string day_key;  ///< all of the project that daylight in the room depends on; empty: nothing is taken
};

/// Computes one room; refines while a check is undecided or the accuracy is not reached.
/// Safe to call for several rooms at once; the same record whatever else runs. Throws Cancelled.
ComputedRoom compute_room(const model::Project& project, const space::PlannedRoom& room,
                          const Accuracy& accuracy, const Memory& memory, const Watch& watch,
                          const Studies& studies = {});

}  // namespace glow::run
