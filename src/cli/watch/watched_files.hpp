#pragma once

#include <atomic>
#include <filesystem>
#include <map>
#include <mutex>
#include <thread>

#include "cli/open_project.hpp"

namespace glow::cli {

/// Looks again and again at a project's file and at those that it names, and tells when one was saved.
class WatchedFiles {
 public:
  explicit WatchedFiles(const std::filesystem::path& project);
  ~WatchedFiles();
  WatchedFiles(const WatchedFiles&) = delete;
  WatchedFiles& operator=(const WatchedFiles&) = delete;

  /// From now on the files of this state of the project are looked at. What was saved after the last `wait`
  /// counts, also before this call.
  void look_at(const OpenProject& open);
  /// True from when a file was saved, or Ctrl-C came, until `wait` ends.
  const std::atomic<bool>& changed() const { return changed_; }
  /// Waits until `changed` is true, and what was saved lies still. False: Ctrl-C.
  bool wait();
  /// Files that are looked at.
  std::size_t size() const { return stamps_.size(); }

 private:
  /// When a file was last written, and how large it is.
  struct Stamp {
    std::filesystem::file_time_type written;
    std::uintmax_t bytes = 0;
    bool operator==(const Stamp& o) const { return written == o.written && bytes == o.bytes; }
  };
  static Stamp stamp_of(const std::filesystem::path& file);
  void look();

  std::filesystem::path project_;
  std::mutex mutex_;  ///< of the stamps
  std::map<std::filesystem::path, Stamp> stamps_;
  std::atomic<bool> changed_{false}, ends_{false};
  std::thread looker_;
};

}  // namespace glow::cli
