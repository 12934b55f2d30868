#include "files/project/project_text.hpp"

#include <fmt/format.h>
#include <toml++/toml.h>

#include <algorithm>

#include "files/project/project_reader.hpp"
#include "files/text/input_file.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::files {
namespace {

/// The line between the files of the one text.
constexpr const char* kSeam = "# ======== the next part of the project ========\n";

struct Parts {
  std::vector<std::string> names;
  bool anywhere = false;
};

/// What the first file names; none where it cannot be parsed, which its reader says.
Parts parts_of(const std::string& text) {
  Parts parts;
  if (line_nested_too_deeply(text) != 0) return parts;
  try {
    const toml::table document = toml::parse(text);
    parts.anywhere = document["project"]["files_outside"].value_or(false);
    if (const toml::array* list = document["project"]["parts"].as_array())
      for (const toml::node& name : *list)
        if (const auto word = name.value<std::string>()) parts.names.push_back(*word);
  } catch (const toml::parse_error&) {
  }
  return parts;
}

/// Takes out the "format = 1" that a part begins with, which would else belong to the last table before it.
/// False where something else stands before its first table.
bool take_format(std::string& text, std::string& format) {
  for (std::size_t begin = 0; begin < text.size();) {
    const std::size_t end = std::min(text.find('\n', begin), text.size() - 1) + 1;
    const std::string line = text.substr(begin, end - begin);
    const std::string_view words = trimmed(std::string_view(line).substr(0, line.find_first_of("\r\n")));
    if (!words.empty() && words.front() == '[') return true;
    if (!words.empty() && words.front() != '#') {
      if (!format.empty() || words.substr(0, 6) != "format") return false;
      format = line;
      text.replace(begin, end - begin, line.back() == '\n' ? "\n" : "");
      begin += line.back() == '\n' ? 1 : 0;
      continue;
    }
    begin = end;
  }
  return true;
}

}  // namespace

std::optional<ProjectText> ProjectText::read(const std::filesystem::path& path, Problems& problems) {
  const auto bytes = read_file(path, kLargestProjectFile, {}, problems);
  if (!bytes) return std::nullopt;
  ProjectText project;
  project.add(path, *bytes);
  const Parts parts = parts_of(*bytes);
  const std::filesystem::path folder = path.parent_path();
  for (const std::string& name : parts.names) {
    const Place place{path.string(), 0, 0};
    const auto found = named_path(folder, name, parts.anywhere, place, problems);
    const auto own = found ? read_file(*found, kLargestProjectFile, place, problems) : std::nullopt;
    if (!own) return std::nullopt;
    Piece probe;
    std::string text = *own;
    if (!take_format(text, probe.format)) {
      problems.error(
          "P101", {(folder / name).string(), 0, 0},
          "a part of a project begins with its tables ([[rooms]], [[floors]], [luminaires.MARK], ...), after "
          "nothing but \"format = 1\"");
      return std::nullopt;
    }
    project.add(folder / name, *own);
  }
  return project;
}

void ProjectText::add(std::filesystem::path path, std::string own) {
  Piece piece;
  std::string text = own;
  if (!pieces_.empty()) {
    if (!text_.empty() && text_.back() != '\n') text_ += '\n';
    text_ += kSeam;
    take_format(text, piece.format);
  }
  piece.name = path.string();
  piece.path = std::move(path);
  piece.own = std::move(own);
  piece.first_line = 1 + int(std::count(text_.begin(), text_.end(), '\n'));
  text_ += text;
  pieces_.push_back(std::move(piece));
}

std::vector<std::pair<std::filesystem::path, std::string>> ProjectText::files() const {
  std::vector<std::pair<std::filesystem::path, std::string>> all;
  for (const Piece& piece : pieces_) all.emplace_back(piece.path, piece.own);
  return all;
}

std::map<std::string, std::string> ProjectText::sources() const {
  std::map<std::string, std::string> sources;
  for (const Piece& piece : pieces_) sources[piece.name] = piece.own;
  return sources;
}

void ProjectText::place(Problems& problems) const {
  if (pieces_.size() < 2) return;
  problems.move_places([this](Place& place) {
    if (place.file != pieces_.front().name) return;
    for (auto piece = pieces_.rbegin(); piece != pieces_.rend(); ++piece)
      if (place.line >= piece->first_line) {
        place.file = piece->name;
        place.line -= piece->first_line - 1;
        return;
      }
  });
}

std::vector<std::pair<std::filesystem::path, std::string>> ProjectText::changed(
    const std::string& text) const {
  std::vector<std::pair<std::filesystem::path, std::string>> files;
  std::size_t begin = 0;
  for (const Piece& piece : pieces_) {
    const std::size_t seam = std::min(text.find(kSeam, begin), text.size());
    std::string own = text.substr(begin, seam - begin);
    if (!piece.format.empty()) {
      const std::size_t at = piece.own.find(piece.format);  // its line was left empty
      if (own.compare(at, 1, "\n") == 0) own.replace(at, 1, piece.format);
    }
    if (own != piece.own && own != piece.own + "\n") files.emplace_back(piece.path, own);
    begin = std::min(seam + std::string(kSeam).size(), text.size());
  }
  return files;
}

}  // namespace glow::files
