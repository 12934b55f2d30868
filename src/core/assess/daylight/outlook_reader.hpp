#pragma once

#include "core/assess/setting.hpp"
#include "core/lighting/daylight.hpp"

namespace glow::assess {

/// What the setting's brief asks of sun and view, read in the states that `by_day` was made for. Nothing
/// where it asks for neither. Throws Cancelled.
std::optional<Outlook> look_out(const Setting& setting, const lighting::Daylight& by_day, const Watch& watch);

}  // namespace glow::assess
