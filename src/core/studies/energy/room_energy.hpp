#pragma once

#include <Eigen/Core>
#include <optional>
#include <vector>

#include "core/space/times/energy_plan.hpp"
#include "core/studies/energy/energy_findings.hpp"

namespace glow::studies {

/// The hours of a year of daylight in a room, with blinds by their rule.
struct DayHours {
  std::vector<int> hours;  ///< numbers of the hours of light (daylight::hour_of_year)
  Eigen::MatrixXf plane;   ///< at points of the first grid that people look at, or some of them, by hours
  std::vector<Vec3> plane_points;            ///< where those are
  std::vector<std::size_t> plane_receivers;  ///< their numbers
  std::vector<Eigen::RowVectorXf> points;    ///< at the space's points; those that cannot be read have none

  /// One row of those, by all hours of the year; dark ones 0.
  std::vector<float> over_year(const Eigen::RowVectorXf& by_light) const;
};

/// What the room's groups take and give.
struct GroupsInYear {
  std::vector<std::optional<double>> watts;  ///< as they are set; nothing where a file states none
  std::vector<double> mean_lx;               ///< what each gives on the plane on average, as set, maintained
  std::vector<std::vector<double>> scene_shares;  ///< by the room's scenes: of what they give as set
  /// Share of what a group gives as set in this hour of the year, before control.
  double share(const space::EnergyPlan& plan, std::size_t group, std::size_t hour) const;
};

/// The room's energy, as deep as what is known allows.
struct EnergyOfYear {
  RoomEnergy energy;
  Eigen::MatrixXf output;  ///< groups by hours of the year: of what they give as set; empty: not hour by hour
};

/// `day`: null without a year of daylight.
EnergyOfYear room_energy(const space::EnergyPlan& plan, const space::Space& space, const GroupsInYear& groups,
                         const DayHours* day);

}  // namespace glow::studies
