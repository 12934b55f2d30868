#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/geometry/polygon.hpp"
#include "core/model/emergency.hpp"
#include "core/model/energy.hpp"
#include "core/model/figure_style.hpp"
#include "core/model/floor.hpp"
#include "core/model/lamp_colour.hpp"
#include "core/model/maintenance.hpp"
#include "core/model/neighbour.hpp"
#include "core/model/readings.hpp"
#include "core/model/report_wish.hpp"
#include "core/model/room_parts.hpp"
#include "core/model/scene.hpp"
#include "core/model/site.hpp"
#include "core/model/view.hpp"
#include "core/model/year.hpp"
#include "core/photometry/photometry.hpp"
#include "core/problems/problems.hpp"
#include "core/units/shown_units.hpp"

namespace glow::model {

/// What the designer wrote, units resolved to m, lx and degrees. Every part knows where it was written.

struct Reflectances {
  double ceiling = 0.7, walls = 0.5, floor = 0.2;
};

struct WorkPlane {
  bool is_read = true;              ///< false: there is none
  std::optional<double> height_m;   ///< nothing: by the task
  std::optional<double> inset_m;    ///< nothing: 0.5 m
  std::optional<double> spacing_m;  ///< nothing: by the standard's rule
  std::optional<LeaveOut> leave_out;
  Place place, leave_out_place;
};

/// One of the luminaires that make a fitting together.
struct FittingPart {
  std::string mark;
  double dimming = 1;           ///< share of the fitting's own
  std::optional<double> cct_k;  ///< instead of the part's own
  Place place;                  ///< of the mark
};

/// One line of the luminaire schedule: a photometric file, or a fitting of several parts at exactly one
/// place.
struct ScheduledLuminaire {
  std::string mark;
  std::string file;  ///< as written, relative to the project's folder; empty: a fitting
  std::vector<FittingPart> parts;
  Place place;  ///< of the mark
  Place file_place;
  std::optional<double> flux_lm;                    ///< of the luminaire, instead of the file's
  LampColour colour;                                ///< what is not stated is the file's
  std::optional<double> ra;                         ///< general colour rendering index
  std::optional<double> lamp_luminance_cd_m2;       ///< of lamps that can be seen
  std::optional<double> shielding_deg;              ///< from the horizontal, within which they cannot
  std::optional<LuminaireMaintenance> maintenance;  ///< nothing: the room's one number
  std::optional<double> price;                      ///< of one, in whatever currency
  std::shared_ptr<const photometry::Photometry> photometry;  ///< null until it has been read
};

/// By count, or by the spacing between columns (x) and rows (y).
struct Array {
  int rows = 1, columns = 1;
  std::optional<Vec2> spacing;
  geometry::Polygon within;             ///< the part of the room that it fills; empty: all of it
  double turned_deg = 0;                ///< about the vertical, luminaires included
  bool staggered = false;               ///< every second row is moved by half a spacing
  std::optional<double> margin_m = {};  ///< from the edges to the outer ones; nothing: half a spacing
  bool fitted = false;                  ///< every row is laid over what of it lies inside, in proportion
};

struct Row {
  Vec2 from = Vec2::Zero(), to = Vec2::Zero();  ///< of the first and the last one
  int count = 2;
};

struct Ring {
  Vec2 centre = Vec2::Zero();
  double radius_m = 1;
  int count = 3;
};

/// From corner to corner, the first and the last at its ends: by count, or as many as fit at a spacing.
struct Along {
  std::vector<Vec2> path;
  int count = 0;
  std::optional<double> spacing_m;
};

/// One over each object of a name or kind.
struct Over {
  std::string thing;
  Vec2 offset = Vec2::Zero();  ///< from its middle, along its own axes
};

/// What an arrangement that the tool finds is to save, and what it may change.
enum class Least { luminaires, watts, cost };
/// "luminaires", "watts", "cost"; nothing for other words.
std::optional<Least> least_of(const std::string& words);
struct Arrange {
  Least least = Least::luminaires;
  std::optional<std::pair<double, double>> heights_m;  ///< mounting heights, from and to
  double least_dimming = 1;                            ///< share of full output down to which it may dim
  bool turns = true, staggers = true;
  int most = 0;  ///< luminaires; 0: as many as could be sensible
  std::optional<double> margin_m;
  geometry::Polygon within;  ///< the part of the room that is filled; empty: all of it
};

/// A place on a wall: `from_m` along it from its first corner.
struct OnWall {
  int number = 1;
  std::string name;  ///< instead of the number
  double from_m = 0;
};

enum class Mounting { unstated, recessed, surface, suspended, wall, standing };

/// One entry of a room's luminaires: a single one, a row, a ring, an array, ...
struct LuminairePlacement {
  std::string mark;
  std::string name;   ///< of the group, unique in the room; empty: by mark and number
  std::string drawn;  ///< as of rooms
  std::optional<Vec2> at;
  std::optional<Array> array;
  std::optional<Row> row;
  std::optional<Ring> ring;
  std::optional<Along> along;
  std::optional<Over> over;
  std::optional<OnWall> on_wall;
  std::optional<Arrange> arrange;  ///< an even array that is yet to be found
  std::string on;  ///< "ceiling", a wall or "object.face", which it shines away from; empty: none of these
  Mounting mounting = Mounting::unstated;
  double dimming = 1;           ///< share of full output
  std::optional<double> cct_k;  ///< what a tunable one is set to
  double rotation_deg = 0;
  std::optional<double> mounting_height_m;  ///< of the lower side of the luminous area, above the floor
  std::optional<double> suspension_m;       ///< of the same below the ceiling
  double tilt_deg = 0;                      ///< by which gamma 0 leans from straight down towards C0
  std::optional<Vec3> aim;  ///< point that gamma 0 is directed at; the luminaire then turns about that axis
  std::optional<double> shield_deg;  ///< without light from so many degrees off gamma 0 on
  bool blocks_light = false;         ///< its body, as the photometric file states it, is part of the room
  Place place, mark_place, at_place, height_place, name_place, cct_place;
};

struct Room {
  // Defined in project.cpp: inline, they would be compiled into every file that holds one. Likewise below.
  Room();
  Room(const Room&);
  Room(Room&&) noexcept;
  Room& operator=(const Room&);
  Room& operator=(Room&&) noexcept;
  ~Room();

  std::string name;
  std::string number;         ///< as on the plan: "0.12"; empty: none
  std::string floor;          ///< name of its floor; empty: the project has none
  std::string drawn;          ///< what it was taken from in the floor's drawing; empty: not taken from one
  geometry::Polygon outline;  ///< as written; either winding
  double height_m = 0;
  bool roofed = true;     ///< false: open above, as a court is
  bool outdoors = false;  ///< ground alone, without walls and roof
  Reflectances reflectances;
  std::optional<double> maintenance_factor;  ///< in one number, for luminaires without parts of their own
  std::optional<SurfaceMaintenance> room_surfaces;
  std::optional<std::string> task;
  bool task_is_proposed = false;  ///< by the room's name, and nobody has confirmed it
  std::optional<LevelChoice> level;
  Verification verification = Verification::by_areas;
  Eyes eyes = Eyes::by_task;
  std::vector<EyesWish> eye_wishes;
  GlareMethod glare_method = GlareMethod::by_standard;
  std::optional<ScreensWish> screens;
  WorkPlane work_plane;
  std::vector<AreaWish> areas;
  std::vector<LuminairePlacement> luminaires;
  std::vector<Object> objects;
  std::vector<std::string> unread_objects;  ///< names of those that could not be read, which was told
  GroundShape ground;                       ///< outdoors
  std::vector<Opening> openings;
  std::vector<Wall> walls;
  std::vector<CeilingPart> ceiling;  ///< below `height_m`, the lowest counts
  std::vector<GridWish> grids;
  std::vector<PointWish> points;
  std::optional<DaylightWish> daylight;  ///< by EN 17037
  std::optional<RoomYearWish> year;
  std::vector<ControlWish> controls;   ///< zones of its electric light
  std::optional<EnergyLimits> energy;  ///< what it may take
  std::vector<Scene> scenes;
  std::vector<ViewWish> views;  ///< empty: a handful of sensible ones
  std::vector<EscapeRoute> escape_routes;
  std::optional<UseHours> lit_hours;  ///< outdoors: when light is on as placed; nothing: all night
  std::vector<RoadUser> road_users;   ///< beside an outdoor area
  bool open_area = false;             ///< for emergency lighting
  bool surfaces = true;               ///< light on walls, ceiling and floor is read
  std::vector<std::string> assumed;   ///< what the file does not state, in words
  Place place, outline_place, task_place, maintenance_place, reflectance_place;
};

/// A requirement table of the designer's, beside the project.
struct OwnTable {
  std::string file;  ///< as written, relative to the project's folder
  Place place;
};

struct StandardName {
  std::string name;  ///< "EN 12464-1:2021"
  Place place;
};

struct Project {
  Project();
  Project(const Project&);
  Project(Project&&) noexcept;
  Project& operator=(const Project&);
  Project& operator=(Project&&) noexcept;
  ~Project();

  std::string name;
  std::string standard;
  Place standard_place;
  std::vector<StandardName> also_verify;  ///< further standards, verified side by side with the first
  std::vector<OwnTable> tables;
  bool colour = false;         ///< the colour of light is told even where all of it has one
  bool files_outside = false;  ///< files that it names may lie outside its folder
  ToleranceWish spread;
  std::optional<std::pair<double, double>> thresholds_lx;  ///< shares of areas below, within, above are told
  std::vector<std::string> variants;                       ///< names, in the order of the file
  int keep_runs = 0;                                       ///< unnamed runs that are kept; 0: none is
  std::vector<Scene> scenes;                               ///< of all rooms that they name something in
  Site site;
  std::vector<Moment> moments;  ///< of all rooms that have an opening
  std::vector<ScheduledLuminaire> schedule;
  std::vector<Floor> floors;
  std::vector<Room> rooms;  ///< and, after them, outdoor areas
  std::vector<Neighbour> neighbours;
  SpillWish spill;
  units::ShownUnits units;  ///< what people see; also the unit of bare numbers in the file
  ReportWish report;
  std::optional<YearWish> year;  ///< of daylight
  std::optional<EnergyWish> energy;
  FigureStyle figures;

  /// Whether daylight is computed in rooms with openings, whatever they ask.
  bool shows_daylight() const { return !moments.empty() || year.has_value(); }
  const ScheduledLuminaire* find(const std::string& mark) const;
  /// The marks with files that shine where this one is placed: a fitting's parts, or itself.
  std::vector<std::string> marks_of(const std::string& mark) const;
};

/// The maintenance factor of a luminaire type in a room: from its parts where they are stated, else the
/// room's one number, else 1.
double maintenance_factor(const ScheduledLuminaire& entry, const Room& room);

}  // namespace glow::model
