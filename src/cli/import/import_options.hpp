#pragma once

#include <boost/program_options.hpp>
#include <optional>
#include <string>
#include <vector>

#include "cli/options/arguments.hpp"
#include "core/model/floor.hpp"

namespace glow::cli {

/// How a drawing is said on the command line.

void add_import_options(boost::program_options::options_description& options);

/// Of a building model: unit, origin and turn. Nothing and a message where an option cannot be understood, or
/// is one of drawings.
std::optional<plans::FloorWish> model_wish(const Arguments& arguments);

/// One floor for each --floor or, without, for each drawing. Nothing and a message where an option cannot be
/// understood.
std::optional<std::vector<model::Floor>> floors_of(const Arguments& arguments,
                                                   const std::vector<std::string>& files);

}  // namespace glow::cli
