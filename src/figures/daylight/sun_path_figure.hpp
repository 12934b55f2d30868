#pragma once

#include "figures/flat/flat_view.hpp"

namespace glow::figures {

/// The sky over an opening, laid about the room's plan: the sun's way on the longest, the shortest and the
/// stated day, what hides the sky, and when the sun comes in. Zenith in the middle, horizon outside.
std::string sun_path_svg(const FigureInput& input, const assess::Outlook& outlook,
                         const assess::SunOnOpening& sun);

}  // namespace glow::figures
