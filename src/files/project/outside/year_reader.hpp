#pragma once

#include <filesystem>

#include "core/model/project.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// Days of the year: `["05-01", "12-24 to 01-06"]`; empty where there are none.
std::vector<model::UseHours::Holiday> read_dates(TomlTable& table, const char* key);
/// "7:30", up to 24:00; a fault where it is needed and missing, or no time.
std::optional<double> read_clock_time(TomlTable& table, const char* key, Need need = Need::optional);
/// `hours = { days = "Monday to Friday", from = "8:00", to = "18:00", holidays = ["12-24 to 01-06"] }`, or a
/// list of such that do not overlap; nothing where there is none.
std::optional<model::UseHours> read_use_hours(TomlTable& parent);

/// [year]: weather, hours of use, blinds.
std::optional<model::YearWish> read_year(TomlTable& root);

/// [rooms.year]: what a room asks of its year.
std::optional<model::RoomYearWish> read_room_year(TomlTable& room);

/// Reads the weather that [year] names, and where [site] leaves it open, takes from it how bright half of the
/// daylight is. Says where site and weather are not of one place.
void load_weather(model::Project& project, const std::filesystem::path& folder, Problems& problems);

}  // namespace glow::files
