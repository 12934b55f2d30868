#include "report/watch_page.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <algorithm>

#include <kainjow/mustache.hpp>

#include "core/model/file_names.hpp"
#include "core/record/comparison.hpp"
#include "files/output/embedded_files.hpp"
#include "files/output/output_folder.hpp"
#include "files/text/json_text.hpp"
#include "report/plan_data.hpp"
#include "words/check_advice.hpp"
#include "words/standing.hpp"
#include "words/tables/comparison_table.hpp"
#include "words/values.hpp"

namespace glow::report {
namespace {

using files::json;

std::string kind_of(record::Change change) {
  if (change == record::Change::better) return "better";
  return change == record::Change::worse ? "worse" : "";
}

/// Measures that differ by more than the uncertainty, a line each.
json moved(const record::RunRecord* before, const record::RunRecord& now) {
  json lines = json::array();
  if (!before) return lines;
  for (const record::ComparedRoom& room : record::compared({before, &now}))
    for (const record::ComparedRow& row : room.rows) {
      const record::Compared& value = row.values[1];
      if (value.change == record::Change::none || value.change == record::Change::within_doubt) continue;
      const std::string unit = words::measure_unit(row.measure, now.units);
      lines.push_back(
          {{"room", room.name},
           {"what", words::measure_word(row.measure)},
           {"before", words::measure_value(row.measure, row.values[0], now.units)},
           {"now", words::measure_value(row.measure, value, now.units) + (unit.empty() ? "" : " " + unit)},
           {"words", value.change == record::Change::other ? "" : words::change_word(value.change)},
           {"kind", kind_of(value.change)}});
    }
  return lines;
}

void add_checks(const record::RoomRecord& room, const units::ShownUnits& units, json& list) {
  for (const standards::Check& check : room.assessment.checks)
    list.push_back(
        {{"scene", room.scene},
         {"of", words::name_of(check.target, room)},
         {"quantity", words::symbol(check.demand.quantity)},
         {"required", words::required(check.demand, units)},
         {"found", words::with_unit(check.demand.quantity,
                                    words::found_words(check, units, words::Detail::sentence), units)},
         {"verdict", to_string(check.verdict)},
         {"binding", check.binding}});
}

json room_of(const record::RoomRecord& room, const record::RunRecord& run) {
  json checks = json::array(), views = json::array();
  add_checks(room, run.units, checks);
  for (std::size_t s = 0; s < room.scenes.size(); ++s)
    add_checks(record::in_scene(room, s), run.units, checks);
  std::string told;
  json advice = json::array();
  for (const words::Finding& finding : words::findings(room))
    for (const words::AdviceSentence& sentence :
         words::sentences_of(words::short_advice(room, finding, run.units, told)))
      advice.push_back(
          {sentence.words, sentence.kind == words::AdviceSentence::Kind::mend ? "mend" : "cause"});
  const std::string begin = "views/" + model::file_name_part(room.name) + "--";
  for (const std::string& file : run.files)
    if (file.rfind(begin, 0) == 0 && file.find(".png") != std::string::npos) views.push_back("../" + file);
  return {{"name", room.name}, {"verdict", to_string(room.assessment.status)},
          {"checks", checks},  {"advice", advice},
          {"views", views},    {"grids", grids_data(room, run.units)}};
}

std::string page_of_templates() {
  kainjow::mustache::data parts;
  std::string page;
  for (const files::EmbeddedFile& file : files::embedded_report()) {
    std::string name = file.name;  // a dot would mean a part of a part
    std::replace(name.begin(), name.end(), '.', '_');
    if (file.name == "watch.html") page = file.bytes;
    parts.set(name, std::string(file.bytes));
  }
  return kainjow::mustache::mustache(page).render(parts);
}

}  // namespace

WatchPage::WatchPage(const std::filesystem::path& folder) : folder_(folder) {
  files::write_whole(file(), page_of_templates());
}

void WatchPage::show(const record::RunRecord& run, const State& state) {
  json rooms = json::array();
  for (const record::RoomRecord& room : run.rooms) rooms.push_back(room_of(room, run));
  const json data = {{"project", run.project},
                     {"summary", words::met_words(run)},
                     {"state", state.words},
                     {"faults", state.faults},
                     {"moved", moved(state.before, run)},
                     {"light", run.units.light_unit()},
                     {"length", run.units.length_unit()},
                     {"colours", scale_colours()},
                     {"rooms", rooms}};
  files::write_whole(folder_ / "data.js", "glow.take(" + files::json_line(data) + ");\n");
  files::write_whole(folder_ / "stamp.js",
                     fmt::format(FMT_STRING("glow.stamped('{}-{}');\n"), ::getpid(), ++stamp_));
}

}  // namespace glow::report
