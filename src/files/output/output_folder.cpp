#include "files/output/output_folder.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <cstdio>
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

/// Into a file aside, which then takes the place of the one that is meant.
void write_aside(const fs::path& path, const std::function<void(const fs::path& aside)>& write) {
  const fs::path target = fs::absolute(path).lexically_normal();
  make_folders(target.parent_path());
  fs::path aside = target;
  aside += fmt::format(FMT_STRING(".unfinished-{}"), ::getpid());
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

OutputFolder::OutputFolder(fs::path target) : target_(fs::absolute(target).lexically_normal()) {
  if (!target_.has_filename()) target_ = target_.parent_path();  // "out/" names the folder out
  std::error_code error;
  if (fs::exists(target_, error) && !fs::is_directory(target_, error))
    fail("write into", target_, "it is a file, not a folder");
  make_folders(target_);
  aside_ = target_ / fmt::format(FMT_STRING(".unfinished-{}"), ::getpid());
  fs::create_directory(aside_, error);
  if (error) fail("write into", target_, error.message());
}

OutputFolder::~OutputFolder() {
  std::error_code error;
  fs::remove_all(aside_, error);
  fs::remove(target_, error);  // only goes when it is empty: a run that failed leaves no new folder behind
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

void OutputFolder::commit(const std::vector<std::string>& stale) {
  std::error_code error;
  fs::remove(target_ / kResultsFile, error);
  for (const std::string& name : names())
    if (name != kResultsFile) move(aside_ / name, target_ / name);
  for (const std::string& name : stale)
    if (std::find(names_.begin(), names_.end(), name) == names_.end()) fs::remove(target_ / name, error);
  if (std::find(names_.begin(), names_.end(), kResultsFile) != names_.end())
    move(aside_ / kResultsFile, target_ / kResultsFile);
}

}  // namespace glow::files
