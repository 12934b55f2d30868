#pragma once

#include "core/model/figure_style.hpp"
#include "core/record/record.hpp"
#include "core/views/tone.hpp"

namespace glow::figures {

/// What of a room's picture is shown.
enum class ShownAs { natural, luminance, illuminance };

/// "natural", "luminance", "illuminance"; nothing for other words.
std::optional<ShownAs> shown_as(const std::string& words);

/// How a picture is drawn.
struct PictureStyle {
  ShownAs as = ShownAs::natural;
  views::Development development;
  model::FigureStyle colours;  ///< of false colours: limits (of luminance in cd/m2), steps, scale, lines
  units::ShownUnits units;
  bool raster_values = false;                   ///< numbers all over the picture
  const assess::GridReading* values = nullptr;  ///< numbers at a grid's points that are seen
};

/// A picture of a room with its title, what it shows and its scale: an SVG drawing. Numbers are of what is
/// seen: lx, or cd/m2 in a picture of luminances; those of a grid are the grid's.
std::string picture_figure(const views::Picture& picture, const views::PictureUse& use,
                           const PictureStyle& style);

}  // namespace glow::figures
