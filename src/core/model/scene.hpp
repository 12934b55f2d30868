#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/model/emergency.hpp"
#include "core/model/readings.hpp"
#include "core/model/year.hpp"

namespace glow::model {

/// One way to use an installation: what each group gives, and what is asked then.
struct Scene {
  /// Of what groups give as they are placed; by the name of a group, a mark or a fitting.
  struct Share {
    std::string of;
    double share = 1;  ///< 0 to 1
    Place place;
  };
  std::string name;
  std::vector<Share> shares;
  std::vector<Share> cct_k;         ///< what tunable groups are set to, K
  double rest = 0;                  ///< of all groups that are not named
  bool solve = false;               ///< for the least watts: the shares of all others are found
  std::optional<std::string> task;  ///< of the room as a whole, instead of its own
  bool asks_nothing = false;        ///< task = "none": nothing is verified
  std::optional<LevelChoice> level;
  std::optional<Emergency> emergency;  ///< on battery: read and verified as emergency lighting
  std::optional<UseHours> hours;       ///< in which it is set, for energy over the year
  Place place, task_place;
};

}  // namespace glow::model
