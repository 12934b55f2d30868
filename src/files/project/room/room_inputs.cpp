#include "files/project/room/room_inputs.hpp"

#include <fmt/format.h>
#include <toml++/toml.h>
#define XXH_INLINE_ALL  // its code comes with the header; nothing to link
#include <xxhash.h>

#include <map>
#include <set>
#include <sstream>

#include "core/version.hpp"
#include "files/meshes/mesh_reader.hpp"
#include "files/project/variants.hpp"
#include "files/text/input_file.hpp"

namespace glow::files {
namespace {

using PartList = std::vector<model::InputPart>;

std::string print_of(std::string_view bytes) {
  return fmt::format(FMT_STRING("{:016x}"), XXH3_64bits(bytes.data(), bytes.size()));
}

/// As a parser sees it: comments, blanks and the order of keys do not count.
std::string text_of(const toml::node& node) {
  std::ostringstream text;
  toml::table table;
  table.insert("x", node);
  text << table;
  return text.str();
}

class InputParts {
 public:
  InputParts(std::string_view project_bytes, const model::Project& project,
             const std::filesystem::path& folder, const std::string& variant)
      : project_(project), folder_(folder) {
    try {
      document_ = toml::parse(project_bytes);
    } catch (const toml::parse_error&) {  // said by the project's reader
    }
    Problems said;  // likewise
    if (!variant.empty()) lay_variant_over(document_, variant, {}, said);
    document_.erase("variants");
    shared_.push_back({"the program", print_of(kVersion)});
    for (const auto& [key, node] : document_) {
      const std::string name(key.str());
      if (name == "rooms" || name == "outdoors" || name == "neighbours" || name == "luminaires" ||
          name == "figures" || name == "runs" || name == "report")
        continue;
      shared_.push_back({"[" + name + "]", print_of(text_of(node))});
    }
    for (const model::Obstruction& each : project.site.obstructions)
      if (each.object.mesh)
        shared_.push_back({"mesh " + each.object.mesh->file, print_of_file(each.object.mesh->file)});
    for (const model::OwnTable& table : project.tables)
      shared_.push_back({"table " + table.file, print_of_file(table.file)});
    if (project.year) shared_.push_back({"weather " + project.year->file, print_of_file(project.year->file)});
  }

  PartList of(std::size_t number) {
    const model::Room& room = project_.rooms[number];
    PartList parts;
    if (const toml::node* node = node_of(number)) parts.push_back({"the room", print_of(text_of(*node))});
    if (const toml::node* node = document_["neighbours"].node(); node && room.outdoors)
      parts.push_back({"the neighbours", print_of(text_of(*node))});
    std::set<std::string> marks, meshes;
    for (const model::LuminairePlacement& placement : room.luminaires) {
      marks.insert(placement.mark);
      for (const std::string& part : project_.marks_of(placement.mark)) marks.insert(part);
    }
    for (const model::ScheduledLuminaire& entry : project_.schedule)
      if (marks.count(entry.mark)) parts.push_back({"luminaire " + entry.mark, print_of_luminaire(entry)});
    for (const model::Object& object : room.objects)
      if (object.mesh) meshes.insert(object.mesh->file);
    if (room.ground.mesh) meshes.insert(room.ground.mesh->file);
    for (const std::string& mesh : meshes) parts.push_back({"mesh " + mesh, print_of_file(mesh)});
    parts.insert(parts.end(), shared_.begin(), shared_.end());
    return parts;
  }

  /// Of all that daylight depends on: not of luminaires, their control and what energy costs.
  std::string day_key(std::size_t number) {
    std::string key;
    const PartList parts = of(number);
    for (const model::InputPart& part : parts)
      if (part.what != "the room" && part.what != "[energy]" && part.what.rfind("luminaire ", 0) != 0)
        key += part.what + part.print;
    if (const toml::node* node = node_of(number); node && node->is_table()) {
      toml::table room = *node->as_table();
      for (const char* of_electric_light : {"luminaires", "control", "energy"}) room.erase(of_electric_light);
      key += text_of(room);
    }
    return print_of(key);
  }

 private:
  /// As it was written; areas outdoors come after the rooms. Null: there is none.
  const toml::node* node_of(std::size_t number) const {
    const toml::array* rooms = document_["rooms"].as_array();
    const std::size_t count = rooms ? rooms->size() : 0;
    return number < count ? document_["rooms"][number].node() : document_["outdoors"][number - count].node();
  }
  std::string print_of_luminaire(const model::ScheduledLuminaire& entry) {
    std::string own = entry.file.empty() ? std::string() : print_of_file(entry.file);
    if (const toml::node* node = document_["luminaires"][entry.mark].node()) own += text_of(*node);
    return print_of(own);
  }
  const std::string& print_of_file(const std::string& name) {
    const auto known = files_.find(name);
    if (known != files_.end()) return known->second;
    Problems ignored;  // what cannot be read was noted when it was
    const auto bytes = read_file(folder_ / name, kLargestMeshFile, {}, ignored);
    return files_[name] = print_of(bytes ? *bytes : std::string());
  }

  const model::Project& project_;
  const std::filesystem::path folder_;
  toml::table document_;
  PartList shared_;
  std::map<std::string, std::string> files_;
};

}  // namespace

std::vector<PartList> room_inputs(std::string_view project_bytes, const model::Project& project,
                                  const std::filesystem::path& folder, const std::string& variant) {
  InputParts inputs(project_bytes, project, folder, variant);
  std::vector<PartList> rooms;
  for (std::size_t r = 0; r < project.rooms.size(); ++r) rooms.push_back(inputs.of(r));
  return rooms;
}

std::vector<std::string> day_keys(std::string_view project_bytes, const model::Project& project,
                                  const std::filesystem::path& folder, const std::string& variant) {
  InputParts inputs(project_bytes, project, folder, variant);
  std::vector<std::string> keys;
  for (std::size_t r = 0; r < project.rooms.size(); ++r) keys.push_back(inputs.day_key(r));
  return keys;
}

}  // namespace glow::files
