#include "words/building_answer.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "words/standing.hpp"
#include "words/text_layout.hpp"
#include "words/values.hpp"

namespace glow::words {
namespace {

using assess::Status;
using standards::Target;

const char* role_word(space::GridRole role) {
  switch (role) {
    case space::GridRole::work_plane:
      return "work plane";
    case space::GridRole::floor:
      return "floor";
    case space::GridRole::ceiling:
      return "ceiling";
    case space::GridRole::wall:
      return "walls";
    case space::GridRole::task_area:
      return "task areas";
    case space::GridRole::surrounding:
    case space::GridRole::background:
      return "surroundings";
    default:
      return "other grids";
  }
}

/// "mean, walls": what a check asks, of whatever room.
std::string what_of(const standards::Check& check, const record::RoomRecord& room) {
  const std::string quantity = symbol(check.demand.quantity);
  const auto& grids = room.assessment.grids;
  switch (check.target.kind) {
    case Target::Kind::grid:
      return quantity + ", " +
             (check.target.id < grids.size() ? role_word(grids[check.target.id].role) : "grids");
    case Target::Kind::tabular:
      return quantity + ", tabular";
    case Target::Kind::eyes:
      return quantity + " at the eyes";
    default:
      return quantity;
  }
}

/// Names, as many as fit a few lines.
std::string names_of(const std::vector<const record::RoomRecord*>& rooms) {
  constexpr std::size_t kMostShown = 12;
  std::string names;
  for (std::size_t k = 0; k < std::min(rooms.size(), kMostShown); ++k)
    names += (names.empty() ? "" : ", ") + rooms[k]->name;
  if (rooms.size() > kMostShown) names += fmt::format(FMT_STRING(" and {} more"), rooms.size() - kMostShown);
  return names;
}

/// What is missed in how many of the rooms, most often first.
std::string misses_of(const std::vector<const record::RoomRecord*>& rooms) {
  constexpr std::size_t kMostShown = 4;
  std::map<std::string, std::size_t> counts;
  for (const record::RoomRecord* room : rooms) {
    std::map<std::string, bool> of_room;
    for (const standards::Check& check : room->assessment.checks)
      if (check.binding && check.verdict != standards::Verdict::met) of_room[what_of(check, *room)] = true;
    for (const auto& [what, missed] : of_room) ++counts[what];
  }
  std::vector<std::pair<std::string, std::size_t>> sorted(counts.begin(), counts.end());
  std::stable_sort(sorted.begin(), sorted.end(),
                   [](const auto& a, const auto& b) { return a.second > b.second; });
  std::string words;
  for (std::size_t k = 0; k < std::min(sorted.size(), kMostShown); ++k)
    words += fmt::format(FMT_STRING("{}{} ({})"), k ? "; " : "", sorted[k].first, sorted[k].second);
  return words;
}

std::string floor_answer(const record::RunRecord& run, const record::FloorRecord& floor) {
  std::map<Status, std::vector<const record::RoomRecord*>> by_status;
  std::size_t rooms = 0;
  for (const record::RoomRecord& room : run.rooms)
    if (room.floor == floor.name) {
      by_status[room.assessment.status].push_back(&room);
      ++rooms;
    }
  if (rooms == 0) return {};  // none of them computed
  const std::size_t judged = rooms - by_status[Status::no_target].size();
  const std::string name = !floor.name.empty()  ? floor.name
                           : run.floors.empty() ? run.project
                                                : "On no floor";
  std::string text = floor_words(floor, run) + ": " + met_words(by_status[Status::met].size(), judged) + "\n";
  for (const auto& [status, words] :
       {std::pair{Status::not_met, "not met"}, std::pair{Status::undecided, "undecided"}}) {
    const auto& these = by_status[status];
    if (these.empty()) continue;
    wrap(text, fmt::format(FMT_STRING("  {} ({}): "), words, these.size()), names_of(these), 4);
    wrap(text, "    missed: ", misses_of(these), 6);
  }
  return text;
}

}  // namespace

bool is_long(const record::RunRecord& run) {
  constexpr std::size_t kMostRooms = 24;
  return run.rooms.size() > kMostRooms;
}

std::string building_answer(const record::RunRecord& run) {
  std::string text;
  for (const record::FloorRecord& floor : record::floors_with_rooms(run)) text += floor_answer(run, floor);
  return text;
}

}  // namespace glow::words
