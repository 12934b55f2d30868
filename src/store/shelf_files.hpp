#pragma once

#include <cstdint>
#include <filesystem>
#include <string>
#include <vector>

#include "store/shelf.hpp"

namespace glow::store {

/// What tells that a file is still the one that was read.
struct FileStamp {
  std::int64_t size = 0, modified_ns = 0, changed_ns = 0, inode = 0;
  bool operator==(const FileStamp& o) const {
    return size == o.size && modified_ns == o.modified_ns && changed_ns == o.changed_ns && inode == o.inode;
  }
};

/// A file on the shelf.
struct ShelfFile {
  std::string shown;  ///< as it was named, or below the folder that was
  std::string path;   ///< from the root, links followed
  FileStamp stamp;
};

/// All the files that some paths name, each once, by `path`; and the folders that were walked through, from
/// the root. What is not there or cannot be opened goes to `refusals`.
struct ShelfWalk {
  std::vector<ShelfFile> files;
  std::vector<std::string> folders;
};
ShelfWalk walk_shelf(const std::vector<std::string>& paths, std::vector<Refusal>& refusals);

}  // namespace glow::store
