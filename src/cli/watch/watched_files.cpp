#include "cli/watch/watched_files.hpp"

#include <chrono>

#include "cli/terminal.hpp"
#include "files/project/named_files.hpp"

namespace glow::cli {
namespace fs = std::filesystem;
namespace {

constexpr std::chrono::milliseconds kBetweenLooks(40), kStill(60);

}  // namespace

WatchedFiles::WatchedFiles(const fs::path& project) : project_(project) {
  looker_ = std::thread([this] {
    while (!ends_) {
      look();
      std::this_thread::sleep_for(kBetweenLooks);
    }
  });
}

WatchedFiles::~WatchedFiles() {
  ends_ = true;
  looker_.join();
}

WatchedFiles::Stamp WatchedFiles::stamp_of(const fs::path& file) {
  std::error_code error;
  Stamp stamp;
  stamp.written = fs::last_write_time(file, error);
  stamp.bytes = fs::file_size(file, error);
  return stamp;
}

void WatchedFiles::look_at(const OpenProject& open) {
  std::map<fs::path, Stamp> stamps;
  const fs::path folder = fs::absolute(project_).parent_path();
  stamps[project_] = {};
  if (open.text)
    for (const auto& [path, text] : open.text->files()) stamps[path] = {};
  for (const std::string& name : files::named_files(open.project, folder)) stamps[folder / name] = {};
  const std::lock_guard<std::mutex> lock(mutex_);
  // What was saved while the project was being read has another stamp than before, and counts.
  for (auto& [path, stamp] : stamps) {
    const auto known = stamps_.find(path);
    stamp = known != stamps_.end() ? known->second : stamp_of(path);
  }
  stamps_ = std::move(stamps);
}

void WatchedFiles::look() {
  if (is_interrupted()) changed_ = true;
  const std::lock_guard<std::mutex> lock(mutex_);
  for (auto& [path, stamp] : stamps_)
    if (!(stamp_of(path) == stamp)) changed_ = true;
}

bool WatchedFiles::wait() {
  while (!changed_ && !is_interrupted()) std::this_thread::sleep_for(kBetweenLooks / 2);
  // Editors write in steps: what was saved has to lie still.
  for (bool still = false; !still && !is_interrupted();) {
    std::this_thread::sleep_for(kStill);
    const std::lock_guard<std::mutex> lock(mutex_);
    still = true;
    for (auto& [path, stamp] : stamps_) {
      const Stamp now = stamp_of(path);
      still = still && now == stamp;
      stamp = now;
    }
  }
  changed_ = false;
  return !is_interrupted();
}

}  // namespace glow::cli
