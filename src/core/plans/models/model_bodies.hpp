#pragma once

#include "core/plans/models/model.hpp"

namespace glow::plans {

/// What bodies of a model are good for beside their spaces.

/// Spaces that the walls of each storey enclose, for a model without any.
std::vector<ModelSpace> spaces_between_walls(const Model& model);

/// What stands outside, heights above `zero_z`; doubts about what had to be made simpler.
std::vector<FoundNeighbour> neighbours_of(const Model& model, const Frame& frame, double zero_z,
                                          std::vector<Doubt>& doubts);

/// Columns and furniture with their middle in a room; heights above its floor.
struct RoomPlace {
  const geometry::Polygon* outline;
  double floor_z, height_m;
};
void add_objects(const Model& model, const std::vector<RoomPlace>& rooms, FoundPlan& plan);

/// "walls: lime plaster" for the materials of bodies that a room touches.
std::vector<std::string> finishes_of(const Model& model, const RoomPlace& room);

/// Lines of a storey's bodies in plan.
void draw_bodies(const Model& model, int storey, Drawing& drawing);

}  // namespace glow::plans
