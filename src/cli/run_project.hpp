#pragma once

#include <atomic>
#include <filesystem>
#include <functional>
#include <map>
#include <string>

#include "cli/open_project.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/room_files.hpp"
#include "core/run/accuracy.hpp"
#include "core/run/daylight/day_memory.hpp"
#include "core/transport/transport_store.hpp"
#include "core/units/shown_units.hpp"
#include "files/results/hours_files.hpp"

namespace glow::cli {

struct RunOptions {
  std::filesystem::path output;  ///< empty: "<project>-results" beside the project
  bool strict = false;
  bool spread = false;  ///< study how surely built rooms meet the checks
  bool json = false;
  bool quiet = false;
  run::Accuracy accuracy = *run::Accuracy::parse("normal");
  RoomWish wish;                               ///< what rooms are meant
  std::vector<std::string> rooms;              ///< names of those; empty: all
  transport::TransportStore* store = nullptr;  ///< of traced light; null: the cache, where it is used
  run::DayMemory* days = nullptr;              ///< of daylight; null: none is kept
  std::filesystem::path kept_from;  ///< folder whose rooms stay where they are not meant; empty: `output`
  bool use_cache = true;            ///< of traced light beside the project
  bool pictures = true;             ///< small ones of each view
  std::optional<files::HoursFormat> hours = {};  ///< of years: all of them are written
  std::string variant;  ///< the only one that is computed; empty: the project and all of them
  bool figures = true;  ///< drawn as the rooms are done
  /// Rooms that were computed before, taken instead of those that lie in `kept_from`; null: those.
  const record::RunRecord* known = nullptr;
  /// Files of those of them that are as they were computed, in the same units; null: to be made.
  const std::map<std::string, RoomFiles>* known_files = nullptr;
  /// Told each room that is computed, whole.
  std::function<void(const record::RoomRecord&, const RoomFiles&)> on_room;
  std::vector<run::Workload> followed_by;     ///< rooms of variants, by RunPlan::after
  const std::atomic<bool>* cancel = nullptr;  ///< stops the run; null: Ctrl-C
  std::string keep;                           ///< name to keep the run under; empty: as the project says
  bool say_files = true;                      ///< name the files to open after the table
  std::optional<units::ShownUnits> units;     ///< instead of the project's
};

/// Computes every room, writes results, tables and figures, and prints the answer. Gives the exit code.
int run_project(const std::filesystem::path& project, const RunOptions& options);

/// Finds the arrangements that the project leaves to the tool, of the rooms that are computed. Where there is
/// none the room says so, and the others are computed.
void arrange_rooms(OpenProject& open, const RunOptions& options, const std::filesystem::path& path);

/// Where the traced light of a project's rooms is kept: "<project>-cache" beside it.
std::filesystem::path cache_folder(const std::filesystem::path& project);

/// Default output folder of a project file.
std::filesystem::path default_output(const std::filesystem::path& project);
/// Where results of a variant lie in it.
std::filesystem::path variant_output(const std::filesystem::path& output, const std::string& variant);

}  // namespace glow::cli
