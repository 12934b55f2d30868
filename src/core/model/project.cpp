#include "core/model/project.hpp"

#include <algorithm>

namespace glow::model {

Room::Room() = default;
Room::Room(const Room&) = default;
Room::Room(Room&&) noexcept = default;
Room& Room::operator=(const Room&) = default;
Room& Room::operator=(Room&&) noexcept = default;
Room::~Room() = default;

Project::Project() = default;
Project::Project(const Project&) = default;
Project::Project(Project&&) noexcept = default;
Project& Project::operator=(const Project&) = default;
Project& Project::operator=(Project&&) noexcept = default;
Project::~Project() = default;

const ScheduledLuminaire* Project::find(const std::string& mark) const {
  const auto entry = std::find_if(schedule.begin(), schedule.end(),
                                  [&](const ScheduledLuminaire& s) { return s.mark == mark; });
  return entry == schedule.end() ? nullptr : &*entry;
}

std::optional<Least> least_of(const std::string& words) {
  if (words == "luminaires") return Least::luminaires;
  if (words == "watts") return Least::watts;
  if (words == "cost") return Least::cost;
  return std::nullopt;
}

std::vector<std::string> Project::marks_of(const std::string& mark) const {
  const ScheduledLuminaire* entry = find(mark);
  if (!entry || entry->parts.empty()) return {mark};
  std::vector<std::string> marks;
  for (const FittingPart& part : entry->parts) marks.push_back(part.mark);
  return marks;
}

double maintenance_factor(const ScheduledLuminaire& entry, const Room& room) {
  if (!entry.maintenance) return room.maintenance_factor.value_or(1);
  return maintenance_factor(*entry.maintenance, room.room_surfaces.value_or(SurfaceMaintenance{}).factor);
}

}  // namespace glow::model
