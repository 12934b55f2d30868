#include "files/output/output_folder.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <fstream>

namespace glow::files {
namespace fs = std::filesystem;
namespace {

[[noreturn]] void fail(const std::string& doing, const fs::path& path, const std::string& reason) {
  throw OutputError(fmt::format(FMT_STRING("cannot {} \"{}\": {}"), doing, path.string(), reason));
}

void make_folders(const fs::path& path) {
  std::error_code error;
  fs::create_directories(path, error);
  if (error) fail("make the folder", path, error.message());
}

void move(const fs::path& from, const fs::path& to) {
  make_folders(to.parent_path());
  std::error_code error;
  fs::rename(from, to, error);
  if (error) fail("write", to, error.message());
}

/// `named`: what a message calls the file.
void write_bytes(const fs::path& path, const fs::path& named, std::string_view bytes) {
  std::FILE* file = std::fopen(path.c_str(), "wb");
  if (!file) fail("write", named, std::strerror(errno));
  const bool written =
      std::fwrite(bytes.data(), 1, bytes.size(), file) == bytes.size() && std::fflush(file) == 0;
  const int reason = errno;
  if (std::fclose(file) != 0 || !written) fail("write", named, std::strerror(written ? errno : reason));
}

}  // namespace

namespace {

constexpr const char* kUnfinished = ".unfinished-";

/// What writers of this file that are gone left behind.
void sweep_beside(const fs::path& target) {
  const std::string start = target.filename().string() + kUnfinished;
  std::error_code error;
  std::vector<fs::path> left;
  for (fs::directory_iterator entry(target.parent_path(), error), end; !error && entry != end;
       entry.increment(error)) {
    const std::string name = entry->path().filename().string();
    if (name.rfind(start, 0) != 0) continue;
    const long process = std::strtol(name.c_str() + start.size(), nullptr, 10);
    if (process > 0 && ::kill(pid_t(process), 0) != 0 && errno == ESRCH) left.push_back(entry->path());
  }
  for (const fs::path& path : left) fs::remove(path, error);
}

/// Into a file aside, which then takes the place of the one that is meant.
void write_aside(const fs::path& path, const std::function<void(const fs::path& aside)>& write) {
  const fs::path target = fs::absolute(path).lexically_normal();
  make_folders(target.parent_path());
  fs::path aside = target;
  aside += fmt::format(FMT_STRING("{}{}"), kUnfinished, ::getpid());
  sweep_beside(target);
  try {
    write(aside);
    move(aside, target);
  } catch (const OutputError&) {
    std::error_code error;
    fs::remove(aside, error);
    throw;
  }
}

}  // namespace

void write_staged(const fs::path& path, std::string_view bytes) {
  write_bytes(path, path.filename(), bytes);
}

void write_whole(const fs::path& path, std::string_view bytes) {
  write_aside(path, [&](const fs::path& aside) { write_bytes(aside, path, bytes); });
}

void write_whole(const fs::path& path, const std::function<void(std::ostream&)>& body) {
  write_aside(path, [&](const fs::path& aside) {
    std::ofstream file(aside, std::ios::binary);
    body(file);
    file.close();
    if (!file) fail("write", path, std::strerror(errno));
  });
}

namespace {

constexpr const char* kEarlier = ".earlier";

/// What a writer that was killed left behind; the caller holds the folder.
void sweep(const fs::path& folder) {
  std::error_code error;
  std::vector<fs::path> left;
  for (fs::directory_iterator entry(folder, error), end; !error && entry != end; entry.increment(error))
    if (entry->path().filename().string().rfind(kUnfinished, 0) == 0) left.push_back(entry->path());
  for (const fs::path& path : left) fs::remove_all(path, error);
}

/// Whether the name leads to a file below the folder without leaving it by a link.
bool is_own_file(const fs::path& folder, const std::string& name) {
  const fs::path relative(name);
  if (relative.is_absolute() || name.find('\0') != std::string::npos) return false;
  fs::path path = folder;
  for (const fs::path& part : relative) {
    if (part == ".." || part == ".") return false;
    std::error_code error;
    if (path != folder && !fs::is_directory(fs::symlink_status(path, error))) return false;
    path /= part;
  }
  std::error_code error;
  return fs::is_regular_file(fs::symlink_status(path, error));
}

}  // namespace

OutputFolder::OutputFolder(fs::path target) : target_(fs::absolute(target).lexically_normal()) {
  if (!target_.has_filename()) target_ = target_.parent_path();  // "out/" names the folder out
  std::error_code error;
  if (fs::exists(target_, error) && !fs::is_directory(target_, error))
    fail("write into", target_, "it is a file, not a folder");
  made_ = !fs::exists(fs::symlink_status(target_, error));
  make_folders(target_);
  lock_.emplace(target_);
  sweep(target_);
  aside_ = target_ / fmt::format(FMT_STRING("{}{}"), kUnfinished, ::getpid());
  fs::create_directory(aside_, error);
  if (error) fail("write into", target_, error.message());
}

OutputFolder::~OutputFolder() {
  std::error_code error;
  fs::remove_all(aside_, error);
  lock_.reset();
  if (made_) fs::remove(target_, error);  // goes only when empty: a run that failed leaves no folder behind
}

fs::path OutputFolder::staged(const std::string& name) {
  const fs::path path = aside_ / name;
  make_folders(path.parent_path());
  names_.push_back(name);
  return path;
}

void OutputFolder::forget(const std::string& name) {
  std::error_code error;
  fs::remove(aside_ / name, error);
  names_.erase(std::remove(names_.begin(), names_.end(), name), names_.end());
}

void OutputFolder::write(const std::string& name, std::string_view bytes) {
  write_bytes(staged(name), target_ / name, bytes);
}

std::vector<std::string> OutputFolder::names() const {
  std::vector<std::string> sorted = names_;
  std::sort(sorted.begin(), sorted.end());
  return sorted;
}

/// The earlier file of that name goes aside.
void OutputFolder::take_away(const std::string& name) {
  if (!is_own_file(target_, name)) return;
  move(target_ / name, aside_ / kEarlier / name);
  replaced_.push_back(name);
}

void OutputFolder::put_in_place(const std::string& name) {
  take_away(name);
  move(aside_ / name, target_ / name);
  placed_.push_back(name);
}

/// As it was before.
void OutputFolder::undo() {
  std::error_code error;
  for (const std::string& name : placed_) fs::rename(target_ / name, aside_ / name, error);
  for (const std::string& name : replaced_) fs::rename(aside_ / kEarlier / name, target_ / name, error);
}

void OutputFolder::commit(const std::vector<std::string>& stale) {
  const std::vector<std::string> own = names();
  const auto is_own = [&](const std::string& name) {
    return std::binary_search(own.begin(), own.end(), name);
  };
  try {
    if (is_own(kResultsFile)) take_away(kResultsFile);
    for (const std::string& name : own)
      if (name != kResultsFile) put_in_place(name);
    for (const std::string& name : stale)
      if (!is_own(name)) take_away(name);
    if (is_own(kResultsFile)) put_in_place(kResultsFile);
  } catch (const OutputError&) {
    undo();
    throw;
  }
}

}  // namespace glow::files
