#pragma once

#include <filesystem>
#include <functional>
#include <iosfwd>
#include <optional>
#include <stdexcept>
#include <string>
#include <string_view>
#include <vector>

#include "files/output/folder_lock.hpp"

namespace glow::files {

/// An output file or folder could not be written; `what()` says which and why.
class OutputError : public std::runtime_error {
 public:
  using std::runtime_error::runtime_error;
};

/// Writes one file whole or not at all: aside first, then renamed over whatever is there. Makes its folder.
/// Throws OutputError.
void write_whole(const std::filesystem::path& path, std::string_view bytes);
/// The same for what is too large to be held twice: `body` writes it. Not from two threads for one path.
void write_whole(const std::filesystem::path& path, const std::function<void(std::ostream&)>& body);

/// Writes a file into a folder that is itself aside (OutputFolder::staged). Throws OutputError.
void write_staged(const std::filesystem::path& path, std::string_view bytes);

/// Writes a run's files whole or not at all: everything goes to a folder aside first and is moved into place
/// only when all of it is there. Files of the previous run that are not written again are taken away, other
/// files are left alone. While files are being moved there is no results.json, so nothing half-done looks
/// whole; what cannot be moved puts the earlier run back. One writer at a time; what a killed one left behind
/// is swept. A link to a folder stays a link.
class OutputFolder {
 public:
  /// Makes the folder aside, in `target`. Throws OutputError, also when another process writes there.
  explicit OutputFolder(std::filesystem::path target);
  /// Takes the folder aside away when `commit` was not reached.
  ~OutputFolder();
  OutputFolder(const OutputFolder&) = delete;
  OutputFolder& operator=(const OutputFolder&) = delete;

  /// `name`: path below the folder, with forward slashes. Throws OutputError.
  void write(const std::string& name, std::string_view bytes);
  /// Where `name` lies until `commit`, for programs that read or write it; makes its folder and lists it as
  /// ours.
  std::filesystem::path staged(const std::string& name);
  /// Forgets a file that was listed by `staged` but was not made.
  void forget(const std::string& name);
  /// Names of all files so far, sorted.
  std::vector<std::string> names() const;
  /// Moves everything into place, `results.json` last. `stale` names files of an earlier run.
  void commit(const std::vector<std::string>& stale);

  const std::filesystem::path& target() const { return target_; }

 private:
  void put_in_place(const std::string& name);
  void take_away(const std::string& name);
  void undo();

  std::filesystem::path target_;
  bool made_ = false;  ///< the folder was not there before
  std::optional<FolderLock> lock_;
  std::filesystem::path aside_;
  std::vector<std::string> replaced_, placed_;  ///< while files are moved
  std::vector<std::string> names_;
};

inline constexpr const char* kResultsFile = "results.json";

}  // namespace glow::files
