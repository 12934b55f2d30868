#pragma once

#include <string>

#include "core/record/record.hpp"

namespace glow::words {

/// A room's checks: what is required, found, the margin, how sure it is, and the verdict, or, where there are
/// several standards, a column for each; then, of those that are not met, undecided or met by far, why and
/// what would help. Empty when there are none. Ends with a line break.
std::string check_table(const record::RoomRecord& room, const units::ShownUnits& units, bool colour);

}  // namespace glow::words
