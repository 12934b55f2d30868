#pragma once

#include <optional>
#include <string>
#include <vector>

#include "cli/arguments.hpp"
#include "cli/open_project.hpp"

namespace glow::cli {

/// --room NAME, which may be given several times.
void add_room_option(boost::program_options::options_description& options, const std::string& command);

/// The rooms that were chosen; empty: all. Nothing, after saying which name is none of `known` on standard
/// error.
std::optional<std::vector<std::string>> chosen_rooms(const std::vector<std::string>& names,
                                                     const std::string& command,
                                                     const std::vector<std::string>& known);

/// The room of that name; of a project with one room that one where no name is given. Null after saying what
/// is wrong on standard error.
const OpenProject::Room* only_room(const OpenProject& open, const std::string& name,
                                   const std::string& command);

/// Whether the room is among them, or all are.
bool is_chosen(const std::vector<std::string>& chosen, const std::string& room);

}  // namespace glow::cli
