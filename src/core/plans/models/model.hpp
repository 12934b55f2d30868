#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/plans/found.hpp"
#include "core/plans/models/shell.hpp"

namespace glow::plans {

/// What a building model holds, whatever its format: m, in the file's own coordinates after all placements.

/// What a thing of a model is called, and where it stands in the file.
struct Entity {
  std::string id;    ///< stable from one export to the next: "0OPSpLPMaiPBY4Vi8$$sAu", "space-1"
  std::string name;  ///< may be empty
  std::string word;  ///< for messages: "#57", "space-1"
  std::uint32_t line = 0;
};

struct ModelStorey {
  Entity entity;
  double level_m = 0;  ///< as it is stated
  double z_m = 0;      ///< where it lies in the file's coordinates
};

struct ModelSpace {
  Entity entity;
  std::string number;
  int storey = -1;
  bool outdoors = false;
  std::vector<Shell> shells;       ///< its parts
  std::optional<Face> floor;       ///< where the file has only that, or states it beside the shell
  double floor_z = 0;              ///< of that floor
  std::optional<double> height_m;  ///< of a space that is only a floor
};

/// Something that has a body: a wall, a column, a table, a neighbour's house.
struct ModelBody {
  enum class Kind { wall, slab, roof, ceiling, column, furniture, shading, other };
  Entity entity;
  Kind kind = Kind::other;
  int storey = -1;
  bool outside = false;  ///< it stands on the site, not on a storey
  Shell shell;
  std::string material;
};

struct ModelOpening {
  Entity entity;
  FoundOpening::Kind kind = FoundOpening::Kind::gap;
  int storey = -1;
  int body = -1;  ///< the wall or roof that it is in; -1: none
  bool in_roof = false;
  std::vector<Vec3> corners;                ///< of the hole
  std::vector<int> spaces;                  ///< beside it, where the file says so
  std::optional<double> width_m, height_m;  ///< as stated, where the corners do not tell
  std::optional<double> transmittance;
};

struct ModelLight {
  Entity entity;
  std::string type;
  int storey = -1;
  Vec3 at = Vec3::Zero();
  double rotation_deg = 0;
};

/// How many of a kind the file holds, and whether it was looked at.
struct ModelKind {
  std::string name;
  std::size_t count = 0;
  bool looked_at = false;
};

struct Model {
  std::vector<ModelStorey> storeys;
  std::vector<ModelSpace> spaces;
  std::vector<ModelBody> bodies;
  std::vector<ModelOpening> openings;
  std::vector<ModelLight> lights;
  std::vector<ModelKind> kinds;
  FoundSite site;
  std::vector<Doubt> doubts;    ///< about the whole, places not turned yet
  double metres_per_unit = 1;   ///< of the file's numbers
  std::vector<OpenEdge> leaks;  ///< of a mesh that should enclose a room
};

}  // namespace glow::plans
