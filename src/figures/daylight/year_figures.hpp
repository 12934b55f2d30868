#pragma once

#include <memory>

#include "figures/figure_list.hpp"
#include "figures/flat/flat_view.hpp"

namespace glow::figures {

/// Figures of the year of a room: of its electric light, chosen days, the year of daylight at a glance and at
/// points, and a map of each metric. `first`: what their files' names begin with. The room must outlive them.
std::vector<Figure> figures_of_year(const record::RoomRecord& room, const std::string& first,
                                    const std::shared_ptr<const FigureInput>& input);

}  // namespace glow::figures
