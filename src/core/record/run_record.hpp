#pragma once

#include <string>
#include <vector>

#include "core/model/figure_style.hpp"
#include "core/assess/room_result.hpp"

namespace glow::record {

/// What a run's results.json tells, as far as figures need it. Figures are made from this only, so that they
/// can be made again without computing.

struct LuminaireRecord {
  std::string mark;
  Vec3 position = Vec3::Zero();
  double rotation_deg = 0;
  Vec2 size_m = Vec2::Zero();  ///< along C0 and C90: of the body, or of the luminous area
  bool round = false;
};

/// A mark of the schedule as it occurs in a room.
struct MarkRecord {
  std::string mark, luminaire;
  std::size_t count = 0;
};

/// Eyes with their UGR, by position and direction; see space::EyeSet.
struct EyeSetRecord {
  std::string name;
  double height_m = 0;
  Vec2 cell_m = Vec2::Zero();  ///< of eyes all over the room; zero: somebody's
  std::vector<std::string> looking;
  std::vector<Vec3> positions;
  std::vector<double> azimuths_deg;        ///< [position * directions + direction]
  std::vector<std::optional<double>> ugr;  ///< likewise
};

struct RoomRecord {
  std::string name;
  std::string status;  ///< "met", "not met", "undecided", "no target"
  geometry::Polygon outline;
  double height_m = 0;
  double maintenance_factor = 1;
  std::vector<std::string> wall_names;  ///< by the outline's edges
  std::vector<space::PlanShape> objects, openings;
  std::vector<LuminaireRecord> luminaires;
  std::vector<MarkRecord> marks;
  std::vector<assess::GridReading> grids;
  std::vector<standards::Check> checks;
  std::vector<EyeSetRecord> eyes;

  const assess::GridReading* find_grid(const std::string& name) const;
};

/// A room of the project that the run left out.
struct UncomputedRoom {
  std::string name;
  geometry::Polygon outline;
};

struct RunRecord {
  std::string project;
  std::string standard;
  std::string inputs;  ///< fingerprint of what the results were computed from
  units::ShownUnits units;
  model::FigureStyle style;
  std::vector<RoomRecord> rooms;
  std::vector<UncomputedRoom> not_computed;
};

}  // namespace glow::record
