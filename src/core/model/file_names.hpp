#pragma once

#include <string>

namespace glow::model {

/// A name as part of a file name: lower case letters, digits and hyphens only ("Throwing room" ->
/// "throwing-room").
std::string file_name_part(const std::string& name);

/// "grids/throwing-room--work-plane.csv" and the like.
std::string grid_file(const std::string& folder, const std::string& room, const std::string& grid,
                      const std::string& suffix);

}  // namespace glow::model
