#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/problems/problems.hpp"
#include "core/readings/grid.hpp"
#include "core/readings/kernel.hpp"

namespace glow::model {

/// A rectangle anywhere: its first side along x at rotation 0; `tilt_deg` leans it about that side, 90 is
/// upright. Level it faces up, upright it faces -y at rotation 0.
struct PlacedRectangle {
  Vec3 at = Vec3::Zero();  ///< corner where both sides begin
  Vec2 size = Vec2::Zero();
  double rotation_deg = 0, tilt_deg = 0;
};

/// Objects under which, or in which, points of a level plane are not read.
struct LeaveOut {
  bool objects = false;            ///< all of them
  std::vector<std::string> names;  ///< these: "rack", or one of several, "rack 2"
};

/// A grid that the designer asks for. It lies on something, or is a rectangle or polygon anywhere, or, with a
/// height only, goes level through the whole room.
struct GridWish {
  std::string name;
  std::string on;  ///< "floor", "ceiling", "walls", a wall or "object.face"; empty: none of these
  std::optional<PlacedRectangle> rectangle;
  std::optional<std::vector<Vec3>> polygon;  ///< counter-clockwise seen from the side that light is read on
  std::optional<double> height_m;
  readings::Kernel kernel = readings::Kernel::plane;
  Vec3 facing = Vec3::UnitX();  ///< of semi-cylinders, level
  bool turned = false;          ///< light is read on the other side
  bool together = false;        ///< one grid over the faces of all objects of that name
  double inset_m = 0;
  readings::GridDensity density;
  std::optional<LeaveOut> leave_out;  ///< nothing: by the kind of grid
  Place place, on_place, leave_out_place;
};

/// One point where light is read.
struct PointWish {
  std::string name;
  Vec3 at = Vec3::Zero();
  std::string facing = "up";  ///< "up", "down", "X,Y,Z" or an object's name
  readings::Kernel kernel = readings::Kernel::plane;
  Place place, facing_place;
};

/// Which level of a task is in force, when it is not the required one.
struct LevelChoice {
  bool modified = false;  ///< the table's modified value
  int steps = 0;          ///< up the scale of illuminances; negative: down
  std::string reason;
  Place place;
};

/// A task area: the part of a room, or of an object, that a task is done on.
struct AreaWish {
  GridWish grid;                     ///< where it lies; a rectangle's height may be left to the task (NaN)
  std::string task;                  ///< empty: the room's
  std::optional<LevelChoice> level;  ///< nothing: the room's
  bool surroundings = true;          ///< surrounding and background areas are formed and verified
  Place task_place;
};

/// What of a room is held against its task.
enum class Verification {
  by_areas,    ///< task areas where there are any, else the whole room
  whole_room,  ///< the work plane of the whole room, and task areas without their surroundings
};

/// Whose eyes: where cylindrical illuminance and glare are read.
enum class Eyes { by_task, seated, standing };

/// People whose glare is rated: one of them, or eyes all over the room.
struct EyesWish {
  std::string name;
  std::optional<Vec3> at;  ///< of the eye; z is NaN where it is left to the posture. Nothing: all over
  Eyes posture = Eyes::by_task;
  std::optional<double> height_m;
  std::string looking;           ///< "90" or "0,90" (degrees counter-clockwise from +x), "4 directions", "8
                                 ///< directions", or what is looked at; empty: four directions
  std::optional<bool> verified;  ///< nothing: somebody's eyes are, those all over where there are no others
  std::optional<double> spacing_m, inset_m;  ///< of eyes all over; nothing: about 100 places, 0.5 m
  Place place, looking_place;
};

/// What verifies a limit of UGR.
enum class GlareMethod {
  by_standard,  ///< the table where the tabular method holds for the room, else eyes
  table,
  eyes
};

/// Luminaires that no screen mirrors, as the designer says, and why.
struct LeftOutLuminaire {
  std::string mark, reason;
  Place place;
};

/// Screens that luminaires are mirrored in.
struct ScreensWish {
  double luminance_cd_m2 = 300;
  bool dark_background = false;
  double from_deg = 65;  ///< gamma from which on the limit holds
  bool assumed = true;   ///< nothing was stated about them
  std::vector<LeftOutLuminaire> left_out;
};

}  // namespace glow::model
