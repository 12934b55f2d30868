#include "files/results/data_files.hpp"

#include <fmt/format.h>

#include <pugixml.hpp>

#include "files/text/csv_cell.hpp"
#include "words/data/run_data.hpp"

namespace glow::files {
namespace {

constexpr const char* kNamespace = "urn:glowgrid:results:1";

std::string digits(double value, int count) {
  return fmt::format(FMT_STRING("{:.{}g}"), value == 0 ? 0.0 : value, count);  // no -0
}

std::string csv_words(const words::DataCell& cell) {
  if (const auto* words = std::get_if<std::string>(&cell)) return csv_cell(*words);
  if (const auto* number = std::get_if<double>(&cell)) return digits(*number, 6);
  return {};
}

/// An attribute for each cell that holds something, but those of what the element stands in.
void add_row(pugi::xml_node under, const words::DataTable& table, const std::vector<words::DataCell>& row,
             const std::string& left_out) {
  pugi::xml_node node = under.append_child(table.row().c_str());
  for (std::size_t c = 0; c < row.size(); ++c) {
    const std::string& key = table.columns()[c].key;
    if (key == left_out) continue;
    if (const auto* words = std::get_if<std::string>(&row[c]))
      node.append_attribute(key.c_str()) = words->c_str();
    else if (const auto* number = std::get_if<double>(&row[c]))
      node.append_attribute(key.c_str()) = digits(*number, 9).c_str();
  }
}

void add_table(pugi::xml_node room, const words::DataTable& table) {
  if (table.rows().empty()) return;
  pugi::xml_node list = room.append_child(table.key().c_str());
  for (const auto& row : table.rows()) add_row(list, table, row, "room");
}

}  // namespace

std::string data_csv(const words::DataTable& table, bool with_head) {
  std::string text;
  if (with_head)
    for (const words::DataColumn& column : table.columns())
      text += (text.empty() ? "" : ",") + csv_cell(column.key);
  if (with_head) text += "\n";
  for (const auto& row : table.rows()) {
    for (std::size_t c = 0; c < row.size(); ++c) text += (c > 0 ? "," : "") + csv_words(row[c]);
    text += "\n";
  }
  return text;
}

json data_json(const words::DataTable& table) {
  json list = json::array();
  for (const auto& row : table.rows()) {
    json line = json::object();
    for (std::size_t c = 0; c < row.size(); ++c) {
      json& cell = line[table.columns()[c].key] = nullptr;
      if (const auto* words = std::get_if<std::string>(&row[c])) cell = *words;
      if (const auto* value = std::get_if<double>(&row[c])) cell = number(*value);
    }
    list.push_back(std::move(line));
  }
  return list;
}

void write_points_csv(const record::RunRecord& run, const std::function<void(const std::string&)>& write) {
  bool first = true;
  for (const record::RoomRecord& room : run.rooms) {
    write(data_csv(words::points_data(room, run.units), first));
    first = false;
  }
}

void write_results_xml(const record::RunRecord& run, std::ostream& out) {
  pugi::xml_document head;
  pugi::xml_node root = head.append_child("results");
  root.append_attribute("xmlns") = kNamespace;
  root.append_attribute("project") = run.project.c_str();
  for (const std::string& standard : run.standards)
    root.append_child("standard").append_attribute("name") = standard.c_str();
  std::ostringstream opening;
  head.save(opening, "  ", pugi::format_default, pugi::encoding_utf8);
  const std::string text = opening.str(), end = "</results>\n";
  const bool is_open =
      text.size() > end.size() && text.compare(text.size() - end.size(), end.size(), end) == 0;
  out << (is_open ? text.substr(0, text.size() - end.size()) : text.substr(0, text.rfind("/>")) + ">\n");
  for (const record::RoomRecord& room : run.rooms) {
    record::RunRecord one;
    one.rooms.push_back(room);
    pugi::xml_document part;
    const words::DataTable rooms = words::rooms_data(one);
    add_row(part, rooms, rooms.rows().front(), {});
    pugi::xml_node node = part.first_child();
    for (const words::DataTable& table : words::all_data(one))
      if (table.key() != rooms.key()) add_table(node, table);
    add_table(node, words::points_data(room, one.units));
    node.print(out, "  ", pugi::format_default, pugi::encoding_utf8, 1);
  }
  out << end;
}

}  // namespace glow::files
