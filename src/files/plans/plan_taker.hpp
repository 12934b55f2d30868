#pragma once

#include <optional>
#include <string>

#include "core/plans/take_plan.hpp"
#include "core/problems/problems.hpp"
#include "files/plans/dxf/document.hpp"

namespace glow::files {

struct TakenFloor {
  plans::Frame frame;
  plans::Drawing drawing;
  plans::FoundPlan plan;
  std::vector<bool> looked_at;  ///< layers, by number, that something was looked for on
};

/// The unit that the drawing states, in m; nothing: none.
std::optional<double> stated_unit(const dxf::Document& document);

/// Takes a floor's rooms. Doubts about single rooms are in the plan; what concerns the whole drawing is told
/// in `problems`: an error where nothing can be taken, or where what was taken can be no building.
std::optional<TakenFloor> take_floor(const dxf::Document& document, const plans::FloorWish& floor,
                                     const std::string& file, Problems& problems);

/// Everything that can be seen, for a picture; thinned out where it is very much.
plans::Drawing whole_drawing(const dxf::Document& document, const plans::FloorWish& floor,
                             const plans::Frame& frame);

}  // namespace glow::files
