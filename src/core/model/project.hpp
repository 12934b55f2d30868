#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/geometry/polygon.hpp"
#include "core/model/room_parts.hpp"
#include "core/photometry/photometry.hpp"
#include "core/problems/problems.hpp"

namespace glow::model {

/// What the designer wrote, units resolved to m, lx and degrees. Every part knows where it was written.

struct Reflectances {
  double ceiling = 0.7, walls = 0.5, floor = 0.2;
};

struct WorkPlane {
  std::optional<double> height_m;   ///< nothing: by the task
  std::optional<double> inset_m;    ///< nothing: 0.5 m
  std::optional<double> spacing_m;  ///< nothing: by the standard's rule
  Place place;
};

/// One line of the luminaire schedule.
struct ScheduledLuminaire {
  std::string mark;
  std::string file;  ///< as written, relative to the project's folder
  Place place;       ///< of the mark
  Place file_place;
  std::shared_ptr<const photometry::Photometry> photometry;  ///< null until it has been read
};

struct ArraySize {
  int rows = 1, columns = 1;
};

/// One entry of a room's luminaires: a single one or an array.
struct LuminairePlacement {
  std::string mark;
  std::optional<Vec2> at;
  std::optional<ArraySize> array;
  double rotation_deg = 0;
  std::optional<double> mounting_height_m;  ///< of the lower side of the luminous area, above the floor
  std::optional<double> suspension_m;       ///< of the same below the ceiling
  double tilt_deg = 0;                      ///< by which gamma 0 leans from straight down towards C0
  std::optional<Vec3> aim;    ///< point that gamma 0 is directed at; the luminaire then turns about that axis
  bool blocks_light = false;  ///< its body, as the photometric file states it, is part of the room
  Place place, mark_place, at_place, height_place;
};

struct Room {
  std::string name;
  geometry::Polygon outline;  ///< as written; either winding
  double height_m = 0;
  Reflectances reflectances;
  double maintenance_factor = 0;
  std::optional<std::string> task;
  WorkPlane work_plane;
  std::vector<LuminairePlacement> luminaires;
  std::vector<Object> objects;
  std::vector<Opening> openings;
  std::vector<CeilingSlope> ceiling;  ///< below `height_m`, the lowest counts
  Place place, outline_place, task_place;
};

struct Project {
  std::string name;
  std::string standard;
  Place standard_place;
  std::vector<ScheduledLuminaire> schedule;
  std::vector<Room> rooms;

  const ScheduledLuminaire* find(const std::string& mark) const;
};

}  // namespace glow::model
