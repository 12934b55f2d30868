#pragma once

#include <optional>

#include "core/problems/problems.hpp"
#include "core/record/record.hpp"

namespace glow::words {

/// What a computed room has to be warned of: light that is lost, points and eyes that lie inside objects, an
/// accuracy in per cent (`wanted`) that was not reached. An error where nothing of the work plane, or of a
/// plane that was asked for, is left to read.
void warn_of_room(const record::RoomRecord& room, const std::optional<double>& wanted, Problems& problems);

}  // namespace glow::words
