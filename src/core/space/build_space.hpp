#pragma once

#include "core/space/brief.hpp"
#include "core/space/planned_view.hpp"
#include "core/space/space.hpp"
#include "core/space/times/energy_plan.hpp"
#include "core/space/times/moments.hpp"
#include "core/space/times/year_plan.hpp"

namespace glow::space {

/// One way to use the room.
struct PlannedScene {
  std::string name;
  std::vector<double> shares;                ///< by Space::groups, of what they give as placed
  std::vector<std::optional<double>> cct_k;  ///< by Space::groups, of those that are tuned in it
  std::vector<char> is_free;                 ///< by Space::groups: their shares are found; empty: none is
  std::optional<PlannedMoment> moment;       ///< with daylight
  std::vector<PlannedMoment> series;         ///< the course of its day
  std::optional<YearPlan> year;              ///< then the moment is the mean of its hours of use
  std::optional<model::UseHours> hours;      ///< in which it is set
  bool emergency = false;                    ///< on battery: light that surfaces throw back does not count
  bool asks_as_room = true;                  ///< what the room asks
  Brief brief;                               ///< of the same grids and eyes
};

/// A room of the project, ready to compute and to be judged.
struct PlannedRoom {
  const model::Room* room = nullptr;  ///< as it was written; must outlive this
  Space space;
  Brief brief;
  std::vector<PlannedScene> scenes;
  std::vector<PlannedView> views;
  std::optional<EnergyPlan> energy;
};

/// Turns what was written into a room to compute. Nothing comes back exactly when an error was added;
/// warnings name what would make the result doubtful. Photometric files must have been read; a mark whose
/// file could not be read is passed over in silence, since that was reported already. `standards`: at least
/// one, the main one first.
std::optional<PlannedRoom> build_space(const model::Project& project, const model::Room& room,
                                       const std::vector<standards::RequirementTable>& standards,
                                       Problems& problems);

}  // namespace glow::space
