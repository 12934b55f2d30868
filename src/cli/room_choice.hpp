#pragma once

#include <optional>
#include <string>
#include <vector>

#include "cli/arguments.hpp"

namespace glow::cli {

/// --room NAME, which may be given several times.
void add_room_option(boost::program_options::options_description& options, const std::string& command);

/// The rooms that were chosen; empty: all. Nothing, after saying which name is none of `known` on standard
/// error.
std::optional<std::vector<std::string>> chosen_rooms(const std::vector<std::string>& names,
                                                     const std::string& command,
                                                     const std::vector<std::string>& known);

/// Whether the room is among them, or all are.
bool is_chosen(const std::vector<std::string>& chosen, const std::string& room);

}  // namespace glow::cli
