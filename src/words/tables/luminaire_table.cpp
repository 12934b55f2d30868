#include "words/tables/luminaire_table.hpp"

#include <fmt/format.h>

#include <map>

#include "words/text_layout.hpp"
#include "words/values.hpp"

namespace glow::words {
namespace {

constexpr std::size_t kMarkWidth = 8, kLuminaireWidth = 30;

std::string watts(const std::optional<double>& watts_w) {
  return watts_w ? fmt::format(FMT_STRING("{:.1f}"), *watts_w) : std::string("?");
}

std::string aim_words(const record::GroupRecord& group, const units::ShownUnits& units) {
  if (!group.aim) return "-";
  return fmt::format(FMT_STRING("({:.1f}, {:.1f}, {:.1f})"), units.length(group.aim->x()),
                     units.length(group.aim->y()), units.length(group.aim->z()));
}

/// What all of a group share, then where each hangs.
std::string group_rows(const record::GroupRecord& group, const units::ShownUnits& units) {
  const bool named = group.name != group.mark;
  std::string text = fmt::format(FMT_STRING("  {:<{}} {:>3} x {}{}\n"), fitted(group.mark, kMarkWidth),
                                 kMarkWidth, group.positions.size(), fitted(group.full_name(), 60),
                                 named ? fmt::format(FMT_STRING(", \"{}\""), group.name) : std::string());
  wrap(text, "    ",
       fmt::format(FMT_STRING("each {:.0f} lm, {} W, dimmed to {:.0f} %, maintenance factor {:.2f}"),
                   group.flux_lm, watts(group.watts_w), 100 * group.weight.output, group.weight.maintenance),
       4);
  for (std::size_t i = 0; i < group.positions.size(); ++i) {
    const Vec3& p = group.positions[i];
    text += fmt::format(FMT_STRING("    {:>8.2f} {:>8.2f} {:>8.2f} {:>9.1f} {:>6.1f}  {}\n"),
                        units.length(p.x()), units.length(p.y()), units.length(p.z()), group.rotations_deg[i],
                        group.tilts_deg[i], aim_words(group, units));
  }
  return text;
}

}  // namespace

std::string power_words(const record::RoomRecord& room) {
  std::string words;
  for (const record::MarkRecord& mark : room.marks())
    words += fmt::format(FMT_STRING("{}{} x {}"), words.empty() ? "" : ", ", mark.count, mark.mark);
  if (words.empty()) return "no luminaires";
  const assess::Power& power = room.assessment.power;
  if (!power.installed_w) return words + "; installed power unknown";
  words += fmt::format(FMT_STRING("; {:.0f} W, {:.2f} W/m2"), *power.installed_w, *power.w_per_m2);
  if (power.w_per_m2_100lx)
    words += fmt::format(FMT_STRING(", {:.2f} W/m2 per 100 lx"), *power.w_per_m2_100lx);
  return words;
}

std::string luminaire_table(const record::RoomRecord& room, const units::ShownUnits& units) {
  std::string text;
  if (!room.groups.empty())
    text += fmt::format(FMT_STRING("    {:>8} {:>8} {:>8} {:>9} {:>6}  aim\n"),
                        "x " + std::string(units.length_unit()), "y", "z", "rotation", "tilt");
  for (const record::GroupRecord& group : room.groups) text += group_rows(group, units);
  wrap(text, "  ", power_words(room), 4);
  return text;
}

std::string luminaire_totals(const record::RunRecord& run) {
  struct Total {
    std::string luminaire;
    std::size_t count = 0;
    double flux_lm = 0;
    std::optional<double> watts_w = 0;
  };
  std::map<std::string, Total> totals;
  for (const record::RoomRecord& room : run.rooms)
    for (const record::GroupRecord& group : room.groups) {
      Total& total = totals[group.mark];
      const double count = double(group.positions.size());
      total.luminaire = group.full_name();
      total.count += group.positions.size();
      total.flux_lm += count * group.flux_lm;
      if (!group.watts_w) total.watts_w.reset();
      if (total.watts_w) *total.watts_w += count * *group.watts_w;
    }
  if (totals.empty()) return {};
  std::string text =
      fmt::format(FMT_STRING("\n{:<{}} {:>5} {:>9} {:>9}  in all\n"), "mark", kMarkWidth, "count", "lm", "W");
  for (const auto& [mark, total] : totals)
    text += fmt::format(FMT_STRING("{:<{}} {:>5} {:>9.0f} {:>9}  {}\n"), fitted(mark, kMarkWidth), kMarkWidth,
                        total.count, total.flux_lm, watts(total.watts_w),
                        fitted(total.luminaire, kLuminaireWidth + 10));
  return text;
}

}  // namespace glow::words
