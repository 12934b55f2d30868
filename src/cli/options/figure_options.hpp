#pragma once

#include "cli/options/arguments.hpp"
#include "core/model/figure_style.hpp"

namespace glow::cli {

/// --units and one option for each setting of [figures].
void add_figure_options(boost::program_options::options_description& options);
/// Of these, --units and what makes the scale of colours.
void add_scale_options(boost::program_options::options_description& options);
void add_units_option(boost::program_options::options_description& options);

/// What the options say, on top of `units` and `style`. False, after saying why on standard error, when
/// they are not understood.
bool apply_units_option(const Arguments& arguments, const std::string& command, units::ShownUnits& units);
bool apply_figure_options(const Arguments& arguments, const std::string& command,
                          const units::ShownUnits& units, model::FigureStyle& style);
bool apply_scale_options(const Arguments& arguments, const std::string& command,
                         const units::ShownUnits& units, model::FigureStyle& style);

}  // namespace glow::cli
