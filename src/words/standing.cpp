#include "words/standing.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/assess/judge.hpp"
#include "words/text_layout.hpp"
#include "words/values.hpp"

namespace glow::words {
namespace {

using standards::Check;
using standards::Verdict;

/// Below 1: missed.
double reached_share(const Check& check) {
  const double actual = std::max(1e-12, check.actual), required = std::max(1e-12, check.demand.required);
  return standards::is_upper_limit(check.demand.quantity) ? required / actual : actual / required;
}

/// The lower, the more it decides.
double rank_of(const Check& check) {
  const double last = check.demand.quantity == standards::Quantity::colour_rendering ? 1e6 : 0;
  const double group = check.verdict == Verdict::not_met     ? -2e6
                       : check.verdict == Verdict::undecided ? -1e6
                                                             : last;
  return group + reached_share(check);
}

}  // namespace

Standing standing(const record::RoomRecord& room, const std::string& standard) {
  Standing result;
  std::vector<Check> own;
  for (const Check& check : room.assessment.checks) {
    if (!check.binding || (!standard.empty() && check.demand.standard != standard)) continue;
    own.push_back(check);
    ++result.binding;
    result.met += check.verdict == Verdict::met;
  }
  result.status = assess::status_of(own);
  result.decisive = decisive_check(room, standard);
  return result;
}

const Check* decisive_check(const record::RoomRecord& room, const std::string& standard) {
  const Check* first = nullptr;
  for (const Check& check : room.assessment.checks)
    if (check.binding && (standard.empty() || check.demand.standard == standard) &&
        (!first || rank_of(check) < rank_of(*first)))
      first = &check;
  return first;
}

std::string held_words(const Check& check, const units::ShownUnits& units) {
  const standards::Quantity quantity = check.demand.quantity;
  const bool luminance = quantity == standards::Quantity::luminaire_luminance;
  const std::string unit = check.unit();
  const std::string limit = standards::is_in_lux(quantity)
                                ? number(quantity, check.demand.required, units, {})
                            : unit.empty() ? fmt::format(FMT_STRING("{:g}"), check.demand.required)
                                           : fmt::format(FMT_STRING("{:g} {}"), check.demand.required, unit);
  const std::string asked =
      standards::is_upper_limit(quantity) ? "at most " + limit : required(check.demand, units);
  return fmt::format(FMT_STRING("{} {} of {}"), luminance ? "luminance" : symbol(quantity),
                     found_words(check, units, {}), asked);
}

std::string check_words(const Check& check, const record::RoomRecord& room, const units::ShownUnits& units,
                        std::size_t width) {
  constexpr std::size_t kLeastOfName = 6;
  const std::string mark = check.demand.certainty == "agreed" ? "" : "*";
  const std::string held = fmt::format(FMT_STRING(", {}{}"), held_words(check, units), mark);
  const std::size_t taken = columns_of(held) + kLeastOfName;
  return fitted(name_of(check.target, room), kLeastOfName + (width > taken ? width - taken : 0)) + held;
}

std::string met_words(std::size_t met, std::size_t judged) {
  return fmt::format(FMT_STRING("{} of {} rooms with a target meet it"), met, judged);
}

std::string met_words(const record::RunRecord& run) {
  std::size_t met = 0, judged = 0;
  for (const record::RoomRecord& room : run.rooms) {
    judged += room.assessment.status != assess::Status::no_target;
    met += room.assessment.status == assess::Status::met;
  }
  return met_words(met, judged);
}

std::string floor_words(const record::FloorRecord& floor, const record::RunRecord& run) {
  return !floor.name.empty() ? floor.name : run.floors.empty() ? run.project : "On no floor";
}

std::string shares_words(const record::RunRecord& run, const std::optional<std::string>& floor) {
  const auto shares = record::shares_over(run.rooms, floor);
  if (!shares) return {};
  const auto stated = std::find_if(run.rooms.begin(), run.rooms.end(), [](const record::RoomRecord& room) {
    return room.thresholds_lx.has_value();
  });
  const char* unit = run.units.light_unit();
  return fmt::format(FMT_STRING("Work planes: {:.0f} % below {} {}, {:.0f} % within, {:.0f} % above {} {}\n"),
                     100 * shares->below, units::light_words(run.units, stated->thresholds_lx->first), unit,
                     100 * shares->within, 100 * shares->above,
                     units::light_words(run.units, stated->thresholds_lx->second), unit);
}

std::string standards_words(const std::vector<std::string>& standards) {
  std::string words;
  for (std::size_t i = 0; i < standards.size(); ++i)
    words += (i == 0 ? "" : i + 1 < standards.size() ? ", " : " and ") + standards[i];
  return words;
}

}  // namespace glow::words
