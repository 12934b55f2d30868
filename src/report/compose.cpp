#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "core/model/file_names.hpp"
#include "core/record/comparison.hpp"
#include "figures/compared_figures.hpp"
#include "figures/curves/intensity_figures.hpp"
#include "figures/figure_list.hpp"
#include "report/inline_figure.hpp"
#include "report/luminaire_section.hpp"
#include "report/markdown.hpp"
#include "report/report.hpp"
#include "words/data/run_data.hpp"
#include "words/standing.hpp"
#include "words/tables/comparison_table.hpp"
#include "words/text_layout.hpp"
#include "words/topics/room_words.hpp"

namespace glow::report {
namespace {

using record::RunRecord;

/// Sentences that hold for several rooms, each told once.
class SaidOfRooms {
 public:
  void add(const std::string& sentence, const std::string& room) {
    if (sentence.empty()) return;
    auto known =
        std::find_if(said_.begin(), said_.end(), [&](const auto& one) { return one.first == sentence; });
    if (known == said_.end()) known = said_.insert(said_.end(), {sentence, {}});
    if (known->second.empty() || known->second.back() != room) known->second.push_back(room);
  }
  std::vector<std::string> sentences() const {
    std::vector<std::string> list;
    for (const auto& [sentence, rooms] : said_) list.push_back(words::some_of(rooms) + ": " + sentence);
    return list;
  }

 private:
  std::vector<std::pair<std::string, std::vector<std::string>>> said_;
};

class Composer {
 public:
  explicit Composer(const ReportInput& input)
      : input_(input), source_(input.source), run_(input.source.run) {}

  Document compose();

 private:
  std::string word(const std::string& english) const { return source_.words(english); }
  bool is_wished(const char* part) const {
    const auto& wished = source_.wish.contents;
    return wished.empty() || std::find(wished.begin(), wished.end(), part) != wished.end();
  }
  Section section(const char* id, const char* title) const {
    Section section;
    section.id = id;
    section.title = word(title);
    section.on_new_page = true;
    return section;
  }
  void add(const std::string& part);
  Section summary() const;
  Section beside() const;
  Section maintenance() const;
  Section assumptions() const;
  Section method() const;
  Section files() const;

  const ReportInput& input_;
  const Source& source_;
  const RunRecord& run_;
  Document document_;
};

/// The run with the rooms of one floor.
RunRecord of_floor(const RunRecord& run, const std::string& floor) {
  RunRecord part;
  part.project = run.project;
  part.units = run.units;
  part.standards = run.standards;
  for (const record::RoomRecord& room : run.rooms)
    if (room.floor == floor) part.rooms.push_back(room);
  return part;
}

Section Composer::summary() const {
  Section section = this->section("summary", "Summary");
  Block first;
  first.paragraphs.push_back(words::met_words(run_) + ".");
  const std::string shares = words::shares_words(run_);
  if (!shares.empty()) first.paragraphs.push_back(shares);
  const figures::Figure status = figures::status_of(run_);
  const std::vector<record::FloorRecord> floors = record::floors_with_rooms(run_);
  const std::vector<figures::Figure> of_floors = figures::floors_of(run_);
  constexpr std::size_t kMostOnAStatus = 40;  // rooms; more are too small to read
  if (of_floors.empty() && run_.rooms.size() <= kMostOnAStatus) {
    Block::Figure figure;
    figure.svg = inline_figure(status.svg(), "status-", status.what);
    figure.words = status.what;
    first.figures.push_back(std::move(figure));
  }
  section.blocks.push_back(std::move(first));
  if (floors.size() <= 1) {
    Block rooms;
    rooms.heading = word("All rooms");
    rooms.tables.push_back(words::rooms_data(run_));
    section.blocks.push_back(std::move(rooms));
  }
  for (std::size_t f = 0; floors.size() > 1 && f < floors.size(); ++f) {
    const RunRecord part = of_floor(run_, floors[f].name);
    Section of;
    of.id = "floor-" + std::to_string(f + 1);
    of.title = floors[f].name.empty() ? word("On no floor") : floors[f].name;
    Block block;
    block.paragraphs.push_back(words::met_words(part) + ".");
    block.tables.push_back(words::rooms_data(part));
    const std::string base = "floor--" + model::file_name_part(floors[f].name);
    for (const figures::Figure& drawn : of_floors)
      if (drawn.base == base) {
        Block::Figure figure;
        figure.svg = inline_figure(drawn.svg(), of.id + "-", drawn.what);
        figure.words = drawn.what;
        block.figures.push_back(std::move(figure));
      }
    of.blocks.push_back(std::move(block));
    section.parts.push_back(std::move(of));
  }
  return section;
}

/// States on one scale, and what differs, room by room.
Section Composer::beside() const {
  Section section = this->section("beside", "Side by side");
  std::vector<const RunRecord*> runs = {&run_};
  std::vector<std::string> names = {input_.state_name};
  for (const Beside& other : input_.beside) {
    runs.push_back(other.run);
    names.push_back(other.name);
  }
  int drawn = 0;
  std::vector<std::string> alike;
  for (const record::ComparedRoom& compared : record::compared(runs)) {
    if (!words::differs(compared)) {
      alike.push_back(compared.name);
      continue;
    }
    std::vector<words::DataColumn> columns = {{"measure", word("Quantity")}, {"unit", word("Unit")}};
    for (std::size_t k = 0; k < names.size(); ++k) {
      columns.push_back({"state_" + std::to_string(k), names[k]});
      if (k > 0) columns.push_back({"change_" + std::to_string(k), ""});
    }
    words::DataTable table("measures", "measure", compared.name, columns);
    for (const record::ComparedRow& row : compared.rows) {
      table.text(words::measure_word(row.measure)).text(words::measure_unit(row.measure, run_.units));
      for (std::size_t k = 0; k < row.values.size(); ++k) {
        table.text(words::measure_value(row.measure, row.values[k], run_.units));
        if (k > 0) table.text(words::change_word(row.values[k].change));
      }
      table.end_row();
    }
    Section part;
    part.id = "beside-" + model::file_name_part(compared.name);
    part.title = compared.name;
    Block block;
    block.tables.push_back(std::move(table));
    std::vector<figures::ComparedIn> rooms;
    for (std::size_t k = 0; k < compared.rooms.size(); ++k)
      if (compared.rooms[k]) rooms.push_back({names[k], compared.rooms[k]});
    if (rooms.size() > 1)
      for (const figures::Figure& each : figures::comparisons_of(rooms, run_.style, run_.units))
        if (each.base.find("work-plane") != std::string::npos) {
          Block::Figure figure;
          figure.svg = inline_figure(each.svg(), "beside-" + std::to_string(++drawn) + "-", each.what);
          figure.words = each.what;
          block.figures.push_back(std::move(figure));
        }
    part.blocks.push_back(std::move(block));
    section.parts.push_back(std::move(part));
  }
  if (!alike.empty())
    section.blocks.emplace_back().paragraphs.push_back(
        "Nothing differs by more than the uncertainty in: " + words::some_of(alike) + ".");
  return section;
}

Section Composer::maintenance() const {
  Section section = this->section("maintenance", "Maintenance");
  words::DataTable table("factors", "factor", "Maintenance factors",
                         {{"room", "Room"},
                          {"mark", "Mark"},
                          {"factor", "Maintenance factor", 2},
                          {"lamp_flux", "LLMF", 2},
                          {"lamp_survival", "LSF", 2},
                          {"luminaire", "LMF", 2},
                          {"surfaces", "RSMF", 2},
                          {"lamp_hours", "Lamps h", 0},
                          {"cleaning_years", "Luminaires cleaned, years", 1},
                          {"surface_years", "Surfaces cleaned, years", 1}});
  for (const record::RoomRecord& room : run_.rooms) {
    std::set<std::string> told;
    for (const record::GroupRecord& group : room.groups) {
      if (!told.insert(group.mark).second) continue;
      const auto& parts = group.maintenance;
      const auto part = [&](auto member) {
        return parts ? std::optional<double>((*parts).*member) : std::nullopt;
      };
      table.text(room.name).text(group.mark).number(group.weight.maintenance);
      table.number(part(&model::LuminaireMaintenance::lamp_flux));
      table.number(part(&model::LuminaireMaintenance::lamp_survival));
      table.number(part(&model::LuminaireMaintenance::luminaire));
      table.number(group.room_surfaces ? std::optional(group.room_surfaces->factor) : std::nullopt);
      table.number(parts ? parts->lamp_hours : std::nullopt)
          .number(parts ? parts->cleaning_years : std::nullopt);
      table.number(group.room_surfaces ? group.room_surfaces->cleaning_years : std::nullopt).end_row();
    }
  }
  Block block;
  block.paragraphs.push_back(
      "All values are maintained: what is left of the light when lamps, luminaires and surfaces are next "
      "looked after. "
      "Factors after CIE 97: lamp lumen (LLMF), lamp survival (LSF), luminaire (LMF), room surface (RSMF); "
      "where only the "
      "product was stated the parts are empty. The values hold if the intervals are kept.");
  block.tables.push_back(std::move(table));
  section.blocks.push_back(std::move(block));
  return section;
}

Section Composer::assumptions() const {
  Section section = this->section("assumptions", "Assumptions and what was not verified");
  Block block;
  SaidOfRooms said;
  for (const record::RoomRecord& room : run_.rooms)
    for (const std::string& assumed : room.assumed) said.add(assumed, room.name);
  for (const record::RoomRecord& room : run_.rooms)
    said.add(words::verified_as_words(room.verified_as), room.name);
  for (const std::string& sentence : said.sentences()) block.points.push_back({sentence, {}});
  for (const std::string& warning : run_.warnings) block.points.push_back({warning, {}});
  for (const record::UncomputedRoom& room : run_.not_computed)
    block.points.push_back({room.name + ": " + (room.fault.empty() ? "was not computed" : room.fault), {}});
  if (block.points.empty())
    block.paragraphs.push_back("The project states all that was needed, and nothing was left out.");
  section.blocks.push_back(std::move(block));
  return section;
}

Section Composer::method() const {
  Section section = this->section("method", "Method and accuracy");
  Block block;
  block.paragraphs = {
      "Direct light is integrated over the luminous areas, divided until their own error estimate is small; "
      "shadows are "
      "exact for flat bodies. Interreflected light is the solution of the balance of light between patches "
      "of all surfaces, "
      "by rays in eight independent sets, and is read at each point by rays of its own.",
      "Each value carries the half width of its 95 % interval (+/-), from the spread of the sets, the size "
      "of the patches and "
      "the rest of the direct light. A check whose interval holds the required value is undecided.",
      "Required values stand with their source and the certainty with which the program holds them; the "
      "edition that binds "
      "the project decides."};
  words::DataTable table("engine", "room", "Effort",
                         {{"room", "Room"},
                          {"patches", "Patches", 0},
                          {"rays", "Rays", 0},
                          {"refinements", "Refined", 0},
                          {"absorbed", "Flux absorbed %", 2},
                          {"escaped", "Gone through openings %", 2}});
  for (const record::RoomRecord& room : run_.rooms) {
    const auto& balance = room.balance;
    const auto share = [&](double lm) {
      return balance.emitted_lm > 0 ? std::optional(100 * lm / balance.emitted_lm) : std::nullopt;
    };
    table.text(room.name).number(double(room.engine.patches)).number(double(room.engine.rays));
    table.number(room.engine.refinements)
        .number(share(balance.absorbed_lm))
        .number(share(balance.escaped_lm))
        .end_row();
  }
  block.tables.push_back(std::move(table));
  section.blocks.push_back(std::move(block));
  return section;
}

Section Composer::files() const {
  Section section = this->section("files", "What it was computed from");
  words::DataTable table("parts", "part", "Fingerprints",
                         {{"part", "Part"}, {"fingerprint", "Fingerprint"}, {"rooms", "Rooms", 0}});
  std::vector<std::pair<record::InputPart, int>> parts;
  for (const record::RoomRecord& room : run_.rooms)
    for (const record::InputPart& part : room.inputs) {
      if (part.what == "the room") continue;
      const auto known = std::find_if(parts.begin(), parts.end(), [&](const auto& one) {
        return one.first.what == part.what && one.first.print == part.print;
      });
      if (known == parts.end())
        parts.emplace_back(part, 1);
      else
        ++known->second;
    }
  for (const auto& [part, rooms] : parts) table.text(part.what).text(part.print).number(rooms).end_row();
  for (const record::RoomRecord& room : run_.rooms)
    for (const record::InputPart& part : room.inputs)
      if (part.what == "the room") table.text("room " + room.name).text(part.print).number(1).end_row();
  Block block;
  block.tables.push_back(std::move(table));
  section.blocks.push_back(std::move(block));
  return section;
}

void Composer::add(const std::string& part) {
  auto& sections = document_.sections;
  if (part == "notes" && !source_.wish.notes.empty()) {
    Section notes = section("notes", "Notes");
    notes.blocks.emplace_back().html = html_of_markdown(source_.wish.notes);
    sections.push_back(std::move(notes));
  }
  if (part == "summary") {
    const bool after_notes = !sections.empty() && sections.back().id == "notes";
    sections.push_back(summary());
    if (after_notes) sections.back().on_new_page = false;  // an introduction is short
    if (!input_.beside.empty()) sections.push_back(beside());
  }
  if (part == "rooms" && input_.form != Form::brief)
    for (const record::RoomRecord& room : run_.rooms)
      sections.push_back(input_.form == Form::full ? room_section(source_, room) : room_page(source_, room));
  if (input_.form == Form::room_page) return;
  if (part == "luminaires") {
    sections.push_back(luminaire_section(source_, input_.photometry, input_.form == Form::full));
    sections.back().on_new_page = true;
  }
  if (part == "maintenance" && input_.form == Form::full) sections.push_back(maintenance());
  if (part == "assumptions") sections.push_back(assumptions());
  if (part == "method" && input_.form == Form::full) sections.push_back(method());
  if (part == "files" && input_.form == Form::full) sections.push_back(files());
}

Document Composer::compose() {
  document_.title = run_.project;
  document_.client = source_.wish.client;
  document_.author = source_.wish.author;
  document_.date = source_.wish.date;
  document_.language = source_.wish.language;
  document_.standards = words::standards_words(run_.standards);
  document_.stale = words::older_rooms_words(run_);
  document_.has_cover = input_.form == Form::full && is_wished("cover");
  document_.has_contents = input_.form == Form::full;
  document_.form = input_.form == Form::full ? "full" : input_.form == Form::brief ? "short" : "room-page";
  const auto& wished = source_.wish.contents;
  for (const std::string& part : wished.empty() ? model::report_parts() : wished) {
    if (input_.form == Form::room_page && part != "rooms") continue;
    add(part);
  }
  return std::move(document_);
}

}  // namespace

Document compose(const ReportInput& input) {
  return Composer(input).compose();
}

}  // namespace glow::report
