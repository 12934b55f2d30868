#pragma once

#include "figures/figure_list.hpp"

namespace glow::figures {

/// A room as it is in one of several runs.
struct ComparedIn {
  std::string run;
  const record::RoomRecord* room = nullptr;
};
/// Each grid that people look at in all of them side by side on one scale, and what each run has more than
/// the first, where the grids have the same points; and likewise the first map of their years. `rooms` are of
/// one room; they must outlive the figures.
std::vector<Figure> comparisons_of(const std::vector<ComparedIn>& rooms, const model::FigureStyle& style,
                                   const units::ShownUnits& units);

}  // namespace glow::figures
