#pragma once

#include <chrono>
#include <filesystem>
#include <string>
#include <vector>

#include "cli/crew/shared_rooms.hpp"
#include "cli/open_project.hpp"
#include "cli/result_writer.hpp"
#include "cli/run_project.hpp"
#include "cli/terminal.hpp"
#include "core/run/run_rooms.hpp"
#include "files/output/output_folder.hpp"
#include "store/transport_cache.hpp"

namespace glow::cli {

/// One run of a project: rooms computed, and written as they are done. What it is given must outlive it.
class ProjectRun {
 public:
  ProjectRun(const OpenProject& open, const RunOptions& options, const std::filesystem::path& path);

  /// Whether hours that are asked for can be written; says so, or what they will take.
  bool hours_fit() const;
  /// All of it, results put in place. Throws files::OutputError, Cancelled.
  void compute();

  const record::RunRecord& run() const { return writer_.run(); }
  const files::OutputFolder& folder() const { return folder_; }
  const Problems& found() const { return found_; }
  /// For a person.
  std::string answer() const;
  std::size_t reused() const { return reused_; }
  /// 0, or what the faults of rooms come to.
  int fault_code() const { return fault_code_; }
  /// The program's: of faults, or of rooms that do not surely meet what is asked where that is to be told.
  int exit_code() const;

 private:
  record::RunRecord head() const;
  std::vector<Problem> warnings() const;
  void tell_cost();
  void tell_left(std::size_t room);
  void tell_done(double share);
  void keep_until(const OpenProject::Room* next);
  void take(const OpenProject::Room& room, run::FinishedRoom finished);
  void keep(record::RoomRecord& record, const OpenProject::Room& room);
  void add(const record::RoomRecord& record, const RoomFiles& files, const ResultWriter::Drawn& drawn);
  void fail(const OpenProject::Room& room, const std::string& fault, int code);

  const OpenProject& open_;
  const RunOptions& options_;
  const std::filesystem::path path_;
  files::OutputFolder folder_;
  store::TransportCache cache_;
  Progress progress_;
  ResultWriter writer_;
  Problems found_;
  record::RunRecord earlier_;  ///< rooms that are not to be computed keep theirs
  std::size_t written_ = 0;    ///< rooms of the project that are done with
  PlannedRun planned_;
  run::Cost cost_;
  std::chrono::steady_clock::time_point begin_{};
  std::chrono::steady_clock::time_point told_{};  ///< how far it is
  double done_ = 0;                               ///< share of the cost
  std::string answer_;                            ///< of each room
  std::size_t reused_ = 0;
  int fault_code_ = kDone;
};

}  // namespace glow::cli
