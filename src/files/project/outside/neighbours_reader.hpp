#pragma once

#include "core/model/project.hpp"
#include "files/text/toml_table.hpp"

namespace glow::files {

/// [[neighbours]]: windows, points and facades that light of outdoor areas falls on.
std::vector<model::Neighbour> read_neighbours(TomlTable& root);
/// [spill_light]: how light that goes astray is judged.
model::SpillWish read_spill_light(TomlTable& root);
/// [[outdoors.road_users]].
std::vector<model::RoadUser> read_road_users(TomlTable& area);
/// Faults: neighbours of areas that are not there, two of one name, no outdoor area at all.
void check_neighbours(const model::Project& project, Problems& problems);

}  // namespace glow::files
