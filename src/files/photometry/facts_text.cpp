#include "files/photometry/facts_text.hpp"

#include "files/text/csv_cell.hpp"
#include "files/text/json_number.hpp"
#include "files/text/json_text.hpp"

namespace glow::files {
namespace {

std::vector<std::pair<const char*, std::string>> words_of(const shelf::Entry& entry) {
  const shelf::LuminaireFacts& f = entry.facts;
  return {{"file", entry.file},
          {"maker", f.maker},
          {"name", f.name},
          {"catalogue_number", f.catalogue_number},
          {"lamp", f.lamp},
          {"kind", photometry::to_string(f.kind)},
          {"distribution", f.distribution},
          {"shape", photometry::to_string(f.shape)}};
}

}  // namespace

std::string facts_csv(const std::vector<const shelf::Entry*>& entries) {
  std::string text;
  for (const auto& [name, ignored] : words_of({})) text += std::string(name) + ",";
  for (const shelf::MeasureWords& each : shelf::measures()) text += std::string(each.column) + ",";
  text += "findings\n";
  for (const shelf::Entry* entry : entries) {
    for (const auto& [name, words] : words_of(*entry)) text += csv_cell(words) + ",";
    for (const std::optional<double>& value : entry->facts.values)
      text += value ? fmt::format(FMT_STRING("{:.6g},"), *value) : std::string(",");
    text += fmt::format(FMT_STRING("{}\n"), entry->findings);
  }
  return text;
}

std::string facts_json(const std::vector<const shelf::Entry*>& entries,
                       const std::vector<std::pair<std::string, std::string>>& refused) {
  json document = {{"files", json::array()}, {"refused", json::array()}};
  for (const shelf::Entry* entry : entries) {
    json j;
    for (const auto& [name, words] : words_of(*entry)) j[name] = words;
    for (const shelf::MeasureWords& each : shelf::measures())
      j[each.column] = number(entry->facts[each.measure]);
    j["findings"] = entry->findings;
    document["files"].push_back(std::move(j));
  }
  for (const auto& [file, reason] : refused)
    document["refused"].push_back({{"file", file}, {"reason", reason}});
  return json_text(document);
}

}  // namespace glow::files
