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

/// All figures of a run: the status of the project, then, in the order of its rooms, the plan of each grid,
/// floor, ceiling, walls unrolled, all surfaces on one sheet, and columns. `run` must outlive them.
std::vector<Figure> figures_of(const record::RunRecord& run);

}  // namespace glow::figures
