#pragma once

#include <filesystem>

namespace glow::files {

/// Keeps a folder to one writer at a time, among processes. Gone with the process, however that ends.
class FolderLock {
 public:
  /// Throws OutputError when another process holds it, with its number.
  explicit FolderLock(const std::filesystem::path& folder);
  ~FolderLock();
  FolderLock(const FolderLock&) = delete;
  FolderLock& operator=(const FolderLock&) = delete;

 private:
  std::filesystem::path file_;
  int descriptor_ = -1;
};

}  // namespace glow::files
