#pragma once

#include <string>
#include <vector>

#include "core/photometry/photometry.hpp"

namespace glow::photometry {

/// All light, and the lamps' flux, multiplied; watts stay.
Photometry scaled(const Photometry& photometry, double factor);

/// Without light from an angle off gamma 0 on, as a shield or louvre all round takes it; of (0, 180).
IntensityTable shielded(const IntensityTable& table, double from_deg);

/// Turned counter-clockwise seen from above. Table points come back exactly at their new C; a plane at C 0 is
/// added by interpolation where the turn leaves none. Turns by 90 degrees swap the extents; for others
/// `notes` says that the luminous area became the rectangle around it.
Photometry turned(const Photometry& photometry, double angle_deg, std::vector<std::string>& notes);

/// Several luminaires at one place as one: intensities, flux and watts add up; the table has the angles of
/// all. Watts are only known when all are; the luminous area is the largest extent of each. `parts` has one
/// or more.
Photometry merged(const std::vector<Photometry>& parts, std::vector<std::string>& notes);

}  // namespace glow::photometry
