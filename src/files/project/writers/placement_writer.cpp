#include "files/project/writers/placement_writer.hpp"

#include <fmt/format.h>

#include <toml++/toml.h>
#include <algorithm>
#include <set>

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

/// The lines of a file, each with its line break.
std::vector<std::string> lines_of(const std::string& text) {
  std::vector<std::string> lines;
  for (std::size_t begin = 0; begin < text.size();) {
    const std::size_t end = std::min(text.find('\n', begin), text.size() - 1) + 1;
    lines.push_back(text.substr(begin, end - begin));
    begin = end;
  }
  return lines;
}

/// Lines (from 1) that headers of tables stand in.
void headers_of(const toml::node& node, std::set<std::size_t>& headers) {
  if (const toml::table* table = node.as_table()) {
    if (table->is_inline()) return;
    if (table->source().begin.line > 0) headers.insert(table->source().begin.line);
    for (const auto& [key, value] : *table) headers_of(value, headers);
  } else if (const toml::array* array = node.as_array()) {
    for (const toml::node& each : *array) headers_of(each, headers);
  }
}

bool is_blank_or_comment(const std::string& line) {
  const std::size_t first = line.find_first_not_of(" \t\r\n");
  return first == std::string::npos || line[first] == '#';
}

/// Line ranges of tables: from a header to before the next one, less the blank lines and comments that lead
/// to that.
class Blocks {
 public:
  Blocks(const toml::table& document, const std::vector<std::string>& lines) : lines_(lines) {
    for (const auto& [key, value] : document) headers_of(value, headers_);
  }
  /// One past the last line of the block whose header stands in `line`; lines from 1.
  std::size_t end_of(std::size_t line) const {
    const auto next = headers_.upper_bound(line);
    std::size_t end = next == headers_.end() ? lines_.size() + 1 : *next;
    while (end > line + 1 && is_blank_or_comment(lines_[end - 2])) --end;
    return end;
  }
  /// The last header before `line`.
  std::size_t last_before(std::size_t line) const { return *std::prev(headers_.lower_bound(line)); }

 private:
  const std::vector<std::string>& lines_;
  std::set<std::size_t> headers_;
};

}  // namespace

std::string placement_text(const model::LuminairePlacement& placement, const units::ShownUnits& units) {
  std::string text =
      fmt::format(FMT_STRING("[[rooms.luminaires]]\nmark = {}\n"), toml_quoted(placement.mark));
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
  if (placement.dimming != 1) add("dimming", number(placement.dimming));
  if (placement.blocks_light) add("blocks_light", "true");
  return text;
}

std::optional<std::string> with_placement(const std::string& text, std::size_t room,
                                          const model::LuminairePlacement& placement,
                                          std::optional<std::size_t> instead,
                                          const std::vector<std::size_t>& taken_out,
                                          const units::ShownUnits& units) {
  const toml::table document = toml::parse(text);
  const std::vector<std::string> lines = lines_of(text);
  const Blocks blocks(document, lines);
  const toml::array* rooms = document["rooms"].as_array();
  if (!rooms || room >= rooms->size()) return std::nullopt;
  const toml::table* own = (*rooms)[room].as_table();
  if (!own || own->is_inline()) return std::nullopt;
  const toml::array* list = (*own)["luminaires"].as_array();
  const auto header_of = [&](std::size_t number) -> std::optional<std::size_t> {
    const toml::table* table = list && number < list->size() ? (*list)[number].as_table() : nullptr;
    if (!table || table->is_inline()) return std::nullopt;
    return table->source().begin.line;
  };
  std::set<std::size_t> gone;  // lines
  std::size_t place = 0;       // line that the new table comes before
  std::vector<std::size_t> out = taken_out;
  if (instead) out.push_back(*instead);
  for (const std::size_t number : out) {
    const auto header = header_of(number);
    if (!header) return std::nullopt;
    const std::size_t end = blocks.end_of(*header);
    for (std::size_t line = *header; line < end; ++line) gone.insert(line);
    // A blank line that led to it goes along.
    if (number != instead && end <= lines.size() && *header > 1 && lines[*header - 2] == "\n")
      gone.insert(*header - 1);
    if (number == instead) place = *header;
  }
  std::string fresh = placement_text(placement, units);
  if (place == 0) {
    const std::size_t next =
        room + 1 < rooms->size() ? (*rooms)[room + 1].as_table()->source().begin.line : lines.size() + 1;
    std::size_t last = own->source().begin.line;
    // The last header that belongs to the room: further tables of the file may follow the last room.
    for (const auto& [key, value] : *own) {
      std::set<std::size_t> headers;
      headers_of(value, headers);
      if (!headers.empty()) last = std::max(last, *headers.rbegin());
    }
    place = std::min(blocks.end_of(last), next);
    fresh = "\n" + fresh;
  }
  std::string result;
  for (std::size_t line = 1; line <= lines.size() + 1; ++line) {
    if (line == place) {
      if (!result.empty() && result.back() != '\n') result += '\n';
      result += fresh;
    }
    if (line <= lines.size() && !gone.count(line)) result += lines[line - 1];
  }
  return result;
}

}  // namespace glow::files
