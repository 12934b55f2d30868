#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/model/year.hpp"

namespace glow::model {

/// What energy costs.
struct EnergyWish {
  std::optional<double> price;          ///< of a kWh
  std::string currency;                 ///< as written; empty: not stated
  std::optional<double> co2_kg;         ///< of a kWh
  std::optional<UseHours> hours;        ///< of rooms without their own; else those of [year]
  std::vector<UseHours::Holiday> days;  ///< each of one day: told hour by hour
  Place place;
};

/// How daylight moves the electric light of a zone.
enum class ControlKind { none, switched, dimmed };
/// Who switches on and off when people come and go, by EN 15193-1.
enum class PresenceKind {
  manual,
  sweep_off,
  auto_on_dimmed,
  auto_on_off,
  manual_on_dimmed,
  manual_on_auto_off
};

/// A zone of a room: groups that are controlled together.
struct ControlWish {
  std::string name;
  std::vector<std::string> of;  ///< names or marks of groups; empty: all that no other zone names
  ControlKind kind = ControlKind::none;
  /// Names of the room's points, whose mean counts; empty: one where the zone needs it most.
  std::vector<std::string> sensors;
  std::optional<double> target_lx;        ///< nothing: the task's
  double least_output = 0;                ///< of a dimmed driver
  double least_power = 0.1;               ///< share of the power that it takes then; it stays on
  double standby_w = 0, emergency_w = 0;  ///< of the zone: while it is off; charging all the year
  double absence = 0;                     ///< share of the hours of use in which nobody is there
  PresenceKind presence = PresenceKind::manual;
  bool constant = false;                                    ///< the maintained level is held from new on
  std::optional<double> daylight_supply, daylight_control;  ///< F_DS and F_DC, for the yearly method
  std::optional<double> price;  ///< of sensors and what else the control wants, installed
  Place place, of_place, sensor_place;
};

/// What a room's lighting may take at most; nothing: not asked.
struct EnergyLimits {
  std::optional<double> kwh_m2, w_m2, w_m2_100lx;
  std::optional<UseHours> hours;
  Place place;
};

}  // namespace glow::model
