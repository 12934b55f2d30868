#pragma once

#include <functional>
#include <optional>

#include "store/database.hpp"
#include "store/shelf_files.hpp"

namespace glow::store {

/// What one content turned out to be: a luminaire, or the reason why not.
struct Content {
  std::string refusal;
  shelf::LuminaireFacts facts;
  std::size_t findings = 0;
};

/// The shelf as it is kept: contents by their checksum, and which files have which. Everything throws
/// DatabaseError.
class ShelfTables {
 public:
  /// Opens, or makes.
  explicit ShelfTables(const std::filesystem::path& file);

  struct KnownFile {
    std::string path;
    FileStamp stamp;
    bool settled = false;  ///< while the stamp is the same, so is the content
    Content content;
  };
  using Sink = std::function<void(KnownFile&&)>;
  /// All that is known below a folder, or of one file.
  void below(const std::string& folder, const Sink& sink) { select(folder + "/", folder + "0", sink); }
  void of(const std::string& path, const Sink& sink) { select(path, path + '\0', sink); }
  std::optional<Content> content(const std::string& key);

  struct NewFile {
    std::string path;
    FileStamp stamp;
    bool settled = false;
    std::string key;
    const Content* content = nullptr;
  };
  /// All or nothing.
  void keep(const std::vector<NewFile>& files);
  /// Files that are gone, and contents that no file has any more.
  void forget(const std::vector<std::string>& paths);

 private:
  void select(const std::string& from, const std::string& to, const Sink& sink);

  Database database_;
};

}  // namespace glow::store
