#pragma once

#include "core/daylight/weather.hpp"
#include "core/model/project.hpp"

namespace glow::space {

/// An hour of daylight outside, in a room's axes.
struct YearHour {
  int number = 0;            ///< daylight::hour_of_year
  bool is_used = false;      ///< somebody is in the room
  Vec3 sun = Vec3::UnitZ();  ///< towards it, at the hour's middle
  double sun_normal_lx = 0, diffuse_lx = 0;
  daylight::SkyShape shape;

  double open_lx() const { return diffuse_lx + sun_normal_lx * std::max(0.0, sun.z()); }
};

/// Hours of a year that are looked at by themselves.
struct PlannedTimes {
  std::string name, words;  ///< "November to February, every day 08:00 to 10:00"
  std::vector<char> holds;  ///< by hours of the year
  double low_lx = 0, high_lx = 0;
};

/// A year of daylight, ready to compute.
struct YearPlan {
  std::string place, file;             ///< of the weather
  std::string hours_words;             ///< "every day 8:00 to 18:00"
  std::vector<YearHour> hours;         ///< of light, by number
  int used_hours = 0;                  ///< with the dark ones among them
  std::vector<char> used_by_day = {};  ///< by days of the year: hours of use
  double latitude_deg = 0, longitude_deg = 0;
  std::vector<double> levels_lx;
  model::BlindRule blinds;  ///< states that something in the room has
  std::vector<std::string> states;
  std::vector<PlannedTimes> times;
  int every_day = 1;  ///< only each so many-th day is looked at, and stands for so many

  /// Of the hours of use, on open ground.
  double mean_open_lx() const;
};

/// The same of fewer days, for trials.
YearPlan thinned(const YearPlan& plan, int every_day);

/// Whether a room is in use in the middle of an hour of the year (daylight::hour_of_year), by the site's
/// summer time. `first_weekday`: of 1 January; 0: Sunday.
bool is_used(const model::UseHours& use, const model::Site& site, int first_weekday, int hour);

/// "every day 8:00 to 18:00", "Monday to Friday 7:30 to 17:00, 12 days of holiday; Saturday 8:00 to 12:00".
std::string to_words(const model::UseHours& use);

/// The year of a room, or nothing where none is asked for. The weather must have been read.
std::optional<YearPlan> plan_year(const model::Project& project, const model::Room& room, Problems& problems);

}  // namespace glow::space
