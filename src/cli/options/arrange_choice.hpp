#pragma once

#include <optional>
#include <string>
#include <vector>

#include "cli/open_project.hpp"
#include "cli/options/arguments.hpp"
#include "core/studies/arrangement/arrangement.hpp"

namespace glow::cli {

/// What is to be arranged in one room, and what stays.
struct ArrangeChoice {
  std::size_t room = 0;  ///< number in the project
  model::Room kept;      ///< with only the luminaires that stay
  studies::ArrangementWish wish;
  std::optional<std::size_t> instead;  ///< placement whose table the new one takes
  std::vector<std::size_t> taken_out;  ///< further ones that go
};

/// --mark, --least, --keep, --height, --dimming and --most.
void add_arrange_options(boost::program_options::options_description& options);

/// Whether some light is asked for: without that one luminaire is as good as another.
bool is_asked_for(const space::Brief& brief);
/// Says that nothing is, and what to do.
void say_unasked(const char* command, const OpenProject::Room& room);

/// For candidates in a room: what --keep names stays, and they hang as the room's first array does. Nothing,
/// after saying why on standard error.
std::optional<ArrangeChoice> rank_choice(const Arguments& arguments, const OpenProject& open,
                                         const OpenProject::Room& room);

/// For one room what the options and its placements say. Nothing, after saying why on standard error.
std::optional<ArrangeChoice> arrange_choice(const Arguments& arguments, const OpenProject& open,
                                            const OpenProject::Room& room);

}  // namespace glow::cli
