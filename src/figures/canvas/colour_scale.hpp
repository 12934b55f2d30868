#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/model/figure_style.hpp"

namespace glow::figures {

/// Bands of light level and their colours, dark to light, in the unit that people see.
///
/// Colours are even steps in OKLab (Ottosson 2020): lightness rises steadily, so the order survives in grey
/// and for colour-blind eyes; hue runs from slate blue over clay to straw and only helps.
struct ColourScale {
  std::vector<double> levels;                   ///< lower limits of the bands from the second on, rising
  std::vector<std::string> colours;             ///< "#rrggbb" of each band; one more than levels
  std::vector<double> lightness;                ///< OKLab, of each band
  std::vector<double> lines;                    ///< where isolux lines run
  std::vector<double> marks;                    ///< levels that the legend names
  std::optional<double> low_limit, high_limit;  ///< values beyond are marked as such
  /// A level in words, with as many digits as tell it from its neighbours.
  std::string label(double level) const;
  /// Index of the band that holds the value.
  std::size_t band(double value) const;
  /// Whether black text reads better than white on the band.
  bool dark_text(std::size_t band) const;
};

/// Bands of a round step (1, 2, 2.5 or 5 times a power of ten) that cover low..high in about `wanted` bands.
ColourScale banded_scale(double low, double high, int wanted);

/// Colour temperatures, K: dark rust for warm light to pale blue for cool light.
ColourScale temperature_scale(double low, double high);
/// Daylight factors, %, at the levels that the trade asks for.
ColourScale factor_scale(double high);
/// Differences: blue below, pale about and rust above zero, as dark either way.
ColourScale difference_scale(double low, double high);

/// "#rrggbb" of linear sRGB, 0 to 1.
std::string srgb_colour(double red, double green, double blue);
/// Of "#rrggbb": red, green, blue.
std::array<std::uint8_t, 3> bytes_of(const std::string& colour);

/// The scale for values from low to high as the style asks for it. The style's levels are in lx.
ColourScale styled_scale(double low, double high, const model::FigureStyle& style,
                         const units::ShownUnits& units);

/// Gives the bands their colours.
void colour_bands(ColourScale& scale);

/// Colour at share 0 (dark) to 1 (light) of the scale.
std::string scale_colour(double share);

}  // namespace glow::figures
