#pragma once

#include <string>

#include "core/model/file_names.hpp"
#include "core/record/record.hpp"
#include "core/units/shown_units.hpp"

namespace glow::files {

/// "grids/office--desk.csv", "grids/closing/office--desk.csv" in a scene, or "grids/office--desk-older.csv"
/// where the room's results are older than the project.
inline std::string csv_name(const std::string& folder, const record::RoomRecord& room,
                            const std::string& of) {
  const std::string scene = room.scene.empty() ? folder : folder + "/" + model::file_name_part(room.scene);
  return model::grid_file(scene, room.name, room.changed_since.empty() ? of : of + " older", "csv");
}

/// x_m,y_m,z_m,normal_x,normal_y,normal_z,direct_lx,interreflected_lx,total_lx, or ft and fc; header row,
/// maintained values.
/// At a moment also its parts, the factor, and when it is.
std::string grid_csv(const assess::GridReading& grid, const units::ShownUnits& units,
                     const std::optional<record::MomentRecord>& moment);

/// The course of a moment's day: place, date, local and solar time, where the sun is, the open ground, and a
/// column for each point and area.
std::string series_csv(const assess::DaySeries& series, const record::MomentRecord& moment,
                       const units::ShownUnits& units);

/// One row a view (UGR) of a set of eyes: place, azimuth, UGR, background luminance, the luminaire that adds
/// most and its share. With GR one row an eye, in its worst direction.
std::string eyes_csv(const assess::RoomGlare& glare, const assess::EyeSetGlare& set,
                     const units::ShownUnits& units);

}  // namespace glow::files
