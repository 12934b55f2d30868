#pragma once

#include "core/record/run_record.hpp"
#include "files/text/json_number.hpp"

namespace glow::files {

/// Glare of a room as docs/results.md tells it; and, for figures, its eyes back. `eyes_of` throws nlohmann's
/// exceptions, or std::runtime_error, on what is not as `glare_json` writes it.
json glare_json(const assess::RoomResult& room);
std::vector<record::EyeSetRecord> eyes_of(const json& j);

/// One row a view (UGR) of a set of eyes: place, azimuth, UGR, background luminance, the luminaire that adds
/// most and its share. With GR one row an eye, in its worst direction.
std::string eyes_csv(const assess::RoomGlare& glare, const assess::EyeSetGlare& set,
                     const units::ShownUnits& units);

}  // namespace glow::files
