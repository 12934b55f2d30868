#pragma once

#include <string>
#include <vector>

#include "core/record/record.hpp"

namespace glow::figures {

/// A drawing for architects: what was found, in the coordinates, unit and turn of theirs.
struct LightDrawing {
  std::string of;     ///< the drawing that its rooms came from, as the project names it; empty: metres
  std::string bytes;  ///< DXF
};

/// One for each drawing that rooms came from, and one in metres for rooms that came from none. Luminaires are
/// blocks with their mark, rotation and height as attributes; numbers, isolux lines, false colours, outlines
/// and names stand on a layer each.
std::vector<LightDrawing> light_drawings(const record::RunRecord& run);

/// Every luminaire's place in the room's metres and in the architect's drawing, as a table.
std::string luminaire_places_csv(const record::RunRecord& run);

}  // namespace glow::figures
