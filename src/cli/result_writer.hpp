#pragma once

#include <fstream>
#include <optional>
#include <string>
#include <vector>

#include "cli/room_files.hpp"
#include "core/parallel/parallel.hpp"
#include "core/record/record.hpp"
#include "core/views/picture.hpp"
#include "files/output/output_folder.hpp"
#include "files/results/hours_files.hpp"

namespace glow::cli {

/// Writes what a run finds, room by room: results.json, tables of values, figures. Of a room that is written
/// only what tells how it stands among the others is kept, so memory does not grow with the building (unless
/// figures share one scale, which needs all of them). Nothing is in place before `commit`.
class ResultWriter {
 public:
  /// Usual figures of a room by name, as SVG; nothing: to be drawn.
  using Drawn = std::optional<std::vector<std::pair<std::string, std::string>>>;

  /// `run`: all but rooms, warnings and files. Without `figures` none is drawn; `draw` makes them later.
  ResultWriter(files::OutputFolder& folder, record::RunRecord run, bool figures);

  /// A room that was computed, its numbers as they are written (files::as_written), its files, and what was
  /// drawn of it already. Throws files::OutputError, Cancelled.
  void add(const record::RoomRecord& room, const RoomFiles& files, const Drawn& drawn, Problems& problems,
           const Watch& watch);
  /// Pictures of a room. Throws as `add`.
  void add_pictures(const std::vector<views::Picture>& pictures, Problems& problems, const Watch& watch);
  /// All hours of its year. Throws as `add`.
  void add_hours(const record::RoomRecord& room, const std::vector<run::YearHours>& hours,
                 files::HoursFormat format);
  /// Those of a room that keeps its results, of the files of the run that they are from.
  void keep_pictures(const std::string& room, const std::vector<std::string>& files);
  /// A room without results.
  void leave_out(record::UncomputedRoom room) { run_.not_computed.push_back(std::move(room)); }
  /// The status of the project, the end of results.json; then all of it is put in place of an earlier run's
  /// files. Throws as `add`.
  void commit(const std::vector<Problem>& warnings, Problems& problems, const Watch& watch);

  /// What was found, rooms without their values.
  const record::RunRecord& run() const { return run_; }

 private:
  void draw(const record::RoomRecord& room, Problems& problems, const Watch& watch);

  files::OutputFolder& folder_;
  record::RunRecord run_;
  const bool figures_;
  std::ofstream document_;
  std::string schedule_;                     ///< of luminaires
  std::vector<record::RoomRecord> undrawn_;  ///< whole, waiting for the scale of all
};

}  // namespace glow::cli
