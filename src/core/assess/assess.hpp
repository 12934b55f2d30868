#pragma once

#include "core/assess/glare/glare_reader.hpp"
#include "core/assess/glare/table_glare.hpp"
#include "core/assess/grid_reader.hpp"
#include "core/assess/judge.hpp"

namespace glow::assess {

/// What of a room is read.
struct Scope {
  bool judged_only = false;  ///< of grids only the values that demands are held against; no points
  bool glare = true;         ///< eyes are read, and the tabular value
  bool spill = true;         ///< light that goes astray outdoors
  Views views;               ///< of UGR: only these
  bool ratings = true;       ///< GR of eyes, where it is rated
  const TabularMemory* tabular = nullptr;  ///< what is known of the tabular method; null: nothing
};

/// The one judge: what a room's light comes to, glare included, and how it stands against what is asked. Pure
/// and safe to call from any thread. `error`: of `lit.light`, for uncertainties; null: nothing is said of
/// them. Throws Cancelled.
Assessment assess(const Setting& setting, const SeenFromEyes& eyes, const LitRoom& lit,
                  const transport::NumericalError* error, const Scope& scope, const Watch& watch);

}  // namespace glow::assess
