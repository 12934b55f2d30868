#include "files/output/folder_lock.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <fstream>

#include "files/output/output_folder.hpp"

namespace glow::files {
namespace {

constexpr const char* kLockFile = ".in-use";

/// Whether the path still leads to the open file: its holder takes it away at the end.
bool is_same_file(int descriptor, const std::filesystem::path& path) {
  struct stat open {
  }, named{};
  return ::fstat(descriptor, &open) == 0 && ::lstat(path.c_str(), &named) == 0 &&
         open.st_ino == named.st_ino && open.st_dev == named.st_dev;
}

}  // namespace

FolderLock::FolderLock(const std::filesystem::path& folder) : file_(folder / kLockFile) {
  for (;;) {
    descriptor_ = ::open(file_.c_str(), O_RDWR | O_CREAT | O_CLOEXEC | O_NOFOLLOW, 0644);
    if (descriptor_ < 0)
      throw OutputError(
          fmt::format(FMT_STRING("cannot write into \"{}\": {}"), folder.string(), std::strerror(errno)));
    if (::flock(descriptor_, LOCK_EX | LOCK_NB) != 0) {
      std::string holder;
      std::getline(std::ifstream(file_) >> std::ws, holder);
      ::close(descriptor_);
      throw OutputError(
          fmt::format(FMT_STRING("another run{} is writing into \"{}\"; wait for it, or give this "
                                 "one another folder with -o"),
                      holder.empty() ? "" : " (process " + holder.substr(0, 20) + ")", folder.string()));
    }
    if (is_same_file(descriptor_, file_)) break;
    ::close(descriptor_);
  }
  const std::string own = fmt::format(FMT_STRING("{}\n"), ::getpid());
  if (::ftruncate(descriptor_, 0) == 0) (void)!::write(descriptor_, own.data(), own.size());
}

FolderLock::~FolderLock() {
  ::unlink(file_.c_str());
  ::close(descriptor_);
}

}  // namespace glow::files
