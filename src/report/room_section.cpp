#include "report/room_section.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <functional>

#include "core/model/file_names.hpp"
#include "figures/figure_list.hpp"
#include "figures/flat/plan_figure.hpp"
#include "files/text/json_text.hpp"
#include "report/inline_figure.hpp"
#include "report/markdown.hpp"
#include "report/plan_data.hpp"
#include "words/check_advice.hpp"
#include "words/data/run_data.hpp"
#include "words/topics/glare_words.hpp"
#include "words/topics/room_words.hpp"
#include "words/values.hpp"

namespace glow::report {
namespace {

constexpr std::size_t kMostChecksOnAPage = 8, kMostMendsOnAPage = 4;

std::string kind_of(const words::AdviceSentence& sentence) {
  using Kind = words::AdviceSentence::Kind;
  if (sentence.kind == Kind::about) return "about";
  return sentence.kind == Kind::mend ? "mend" : "cause";
}

class RoomBlocks {
 public:
  RoomBlocks(const Source& source, const record::RoomRecord& room) : source_(source), room_(room) {
    one_.units = source.run.units;
    one_.rooms.push_back(room);
    prefix_ = model::file_name_part(room.name) + "-";
    figures_ = figures::figures_of(room_, source.run.style, source.run.units, {});
  }

  Section start() const {
    Section section;
    section.id = "room-" + model::file_name_part(room_.name);
    section.title = room_.number.empty() ? room_.name : room_.number + " " + room_.name;
    section.verdict = to_string(room_.assessment.status);
    section.stale = !room_.changed_since.empty();
    section.on_new_page = true;
    return section;
  }
  /// By the part's name; nothing where there is nothing of it to tell.
  std::optional<Block> block(const std::string& part);
  Block facts() const;
  std::optional<Block> plan();
  std::optional<Block> checks(std::size_t most) const;
  std::optional<Block> mends(std::size_t most) const;
  std::optional<Block> views(std::size_t most) const;

 private:
  std::string word(const char* english) const { return source_.words(english); }
  std::optional<Block> figures(const char* heading,
                               const std::function<bool(const figures::Figure&)>& is_meant);
  std::optional<Block> uses(const char* heading, bool moments);
  std::optional<Block> year();
  std::optional<Block> neighbours();
  std::optional<Block> energy();
  std::optional<Block> grids() const;
  std::optional<Block> notes() const;
  Block::Figure figure(const figures::Figure& drawn) {
    Block::Figure figure;
    figure.words = drawn.what;
    figure.svg = inline_figure(drawn.svg(), prefix_ + std::to_string(++drawn_) + "-", drawn.what);
    return figure;
  }

  const Source& source_;
  const record::RoomRecord& room_;
  record::RunRecord one_;  ///< the room alone
  std::string prefix_;
  std::vector<figures::Figure> figures_;
  int drawn_ = 0;
};

bool ends_with(const std::string& text, const std::string& end) {
  return text.size() >= end.size() && text.compare(text.size() - end.size(), end.size(), end) == 0;
}

Block RoomBlocks::facts() const {
  const units::ShownUnits& units = source_.run.units;
  const words::Values shown{units};
  Block block;
  for (const record::TaskRecord& task : room_.tasks)
    block.facts.emplace_back(word("Task"), task.key + " (" + task.source + ")");
  block.facts.emplace_back(
      word("Area"), fmt::format(FMT_STRING("{:.1f} {}2"), units.length(units.length(room_.floor_area_m2)),
                                units.length_unit()));
  block.facts.emplace_back(word("Height"), shown.length(room_.height_m));
  block.facts.emplace_back(word("Reflectances"),
                           fmt::format(FMT_STRING("{:.2f} / {:.2f} / {:.2f}"), room_.reflectances.ceiling,
                                       room_.reflectances.walls, room_.reflectances.floor));
  block.facts.emplace_back(word("Maintenance factor"),
                           fmt::format(FMT_STRING("{:.2f}"), room_.maintenance_factor));
  for (const record::MarkRecord& mark : room_.marks())
    block.facts.emplace_back(word("Luminaires"),
                             fmt::format(FMT_STRING("{} x {} {}"), mark.count, mark.mark, mark.luminaire));
  if (const auto watts = record::drawn_power(room_))
    block.facts.emplace_back(word("Power"), fmt::format(FMT_STRING("{:.0f} W, {:.2f} W/m2"), *watts,
                                                        *watts / room_.floor_area_m2));
  if (!room_.changed_since.empty()) block.paragraphs.push_back(words::older_words(room_));
  return block;
}

std::optional<Block> RoomBlocks::plan() {
  Block block;
  const assess::GridReading* plane = record::work_plane(room_.assessment);
  for (const figures::Figure& drawn : figures_) {
    if (!drawn.main || !plane) continue;
    block.figures.push_back(figure(drawn));
    if (ends_with(drawn.base, "--" + model::file_name_part(plane->name)))
      block.figures.back().plan = files::json_line(grid_data(room_, *plane, source_.run.units));
  }
  return block.figures.empty() ? std::nullopt : std::optional(block);
}

/// A table with the columns of these keys.
words::DataTable chosen_columns(
    const words::DataTable& table, const std::vector<std::string>& keys,
    const std::function<bool(const std::vector<words::DataCell>&)>& is_meant = nullptr,
    std::size_t most = std::size_t(-1)) {
  std::vector<std::size_t> chosen;
  std::vector<words::DataColumn> columns;
  for (const std::string& key : keys)
    for (std::size_t c = 0; c < table.columns().size(); ++c)
      if (table.columns()[c].key == key) {
        chosen.push_back(c);
        columns.push_back(table.columns()[c]);
      }
  words::DataTable result(table.key(), table.row(), table.title(), columns);
  for (const auto& row : table.rows()) {
    if ((is_meant && !is_meant(row)) || result.rows().size() >= most) continue;
    for (const std::size_t c : chosen) {
      if (const auto* number = std::get_if<double>(&row[c]))
        result.number(*number);
      else
        result.text(std::holds_alternative<std::string>(row[c]) ? std::get<std::string>(row[c])
                                                                : std::string());
    }
    result.end_row();
  }
  return result;
}

/// The room's checks, those of its scenes behind; where there are too many, the ones that fail first.
std::optional<Block> RoomBlocks::checks(std::size_t most) const {
  const words::DataTable all = words::checks_data(one_);
  if (all.rows().empty()) return std::nullopt;
  std::size_t scene = 0, verdict = 0;
  for (std::size_t c = 0; c < all.columns().size(); ++c) {
    if (all.columns()[c].key == "scene") scene = c;
    if (all.columns()[c].key == "verdict") verdict = c;
  }
  const bool any_scene = std::any_of(all.rows().begin(), all.rows().end(), [&](const auto& row) {
    return std::holds_alternative<std::string>(row[scene]);
  });
  std::vector<std::string> keys = {"of", "quantity", "required", "found", "uncertainty", "unit", "verdict"};
  if (most > all.rows().size()) keys.insert(keys.end(), {"source", "certainty"});
  if (any_scene) keys.insert(keys.begin(), "scene");
  Block block;
  block.heading = word("Checks");
  const bool too_many = all.rows().size() > most;
  const auto fails = [&](const auto& row) {
    const auto* words = std::get_if<std::string>(&row[verdict]);
    return words && *words != "met";
  };
  const std::size_t failing = std::size_t(std::count_if(all.rows().begin(), all.rows().end(), fails));
  if (too_many && failing > 0)
    block.tables.push_back(chosen_columns(all, keys, fails, most));
  else
    block.tables.push_back(chosen_columns(all, keys, nullptr, most));
  const std::size_t left = all.rows().size() - block.tables.back().rows().size();
  if (left > 0)
    block.points.push_back(
        {fmt::format(FMT_STRING("{} more, {}: see the full report, the workbook or checks as CSV."), left,
                     failing <= most ? "all met" : "some of which fail"),
         {}});
  if (!room_.assessment.not_verified.empty() && most > all.rows().size())
    for (const standards::NotVerified& item : room_.assessment.not_verified)
      block.points.push_back(
          {"not verified: " + words::not_verified_words(item, room_.assessment.glare.table), {}});
  return block;
}

std::optional<Block> RoomBlocks::mends(std::size_t most) const {
  Block block;
  block.heading = word("What fails and what would help");
  std::string told;
  for (const words::Finding& finding : words::findings(room_)) {
    const std::string lines = most == std::size_t(-1)
                                  ? words::full_advice(room_, finding, source_.run.units)
                                  : words::short_advice(room_, finding, source_.run.units, told);
    for (const words::AdviceSentence& sentence : words::sentences_of(lines))
      if (block.points.size() < most) block.points.push_back({sentence.words, kind_of(sentence)});
  }
  return block.points.empty() ? std::nullopt : std::optional(block);
}

std::optional<Block> RoomBlocks::views(std::size_t most) const {
  Block block;
  block.heading = word("Views");
  const std::string begin = "views/" + model::file_name_part(room_.name) + "--";
  for (const std::string& file : source_.run.files) {
    if (file.rfind(begin, 0) != 0 || !ends_with(file, ".png") || block.figures.size() >= most) continue;
    std::string view = file.substr(begin.size(), file.size() - begin.size() - 4);
    const auto& wished = source_.wish.pictures;
    const bool is_wished =
        wished.empty() || std::any_of(wished.begin(), wished.end(), [&](const std::string& name) {
          return model::file_name_part(name) == view;
        });
    std::replace(view.begin(), view.end(), '-', ' ');
    Block::Figure figure;
    figure.words = view;
    figure.half = true;
    if (is_wished) figure.image = source_.picture(file);
    if (!figure.image.empty()) block.figures.push_back(std::move(figure));
  }
  return block.figures.empty() ? std::nullopt : std::optional(block);
}

std::optional<Block> RoomBlocks::figures(const char* heading,
                                         const std::function<bool(const figures::Figure&)>& is_meant) {
  Block block;
  block.heading = word(heading);
  for (const figures::Figure& drawn : figures_)
    if (drawn.usual && !drawn.main && is_meant(drawn)) block.figures.push_back(figure(drawn));
  return block.figures.empty() ? std::nullopt : std::optional(block);
}

/// Scenes, or moments: a line each, and the work plane of all of them on one scale.
std::optional<Block> RoomBlocks::uses(const char* heading, bool moments) {
  Block block;
  block.heading = word(heading);
  const words::DataTable table = words::scenes_data(one_, moments);
  if (table.rows().empty()) return std::nullopt;
  block.tables.push_back(
      chosen_columns(table, {"scene", "verdict", "when", "mean_" + std::string(one_.units.light_unit()), "u0",
                             "daylight_factor_percent", "power_w"}));
  const std::string plane = moments ? "--moments--" : "--scenes--";
  for (const figures::Figure& drawn :
       figures::figures_of_scenes(room_, source_.run.style, source_.run.units, {}))
    if (drawn.usual && drawn.base.find(plane) != std::string::npos) block.figures.push_back(figure(drawn));
  return block;
}

/// The year of daylight: a line a grid, the year at a glance and the map of its autonomy.
std::optional<Block> RoomBlocks::year() {
  Block block;
  block.heading = word("Daylight of the year");
  const words::DataTable table = words::year_data(one_), points = words::year_points_data(one_);
  if (table.rows().empty()) return std::nullopt;
  block.tables.push_back(chosen_columns(
      table, {"grid", "autonomy_percent", "autonomy_uncertainty_percent", "from_300_to_3000_percent",
              "above_3000_percent", "spatial_autonomy_percent", "sun_exposure_percent", "exposure_klxh"}));
  if (!points.rows().empty()) block.tables.push_back(points);
  if (const words::DataTable times = words::year_times_data(one_); !times.rows().empty())
    block.tables.push_back(times);
  const std::string folder = model::file_name_part(model::kYearScene) + "/";
  for (const figures::Figure& drawn :
       figures::figures_of_scenes(room_, source_.run.style, source_.run.units, {}))
    if (drawn.usual && drawn.base.rfind(folder, 0) == 0 && !ends_with(drawn.base, "--work-plane"))
      block.figures.push_back(figure(drawn));
  return block;
}

/// Of outdoor areas: neighbours, the luminaires that they see, plan and facades.
std::optional<Block> RoomBlocks::neighbours() {
  Block block;
  block.heading = word("Neighbours");
  const words::DataTable table = words::neighbours_data(one_);
  if (table.rows().empty()) return std::nullopt;
  const std::string light = one_.units.light_unit();
  block.tables.push_back(
      chosen_columns(table, {"scene", "neighbour", "mean_" + light, "mean_limit_" + light, "k", "k_limit",
                             "intensity_cd", "intensity_limit_cd", "verdict"}));
  block.tables.push_back(
      chosen_columns(words::neighbour_luminaires_data(one_),
                     {"scene", "neighbour", "luminaire", "intensity_cd", "luminance_cd_m2", "k"}));
  for (const figures::Figure& drawn : figures::figures_of(room_, source_.run.style, source_.run.units, {}))
    if (ends_with(drawn.base, "--neighbours") || ends_with(drawn.base, "--glare"))
      block.figures.push_back(figure(drawn));
  return block;
}

/// Energy by methods and zones, chosen hours, the year of electric light and chosen days.
std::optional<Block> RoomBlocks::energy() {
  Block block;
  block.heading = word("Energy of the year");
  const words::DataTable table = words::energy_data(one_);
  if (table.rows().empty()) return std::nullopt;
  block.tables.push_back(
      chosen_columns(table, {"zone", "method", "power_w", "low_kwh", "kwh", "uncontrolled_kwh",
                             "saving_percent", "kwh_m2", "cost", "co2_kg", "missed_h"}));
  for (const figures::Figure& drawn : figures::figures_of(room_, source_.run.style, source_.run.units, {}))
    if (ends_with(drawn.base, "--energy") || ends_with(drawn.base, "--energy--days"))
      block.figures.push_back(figure(drawn));
  return block;
}

std::optional<Block> RoomBlocks::grids() const {
  Block block;
  block.heading = word("All grids");
  const std::string light = one_.units.light_unit();
  const words::DataTable all = words::grids_data(one_);
  block.tables.push_back(
      chosen_columns(all,
                     {"grid", "kind", "points", "mean_" + light, "mean_uncertainty_" + light,
                      "least_" + light, "most_" + light, "u0"},
                     [](const auto& row) { return std::holds_alternative<std::monostate>(row[1]); }));
  return block.tables.front().rows().empty() ? std::nullopt : std::optional(block);
}

std::optional<Block> RoomBlocks::notes() const {
  const auto found = source_.wish.room_notes.find(room_.name);
  if (found == source_.wish.room_notes.end()) return std::nullopt;
  Block block;
  block.heading = word("Notes");
  block.html = html_of_markdown(found->second);
  return block;
}

std::optional<Block> RoomBlocks::block(const std::string& part) {
  const auto is_about = [](const char* end) {
    return [end](const figures::Figure& drawn) { return ends_with(drawn.base, end); };
  };
  const auto is_of_eyes = [](const figures::Figure& drawn) {
    return ends_with(drawn.base, "--ugr") || ends_with(drawn.base, "--eyes--sheet");
  };
  if (part == "facts") return facts();
  if (part == "plan") return plan();
  if (part == "checks") return checks(std::size_t(-1));
  if (part == "mends") return mends(std::size_t(-1));
  if (part == "views") return views(std::size_t(-1));
  if (part == "notes") return notes();
  if (part == "areas")
    return figures("Task areas", [&](const figures::Figure& drawn) {
      return !ends_with(drawn.base, "--sheet") && !is_of_eyes(drawn);
    });
  if (part == "surfaces") return figures("Floor, ceiling and walls", is_about("--room--sheet"));
  if (part == "glare") return figures("Glare", is_of_eyes);
  if (part == "scenes") return uses("Scenes", false);
  if (part == "year") return year();
  if (part == "neighbours") return neighbours();
  if (part == "energy") return energy();
  if (part == "moments") return uses("Moments with daylight", true);
  if (part == "grids") return grids();
  return std::nullopt;
}

}  // namespace

Section room_section(const Source& source, const record::RoomRecord& room) {
  RoomBlocks blocks(source, room);
  Section section = blocks.start();
  const auto& wished = source.wish.room_contents;
  for (const std::string& part : wished.empty() ? model::report_room_parts() : wished)
    if (auto block = blocks.block(part)) section.blocks.push_back(std::move(*block));
  return section;
}

Section room_page(const Source& source, const record::RoomRecord& room) {
  RoomBlocks blocks(source, room);
  Section section = blocks.start();
  section.blocks.push_back(blocks.facts());
  for (auto& block :
       {blocks.plan(), blocks.checks(kMostChecksOnAPage), blocks.mends(kMostMendsOnAPage), blocks.views(2)})
    if (block) section.blocks.push_back(*block);
  return section;
}

}  // namespace glow::report
