#pragma once

#include "core/assess/assessment.hpp"
#include "core/assess/daylight/day_series.hpp"
#include "core/assess/setting.hpp"
#include "core/transport/numerical_error.hpp"

namespace glow::assess {

/// Cells over which the sun is averaged, by the receivers of the setting: those of grids that people look at,
/// whose mean is then that of the area, whatever pattern falls on it. Points are points.
std::vector<sources::SunCell> sun_cells(const Setting& setting);

/// Where the daylight on a grid comes from; nothing where the light is not that of a moment.
std::optional<DayOnGrid> read_day(const Setting& setting, std::size_t grid, const LitRoom& lit);
/// The same of a point.
std::optional<DayAtPoint> read_day_at(std::size_t receiver, const LitRoom& lit);

/// Adds a moment's light to the course of its day.
void add_step(const Setting& setting, const LitRoom& lit, DaySeries& series);

/// What of a grid daylight demands are held against.
Reached reached_factors(const Setting& setting, std::size_t grid, const lighting::RoomLight& light,
                        const transport::NumericalError* error);

}  // namespace glow::assess
