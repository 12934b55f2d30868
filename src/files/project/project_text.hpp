#pragma once

#include <filesystem>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/problems/problems.hpp"

namespace glow::files {

/// A project's text, whether it lies in one file or, by [project] parts = [...], in several: all of them as
/// one, the first file first, and which line of it is whose.
class ProjectText {
 public:
  /// Nothing and errors where a file cannot be read or is no part of a project.
  static std::optional<ProjectText> read(const std::filesystem::path& path, Problems& problems);

  const std::string& text() const { return text_; }
  bool has_parts() const { return pieces_.size() > 1; }
  /// Its files, the first one first, each with its own text.
  std::vector<std::pair<std::filesystem::path, std::string>> files() const;
  /// Texts by name, for quoting lines.
  std::map<std::string, std::string> sources() const;
  /// Gives problems that were found in the one text their places in the files.
  void place(Problems& problems) const;
  /// The files that differ after the one text was changed, with their new texts. Lines that part the files
  /// must have been left as they were.
  std::vector<std::pair<std::filesystem::path, std::string>> changed(const std::string& text) const;

 private:
  struct Piece {
    std::filesystem::path path;
    std::string name;    ///< as problems name it
    std::string own;     ///< the file's text
    int first_line = 1;  ///< of the one text
    std::string format;  ///< the line of its own that the one text leaves out
  };
  void add(std::filesystem::path path, std::string own);

  std::vector<Piece> pieces_;
  std::string text_;
};

}  // namespace glow::files
