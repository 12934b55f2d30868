#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/daylight/sun_hours.hpp"
#include "core/model/readings.hpp"
#include "core/space/room_tasks.hpp"
#include "core/standards/spill_rules.hpp"
#include "core/standards/verdict.hpp"

namespace glow::space {

/// What is asked of one grid.
struct GridBrief {
  std::string task;                        ///< key of the task that asks; empty: none
  std::vector<standards::Demand> demands;  ///< of mean, minimum and uniformity
  std::vector<std::size_t> together = {};  ///< grids that a ratio is taken over with this one
};

/// What glare is held against in a room, and how.
struct GlareBrief {
  std::vector<standards::Demand> limits;  ///< of UGR and GR; for each standard the strictest of the tasks
  model::GlareMethod method = model::GlareMethod::by_standard;
  bool rates_ugr = false, rates_gr = false;
  std::optional<model::ScreensWish> screens;
  std::vector<standards::Demand> screen_limits;  ///< of the luminance from screens->from_deg on
  double table_eye_m = 1.2;                      ///< height of the eye that the tabular method is used for
};

/// What daylight is held against in a room; of grids, their own demands say it.
struct DaylightBrief {
  std::vector<standards::Demand> sunlight, view;
  std::optional<daylight::SunDay> day;  ///< on which sunlight is counted
  double open_lx = 0;                   ///< that daylight factors are shares of
};

/// What light that goes astray is held against. What is asked of the illuminance on neighbours is asked of
/// their grids.
struct SpillBrief {
  std::vector<std::vector<standards::Demand>> glare_values;  ///< by Space::neighbours
  std::vector<standards::Demand> installation;               ///< of all luminaires: light upwards
  std::vector<standards::Demand> road_users;                 ///< of each
  /// By zone: the standards that limit intensities, when light is on; those of one hang on distance and area.
  std::vector<standards::ZoneStandard> of_intensity;
  standards::LitTimes lit;
  int zone = 1;
  standards::SmallAngles small_angles = standards::SmallAngles::at_least_1e6;
  double surround_reflectance = 0.1;  ///< of what lies about the area that is lit
  double required_lx = 0;             ///< mean that is asked of the work plane; 0: nothing is
  int worst = 5;                      ///< luminaires that are told of each neighbour
};

/// Where the height of the work plane comes from.
enum class PlaneHeight { given, by_task, assumed };

/// What of a room is verified.
enum class VerifiedAs {
  nothing,
  whole_room,
  areas_with_surroundings,
  whole_room_and_areas,
  room_and_areas_of_other_tasks  ///< the room's task on its work plane; areas for tasks of their own
};

/// What is asked of a space: everything that its light is judged by.
struct Brief {
  Tasks tasks;                            ///< of the room as a whole, one for each standard
  std::vector<GridBrief> grids;           ///< by Space::grids
  std::vector<standards::Demand> light;   ///< of no grid: the light's colour, its delay
  std::vector<standards::Demand> energy;  ///< of what the light takes
  std::optional<double> delay_s;          ///< until half of the light is there, of emergency lighting
  GlareBrief glare;
  std::optional<DaylightBrief> daylight;
  std::optional<SpillBrief> spill;
  PlaneHeight plane_height = PlaneHeight::given;
  VerifiedAs verified_as = VerifiedAs::nothing;
  std::vector<standards::NotVerified> not_verified;
};

}  // namespace glow::space
