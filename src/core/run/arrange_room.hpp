#pragma once

#include "core/run/compute_room.hpp"
#include "core/studies/arrangement/arrangement.hpp"

namespace glow::run {

/// A room whose arrangement was looked for.
struct ArrangedRoom {
  studies::Arrangement found;
  std::optional<model::LuminairePlacement> placement;  ///< of its best field, as it is written
  std::optional<record::RoomRecord> record;            ///< the room with it, calculated whole
  std::size_t overruled = 0;  ///< fields that met all checks until they were calculated whole
};

/// Finds an arrangement for a room in which only what stays is placed, and calculates it as `run` would: what
/// is said to meet all checks does so there. `standards`: the main one first. `store` may be null. Throws
/// Cancelled before there is anything to tell, and what build_space finds wrong, as a std::runtime_error.
ArrangedRoom arrange_room(const model::Project& project, const model::Room& room,
                          const studies::ArrangementWish& wish,
                          const std::vector<standards::RequirementTable>& standards, const Accuracy& accuracy,
                          TransportStore* store, const Watch& watch);

/// The wish that a placement in the project states. Its luminaires hang where the placement says.
studies::ArrangementWish wish_of(const model::LuminairePlacement& placement);

/// The placement, suspended by 0.5 m where it names no height and the luminaire gives light upwards.
model::LuminairePlacement hung(model::LuminairePlacement placement, const photometry::Photometry& photometry);

/// Mounting heights to try between two, m: by tenths of a metre, at most six.
std::vector<double> heights_between(double low, double high);

/// Fields for a room's placements that are yet to be found, in their order. Nothing: none meets all checks;
/// those after it are not looked for.
using SettledFields = std::vector<std::optional<studies::Field>>;

/// Finds them, one after the other. Throws as arrange_room does.
SettledFields find_fields(const model::Project& project, const model::Room& room,
                          const std::vector<standards::RequirementTable>& standards, const Accuracy& accuracy,
                          TransportStore* store, const Watch& watch);
/// Puts them in place. Gives false, and notes an error, where there is none.
bool lay_fields(const SettledFields& fields, model::Room& room, Problems& problems);

}  // namespace glow::run
