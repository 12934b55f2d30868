#include "words/tables/plan_table.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/problems/problems.hpp"
#include "words/text_layout.hpp"

namespace glow::words {
namespace {

std::string or_dash(std::size_t n) {
  return n ? std::to_string(n) : "-";
}

}  // namespace

std::string plan_table(const PlanWords& words) {
  const plans::FoundPlan& plan = *words.plan;
  double area = 0;
  for (const plans::FoundRoom& room : plan.rooms) area += geometry::signed_area(room.outline);
  std::string text = fmt::format(FMT_STRING("{} ({}): {}, {:.0f} m2{}\n"), words.floor, words.file,
                                 counted(plan.rooms.size(), "room"), area,
                                 plan.doubts.empty() ? "" : ", " + counted(plan.doubts.size(), "doubt"));
  text += fmt::format(FMT_STRING("  {:<8} {:<26} {:>7} {:>5} {:>7} {:>6}  {}\n"), "number", "room", "m2",
                      "doors", "windows", "things", "task proposed");
  for (std::size_t k = 0; k < plan.rooms.size(); ++k) {
    const plans::FoundRoom& room = plan.rooms[k];
    const auto windows =
        std::size_t(std::count_if(room.openings.begin(), room.openings.end(), [](const auto& opening) {
          return opening.kind == plans::FoundOpening::Kind::window;
        }));
    const auto things = std::size_t(std::count_if(plan.objects.begin(), plan.objects.end(),
                                                  [&](const auto& object) { return object.room == int(k); }));
    text += fmt::format(FMT_STRING("  {:<8} {:<26} {:>7.2f} {:>5} {:>7} {:>6}  {}\n"),
                        fitted(printable(room.number), 8), fitted(printable(words.names[k]), 26),
                        geometry::signed_area(room.outline), or_dash(room.openings.size() - windows),
                        or_dash(windows), or_dash(things + room.holes.size()),
                        words.tasks[k].empty() ? "-" : words.tasks[k]);
  }
  return text;
}

}  // namespace glow::words
