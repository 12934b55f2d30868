#include "files/project/writers/placement_writer.hpp"

#include <fmt/format.h>

#include "files/project/writers/toml_text.hpp"
#include "files/project/writers/toml_words.hpp"

namespace glow::files {
namespace {

const char* word_of(model::Mounting mounting) {
  switch (mounting) {
    case model::Mounting::recessed:
      return "recessed";
    case model::Mounting::surface:
      return "surface";
    case model::Mounting::suspended:
      return "suspended";
    case model::Mounting::wall:
      return "wall";
    case model::Mounting::standing:
      return "standing";
    case model::Mounting::unstated:
      break;
  }
  return nullptr;
}

std::string array_words(const model::Array& array, const units::ShownUnits& units) {
  std::string words = fmt::format(FMT_STRING("{{ rows = {}, columns = {}"), array.rows, array.columns);
  if (array.staggered) words += ", staggered = true";
  if (array.margin_m) words += fmt::format(FMT_STRING(", margin = {:.6g}"), units.length(*array.margin_m));
  if (!array.within.empty()) {
    words += ", within = [";
    for (std::size_t i = 0; i < array.within.size(); ++i)
      words += fmt::format(FMT_STRING("{}[{:.6g}, {:.6g}]"), i ? ", " : "", units.length(array.within[i].x()),
                           units.length(array.within[i].y()));
    words += "]";
  }
  return words + " }";
}

}  // namespace

std::string placement_text(const model::LuminairePlacement& placement, const units::ShownUnits& units,
                           bool outdoors) {
  std::string text = fmt::format(FMT_STRING("[[{}.luminaires]]\nmark = {}\n"),
                                 outdoors ? "outdoors" : "rooms", toml_quoted(placement.mark));
  const auto add = [&](const char* key, const std::string& value) {
    text += fmt::format(FMT_STRING("{} = {}\n"), key, value);
  };
  const auto number = [](double value) { return fmt::format(FMT_STRING("{:.6g}"), value); };
  if (!placement.name.empty()) add("name", toml_quoted(placement.name));
  if (placement.array) add("array", array_words(*placement.array, units));
  if (!placement.on.empty()) add("on", toml_quoted(placement.on));
  if (placement.rotation_deg != 0) add("rotation", number(placement.rotation_deg));
  if (const char* word = word_of(placement.mounting)) add("mounting", toml_quoted(word));
  if (placement.mounting_height_m) add("mounting_height", number(units.length(*placement.mounting_height_m)));
  if (placement.suspension_m) add("suspension", number(units.length(*placement.suspension_m)));
  if (placement.tilt_deg != 0) add("tilt", number(placement.tilt_deg));
  if (placement.shield_deg) add("shield", number(*placement.shield_deg));
  if (placement.dimming != 1) add("dimming", number(placement.dimming));
  if (placement.blocks_light) add("blocks_light", "true");
  return text;
}

std::optional<std::string> with_placement(const std::string& text, std::size_t room,
                                          const model::LuminairePlacement& placement,
                                          std::optional<std::size_t> instead,
                                          const std::vector<std::size_t>& taken_out,
                                          const units::ShownUnits& units) {
  TomlText file(text);
  const toml::array* rooms = file.document()["rooms"].as_array();
  const std::size_t count = rooms ? rooms->size() : 0;
  const bool outdoors = room >= count;  // those come after the rooms
  const toml::array* areas = file.document()["outdoors"].as_array();
  const toml::node* own = !outdoors ? rooms->get(room) : areas ? areas->get(room - count) : nullptr;
  if (TomlText::header_of(own) == 0) return std::nullopt;
  const toml::array* list = (*own->as_table())["luminaires"].as_array();
  if (list && !list->empty() && TomlText::header_of(list->get(0)) == 0) return std::nullopt;  // within a line
  const auto table_of = [&](std::size_t number) { return list ? list->get(number) : nullptr; };
  for (const std::size_t number : taken_out) {
    if (TomlText::header_of(table_of(number)) == 0) return std::nullopt;
    file.take_out(*table_of(number), true);
  }
  const std::string fresh = placement_text(placement, units, outdoors);
  if (instead) {
    const std::size_t header = TomlText::header_of(table_of(*instead));
    if (header == 0) return std::nullopt;
    file.take_out(*table_of(*instead), false);
    file.insert(header, fresh);
  } else {
    file.insert(file.end_of(*own), "\n" + fresh);
  }
  return file.result();
}

}  // namespace glow::files
