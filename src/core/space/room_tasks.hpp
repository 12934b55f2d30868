#pragma once

#include "core/model/project.hpp"
#include "core/standards/demands.hpp"

namespace glow::space {

/// What a task asks for in each of the standards that hold it, the main one first.
using Tasks = std::vector<standards::TaskInForce>;

/// Looks a task up in every standard and puts the chosen level in force. A task that none of them holds, or a
/// level that the first of them does not give, is an error; a task that some of them lack, a warning.
Tasks find_tasks(const std::vector<standards::RequirementTable>& standards, const std::string& task,
                 const Place& task_place, const std::optional<model::LevelChoice>& level, Problems& problems);

/// How grids for these tasks are counted: sports want points on the centre lines.
readings::CountRule count_rule(const Tasks& tasks);

}  // namespace glow::space
