#include "store/shelf.hpp"

#include <fmt/format.h>
#include <time.h>

#include <algorithm>
#include <cstdlib>
#include <functional>
#include <mutex>
#include <optional>

#include "core/transport/content_key.hpp"
#include "core/version.hpp"
#include "files/photometry/photometric_file.hpp"
#include "files/text/input_file.hpp"
#include "store/shelf_tables.hpp"

namespace glow::store {
namespace {

namespace fs = std::filesystem;

constexpr std::size_t kBatch = 512;                 // files between two times of keeping
constexpr std::int64_t kFreshness = 2'000'000'000;  // ns: a later change may leave the times as they are
constexpr std::size_t kLongestReason = 200;

std::int64_t now_ns() {
  timespec now{};
  ::clock_gettime(CLOCK_REALTIME, &now);
  return std::int64_t(now.tv_sec) * 1'000'000'000 + now.tv_nsec;
}

std::string reason_in(const Problems& problems) {
  for (const Problem& problem : problems.all()) {
    if (problem.severity != Severity::error) continue;
    const std::string line =
        problem.place.line > 0 ? fmt::format(FMT_STRING("line {}: "), problem.place.line) : std::string();
    return printable((line + problem.text).substr(0, kLongestReason));
  }
  return "cannot be read";
}

/// One file as it was read now.
struct Reading {
  std::string key;  ///< empty: the file could not even be opened, and nothing is kept of it
  bool settled = false;
  Content content;
};

/// Reads, unless what the content holds is known.
Reading read_now(const ShelfFile& file,
                 const std::function<std::optional<Content>(const std::string&)>& known) {
  Reading reading;
  const std::int64_t begun = now_ns();
  Problems problems;
  const auto bytes = files::read_file(file.path, files::kLargestPhotometricFile, {}, problems);
  if (!bytes) {
    reading.content.refusal = reason_in(problems);
    return reading;
  }
  transport::ContentChecksum checksum;
  checksum.add(bytes->data(), bytes->size());
  reading.key = checksum.text();
  reading.settled = std::max(file.stamp.modified_ns, file.stamp.changed_ns) < begun - kFreshness;
  if (auto content = known(reading.key)) {
    reading.content = std::move(*content);
    return reading;
  }
  // What hangs on another file as well is read every time, and kept under both.
  const files::Companion beside = files::beside(file.path);
  const auto photometry = files::read_photometry(*bytes, file.path, problems, [&](const std::string& name) {
    const auto other = beside(name);
    checksum.add(name.data(), name.size());
    if (other) checksum.add(other->data(), other->size());
    reading.settled = false;
    reading.key = checksum.text();
    return other;
  });
  reading.content.findings = problems.all().size();
  if (photometry)
    reading.content.facts = shelf::facts_of(*photometry);
  else
    reading.content.refusal = reason_in(problems);
  return reading;
}

/// The store, or none: whatever goes wrong with it, the files can still be read.
class Keeper {
 public:
  Keeper(const fs::path& file, std::string& why_not) : file_(file), why_not_(why_not) {
    if (file.empty())
      why_not_ = "neither XDG_CACHE_HOME nor HOME says where";
    else
      guarded([&] { tables_.emplace(file_); });
  }

  /// `work` with the store. A damaged one is made anew, and the work done once more.
  void with(const std::function<void(ShelfTables&)>& work) {
    if (tables_) guarded([&] { work(*tables_); });
  }

 private:
  void guarded(const std::function<void()>& work) {
    try {
      work();
    } catch (const DatabaseError& error) {
      tables_.reset();
      if (!error.damaged() || renewed_) {
        why_not_ = error.what();
        return;
      }
      renewed_ = true;
      std::error_code ignored;  // opening tells
      for (const char* suffix : {"", "-journal", "-wal", "-shm"})
        fs::remove(file_.string() + suffix, ignored);
      guarded([&] {
        tables_.emplace(file_);
        work();
      });
    }
  }

  fs::path file_;
  std::string& why_not_;
  std::optional<ShelfTables> tables_;
  bool renewed_ = false;
};

class Look {
 public:
  Look(const std::vector<std::string>& paths, const fs::path& database)
      : walk_(walk_shelf(paths, shelf_.refusals)), keeper_(database, shelf_.why_not_kept) {}

  Shelf take(const Watch& watch) {
    recall();
    read_fresh(watch);
    for (std::size_t i = 0; i < walk_.files.size(); ++i) {
      Content& content = contents_[i];
      if (content.refusal.empty())
        shelf_.entries.push_back({walk_.files[i].shown, std::move(content.facts), content.findings});
      else
        shelf_.refusals.push_back({walk_.files[i].shown, content.refusal});
    }
    std::sort(shelf_.entries.begin(), shelf_.entries.end(),
              [](const shelf::Entry& a, const shelf::Entry& b) { return a.file < b.file; });
    std::sort(shelf_.refusals.begin(), shelf_.refusals.end(),
              [](const Refusal& a, const Refusal& b) { return a.file < b.file; });
    return std::move(shelf_);
  }

 private:
  /// What is known of the files as they are now; what is known of files that are gone is forgotten.
  void recall() {
    std::vector<std::string> gone;
    const auto look = [&](ShelfTables& tables) {
      contents_.assign(walk_.files.size(), {});
      known_.assign(walk_.files.size(), false);
      gone.clear();
      const auto take = [&](ShelfTables::KnownFile&& known) {
        const auto at = std::lower_bound(walk_.files.begin(), walk_.files.end(), known.path,
                                         [](const ShelfFile& f, const std::string& p) { return f.path < p; });
        if (at == walk_.files.end() || at->path != known.path) {
          gone.push_back(known.path);
        } else if (known.settled && known.stamp == at->stamp) {
          const auto i = std::size_t(at - walk_.files.begin());
          contents_[i] = std::move(known.content);
          known_[i] = true;
        }
      };
      for (const std::string& folder : walk_.folders) tables.below(folder, take);
      for (const ShelfFile& file : walk_.files)
        if (!is_below_a_folder(file.path)) tables.of(file.path, take);
    };
    contents_.resize(walk_.files.size());
    known_.resize(walk_.files.size());
    keeper_.with(look);
    std::sort(gone.begin(), gone.end());
    gone.erase(std::unique(gone.begin(), gone.end()), gone.end());
    shelf_.gone = gone.size();
    if (!gone.empty()) keeper_.with([&](ShelfTables& tables) { tables.forget(gone); });
  }

  bool is_below_a_folder(const std::string& path) const {
    return std::any_of(walk_.folders.begin(), walk_.folders.end(),
                       [&](const std::string& folder) { return path.rfind(folder + "/", 0) == 0; });
  }

  void read_fresh(const Watch& watch) {
    std::vector<std::size_t> fresh;
    for (std::size_t i = 0; i < walk_.files.size(); ++i)
      if (!known_[i]) fresh.push_back(i);
    shelf_.fresh = fresh.size();
    const Watch quiet{{}, watch.cancel};
    for (std::size_t begin = 0; begin < fresh.size(); begin += kBatch) {
      watch.report("photometric files", double(begin) / double(fresh.size()));
      const std::size_t end = std::min(begin + kBatch, fresh.size());
      std::vector<Reading> readings(end - begin);
      parallel_for(end - begin, quiet, "photometric files", [&](std::size_t k) {
        readings[k] =
            read_now(walk_.files[fresh[begin + k]], [&](const std::string& key) { return remembered(key); });
      });
      keep(fresh, begin, readings);
    }
  }

  /// From any thread.
  std::optional<Content> remembered(const std::string& key) {
    const std::lock_guard<std::mutex> lock(mutex_);
    std::optional<Content> content;
    keeper_.with([&](ShelfTables& tables) { content = tables.content(key); });
    return content;
  }

  void keep(const std::vector<std::size_t>& fresh, std::size_t begin, std::vector<Reading>& readings) {
    std::vector<ShelfTables::NewFile> files;
    for (std::size_t k = 0; k < readings.size(); ++k) {
      const ShelfFile& file = walk_.files[fresh[begin + k]];
      if (!readings[k].key.empty())
        files.push_back({file.path, file.stamp, readings[k].settled, readings[k].key, &readings[k].content});
    }
    keeper_.with([&](ShelfTables& tables) { tables.keep(files); });
    for (std::size_t k = 0; k < readings.size(); ++k)
      contents_[fresh[begin + k]] = std::move(readings[k].content);
  }

  Shelf shelf_;
  ShelfWalk walk_;
  Keeper keeper_;
  std::mutex mutex_;  // of the keeper, while files are read
  std::vector<Content> contents_;
  std::vector<char> known_;
};

}  // namespace

Shelf look_at_shelf(const std::vector<std::string>& paths, const fs::path& database, const Watch& watch) {
  return Look(paths, database).take(watch);
}

fs::path shelf_database() {
  const char* cache = std::getenv("XDG_CACHE_HOME");
  const char* home = std::getenv("HOME");
  const bool has_cache = cache && fs::path(cache).is_absolute();
  if (!has_cache && !(home && *home)) return {};
  // Numbers of another release of the program are not these.
  return (has_cache ? fs::path(cache) : fs::path(home) / ".cache") / "glowgrid" /
         fmt::format(FMT_STRING("shelf-{}-{}.sqlite"), kVersion, shelf::kFactsRelease);
}

}  // namespace glow::store
