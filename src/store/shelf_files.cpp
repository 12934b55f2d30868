#include "store/shelf_files.hpp"

#include <fmt/format.h>
#include <sys/stat.h>

#include <algorithm>
#include <cctype>
#include <cerrno>
#include <cstring>

namespace glow::store {
namespace {

namespace fs = std::filesystem;

bool is_photometric_name(const fs::path& path) {
  std::string suffix = path.extension().string();
  for (char& c : suffix) c = char(std::tolower(static_cast<unsigned char>(c)));
  return suffix == ".ies" || suffix == ".ldt" || suffix == ".eul";
}

constexpr std::int64_t nanoseconds(const timespec& t) {
  return std::int64_t(t.tv_sec) * 1'000'000'000 + t.tv_nsec;
}

class Walk {
 public:
  explicit Walk(std::vector<Refusal>& refusals) : refusals_(refusals) {}

  void add(const std::string& name) {
    std::error_code error;
    const fs::path root = fs::canonical(name, error);
    if (error) return refuse(name, error.message());
    if (!fs::is_directory(root, error)) return add_file(name, root.string());
    result.folders.push_back(root.string());
    fs::recursive_directory_iterator entry(root, error), end;
    if (error) return refuse(name, error.message());
    while (entry != end) {
      const fs::path path = entry->path();
      std::error_code step;
      if (is_photometric_name(path) && !entry->is_directory(step))
        add_file((fs::path(name) / path.lexically_relative(root)).string(), path.string());
      next(entry, path);
    }
  }

  ShelfWalk result;

 private:
  /// Steps on; a folder that cannot be opened is told and passed by.
  void next(fs::recursive_directory_iterator& entry, const fs::path& at) {
    std::error_code error;
    if (entry->is_directory(error) && !entry->is_symlink(error)) {
      const fs::directory_iterator inside(at, error);
      if (error) {
        refuse(at.string(), error.message());
        entry.disable_recursion_pending();
      }
    }
    entry.increment(error);
    if (error) refuse(at.string(), error.message());
  }

  void add_file(const std::string& shown, const std::string& path) {
    struct stat found {};
    if (::stat(path.c_str(), &found) != 0) return refuse(shown, std::strerror(errno));
    if (!S_ISREG(found.st_mode)) return refuse(shown, "is not a file");
    result.files.push_back({shown,
                            path,
                            {std::int64_t(found.st_size), nanoseconds(found.st_mtim),
                             nanoseconds(found.st_ctim), std::int64_t(found.st_ino)}});
  }
  void refuse(const std::string& name, const std::string& reason) { refusals_.push_back({name, reason}); }

  std::vector<Refusal>& refusals_;
};

}  // namespace

ShelfWalk walk_shelf(const std::vector<std::string>& paths, std::vector<Refusal>& refusals) {
  Walk walk(refusals);
  for (const std::string& path : paths) walk.add(path);
  auto& files = walk.result.files;
  std::stable_sort(files.begin(), files.end(),
                   [](const ShelfFile& a, const ShelfFile& b) { return a.path < b.path; });
  files.erase(std::unique(files.begin(), files.end(),
                          [](const ShelfFile& a, const ShelfFile& b) { return a.path == b.path; }),
              files.end());
  return std::move(walk.result);
}

}  // namespace glow::store
