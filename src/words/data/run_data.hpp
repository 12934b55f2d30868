#pragma once

#include "core/record/record.hpp"
#include "words/data/data_table.hpp"

namespace glow::words {

/// Results of a run as typed tables, in the units that its record says. Where rooms have scenes and moments,
/// lines of these follow those of the room with all groups as placed, named in a column.

DataTable rooms_data(const record::RunRecord& run);
DataTable checks_data(const record::RunRecord& run);
/// One line a grid.
DataTable grids_data(const record::RunRecord& run);
/// One line a view (UGR), or an eye in its worst direction (GR).
DataTable glare_data(const record::RunRecord& run);
/// One line a luminaire.
DataTable luminaires_data(const record::RunRecord& run);
/// Scenes of electric light, or moments with daylight.
DataTable scenes_data(const record::RunRecord& run, bool moments);
/// The year of daylight, one line a grid.
DataTable year_data(const record::RunRecord& run);
/// The same at points and at eyes, a line each.
DataTable year_points_data(const record::RunRecord& run);
/// Energy in the year, a line each room and, where it is found hour by hour, each zone.
/// Floors, and all rooms, by the areas of their rooms; rooms that are all there is have no line.
DataTable year_floors_data(const record::RunRecord& run);
/// Chosen hours of the year on the work plane: mean, and shares of points and hours by limits.
DataTable year_times_data(const record::RunRecord& run);
/// Neighbours of outdoor areas, the worst first; and the luminaires that each sees, as many as are told.
DataTable neighbours_data(const record::RunRecord& run);
DataTable neighbour_luminaires_data(const record::RunRecord& run);
DataTable energy_data(const record::RunRecord& run);
/// Every point of every grid and the designer's points, of one room: long.
DataTable points_data(const record::RoomRecord& room, const units::ShownUnits& units);

/// All of them but the points, those without lines left out.
std::vector<DataTable> all_data(const record::RunRecord& run);

}  // namespace glow::words
