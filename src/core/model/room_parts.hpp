#pragma once

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/daylight/glazing.hpp"
#include "core/geometry/geometry.hpp"
#include "core/geometry/mesh.hpp"
#include "core/problems/problems.hpp"

namespace glow::model {

/// What a surface does with light, and what it is called.
struct Finish {
  std::string name;  ///< of the material or finish; empty: a plain reflectance
  geometry::Material material;
  std::optional<Vec3> colour;  ///< diffuse reflectance in red, green and blue (linear sRGB), whose
                               ///< luminous reflectance is the material's
};

enum class ObjectShape {
  box,        ///< solid, `size` along x, y, z
  panel,      ///< thin upright sheet, seen from both sides: `size` = along x and up
  block,      ///< solid with an outline in plan, from `bottom` to `top`
  cylinder,   ///< solid and upright, `size` = diameter, diameter, height; `at` is the middle of its foot
  furniture,  ///< by its plain name: `kind`, `size`
  mesh        ///< triangles from a file
};

/// Triangles from a file, and how they come into the room.
struct MeshUse {
  std::string file;  ///< as written, relative to the project's folder
  Place place;
  double scale = 1;                            ///< m for each unit of the file
  bool z_up = true;                            ///< false: the file's y axis points up
  std::map<std::string, Finish> finishes;      ///< by the file's own names of materials
  std::shared_ptr<const geometry::Mesh> mesh;  ///< null until it has been read
};

/// The same object several times, along its own axes.
struct Repeat {
  int columns = 1, rows = 1;
  Vec2 step = Vec2::Zero();  ///< m from one to the next, along and across
};

/// Something that stands, hangs or leans in a room.
struct Object {
  std::string name;
  std::string drawn;  ///< as of rooms
  ObjectShape shape = ObjectShape::box;
  std::string kind;          ///< of furniture: "table", ...
  Vec3 at = Vec3::Zero();    ///< the corner that is lowest along all of its own axes, unless the shape says
  Vec3 size = Vec3::Zero();  ///< m: along, deep, high
  double rotation_deg = 0;   ///< about the vertical through `at`, counter-clockwise seen from above
  double thickness_m = 0;    ///< of its top and shelves
  double leg_m = 0;          ///< width of its legs or posts
  int shelves = 0;
  geometry::Polygon outline;
  double bottom_m = 0, top_m = 0;
  std::optional<MeshUse> mesh;
  std::optional<Repeat> repeat;
  Finish finish;
  Place place;
};

/// What hangs or stands before a window, outside. Lengths in m.
struct Shade {
  enum class Kind {
    overhang,          ///< level, above it
    fins,              ///< upright, at both sides
    horizontal_slats,  ///< before it, from its sill to its head
    vertical_slats,    ///< likewise, from side to side
    screen             ///< or blind: takes its share of all daylight, and scatters some of the rest
  };
  Kind kind = Kind::screen;
  double depth_m = 0;          ///< how far it reaches out; of slats: how broad each is
  double gap_m = 0;            ///< from the opening's edge to it; of slats: from the wall to their middle
  double beyond_m = 0;         ///< how far it reaches past the opening on either side
  double spacing_m = 0;        ///< from one slat to the next
  double tilt_deg = 0;         ///< of slats: 0 level (or straight out), positive with the outer edge down
                               ///< (or to the left as seen from inside)
  double reflectance = 0.5;    ///< of both sides
  double transmittance = 1;    ///< of a screen: of all that falls on it
  double scattered_share = 0;  ///< of what it lets through
  std::string state;           ///< it is there in moments that name this state; empty: always
  Place place;
};

/// A window, door or plain hole in a wall, or in the ceiling.
struct Opening {
  std::string name;
  std::string drawn;     ///< as of rooms
  std::string kind;      ///< "window", "door", "opening", "roof window" or "dome"
  bool in_roof = false;  ///< in the ceiling, about `at` in plan; `size` is then level, and up the slope
  Vec2 at = Vec2::Zero();
  double rotation_deg = 0;  ///< in a level ceiling, counter-clockwise seen from above
  int wall = 1;             ///< from 1: wall 1 runs from corner 1 to corner 2 of the outline as written
  std::string wall_name;    ///< instead of the number
  double from_m = 0;        ///< along the wall from its first corner
  double sill_m = 0;
  Vec2 size = Vec2::Zero();                 ///< along the wall and up
  double frame_share = 0;                   ///< of its area
  daylight::Bars bars;                      ///< where the frame is stated by widths
  std::optional<geometry::Material> glass;  ///< of the pane without its frame
  std::optional<Finish> pane;               ///< frame included; nothing: a hole
  daylight::Glazing glazing;  ///< how the pane's transmittance falls with the angle; its level is the pane's
  bool has_glazing = false;   ///< false: not stated, clear double panes are taken
  bool outside = true;        ///< false: it leads to another room, no daylight comes in by it
  double dirt = 1;            ///< share of daylight that dirt lets through
  double reveal_m = 0;        ///< how deep the pane lies in its wall or roof: 0 is flush with the outside
  double reveal_reflectance = 0.5;  ///< of the sides of that hole
  std::vector<Shade> shades;
  bool is_glazed() const { return kind == "window" || kind == "roof window" || kind == "dome"; }
  Place place;
};

/// A wall that has a name or a finish of its own.
struct Wall {
  int number = 1;  ///< as of openings
  std::string name;
  std::optional<Finish> finish;
  Place place;
};

/// A part of the ceiling that rises in one direction: at `height_m` above `from`, at `to_height_m` above
/// `to`; or, with an `over`, a lower part with an outline of its own at `height_m`.
struct CeilingPart {
  Vec2 from = Vec2::Zero(), to = Vec2::Zero();
  double height_m = 0, to_height_m = 0;
  geometry::Polygon over;
  Place place;
};

/// The ground of an outdoor area where it is not level: it rises in one direction as a ceiling does, or is a
/// mesh in the area's own coordinates.
struct GroundShape {
  std::optional<CeilingPart> slope;
  std::optional<MeshUse> mesh;
};

}  // namespace glow::model
