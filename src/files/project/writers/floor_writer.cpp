#include <fmt/format.h>

#include "core/plans/drawing_units.hpp"
#include "files/project/writers/building_writer.hpp"
#include "files/project/writers/toml_words.hpp"

namespace glow::files {
namespace {

using plans::BlockUse;

/// Drawing units keep all their digits.
std::string exact(double value) {
  return fmt::format(FMT_STRING("{}"), value == 0 ? 0.0 : value);
}

std::string point(const Vec2& p) {
  return "[" + exact(p.x()) + ", " + exact(p.y()) + "]";
}

std::string list(const std::vector<std::string>& words) {
  std::string text = "[";
  for (const std::string& word : words) text += (text.size() > 1 ? ", " : "") + toml_quoted(word);
  return text + "]";
}

std::vector<std::string> blocks_of(const plans::Request& request, BlockUse::Kind kind) {
  std::vector<std::string> blocks;
  for (const BlockUse& use : request.blocks)
    if (use.kind == kind) blocks.push_back(use.block);
  return blocks;
}

std::string signs(const char* key, const std::vector<std::string>& layers,
                  const std::vector<std::string>& blocks) {
  if (layers.empty() && blocks.empty()) return {};
  std::string text = std::string(key) + " = { ";
  if (!layers.empty()) text += "layers = " + list(layers);
  if (!blocks.empty()) text += (layers.empty() ? "" : ", ") + std::string("blocks = ") + list(blocks);
  return text + " }\n";
}

std::string unit_text(const plans::UnitWish& unit) {
  std::string text;
  if (unit.known)
    text = fmt::format(FMT_STRING("known_distance = {{ from = {}, to = {}, is = {} }}\n"),
                       point(unit.known->from), point(unit.known->to), toml_number(unit.known->metres));
  if (!unit.metres_per_unit) return text;
  const std::string name = plans::unit_name(*unit.metres_per_unit);
  return text + "unit = " + (plans::unit_of(name) ? toml_quoted(name) : exact(*unit.metres_per_unit)) + "\n";
}

/// What of a drawing is what.
std::string request_text(const plans::Request& request) {
  const plans::Request usual;
  std::string text;
  if (request.window)
    text += "window = [" + point(request.window->first) + ", " + point(request.window->second) + "]\n";
  text += fmt::format(FMT_STRING("rooms = {{ from = \"{}\""), plans::to_string(request.from));
  if (!request.room_layers.empty()) text += ", layers = " + list(request.room_layers);
  text += " }\n";
  if (!request.wall_layers.empty())
    text +=
        fmt::format(FMT_STRING("walls = {{ layers = {}, widest_gap = {}, thinnest = {}, thickest = {} }}\n"),
                    list(request.wall_layers), toml_number(request.widest_gap_m),
                    toml_number(request.thinnest_wall_m), toml_number(request.thickest_wall_m));
  text += signs("doors", request.door_layers, blocks_of(request, BlockUse::Kind::door));
  text += signs("windows", request.window_layers, blocks_of(request, BlockUse::Kind::window));
  std::string texts;
  if (!request.text_layers.empty()) texts += "layers = " + list(request.text_layers);
  if (!request.name_tag.empty())
    texts += (texts.empty() ? "" : ", ") + ("name_attribute = " + toml_quoted(request.name_tag));
  if (!request.number_tag.empty())
    texts += (texts.empty() ? "" : ", ") + ("number_attribute = " + toml_quoted(request.number_tag));
  if (!texts.empty()) text += "texts = { " + texts + " }\n";
  const auto columns = blocks_of(request, BlockUse::Kind::column);
  if (!columns.empty()) text += "columns = " + list(columns) + "\n";
  std::string luminaires;
  for (const BlockUse& use : request.blocks)
    if (use.kind == BlockUse::Kind::luminaire)
      luminaires +=
          (luminaires.empty() ? "" : ", ") + toml_key(use.block) + " = " + toml_quoted(use.furniture);
  if (!luminaires.empty()) text += "luminaires = { " + luminaires + " }\n";
  std::string furniture;
  for (const BlockUse& use : request.blocks)
    if (use.kind == BlockUse::Kind::furniture)
      furniture += (furniture.empty() ? "" : ", ") + toml_key(use.block) + " = " +
                   toml_quoted(use.furniture.empty() ? "box" : use.furniture);
  if (!furniture.empty()) text += "furniture = { " + furniture + " }\n";
  if (request.join_m != usual.join_m) text += "joint = " + toml_number(request.join_m) + "\n";
  return text;
}

std::string drawing_text(const plans::FloorWish& wish) {
  std::string text = "\n[floors.drawing]\nfile = " + toml_quoted(wish.file) + "\n";
  if (!wish.storey.empty()) text += "storey = " + toml_quoted(wish.storey) + "\n";
  if (wish.y_up) text += std::string("up = \"") + (*wish.y_up ? "y" : "z") + "\"\n";
  text += unit_text(wish.unit);
  if (wish.origin) text += "origin = " + point(*wish.origin) + "\n";
  if (wish.rotate_deg != 0) text += "rotate = " + exact(wish.rotate_deg) + "\n";
  return wish.storey.empty() ? text + request_text(wish.request) : text;
}

}  // namespace

std::string floor_text(const ImportedFloor& floor) {
  const auto end = [](bool assumed) {
    return assumed ? "                          # assumed: put in the true one\n" : "\n";
  };
  std::string text = "\n[[floors]]\nname = " + toml_quoted(floor.floor.name) +
                     "\nlevel = " + toml_number(floor.floor.level_m) + end(floor.level_assumed) +
                     "height = " + toml_number(floor.floor.height_m.value_or(kUsualHeight)) +
                     end(floor.height_assumed);
  return text + drawing_text(*floor.floor.drawing);
}

}  // namespace glow::files
