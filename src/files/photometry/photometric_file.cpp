#include "files/photometry/photometric_file.hpp"

#include "files/text/input_file.hpp"

namespace glow::files {

Companion beside(const std::filesystem::path& path) {
  return [folder = path.parent_path()](const std::string& name) -> std::optional<std::string> {
    Problems ignored;  // the reader says what a missing companion means
    return read_file(folder / name, kLargestPhotometricFile, {}, ignored);
  };
}

std::optional<photometry::Photometry> read_photometric_file(const std::filesystem::path& path,
                                                            Problems& problems, const Place& named_at) {
  const auto bytes = read_file(path, kLargestPhotometricFile, named_at, problems);
  return bytes ? read_photometry(*bytes, path.string(), problems, beside(path)) : std::nullopt;
}

}  // namespace glow::files
