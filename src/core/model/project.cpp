#include "core/model/project.hpp"

#include <algorithm>

namespace glow::model {

const ScheduledLuminaire* Project::find(const std::string& mark) const {
  const auto entry = std::find_if(schedule.begin(), schedule.end(),
                                  [&](const ScheduledLuminaire& s) { return s.mark == mark; });
  return entry == schedule.end() ? nullptr : &*entry;
}

}  // namespace glow::model
