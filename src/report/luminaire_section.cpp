#include "report/luminaire_section.hpp"

#include <fmt/format.h>

#include "core/model/file_names.hpp"
#include "core/shelf/luminaire_facts.hpp"
#include "figures/curves/intensity_figures.hpp"
#include "report/inline_figure.hpp"
#include "words/tables/facts_table.hpp"
#include "words/text_layout.hpp"

namespace glow::report {
namespace {

/// Groups of one mark in all rooms.
struct Mark {
  const record::GroupRecord* group = nullptr;
  std::size_t count = 0;
  std::vector<std::string> rooms;
};

std::vector<Mark> marks_of(const record::RunRecord& run) {
  std::vector<Mark> marks;
  for (const record::RoomRecord& room : run.rooms)
    for (const record::GroupRecord& group : room.groups) {
      auto known = std::find_if(marks.begin(), marks.end(),
                                [&](const Mark& one) { return one.group->mark == group.mark; });
      if (known == marks.end()) known = marks.insert(marks.end(), {&group, 0, {}});
      known->count += group.positions.size();
      if (known->rooms.empty() || known->rooms.back() != room.name) known->rooms.push_back(room.name);
    }
  return marks;
}

std::string size_words(const record::GroupRecord& group, const units::ShownUnits& units) {
  const auto length = [&](double m) { return fmt::format(FMT_STRING("{:.3g}"), units.length(m)); };
  if (group.size_m.isZero()) return {};
  if (group.round) return length(group.size_m.x()) + " " + units.length_unit() + " across";
  return length(group.size_m.x()) + " x " + length(group.size_m.y()) + " " + units.length_unit();
}

Section sheet_of(const Source& source, const Mark& mark,
                 const std::shared_ptr<const photometry::Photometry>& photometry) {
  const record::GroupRecord& group = *mark.group;
  Section section;
  section.id = "luminaire-" + model::file_name_part(group.mark);
  section.title = group.mark + ": " + group.full_name();
  Block block;
  const auto fact = [&](const char* name, const std::string& value) {
    if (!value.empty() && value != "-") block.facts.emplace_back(source.words(name), value);
  };
  fact("Maker", group.manufacturer);
  fact("Luminaire", group.luminaire);
  fact("Size", size_words(group, source.run.units));
  if (!photometry) {
    fact("Flux", fmt::format(FMT_STRING("{:.0f} lm"), group.flux_lm));
    if (group.watts_w) fact("Power", fmt::format(FMT_STRING("{:.1f} W"), *group.watts_w));
    block.paragraphs.push_back("Its photometric file is not at hand: no curve.");
    section.blocks.push_back(std::move(block));
    return section;
  }
  const shelf::LuminaireFacts facts = shelf::facts_of(*photometry);
  fact("Lamps", facts.lamp);
  fact("Kind", facts.distribution);
  const auto with_unit = [](const std::string& value, const char* unit) {
    return value.empty() || value == "-" ? std::string() : value + unit;
  };
  fact("Flux", with_unit(words::measure_text(facts, shelf::Measure::flux), " lm"));
  fact("Power", with_unit(words::measure_text(facts, shelf::Measure::watts), " W"));
  fact("Efficacy", with_unit(words::measure_text(facts, shelf::Measure::efficacy), " lm/W"));
  fact("Colour temperature", with_unit(words::measure_text(facts, shelf::Measure::cct), " K"));
  fact("Ra", words::measure_text(facts, shelf::Measure::colour_rendering));
  fact("Beam angle", with_unit(words::key_text(facts, "beam"), " deg"));
  fact("UGR 4H x 8H", words::measure_text(facts, shelf::Measure::glare));
  fact("Largest luminance from 65 deg",
       with_unit(words::measure_text(facts, shelf::Measure::luminance), " cd/m2"));
  Block::Figure figure;
  figure.words = "Luminous intensity of " + group.mark + ", and its luminous area";
  figure.svg = inline_figure(figures::polar_svg({{group.mark + " " + group.luminaire, photometry}}, {}),
                             section.id + "-", figure.words);
  block.figures.push_back(std::move(figure));
  section.blocks.push_back(std::move(block));
  return section;
}

}  // namespace

Section luminaire_section(
    const Source& source,
    const std::map<std::string, std::shared_ptr<const photometry::Photometry>>& photometry, bool sheets) {
  Section section;
  section.id = "luminaires";
  section.title = source.words("Luminaire schedule");
  words::DataTable table("schedule", "luminaire", "Luminaires",
                         {{"mark", "Mark"},
                          {"luminaire", "Luminaire"},
                          {"count", "Count", 0},
                          {"flux", "Flux lm", 0},
                          {"power", "Power W", 1},
                          {"efficacy", "lm/W", 0},
                          {"cct", "K", 0},
                          {"ra", "Ra", 0},
                          {"all_power", "All W", 0},
                          {"rooms", "Rooms"}});
  const std::vector<Mark> marks = marks_of(source.run);
  for (const Mark& mark : marks) {
    const record::GroupRecord& group = *mark.group;
    const auto& watts = group.watts_w;
    table.text(group.mark)
        .text(group.full_name())
        .number(double(mark.count))
        .number(group.flux_lm)
        .number(watts);
    table.number(watts && *watts > 0 ? std::optional(group.flux_lm / *watts) : std::nullopt)
        .number(group.cct_k)
        .number(group.ra);
    table.number(watts ? std::optional(*watts * double(mark.count)) : std::nullopt)
        .text(words::some_of(mark.rooms))
        .end_row();
  }
  Block block;
  block.tables.push_back(std::move(table));
  section.blocks.push_back(std::move(block));
  for (std::size_t m = 0; sheets && m < marks.size(); ++m) {
    const auto found = photometry.find(marks[m].group->mark);
    section.parts.push_back(sheet_of(source, marks[m], found == photometry.end() ? nullptr : found->second));
  }
  return section;
}

}  // namespace glow::report
