#pragma once

#include <Eigen/Core>

#include "core/space/energy_plan.hpp"
#include "core/studies/energy/energy_findings.hpp"

namespace glow::studies {

/// The hours of a year of daylight in a room, with blinds by their rule.
struct DayHours {
  std::vector<int> hours;  ///< numbers of the hours of light (daylight::hour_of_year)
  Eigen::MatrixXf plane;   ///< at points of the first grid that people look at, or some of them, by hours
  std::vector<Vec3> plane_points;          ///< where those are
  std::vector<Eigen::RowVectorXf> points;  ///< at the space's points; those that cannot be read have none
};

/// The room's energy, as deep as what is known allows. `watts`: of groups as they are set; nothing where a
/// file states none. `group_mean_lx`: what each gives on the plane on average, as set, maintained. `day`:
/// null without a year of daylight.
RoomEnergy room_energy(const space::EnergyPlan& plan, const space::Space& space,
                       const std::vector<std::optional<double>>& watts,
                       const std::vector<double>& group_mean_lx, const DayHours* day);

}  // namespace glow::studies
