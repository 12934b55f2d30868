#pragma once

#include <string>

#include "core/record/record.hpp"
#include "core/studies/arrangement/arrangement.hpp"

namespace glow::words {

/// What there is to tell of a search for an arrangement. All that it points at must outlive it.
struct ArrangementTold {
  const studies::Arrangement& found;
  const studies::ArrangementWish& wish;
  const record::RoomRecord* room = nullptr;  ///< calculated with the best field; null: none meets all
  std::vector<std::string> grids;            ///< names of the room's grids
  std::string room_name, task_area;          ///< area of the requirement row of the room's task
  std::size_t overruled = 0;
  bool short_form = false;  ///< one of several rooms: the arrangement and how it stands, nothing more
};

/// "3 x 4, staggered, turned, at 2.6 m".
std::string field_words(const studies::Field& field, const units::ShownUnits& units);

/// "mean 512 lx, U0 0.66, UGR 18.2".
std::string key_values(const studies::TriedField& tried, const units::ShownUnits& units);

/// Why no field of a luminaire will do, in a phrase: "too narrow: U0 0.41 of 0.60 at best".
std::string shortcoming(const studies::Arrangement& found, const units::ShownUnits& units);

/// The answer: the arrangement and how it stands, why nothing smaller will do, what else would, and the
/// energy; or which check stands in the way, and what would open it. Ends with a line break.
std::string arrangement_answer(const ArrangementTold& told, const units::ShownUnits& units);

}  // namespace glow::words
