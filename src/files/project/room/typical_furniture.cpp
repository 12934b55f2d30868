#include "files/project/room/typical_furniture.hpp"

#include <toml++/toml.h>

#include "files/output/embedded_files.hpp"
#include "files/project/ranges.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {
namespace {

using units::Dimension;

}  // namespace

const std::map<std::string, TypicalFurniture>& typical_furniture() {
  static const std::map<std::string, TypicalFurniture> list = [] {
    const EmbeddedFile* file = embedded_table("furniture.toml");
    const toml::table document = toml::parse(file->bytes, file->name);
    Problems problems;
    TomlTable root(document, "furniture", file->name, problems);
    std::map<std::string, TypicalFurniture> result;
    for (auto& [name, table] : root.named_tables("furniture"))
      result[name] = {table.position("size").value_or(Vec3::Ones()),
                      table.quantity("thickness", Dimension::length, range::kHeight).value_or(0),
                      table.quantity("leg", Dimension::length, range::kHeight).value_or(0),
                      table.quantity("bottom", Dimension::length, range::kHeight).value_or(0),
                      table.count("shelves", 0, kMostShelves).value_or(0),
                      table.text("finish").value_or("")};
    return result;
  }();
  return list;
}

}  // namespace glow::files
