#include "words/tables/room_table.hpp"

#include <fmt/format.h>

#include <cmath>

#include "words/paint.hpp"
#include "words/tables/check_table.hpp"
#include "words/tables/glare_table.hpp"
#include "words/tables/grid_table.hpp"
#include "words/tables/luminaire_table.hpp"
#include "words/text_layout.hpp"
#include "words/topics/glare_words.hpp"
#include "words/topics/room_words.hpp"
#include "words/values.hpp"

namespace glow::words {
namespace {

constexpr std::pair<const char*, Section> kSections[] = {
    {"checks", Section::checks},         {"grids", Section::grids},   {"glare", Section::glare},
    {"luminaires", Section::luminaires}, {"floors", Section::floors}, {"all", Section::all}};

/// Under the room's name.
std::string head(const record::RoomRecord& room, Section section, bool colour) {
  const std::string status = to_string(room.assessment.status);
  std::string text =
      fmt::format(FMT_STRING("\n{}: {}\n"), room.title(),
                  room.assessment.status == assess::Status::no_target ? status : painted(status, colour));
  if (!room.changed_since.empty()) wrap(text, "  ! ", older_words(room), 4);
  if (room.moment) wrap(text, "  ", room.moment->words(), 4);
  if (section == Section::grids || section == Section::luminaires) return text;
  for (const record::TaskRecord& task : room.tasks)
    wrap(text, "  ",
         fmt::format(FMT_STRING("{} ({}; certainty of the values: {})"), task.key, task.source,
                     task.certainty),
         4);
  return text;
}

/// What is held against the requirements, and what of them is not.
std::string verified(const record::RoomRecord& room) {
  std::string text;
  const std::string words = verified_as_words(room.verified_as);
  if (!words.empty()) wrap(text, "  ", "verified: " + words, 4);
  std::vector<std::string> left;
  for (const standards::NotVerified& item : room.assessment.not_verified)
    left.push_back(not_verified_words(item, room.assessment.glare.table));
  if (!left.empty()) wrap(text, "  ", fmt::format(FMT_STRING("not verified: {}"), fmt::join(left, "; ")), 4);
  return text;
}

/// How the light comes about.
std::string light_words(const record::RoomRecord& room, const units::ShownUnits& units) {
  std::string text;
  const assess::GridReading& grid = room.assessment.grids.front();
  const double mean = grid.statistics.mean_lx;
  if (grid.role == space::GridRole::work_plane && mean > 0)
    wrap(text, "  ",
         fmt::format(
             FMT_STRING("work plane: {:.0f} % direct, {:.0f} % interreflected; mean sure to +/- {:.2g} {}; "
                        "maintenance factor {:.2f}, initial mean {:.1f} {}"),
             100 * grid.direct_mean_lx / mean, 100 - std::round(100 * grid.direct_mean_lx / mean),
             units.light(grid.uncertainty.mean_lx), units.light_unit(), room.maintenance_factor,
             units.light(grid.initial.mean_lx), units.light_unit()),
         4);
  const transport::FluxBalance& b = room.balance;
  if (b.emitted_lm <= 0) return text;
  std::string words = fmt::format(FMT_STRING("flux: {:.0f} lm emitted, {:.2f} % of it absorbed in the room"),
                                  b.emitted_lm, 100 * b.absorbed_lm / b.emitted_lm);
  if (b.escaped_lm > 0)
    words += fmt::format(FMT_STRING(", {:.2f} % gone through openings"), 100 * b.escaped_lm / b.emitted_lm);
  wrap(text, "  ", words, 4);
  return text;
}

}  // namespace

std::optional<Section> section_of(const std::string& words) {
  for (const auto& [name, section] : kSections)
    if (words == name) return section;
  return std::nullopt;
}

std::string room_table(const record::RoomRecord& room, Section section, const units::ShownUnits& units,
                       bool colour) {
  const bool all = section == Section::all;
  std::string text = head(room, section, colour);
  if (all || section == Section::grids) text += grid_table(room, units) + light_words(room, units);
  const auto apart = [&](const std::string& table) {
    if (!table.empty()) text += (all ? "\n" : "") + table;
  };
  if (all || section == Section::checks) {
    const std::string checks = check_table(room, units, colour);
    apart(checks.empty() && section == Section::checks ? "  nothing is asked of it\n" : checks);
    text += verified(room);
  }
  if (all || section == Section::glare) {
    const std::string glare = glare_table(room, units);
    apart(glare.empty() && section == Section::glare ? "  nobody's eyes are rated here\n" : glare);
  }
  if (all || section == Section::luminaires) apart(luminaire_table(room, units));
  return text;
}

}  // namespace glow::words
