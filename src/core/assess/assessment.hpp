#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/assess/daylight/outlook.hpp"
#include "core/assess/daylight/year_reading.hpp"
#include "core/assess/glare/room_glare.hpp"
#include "core/assess/light_colour.hpp"
#include "core/assess/spill_reading.hpp"
#include "core/readings/statistics.hpp"
#include "core/space/space.hpp"
#include "core/standards/verdict.hpp"

namespace glow::assess {

/// How a room stands: all checks that bind are met, one is not, none fails but one cannot be told, or there
/// are none.
enum class Status { met, not_met, undecided, no_target };

/// "met", "not met", "undecided", "no target".
std::string to_string(Status status);

/// "plane", "cylindrical", "semi-cylindrical", "hemispherical", "spherical".
std::string kind_words(readings::Kernel kernel);

/// A point inside an object, or outside the room.
struct MisplacedPoint {
  Vec3 position;
  std::string inside;  ///< the object's name; empty: outside the room
};

/// What half of a grid's points reach, and what 95 % of them do.
struct Reached {
  double half_lx = 0, most_lx = 0;
  double half_doubt_lx = 0, most_doubt_lx = 0;  ///< half widths of their 95 % intervals
};

/// What of a grid is held against its demands: all of it, or, of walls and ceiling, what keeps the standard's
/// border from their edges (all of it where nothing does).
struct Judged {
  readings::Statistics statistics;
  readings::Uncertainty uncertainty;
  std::size_t points = 0;
  double border_m = 0;
  Reached reached = {};  ///< where daylight factors are asked
};

/// Straight light on a lattice denser than a grid's points, for drawings: nothing judges by it.
struct LightBetween {
  int parts = 1;                  ///< of a cell along each side, odd; 1: none is held
  std::vector<double> direct_lx;  ///< point by point, then row by row of its cell; maintained
};

/// Where the daylight on a grid's points comes from, lx, by points; what is left of the total is electric
/// light and what surfaces throw back.
struct DayOnGrid {
  std::vector<double> sun_lx, sky_lx, outside_lx;
  std::vector<double> day_lx;                          ///< all of it, reflected inside too
  double open_lx = 0;                                  ///< on open ground at that moment
  bool has_factor = false;                             ///< no sun: daylight is told as a factor of it
  std::optional<std::pair<double, double>> within_lx;  ///< limits that a share of the area is told of
  double share_within = 0;                             ///< of the points, by all light
  /// Where some points see no sky: at places as of LightBetween with so many parts, '1' where it is seen.
  int sky_parts = 1;
  std::string sky_seen = {};

  double factor(std::size_t point) const { return open_lx > 0 ? 100 * day_lx[point] / open_lx : 0; }
  /// Over all points, per cent; nothing where it is not told.
  std::optional<double> mean_factor() const;
  /// Of the points: those that see a piece of the sky.
  double share_with_sky() const;
};

/// The daylight at a point, lx.
struct DayAtPoint {
  double sun_lx = 0, sky_lx = 0, outside_lx = 0, day_lx = 0, open_lx = 0;
  bool has_factor = false;
  std::optional<double> glare = {};  ///< daylight glare probability, of eyes

  double factor() const { return open_lx > 0 ? 100 * day_lx / open_lx : 0; }
};

/// One grid with its values. All illuminances are maintained: initial values times the maintenance factor,
/// once.
struct GridReading {
  // Defined in assessment.cpp: inline, they would be compiled into every file that holds one. Likewise below.
  GridReading();
  GridReading(const GridReading&);
  GridReading(GridReading&&) noexcept;
  GridReading& operator=(const GridReading&);
  GridReading& operator=(GridReading&&) noexcept;
  ~GridReading();

  std::string name;
  space::GridRole role = space::GridRole::requested;
  readings::Kernel kernel = readings::Kernel::plane;
  Vec3 facing = Vec3::UnitX();  ///< of semi-cylinders
  readings::PlaneGrid grid;
  std::vector<double> direct_lx, interreflected_lx, total_lx;  ///< per point
  readings::Statistics statistics;
  readings::Statistics initial;  ///< before the maintenance factor
  readings::Uncertainty uncertainty;
  Vec3 lowest_at = Vec3::Zero();  ///< point of the lowest value
  double direct_mean_lx = 0, interreflected_mean_lx = 0;
  Judged judged;     ///< nothing in it when nothing is asked of the grid
  std::string task;  ///< of areas: the task's key; empty: none
  LightBetween between;
  std::optional<GridColour> colour;      ///< where it is told
  std::optional<DayOnGrid> day;          ///< at a moment
  std::vector<MisplacedPoint> left_out;  ///< points of the grid that cannot be read; not among the values

  /// "horizontal plane", "plane along the slope", "vertical plane", "plane", "cylindrical",
  /// "semi-cylindrical", "hemispherical", "spherical".
  std::string kind() const;
  /// How far an accuracy that is asked for is missed or kept: uncertainty of the mean, or a third of that of
  /// the minimum if that is more, as a share of them. 0 for floor, ceiling, walls, which are read anyway, and
  /// for grids without values.
  double roughness() const;
  static constexpr double kMinimumAllowance = 3;  ///< a minimum may be so many times as rough as a mean
};

/// The light at one of the designer's points, maintained.
struct PointReading {
  std::string name;
  readings::Receiver receiver;
  double direct_lx = 0, interreflected_lx = 0;
  double uncertainty_lx = 0;                ///< half width of the 95 % interval of the total
  std::optional<PointColour> colour;        ///< where it is told
  std::optional<DayAtPoint> day;            ///< at a moment
  std::optional<MisplacedPoint> misplaced;  ///< cannot be read; nothing else counts then
  /// Maintained.
  double total_lx() const { return direct_lx + interreflected_lx; }
};

/// Installed power, of luminaires at full output.
struct Power {
  std::optional<double> installed_w;  ///< nothing when a luminaire's file states no watts
  std::optional<double> w_per_m2;
  std::optional<double> w_per_m2_100lx;
};

/// Ez / Eh at points at the height of eyes; EN 12464-1 calls 0.30 to 0.60 good modelling.
struct Modelling {
  double mean = 0, low = 0, high = 0;
  double share_within = 0;  ///< of points between 0.30 and 0.60
};

/// Everything that a room's light comes to, and how it stands against what is asked.
struct Assessment {
  Assessment();
  Assessment(const Assessment&);
  Assessment(Assessment&&) noexcept;
  Assessment& operator=(const Assessment&);
  Assessment& operator=(Assessment&&) noexcept;
  ~Assessment();

  std::vector<GridReading> grids;  ///< by Space::grids; one that holds no readable point has no values
  std::vector<PointReading> points;
  RoomGlare glare;
  std::optional<Outlook> outlook;     ///< sun and view, where they are asked for
  std::optional<SpillReading> spill;  ///< of outdoor areas, where somebody lives beside or it is judged
  std::optional<YearReading> year;    ///< of the year; the grids are then the mean of its hours of use
  std::optional<Modelling> modelling;
  Power power;
  std::optional<double> kwh_m2;  ///< in the year, where energy is found out
  std::vector<standards::Check> checks;
  std::vector<standards::NotVerified> not_verified;
  Status status = Status::no_target;
};

/// Installed power of groups, with the mean illuminance of the work plane for the last of its numbers.
Power power_of(const space::Space& space, const std::vector<space::LuminaireGroup>& groups, double mean_lx);

}  // namespace glow::assess
