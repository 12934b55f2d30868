#pragma once

#include "core/run/compute_room.hpp"

namespace glow::rooms {

/// A room to compute that was not read from a project: its space, what is asked of it, and a project that
/// knows its luminaires. Does not move, since the parts point to each other.
struct PlannedTestRoom {
  model::Project project;
  model::Room room;
  space::PlannedRoom planned;

  PlannedTestRoom() = default;
  PlannedTestRoom(const PlannedTestRoom&) = delete;
  PlannedTestRoom& operator=(const PlannedTestRoom&) = delete;

  /// Takes a space whose groups all have marks of their own, or the same luminaire.
  void take(space::Space space, double maintenance_factor) {
    room.maintenance_factor = maintenance_factor;
    for (space::LuminaireGroup& group : space.groups) {
      model::ScheduledLuminaire entry;
      entry.mark = group.mark;
      entry.photometry = group.photometry;
      project.schedule.push_back(entry);
      group.placement = room.luminaires.size();
      room.luminaires.emplace_back();
      room.luminaires.back().mark = group.mark;
    }
    planned.room = &room;
    planned.space = std::move(space);
    planned.brief.grids.resize(planned.space.grids.size());
  }

  record::RoomRecord compute(const std::string& accuracy, const run::Studies& studies = {}) const {
    return run::compute_room(project, planned, *run::Accuracy::parse(accuracy), nullptr, {}, studies).record;
  }
};

}  // namespace glow::rooms
