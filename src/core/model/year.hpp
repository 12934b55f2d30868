#pragma once

#include <array>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/daylight/weather.hpp"
#include "core/model/site.hpp"

namespace glow::model {

/// What the year is called among the ways to use a room.
inline constexpr const char* kYearScene = "the year";

/// When people use a room, by the clock: in any of its periods.
struct UseHours {
  /// Days of the year, the first 1; one that begins after it ends goes past New Year.
  struct Holiday {
    int first = 1, last = 1;
    bool holds(int day) const {
      return first <= last ? day >= first && day <= last : day >= first || day <= last;
    }
  };
  struct Period {
    std::array<bool, 7> days = {true, true, true, true, true, true, true};  ///< Sunday first
    double from_h = 8, to_h = 18;
    std::vector<Holiday> holidays;  ///< on which nobody comes
  };
  std::vector<Period> periods = {Period()};
};

/// Blinds that come down by themselves: an hour with strong sun on too many points.
struct BlindRule {
  std::vector<std::string> states;  ///< of openings; each state is a group that moves by itself
  double sun_lx = 1000;             ///< straight, on the plane
  double share = 0.02;              ///< of the points; more of them bring blinds down
};

/// Hours of the year that are looked at by themselves.
struct YearTimes {
  std::string name;
  UseHours hours;
  int first_month = 1, last_month = 12;  ///< one that begins after it ends goes past New Year
  double low_lx = 300, high_lx = 3000;   ///< of what share of the area lies within
  Place place;
};

/// Daylight over the whole year.
struct YearWish {
  std::string file;                                  ///< of weather, as written
  std::shared_ptr<const daylight::Weather> weather;  ///< null until it has been read
  UseHours hours;
  std::vector<double> levels_lx = {300};  ///< that autonomy is told for
  BlindRule blinds;
  std::vector<std::string> states;  ///< of obstructions that stand
  std::vector<YearTimes> times;
  Place place, file_place, states_place, blinds_place;
};

/// What a room asks of its year; nothing: not asked.
struct RoomYearWish {
  std::optional<UseHours> hours;           ///< in place of the project's
  std::vector<double> levels_lx;           ///< likewise; empty: the project's
  std::optional<double> spatial_autonomy;  ///< share of the plane, at least
  std::optional<double> sun_exposure;      ///< share of the plane, at most
  std::optional<double> autonomy;          ///< mean share of the hours of use at the first level, at least
  std::optional<double> exposure_lxh;      ///< on no point more
  std::optional<DaylightWish::Level> provision;  ///< of EN 17037, by the hours of the year
  Place place;
};

}  // namespace glow::model
