#pragma once

#include "core/studies/energy/room_energy.hpp"

namespace glow::studies {

/// F_O of a zone by EN 15193-1; 1 where nobody says what control it has.
double occupancy_of(const space::PlannedZone& zone);

/// A room's year hour by hour. `watts`: of the plan's zones, as set. `day`: null where no zone is moved by
/// daylight or none comes in. `output` is filled as EnergyOfYear tells. The plan must have hours of use.
RoomEnergy::Hourly hourly_energy(const space::EnergyPlan& plan, const space::Space& space,
                                 const GroupsInYear& groups, const std::vector<double>& watts,
                                 const DayHours* day, Eigen::MatrixXf& output);

}  // namespace glow::studies
