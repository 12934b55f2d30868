#pragma once

#include <map>

#include "core/model/room_parts.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// Finishes by name: the project's own [materials.NAME] tables, then the built-in everyday ones.
class Materials {
 public:
  Materials() = default;
  explicit Materials(std::map<std::string, model::Finish> own) : own_(std::move(own)) {}
  /// Null when there is none of that name.
  const model::Finish* find(const std::string& name) const;
  std::vector<std::string> names() const;

 private:
  std::map<std::string, model::Finish> own_;
};

/// The [materials.NAME] tables.
Materials read_materials(TomlTable& root);

/// data/finishes.toml, by name.
const std::map<std::string, model::Finish>& everyday_finishes();

/// By `material` = a name, or `reflectance` = a number; nothing when neither is there or the name is unknown
/// (which is noted).
std::optional<model::Finish> read_finish(TomlTable& table, const Materials& materials);

}  // namespace glow::files
