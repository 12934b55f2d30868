#pragma once

#include <set>

#include "core/parallel/parallel.hpp"
#include "figures/figure_list.hpp"
#include "files/output/output_folder.hpp"

namespace glow::cli {

enum class FigureFormat { svg, png, pdf, script };

/// "svg,png": names with commas between; nothing when one of them is not known.
std::optional<std::set<FigureFormat>> parse_formats(const std::string& words);

/// What a run draws of a room and its scenes. They hold on to the room. `common`: the scale of all planes,
/// where they share one.
std::vector<figures::Figure> usual_figures(const record::RoomRecord& room, const model::FigureStyle& style,
                                           const units::ShownUnits& units,
                                           const figures::CommonScale& common);

/// Writes figures into `folder` below `prefix` ("figures/"), on all threads. `formats_of` says which files of
/// a figure are wanted. What cannot be converted is left out, with one warning. Throws Cancelled.
void write_figures(const std::vector<figures::Figure>& list,
                   const std::function<std::set<FigureFormat>(const figures::Figure&)>& formats_of,
                   const std::string& prefix, files::OutputFolder& folder, Problems& problems,
                   const Watch& watch);

/// One drawing into a file of its own, whole or not at all: SVG, PNG or PDF by its suffix. Gives why it could
/// not be made; empty: it was. Throws OutputError.
std::string write_figure_file(const std::filesystem::path& file, const std::string& svg);

}  // namespace glow::cli
