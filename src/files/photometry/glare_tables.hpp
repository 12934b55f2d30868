#pragma once

#include <string>

#include "core/photometry/photometry.hpp"
#include "files/text/json_number.hpp"

namespace glow::files {

/// The tabular UGR of a luminaire, see docs/glare.md: "headline" always, the nineteen rooms and the
/// utilisation factors when `whole`. Null where the method does not hold, with the reason in "not_given".
json glare_tables_json(const photometry::Photometry& photometry, bool whole);

/// One row a room: x_H, y_H, then the five crosswise and the five endwise values, uncorrected, under headers
/// that name sight and reflectances; empty where there is no value.
std::string ugr_table_csv(const photometry::Photometry& photometry);
/// One row a room index: room_index, then the factors under headers that name the reflectances.
std::string utilisation_csv(const photometry::Photometry& photometry);

/// Whether the long side of the luminous area lies along C0-C180: then a sight along it is endwise.
bool is_long_along_c0(const photometry::Photometry& photometry);

}  // namespace glow::files
