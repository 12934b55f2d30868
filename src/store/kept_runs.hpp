#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "core/model/input_part.hpp"
#include "store/database.hpp"

namespace glow::store {

/// What a run was computed from, and its results; the same file is kept once for all runs that have it.
struct KeptRun {
  struct Room {
    std::string name;
    std::vector<model::InputPart> inputs;
  };
  std::string name;
  bool named = true;         ///< by somebody; else by itself, and it goes when there are too many of its kind
  std::int64_t made_at = 0;  ///< seconds since 1970, universal time
  std::size_t met = 0, judged = 0;  ///< rooms
  std::vector<Room> rooms;
  std::string damage;  ///< what is wrong with the entry; empty: nothing
};

/// A file of a kept run: its path from the project's folder, "../" where it lies outside. The results are
/// kept as kKeptResults.
struct KeptFile {
  std::string name, bytes;
};
inline constexpr const char* kKeptResults = "results.json";

/// Runs of a project that were kept, in one SQLite file beside it. No entry is ever overwritten. Safe for
/// several processes: a run is kept whole or not at all, whenever the machine stops. All throw DatabaseError.
class KeptRuns {
 public:
  /// Opens, or makes.
  explicit KeptRuns(const std::filesystem::path& file);

  /// False where there is a run of that name. `most_unnamed`: unnamed runs beyond this number go, the oldest
  /// first; 0: all stay. The first of `files` is the project.
  bool keep(const KeptRun& run, const std::vector<KeptFile>& files, std::size_t most_unnamed);
  /// In the order in which they were kept. Damaged ones are there, and say so.
  std::vector<KeptRun> list();
  /// Its files, the project first; nothing where there is no such run, or, with `fault`, where it is damaged.
  std::optional<std::vector<KeptFile>> files(const std::string& name, std::string& fault);
  /// One of its files, as above.
  std::optional<std::string> file(const std::string& name, const std::string& of, std::string& fault);
  /// False where there is none.
  bool drop(const std::string& name);
  /// A name that no run has: "run 12".
  std::string free_name();
  /// Bytes on the disk.
  std::uintmax_t size() const;

 private:
  std::optional<std::string> blob(const std::string& key);
  void forget_unused();

  const std::filesystem::path path_;
  Database database_;
};

}  // namespace glow::store
