#pragma once

#include <string>
#include <vector>

#include "core/assess/assessment.hpp"
#include "core/assess/daylight/day_series.hpp"
#include "core/lighting/weights.hpp"
#include "core/model/figure_style.hpp"
#include "core/model/input_part.hpp"
#include "core/record/shares.hpp"
#include "core/space/build_space.hpp"
#include "core/studies/energy/energy_findings.hpp"
#include "core/studies/energy/times_of_year.hpp"
#include "core/studies/findings.hpp"
#include "core/transport/group_light.hpp"

namespace glow::record {

/// All that a run found, in the one type that results.json holds whole. Words, figures, documents and
/// whatever is made from results are made from this and from nothing else, so that they can be made again
/// without computing.

/// A task in force.
struct TaskRecord {
  std::string key, standard, source, certainty;
  std::optional<double> em_lx;
  std::string reason;
};

/// One group of luminaires; its number is its id.
struct GroupRecord {
  // Defined in record.cpp: inline, they would be compiled into every file that holds one. Likewise below.
  GroupRecord();
  GroupRecord(const GroupRecord&);
  GroupRecord(GroupRecord&&) noexcept;
  GroupRecord& operator=(const GroupRecord&);
  GroupRecord& operator=(GroupRecord&&) noexcept;
  ~GroupRecord();

  std::string name;     ///< unique in the room
  std::string fitting;  ///< mark of the fitting that it is a part of; empty: none
  std::string mark, manufacturer, luminaire, format;
  double flux_lm = 0;  ///< of each, as new
  lighting::Weight weight;
  std::optional<double> watts_w, cct_k, ra;
  std::optional<model::LuminaireMaintenance> maintenance;  ///< parts of the factor, where they are stated
  std::optional<model::SurfaceMaintenance> room_surfaces;  ///< likewise
  Vec2 size_m = Vec2::Zero();  ///< along C0 and C90: of the body, or of the luminous area
  bool round = false;
  std::vector<double> rotations_deg, tilts_deg;  ///< by position; tilt: of gamma 0 from straight down
  std::vector<Vec3> positions;                   ///< of the middle of the luminous area
  std::vector<Vec3> c0, g0;                      ///< by position: where C0 and gamma 0 look, unit length
  std::optional<Vec3> aim;                       ///< what gamma 0 is directed at, where that was written

  /// "Tarn & Fell Board light": maker and luminaire.
  std::string full_name() const { return manufacturer.empty() ? luminaire : manufacturer + " " + luminaire; }
};

/// One luminaire as plans show it.
struct LuminaireRecord {
  std::string mark;
  Vec3 position = Vec3::Zero();
  double rotation_deg = 0;
  Vec2 size_m = Vec2::Zero();
  bool round = false;
  std::optional<Vec3> aim;
  Vec3 c0 = Vec3::UnitX(), g0 = -Vec3::UnitZ();  ///< where C0 and gamma 0 look, unit length

  /// Whether it hangs straight down, so that its rotation and size tell its outline in plan.
  bool is_upright() const { return g0.z() < -1 + 1e-9; }
  /// Corners of its body or luminous area, m, as it hangs.
  std::vector<Vec3> corners() const;
};

/// A mark of the schedule as it occurs in a room.
struct MarkRecord {
  std::string mark, luminaire;
  std::size_t count = 0;
};

/// How the numbers were found.
struct EngineRecord {
  std::size_t patches = 0, rays = 0;
  int refinements = 0;           ///< times the effort was raised to decide a check or to reach the accuracy
  bool accuracy_reached = true;  ///< of an accuracy in per cent
};

using model::InputPart;

/// When daylight shines, and how much of it.
struct MomentRecord {
  std::string date, time, solar_time, sky;            ///< in words; empty: not stated
  std::optional<double> latitude_deg, longitude_deg;  ///< of the site
  std::optional<double> altitude_deg, azimuth_deg;    ///< of the sun; azimuth clockwise from north
  double diffuse_lx = 0, sun_normal_lx = 0;  ///< of the sky, horizontal; of the sun on a plane facing it
  double open_lx = 0;                        ///< on open ground

  /// "52.3 N, 10.4 E, 2026-03-21 12:00 (solar 11:35), overcast sky of 10000 lx".
  std::string words() const;
  /// "52.3 N, 10.4 E, 2026-03-21 12:00 (solar 11:35)"; empty: nothing is stated.
  std::string when() const;
  /// "52.3 N, 10.4 E"; empty: not stated.
  std::string place() const;
};

/// One way to use a room, and what was found of it.
struct SceneRecord {
  SceneRecord();
  SceneRecord(const SceneRecord&);
  SceneRecord(SceneRecord&&) noexcept;
  SceneRecord& operator=(const SceneRecord&);
  SceneRecord& operator=(SceneRecord&&) noexcept;
  ~SceneRecord();

  std::string name;
  std::vector<double> shares;                ///< by groups, of what they give as placed
  std::vector<std::optional<double>> cct_k;  ///< by groups, of those that are tuned in it
  std::optional<double>
      drawn_w;  ///< if drivers take as much less as luminaires give; nothing: watts not stated
  std::vector<TaskRecord> tasks;
  bool rates_ugr = false;
  bool emergency = false;  ///< on battery: direct light only
  std::optional<MomentRecord> moment;
  std::optional<assess::DaySeries> series;         ///< the course of the moment's day
  std::optional<studies::SceneSolution> solution;  ///< of shares that were found
  assess::Assessment assessment;
  std::vector<studies::Explanation> explanations;  ///< by the assessment's checks; empty: not looked for
  transport::FluxBalance balance;                  ///< initial light
};

/// One room with all that was found about it, with all groups as they are placed.
struct RoomRecord {
  RoomRecord();
  RoomRecord(const RoomRecord&);
  RoomRecord(RoomRecord&&) noexcept;
  RoomRecord& operator=(const RoomRecord&);
  RoomRecord& operator=(RoomRecord&&) noexcept;
  ~RoomRecord();

  std::string name;
  std::string number, floor;                ///< as on the plan; name of its floor; empty: none
  std::string drawn;                        ///< what it is called in its drawing or model; empty: nothing
  std::string scene;                        ///< of a room as it is in a scene (in_scene); empty: as placed
  bool direct_only = false;                 ///< of a room in an emergency scene
  std::optional<MomentRecord> moment;       ///< of a room at a moment
  std::optional<assess::DaySeries> series;  ///< likewise
  std::vector<TaskRecord> tasks;            ///< of the room as a whole, one for each standard
  space::VerifiedAs verified_as = space::VerifiedAs::nothing;
  double floor_area_m2 = 0, height_m = 0;
  bool roofed = true;     ///< false: open above
  bool outdoors = false;  ///< ground without walls
  model::Reflectances reflectances;
  double maintenance_factor = 1;  ///< of the groups together, weighted by their flux
  space::PlaneHeight plane_height = space::PlaneHeight::given;
  std::string plane_note;            ///< of a height by the task: the plane that it is read on
  std::vector<std::string> assumed;  ///< what the project does not state, as its reader says it
  bool rates_ugr = false;
  geometry::Polygon outline;
  std::optional<std::vector<Vec3>> ground;  ///< outdoors, where it is not level: corners of its triangles
  std::vector<std::string> wall_names;      ///< by the outline's edges
  std::vector<GroupRecord> groups;
  std::vector<space::PlanShape> objects;
  std::vector<space::Opening> openings;
  std::vector<space::SurfaceFinish> finishes;
  assess::Assessment assessment;
  std::vector<studies::Explanation> explanations;   ///< by the assessment's checks
  std::optional<studies::RoomTolerance> tolerance;  ///< when it was asked for
  std::vector<SceneRecord> scenes;
  std::optional<studies::RoomEnergy> energy;  ///< where it is asked for
  std::vector<studies::TimeOfYear> times;     ///< chosen hours of the year of daylight
  std::optional<Thresholds> thresholds_lx;    ///< limits that shares of areas are told of
  std::optional<Shares> kept_shares;  ///< of the work plane, where its values were dropped (drop_values)
  transport::FluxBalance balance;     ///< initial light
  EngineRecord engine;
  std::vector<InputPart> inputs;           ///< what it was computed from
  std::vector<std::string> changed_since;  ///< parts of it that have changed; empty: the results are current

  /// "Showroom", or "Showroom, closing" in a scene.
  std::string title() const { return scene.empty() ? name : name + ", " + scene; }
  /// The grid of this name; null: there is none.
  const assess::GridReading* find_grid(const std::string& name) const;
  /// All luminaires, group after group.
  std::vector<LuminaireRecord> luminaires() const;
  /// The luminaires and number of each mark, in order of first use.
  std::vector<MarkRecord> marks() const;
};

/// Whether daylight itself is verified, by EN 17037 and not by its year.
bool verifies_daylight(const assess::Assessment& assessment);

/// What the work plane reads; null: there is none, or its values were dropped.
const assess::GridReading* work_plane(const assess::Assessment& assessment);

/// Watts that groups draw in a scene, if drivers take as much less as luminaires give; nothing: not stated.
std::optional<double> drawn_power(const std::vector<GroupRecord>& groups, const std::vector<double>& shares);
/// Watts of all groups of a room as they are set.
std::optional<double> drawn_power(const RoomRecord& room);

/// The room as it is in one of its scenes: what shines, what is asked and what was found. Without causes and
/// mends, which are looked for with all groups as placed.
RoomRecord in_scene(const RoomRecord& room, std::size_t scene);

/// A room of the project that has no results.
struct UncomputedRoom {
  std::string name, floor;
  geometry::Polygon outline;
  std::string fault;  ///< why it could not be computed; empty: the run left it out
};

/// A storey of the building.
struct FloorRecord {
  std::string name;
  double level_m = 0;
  /// What its rooms were taken from, and how that lies in the building.
  struct Drawing {
    std::string file;
    plans::Frame frame;
  };
  std::optional<Drawing> drawing;
};

/// A run: its rooms, and what they were computed from.
struct RunRecord {
  RunRecord();
  RunRecord(const RunRecord&);
  RunRecord(RunRecord&&) noexcept;
  RunRecord& operator=(const RunRecord&);
  RunRecord& operator=(RunRecord&&) noexcept;
  ~RunRecord();

  std::string project;
  std::vector<std::string> standards;  ///< the main one first
  std::vector<FloorRecord> floors;     ///< as the project has them; empty: it has none
  units::ShownUnits units;
  model::FigureStyle style;
  std::vector<RoomRecord> rooms;
  std::vector<UncomputedRoom> not_computed;
  std::vector<std::string> warnings;
  std::vector<std::string> files;  ///< written beside results.json
};

/// The floors that have rooms, in their order, and at the end one without a name where rooms are on none.
std::vector<FloorRecord> floors_with_rooms(const RunRecord& run);

/// Names of the parts that are no longer as the room was computed from them.
std::vector<std::string> changed_inputs(const RoomRecord& room, const std::vector<InputPart>& now);

/// Keeps of a room what tells how it stands among others: its name, outline and status, and its checks with
/// the names of what they are about.
void drop_values(RoomRecord& room);

/// A room's record as far as it is known before anything is computed.
RoomRecord planned(const model::Project& project, const space::PlannedRoom& room,
                   const lighting::Weights& weights);

}  // namespace glow::record
