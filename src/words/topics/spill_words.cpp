#include "words/topics/spill_words.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/record/lit_together.hpp"
#include "core/record/record.hpp"
#include "words/text_layout.hpp"

namespace glow::words {

std::vector<std::string> spill_cause_words(const studies::SpillCauses& causes, const standards::Check& check,
                                           const Values& values) {
  if (causes.parts.empty()) return {"no luminaire is in sight; the light comes by way of surfaces"};
  std::string list;
  for (const studies::SpillCauses::Part& part : causes.parts) {
    const std::string value = standards::is_in_lux(check.demand.quantity) ? values.light(part.lux)
                              : check.demand.quantity == standards::Quantity::glare_value
                                  ? fmt::format(FMT_STRING("k {:.0f}{}"), part.k,
                                                part.outside_range ? " (outside the formula's range)" : "")
                                  : fmt::format(FMT_STRING("{:.0f} cd"), part.intensity_cd);
    list += fmt::format(FMT_STRING("{}{} at {}, {} away, {:.0f} deg off its axis, {}"),
                        list.empty() ? "" : "; ", part.source.mark, values.in_plan(part.source.at),
                        values.length(part.distance_m), part.gamma_deg, value);
  }
  std::string seen = counted(causes.seen, "luminaire") + " in sight";
  if (!standards::is_in_lux(check.demand.quantity))
    seen += fmt::format(FMT_STRING(", {} of them beyond the limit"), causes.beyond);
  if (check.demand.quantity == standards::Quantity::glare_value)
    seen += fmt::format(FMT_STRING("; before a background of {:.2g} cd/m2"), causes.background_cd_m2);
  return {list, seen};
}

std::string spill_change_words(const studies::SpillChange& change, const Values& values) {
  using Kind = studies::SpillChange::Kind;
  std::string who = fmt::format(FMT_STRING("{} at {}"), change.first.mark, values.in_plan(change.first.at));
  if (change.luminaires > 1) who += fmt::format(FMT_STRING(" and {} more"), change.luminaires - 1);
  switch (change.kind) {
    case Kind::dimmed:
      return who + fmt::format(FMT_STRING(" dimmed to {:.0f} %"), 100 * change.amount);
    case Kind::tilted:
      return who + fmt::format(FMT_STRING(" tilted down by {:g} deg"), change.amount);
    case Kind::turned:
      return who + fmt::format(FMT_STRING(" turned by {:g} deg"), change.amount);
    case Kind::shielded:
      return who + fmt::format(FMT_STRING(" shielded from {:g} deg off its axis on"), change.amount);
    case Kind::moved:
      return who + " moved away by " + values.length(change.amount);
    case Kind::off:
      return who + " switched off in these hours (scenes with hours)";
  }
  return who;
}

std::string together_words(const record::RunRecord& run, bool failing) {
  std::string text;
  for (const record::LitTogether& each : record::lit_together(run)) {
    const standards::Check& check = each.check;
    const auto light = [&](double lux) {
      return value(check.demand.quantity, lux, run.units, Detail::table);
    };
    const bool fails = check.verdict != standards::Verdict::met;
    if (failing && !fails) continue;
    std::string areas;
    for (const auto& [area, lux] : each.areas)
      areas += fmt::format(FMT_STRING("{}{} {}"), areas.empty() ? "" : ", ", area, light(lux));
    const bool highest = check.demand.quantity == standards::Quantity::property_illuminance;
    wrap(text, fails ? "  ! " : "  ",
         fmt::format(FMT_STRING("{}: {}{} {} from all areas together, {} allowed: {}; {}"), each.neighbour,
                     highest ? "at most " : "", light(check.actual),
                     highest ? "anywhere on it" : "on its window", light(check.demand.required),
                     to_string(check.verdict), areas),
         4);
  }
  return text;
}

std::string spill_remarks(const record::RunRecord& run) {
  std::string text;
  for (const record::RoomRecord& room : run.rooms) {
    if (!room.assessment.spill) continue;
    const assess::SpillReading& spill = *room.assessment.spill;
    wrap(text, "  ",
         fmt::format(FMT_STRING("{}: luminaires as new, as placed; {:.1f} % of their light leaves above the "
                                "horizontal; small solid angles: {}"),
                     room.name, spill.upward_percent(), spill.small_angles),
         4);
    for (const assess::NeighbourReading& own : spill.neighbours) {
      const std::string& name = room.assessment.grids[own.grid].name;
      const auto outside =
          std::count_if(own.sources.begin(), own.sources.end(),
                        [](const assess::SpillSource& source) { return source.outside_range; });
      const auto unsized = std::count_if(own.sources.begin(), own.sources.end(),
                                         [](const auto& source) { return source.projected_area_m2 <= 0; });
      if (outside > 0)
        wrap(text, "  ! ",
             fmt::format(
                 FMT_STRING("{}: of {} luminaires in sight {} are outside what k was made for (1e-6 to "
                            "1e-2 sr before 0.1 to 10 cd/m2)"),
                 name, own.sources.size(), outside),
             4);
      if (unsized > 0)
        wrap(text, "  ! ",
             fmt::format(FMT_STRING("{}: files of {} luminaires in sight state no luminous size seen from "
                                    "there; their k hangs on the least solid angle"),
                         name, unsized),
             4);
    }
  }
  text += together_words(run, false);
  return text.empty() ? text : "\n" + text;
}

}  // namespace glow::words
