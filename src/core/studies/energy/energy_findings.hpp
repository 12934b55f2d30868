#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/geometry/vec.hpp"

namespace glow::studies {

/// A better place for a sensor: the least energy with hardly an hour missed.
struct BetterSensor {
  Vec3 at = Vec3::Zero();
  double kwh = 0;
  int missed_h = 0;
};

/// A zone's year, hour by hour.
struct ZoneEnergy {
  std::string name, control;  ///< "dimmed by daylight", ...
  double watts = 0, target_lx = 0;
  /// Where daylight is measured; of several the mean counts.
  struct Sensor {
    std::string name;  ///< of its point; empty: placed by the program
    Vec3 at = Vec3::Zero();
  };
  std::vector<Sensor> sensors;  ///< empty: not by daylight
  double sensor_mean_lx = 0;    ///< daylight there, mean of the hours of use
  double kwh = 0, uncontrolled_kwh = 0;
  std::array<double, 12> by_month_kwh = {};
  int missed_h = 0;  ///< hours of use in which the plane's mean is below the target while the control dims
  double missed_by_lx = 0;  ///< mean of what is missing then
  using Better = BetterSensor;
  std::optional<Better> better;
};

/// One day hour by hour: means of the work plane, and what the room takes.
struct EnergyDay {
  int month = 1, date = 1;
  std::vector<double> daylight_lx, electric_lx, power_w;  ///< by 24 hours
};

/// From watts, usual hours of the task and whether there are windows: a range.
struct EstimatedEnergy {
  double low_kwh = 0, high_kwh = 0, hours = 0;
  std::string building;  ///< whose hours
};

/// EN 15193-1 by its factors.
struct FactoredEnergy {
  double light_kwh = 0, parasitic_kwh = 0, leni = 0;
  double constancy = 1, occupancy = 1, daylight = 1;  ///< of all zones, weighted by their watts
  double day_h = 0, night_h = 0;
};

/// Hour by hour, daylight at the sensors.
struct EnergyByHour {
  double kwh = 0, uncontrolled_kwh = 0, used_h = 0;
  std::array<double, 12> by_month_kwh = {};
  std::vector<double> by_day_kwh, daylight_by_day_lx;  ///< by days of the year; at the first sensor, in use
  std::vector<int> power_w;                            ///< by hours of the year
  std::vector<ZoneEnergy> zones;
  std::vector<EnergyDay> days;  ///< that were asked for
  double saving() const { return uncontrolled_kwh > 0 ? 1 - kwh / uncontrolled_kwh : 0; }
};

/// What a room's lighting takes in a year, in up to three depths that are never mixed up.
struct RoomEnergy {
  using Estimate = EstimatedEnergy;
  using Factors = FactoredEnergy;
  using Hourly = EnergyByHour;

  double area_m2 = 0;
  std::optional<Estimate> estimate;
  std::optional<Factors> factors;
  std::optional<Hourly> hourly;
  std::vector<std::string> missing;     ///< what a deeper calculation wants, in words
  std::optional<double> investment;     ///< luminaires and controls
  std::optional<double> price, co2_kg;  ///< of a kWh
  std::string currency;

  /// The deepest that there is: kWh in the year; of an estimate its middle.
  double kwh() const;
  /// Of a year; nothing: no price is stated.
  std::optional<double> cost() const { return price ? std::optional(*price * kwh()) : std::nullopt; }
  double kwh_m2() const { return area_m2 > 0 ? kwh() / area_m2 : 0; }
};

}  // namespace glow::studies
