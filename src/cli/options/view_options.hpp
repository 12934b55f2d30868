#pragma once

#include <filesystem>
#include <set>
#include <string>
#include <vector>

#include "cli/options/arguments.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/write_figures.hpp"
#include "core/run/room_pictures.hpp"
#include "figures/pictures/picture_figure.hpp"

namespace glow::cli {

/// What is asked for.
struct ViewOptions {
  figures::PictureStyle style;
  std::string use;  ///< scene or moment; empty: the usual one
  std::string values;
  RoomWish wish;                   ///< what rooms are meant
  std::vector<std::string> rooms;  ///< names of those; empty: all
  std::vector<std::string> views;
  run::PictureChoice choice;
  std::set<FigureFormat> formats;
  bool exr = false;
  std::filesystem::path output;
};

/// How `view` is called.
CommandLine view_command_line();

/// kDone, or another exit code after what is wrong has been said.
int read_view_options(const Arguments& arguments, ViewOptions& options);

/// Units and scale of the pictures: as the project has them, unless an option says otherwise; its limits in
/// lx do not count for luminances. False, after saying why, when an option is not understood.
bool settle_style(const Arguments& arguments, const units::ShownUnits& units,
                  const model::FigureStyle& figures, ViewOptions& options);

/// Says "glowgrid view: WORDS"; gives kBadInput.
int refuse_view(const std::string& words);

}  // namespace glow::cli
