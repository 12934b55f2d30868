#pragma once

#include <string>
#include <vector>

#include "core/record/record.hpp"

namespace glow::words {

/// Checks that have something to tell, together where they are of repeated things and alike: numbers among
/// the room's checks, the worst first.
using Finding = std::vector<std::size_t>;

/// What of a room is not met, undecided or met by far, in the order of its checks; once for a thing and
/// quantity, even if several standards ask for it.
std::vector<Finding> findings(const record::RoomRecord& room);

/// Why, and what would help: everything that was found. Ends with a line break.
std::string full_advice(const record::RoomRecord& room, const Finding& finding,
                        const units::ShownUnits& units);

/// What, by how much, its first cause (unless that was `told` just before; it then is), and the best mend, in
/// two or three lines.
std::string short_advice(const record::RoomRecord& room, const Finding& finding,
                         const units::ShownUnits& units, std::string& told);

/// A sentence of advice.
struct AdviceSentence {
  enum class Kind { about, cause, mend };  ///< what is wrong, why, what would help
  std::string words;
  Kind kind = Kind::cause;
};
/// What `short_advice` and `full_advice` say, without the terminal's lines.
std::vector<AdviceSentence> sentences_of(const std::string& advice);

}  // namespace glow::words
