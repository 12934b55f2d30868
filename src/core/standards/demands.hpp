#pragma once

#include "core/standards/general_rules.hpp"
#include "core/standards/verdict.hpp"

namespace glow::standards {

/// A row of a table with the level that the project puts in force.
struct TaskInForce {
  Requirement row;
  std::optional<double> em_lx;  ///< maintained mean; nothing where the row sets none
  std::string em_certainty;
  std::string reason;  ///< why em_lx is not the row's own; empty: it is
};

/// Mean (or minimum) and U0 of the plane that the task is done on. Columns that the table leaves empty ask
/// for nothing.
std::vector<Demand> task_demands(const TaskInForce& task);
/// Of the immediate surrounding area, and of the background area beyond.
std::vector<Demand> surrounding_demands(const TaskInForce& task, const Surroundings& surroundings);
std::vector<Demand> background_demands(const TaskInForce& task, const Surroundings& surroundings);
/// Of walls, ceiling and cylinders: mean and U0 0.10; empty where the row states no value.
std::vector<Demand> surface_demands(const TaskInForce& task, const std::optional<double>& mean_lx);
/// Of the light's colour; empty where the row states no Ra.
std::vector<Demand> colour_demands(const TaskInForce& task);

/// Of emergency lighting: what no point may fall below, and how uneven it may be; when half of it is there.
std::vector<Demand> emergency_demands(const TaskInForce& task);
std::vector<Demand> delay_demands(const TaskInForce& task);

/// Of glare: RUGL and the limit of GR; empty where the row states none.
std::vector<Demand> glare_demands(const TaskInForce& task);

/// What the row may ask for, and is not held.
std::vector<NotVerified> not_verified(const Requirement& row);

}  // namespace glow::standards
