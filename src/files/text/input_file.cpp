#include "files/text/input_file.hpp"

#include <fmt/format.h>

#include <cerrno>
#include <cstring>
#include <fstream>
#include <sstream>

namespace glow::files {

std::optional<std::string> read_file(const std::filesystem::path& path, std::size_t limit,
                                     const Place& named_at, Problems& problems) {
  std::error_code error;
  const auto status = std::filesystem::status(path, error);
  if (!std::filesystem::exists(status)) {
    problems.error("R001", named_at, fmt::format(FMT_STRING("there is no file \"{}\""), path.string()));
    return std::nullopt;
  }
  if (!std::filesystem::is_regular_file(status)) {
    problems.error("R001", named_at, fmt::format(FMT_STRING("\"{}\" is not a file"), path.string()));
    return std::nullopt;
  }
  const auto size = std::filesystem::file_size(path, error);
  if (!error && size > limit) {
    problems.error(
        "R002", named_at,
        fmt::format(FMT_STRING("\"{}\" has {} bytes; at most {} are read"), path.string(), size, limit));
    return std::nullopt;
  }
  std::ifstream file(path, std::ios::binary);
  std::ostringstream content;
  if (file) content << file.rdbuf();
  if (!file || file.bad() || (size > 0 && content.str().empty())) {
    problems.error("R001", named_at,
                   fmt::format(FMT_STRING("\"{}\" cannot be read: {}"), path.string(), std::strerror(errno)));
    return std::nullopt;
  }
  return content.str();
}

std::optional<std::filesystem::path> named_path(const std::filesystem::path& folder, const std::string& name,
                                                bool anywhere, const Place& named_at, Problems& problems) {
  namespace fs = std::filesystem;
  const fs::path path = folder / name;
  if (anywhere) return path;
  std::error_code error;
  const fs::path root = fs::weakly_canonical(fs::absolute(folder.empty() ? fs::path(".") : folder), error);
  const fs::path relative = fs::weakly_canonical(fs::absolute(path), error).lexically_relative(root);
  if (!error && !relative.empty() && *relative.begin() != "..") return path;
  problems.error(
      "R003", named_at,
      fmt::format(FMT_STRING("\"{}\" lies outside the project's folder; put it there, or allow it with "
                             "files_outside = true in [project]"),
                  name));
  return std::nullopt;
}

}  // namespace glow::files
