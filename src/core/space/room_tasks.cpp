#include "core/space/room_tasks.hpp"

#include <fmt/format.h>

namespace glow::space {
namespace {

using standards::Requirement;
using standards::RequirementTable;
using standards::TaskInForce;

void report_missing(const RequirementTable& table, const std::string& task, const Place& place,
                    Problems& problems) {
  const std::string near = nearest_word(task, table.keys());
  problems.error(
      "P012", place,
      fmt::format(
          FMT_STRING("unknown task \"{}\" in {}; {}"), task, table.name(),
          near.empty()
              ? fmt::format(FMT_STRING("keys look like \"{}\"; glowgrid tasks WORDS finds them"),
                            table.rows()[0].key)
              : fmt::format(FMT_STRING("did you mean \"{}\"? (glowgrid tasks WORDS finds keys)"), near)));
}

/// `main`: of the standard that counts first, where a level that it does not give is an error.
void change_level(const model::LevelChoice& level, bool main, TaskInForce& task, Problems& problems) {
  const Requirement& row = task.row;
  if (!row.em_lx) return;
  if (level.modified) {
    if (row.em_modified_lx) {
      task.em_lx = row.em_modified_lx;
      task.em_certainty = row.modified_certainty;
      task.reason = fmt::format(FMT_STRING("modified from {:g} lx: {}"), *row.em_lx, level.reason);
    } else if (main) {
      problems.error("P053", level.place,
                     fmt::format(FMT_STRING("{} holds no modified level for \"{}\"; say \"steps\" = 1 on the "
                                            "scale of illuminances instead"),
                                 row.standard_name(), row.key));
    } else {
      task.reason = "the required level: this standard holds no modified one";
    }
    return;
  }
  const auto changed = standards::stepped(*row.em_lx, level.steps);
  if (!changed) {
    problems.error(
        "P053", level.place,
        fmt::format(FMT_STRING("{} steps from {:g} lx leave the scale of illuminances (5 to 10000 lx)"),
                    level.steps, *row.em_lx));
    return;
  }
  task.em_lx = changed;
  const int count = std::abs(level.steps);
  task.reason = fmt::format(FMT_STRING("{} step{} {} from {:g} lx: {}"), count, count == 1 ? "" : "s",
                            level.steps > 0 ? "up" : "down", *row.em_lx, level.reason);
}

/// Standards that do not know the task, in one message.
void report_lacking(const std::vector<RequirementTable>& standards, const std::string& task,
                    const Place& place, Problems& problems) {
  std::vector<std::string> lacking, holding;
  for (const RequirementTable& table : standards)
    if (const Requirement* row = table.find(task); row && row->own) return;  // no standard knows it
  for (const RequirementTable& table : standards)
    if (!table.is_of_emergency() || table.find(task))
      (table.find(task) ? holding : lacking).push_back(table.name());
  if (lacking.empty() || holding.empty()) return;
  problems.warning("P054", place,
                   fmt::format(FMT_STRING("no task \"{}\" in {}; it is verified by {} only"), task,
                               fmt::join(lacking, ", "), fmt::join(holding, ", ")));
}

}  // namespace

Tasks find_tasks(const std::vector<RequirementTable>& standards, const std::string& task,
                 const Place& task_place, const std::optional<model::LevelChoice>& level,
                 Problems& problems) {
  Tasks tasks;
  for (const RequirementTable& table : standards) {
    const Requirement* row = table.find(task);
    if (!row) continue;
    TaskInForce in_force{*row, row->em_lx, row->certainty, {}};
    if (level) change_level(*level, tasks.empty(), in_force, problems);
    tasks.push_back(std::move(in_force));
  }
  if (tasks.empty()) report_missing(standards.front(), task, task_place, problems);
  report_lacking(standards, task, task_place, problems);
  return tasks;
}

readings::CountRule count_rule(const Tasks& tasks) {
  const bool sports = !tasks.empty() && tasks.front().row.standard == "EN 12193";
  return sports ? readings::CountRule::nearest_odd : readings::CountRule::nearest;
}

}  // namespace glow::space
