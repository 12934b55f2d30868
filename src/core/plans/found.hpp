#pragma once

#include <cmath>
#include <optional>
#include <string>
#include <vector>

#include "core/plans/drawing.hpp"
#include "core/plans/line_work.hpp"

namespace glow::plans {

/// What was found in a drawing or a building model, whatever its format. `drawn`: what a thing is called in
/// its file, a handle or an identifier; empty: nothing. Heights are above the room's floor; where none is
/// given the file does not say it.

struct FoundOpening {
  enum class Kind { door, window, gap };
  Kind kind = Kind::door;
  std::size_t edge = 0;  ///< of the room's outline, from corner `edge` to the next
  double from_m = 0;     ///< along that edge to the opening's nearer end
  double width_m = 0;
  int leads_to = -1;  ///< number of the room behind it; -1: outside, or not known
  std::string drawn = {};
  std::optional<double> sill_m = {}, height_m = {};
  std::optional<double> transmittance = {};  ///< of its glass
};

/// A window or hole in a room's ceiling.
struct FoundRoofOpening {
  Vec2 at = Vec2::Zero();    ///< its middle in plan
  Vec2 size = Vec2::Zero();  ///< m: level, and up the slope
  double rotation_deg = 0;   ///< in a level ceiling
  std::string drawn;
  std::optional<double> transmittance;
};

/// A part of a ceiling: rising from `from` to `to`, or level over an outline of its own. The lowest counts.
struct FoundCeiling {
  Vec2 from = Vec2::Zero(), to = Vec2::Zero();
  double height_m = 0, to_height_m = 0;
  geometry::Polygon over;  ///< empty: it rises

  /// Of one that rises, m per m in plan, uphill.
  Vec2 slope() const {
    const Vec2 way = to - from;
    return way * ((to_height_m - height_m) / way.squaredNorm());
  }
  /// Its height over a place, m above the floor; infinite where it does not reach.
  double height_at(const Vec2& p) const {
    if (over.empty()) return height_m + slope().dot(p - from);
    return geometry::contains(over, p) ? height_m : HUGE_VAL;
  }
};

struct FoundObject {
  std::string block;      ///< its name
  std::string furniture;  ///< plain name; empty: a column or plain box
  bool is_column = false;
  geometry::Polygon footprint;  ///< m, counter-clockwise
  int room = -1;
  std::string drawn = {};
  std::optional<double> bottom_m = {}, top_m = {};
};

/// A luminaire that the drawing shows.
struct FoundLuminaire {
  std::string mark;
  Vec2 at = Vec2::Zero();  ///< the middle of what its block draws
  double rotation_deg = 0;
  int room = -1;
  std::string drawn = {};
  std::optional<double> height_m = {};
};

struct FoundRoom {
  std::string name, number;
  geometry::Polygon outline;             ///< inner faces of the walls, m, counter-clockwise
  std::vector<geometry::Polygon> holes;  ///< piers that stand free in it
  std::vector<FoundOpening> openings;
  std::string drawn;
  std::optional<double> height_m = {};     ///< to its highest ceiling
  std::vector<FoundCeiling> ceiling = {};  ///< empty: level, at that height
  std::vector<FoundRoofOpening> roof_openings = {};
  std::vector<std::string> finishes =
      {};  ///< what the file says its surfaces are made of: "walls: lime plaster"
};

/// Something that a person has to look at.
struct Doubt {
  std::string code;  ///< stable: "outline-open"
  std::string text;
  Vec2 at = Vec2::Zero();  ///< m
  bool has_place = false;
  std::string drawn = {};  ///< "handle 1F"
  std::uint32_t line = 0;  ///< of the file
};

/// A place of the world, as the file states it.
struct FoundSite {
  std::optional<double> latitude_deg, longitude_deg, elevation_m;
  std::optional<double> north_deg;  ///< bearing to which +y of the building points
};

/// What stands outside.
struct FoundNeighbour {
  std::string name;
  geometry::Polygon footprint;
  double bottom_m = 0, top_m = 0;  ///< above the building's zero
};

struct FoundPlan {
  std::vector<FoundRoom> rooms;  ///< in reading order
  std::vector<FoundObject> objects;
  std::vector<FoundLuminaire> luminaires;
  std::vector<Doubt> doubts;
  std::vector<Segment> open_edges;  ///< where a shell is not closed
};

}  // namespace glow::plans
