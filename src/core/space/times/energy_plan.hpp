#pragma once

#include "core/model/project.hpp"
#include "core/space/space.hpp"

namespace glow::space {

/// One zone as it is controlled.
struct PlannedZone {
  const model::ControlWish* wish = nullptr;  ///< null: groups that nobody names, without control
  std::string name;
  std::vector<std::size_t> groups;
  double target_lx = 0;
  std::vector<std::size_t> sensors;  ///< numbers of the space's points
};

/// What a room's energy is computed from.
struct EnergyPlan {
  std::vector<PlannedZone> zones;
  std::vector<char> used;     ///< by hours of the year; empty: nobody says when the room is used
  std::vector<int> scene_of;  ///< by hours of the year: number of the scene that is set, kAsPlaced: none
  static constexpr int kAsPlaced = -1;
  std::vector<int> days;          ///< of the year, the first 0, that are told hour by hour
  double day_h = 0, night_h = 0;  ///< usual hours of the task by EN 15193-1; 0: not known
  std::string building;
  double area_m2 = 0, maintenance = 1;
  bool has_windows = false;
  bool has_weather = false;
  /// Whether hours of a year of daylight move its zones.
  bool waits_for_daylight() const { return has_windows && has_weather; }
  std::optional<double> investment;  ///< luminaires and controls; nothing: not all luminaires have a price
  std::optional<double> price, co2_kg;
  std::string currency;
};

struct PlannedRoom;

/// Nothing where neither project nor room asks for energy. Faults: a zone that names no group, or one that
/// another names; a sensor that is no point of the room.
std::optional<EnergyPlan> plan_energy(const model::Project& project, const PlannedRoom& room,
                                      const std::string& task_area, const std::optional<double>& task_lx,
                                      Problems& problems);

}  // namespace glow::space
