#pragma once

#include "figures/flat/flat_view.hpp"

namespace glow::figures {

/// A figure as a gnuplot script and the data that it reads, for those who want to restyle it.
struct PlotScript {
  std::string script, data;
};

/// `base`: name of the script and its data without suffix. `columns`: as columns instead of flat.
PlotScript plot_script(const FigureInput& input, const std::vector<const assess::GridReading*>& grids,
                       const std::string& base, bool columns);

}  // namespace glow::figures
