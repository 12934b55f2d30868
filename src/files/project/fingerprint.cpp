#include "files/project/fingerprint.hpp"

#include <fmt/format.h>
#include <toml++/toml.h>
#define XXH_INLINE_ALL  // its code comes with the header; nothing to link
#include <xxhash.h>

#include <set>
#include <sstream>

#include "core/version.hpp"
#include "files/meshes/mesh_reader.hpp"
#include "files/project/project_reader.hpp"
#include "files/text/input_file.hpp"

namespace glow::files {
namespace {

std::uint64_t hash_of(std::string_view bytes, std::uint64_t before) {
  return XXH3_64bits_withSeed(bytes.data(), bytes.size(), before);
}

/// The project's text as a parser sees it, without what only changes pictures.
std::string without_figures(std::string_view bytes) {
  try {
    toml::table document = toml::parse(bytes);
    document.erase("figures");
    std::ostringstream text;
    text << document;
    return text.str();
  } catch (const toml::parse_error&) {
    return std::string(bytes);
  }
}

}  // namespace

std::string fingerprint(std::string_view project_bytes, const model::Project& project,
                        const std::filesystem::path& folder) {
  std::uint64_t hash = hash_of(kVersion, 0);
  hash = hash_of(without_figures(project_bytes), hash);
  std::set<std::string> names;
  for (const model::ScheduledLuminaire& entry : project.schedule) names.insert(entry.file);
  for (const model::OwnTable& table : project.tables) names.insert(table.file);
  for (const model::Room& room : project.rooms)
    for (const model::Object& object : room.objects)
      if (object.mesh) names.insert(object.mesh->file);
  for (const std::string& name : names) {
    Problems ignored;  // what cannot be read was noted when it was
    if (const auto bytes = read_file(folder / name, kLargestMeshFile, {}, ignored))
      hash = hash_of(*bytes, hash);
  }
  return fmt::format(FMT_STRING("{:016x}"), hash);
}

}  // namespace glow::files
