#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/space/build_space.hpp"
#include "core/views/render.hpp"

namespace glow::run {

/// Which pictures of a room are made, and how.
struct PictureChoice {
  views::Quality quality;
  std::vector<std::string> names;                          ///< of views; empty: all
  std::optional<std::pair<int, int>> size = std::nullopt;  ///< columns and rows, instead of each view's own
  int most_columns = 0;                                    ///< 0: as many as there are; else made smaller
  bool only = false;                                       ///< nothing else of the room is asked for
};

/// Pictures of a room with this light, in the order of its views. Throws Cancelled.
std::vector<views::Picture> pictures_of(const space::PlannedRoom& room, const views::LitSpace& lit,
                                        const std::vector<views::PictureUse>& uses,
                                        const PictureChoice& choice, const Watch& watch);

}  // namespace glow::run
