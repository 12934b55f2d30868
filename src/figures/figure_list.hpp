#pragma once

#include <functional>

#include "figures/plot_script.hpp"

namespace glow::figures {

/// One figure that can be made from a run's results.
struct Figure {
  std::string base;    ///< of its files, "throwing-room--work-plane"
  std::string what;    ///< what it shows, in words
  bool main = false;   ///< a room's first figure: what people look at before all others
  bool usual = false;  ///< made by every run, not only when it is asked for
  std::function<std::string()> svg;
  std::function<PlotScript()> script;  ///< empty: a drawing that is no plot
};

/// Lowest and highest value of all grids of rooms, lx: for one scale for all of them.
using CommonScale = std::optional<std::pair<double, double>>;
CommonScale common_scale_of(const std::vector<record::RoomRecord>& rooms);

/// The status of the project.
Figure status_of(const record::RunRecord& run);
/// Shares of the work planes below, within and above the project's thresholds; nothing where none are stated.
std::vector<Figure> shares_of_planes(const record::RunRecord& run);
/// That of each floor. `run` must outlive them.
std::vector<Figure> floors_of(const record::RunRecord& run);
/// Those of one room: the plan of each grid, eyes, walls unrolled, all surfaces on one sheet, and columns.
/// `room` must outlive them.
std::vector<Figure> figures_of(const record::RoomRecord& room, const model::FigureStyle& style,
                               const units::ShownUnits& units, const CommonScale& common);

/// The same of the room in each of its scenes, which they hold themselves; of these a run makes the main
/// ones.
std::vector<Figure> figures_of_scenes(const record::RoomRecord& room, const model::FigureStyle& style,
                                      const units::ShownUnits& units, const CommonScale& common);

/// What a grid has more in one scene than in another, for each grid that people look at in rooms that have
/// both; "as placed" is the room as its groups are placed. `room` must outlive them.
std::vector<Figure> differences_of(const record::RoomRecord& room, const std::string& scene,
                                   const std::string& other, const model::FigureStyle& style,
                                   const units::ShownUnits& units);

/// All figures of a run: the status of the project, then, in the order of its rooms, the plan of each grid,
/// floor, ceiling, walls unrolled, all surfaces on one sheet, and columns. `run` must outlive them.
std::vector<Figure> figures_of(const record::RunRecord& run);

/// Whether people look at the grid in every scene and in every run.
bool is_shown_in_scenes(const assess::GridReading& grid);

/// A plan of values that are no illuminances. Throws std::runtime_error where there are none.
std::string other_values_svg(const record::RoomRecord& room, const std::optional<OtherValues>& other,
                             const model::FigureStyle& style, const units::ShownUnits& units);

}  // namespace glow::figures
