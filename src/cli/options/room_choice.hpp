#pragma once

#include <optional>
#include <string>
#include <vector>

#include "cli/open_project.hpp"
#include "cli/options/arguments.hpp"

namespace glow::cli {

/// Which rooms a person means: names with * and ? in them, on floors likewise. Empty: all.
struct RoomWish {
  std::vector<std::string> names, floors;
};

/// A room that there is.
struct KnownRoom {
  std::string name, floor;
};

/// --room NAME and --floor NAME, which may be given several times.
void add_room_option(boost::program_options::options_description& options, const std::string& command);
RoomWish room_wish(const Arguments& arguments);

std::vector<KnownRoom> known_rooms(const OpenProject& open);
std::vector<KnownRoom> known_rooms(const record::RunRecord& run);

/// Names of the rooms that are meant; empty: all. Nothing, after saying on standard error which word fits
/// none.
std::optional<std::vector<std::string>> chosen_rooms(const RoomWish& wish, const std::string& command,
                                                     const std::vector<KnownRoom>& known);

/// The room of that name; of a project with one room that one where no name is given. Null after saying what
/// is wrong on standard error.
const OpenProject::Room* only_room(const OpenProject& open, const std::string& name,
                                   const std::string& command);

/// Whether the room is among them, or all are.
bool is_chosen(const std::vector<std::string>& chosen, const std::string& room);

}  // namespace glow::cli
