#include "figures/pictures/picture_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "figures/canvas/colour_scale.hpp"
#include "figures/canvas/svg_canvas.hpp"
#include "figures/flat/flat_view.hpp"
#include "figures/raster/png_bytes.hpp"

namespace glow::figures {
namespace {

constexpr double kPictureMargin = 16, kPictureTop = 58, kPictureLine = 19, kPictureBottom = 16, kLegend = 84;
constexpr int kNarrowest = 800;             // px: small pictures are drawn larger
constexpr int kStripeWide = 8;              // pixels from one to the next, of what is beyond the limits
constexpr int kRaster = 84;                 // pixels between numbers
constexpr double kLabel = 12;               // px
constexpr double kHiddenBehind = 0.02;      // m and share: how far behind what is seen a point may lie
constexpr double kDarkestBand = 1.0 / 300;  // of the brightest: all below is one of a logarithmic scale

/// The values of an image of false colours, as they are shown.
struct Shown {
  std::vector<double> values;  ///< negative: nothing is there to have one
  std::string unit, what;
};

Shown shown_values(const views::SeenLight& light, const PictureStyle& style) {
  Shown shown;
  const bool luminance = style.as == ShownAs::luminance;
  shown.what = luminance ? "luminance" : "illuminance";
  shown.unit = luminance ? "cd/m\u00b2" : style.units.light_unit();
  for (std::size_t i = 0; i < light.luminance.size(); ++i) {
    if (luminance)
      shown.values.push_back(double(light.luminance[i]));
    else
      shown.values.push_back(light.illuminance[i] > 0 ? style.units.light(double(light.illuminance[i])) : -1);
  }
  return shown;
}

/// Lowest and highest value that a scale has to show: luminaires and the sun run over it.
std::pair<double, double> range_of(const std::vector<double>& values) {
  std::vector<double> rising;
  for (const double v : values)
    if (v > 0) rising.push_back(v);
  if (rising.empty()) return {0, 1};
  std::sort(rising.begin(), rising.end());
  const double high = rising[std::size_t(0.99 * double(rising.size() - 1))];
  return {std::max(rising[rising.size() / 100], kDarkestBand * high), high};
}

ColourScale scale_of(const Shown& shown, const PictureStyle& style) {
  const auto [low, high] = range_of(shown.values);
  model::FigureStyle own = style.colours;
  units::ShownUnits units = style.units;
  if (style.as == ShownAs::luminance) units = {};  // levels are cd/m2 as they stand
  constexpr double kWideRange = 10;
  if (!own.logarithmic) own.logarithmic = high > kWideRange * low;
  return styled_scale(low, high, own, units);
}

/// Neighbours of one surface in different bands have a line between them.
bool is_line(const views::Picture& picture, const std::vector<int>& bands, std::size_t i, int x, int y) {
  const auto differs = [&](std::size_t j) {
    return picture.surfaces[i] == picture.surfaces[j] && bands[j] >= 0 && bands[i] > bands[j];
  };
  const std::size_t columns = std::size_t(picture.camera.columns);
  return (x > 0 && differs(i - 1)) || (x + 1 < picture.camera.columns && differs(i + 1)) ||
         (y > 0 && differs(i - columns)) || (y + 1 < picture.camera.rows && differs(i + columns));
}

std::vector<std::uint8_t> false_colours(const views::Picture& picture, const Shown& shown,
                                        const ColourScale& scale, bool lines) {
  std::vector<std::array<std::uint8_t, 3>> colours;
  for (const std::string& colour : scale.colours) colours.push_back(bytes_of(colour));
  const std::size_t n = picture.pixels();
  std::vector<int> bands(n, -1);
  for (std::size_t i = 0; i < n; ++i)
    if (shown.values[i] >= 0) bands[i] = int(scale.band(shown.values[i]));
  std::vector<std::uint8_t> rgb(3 * n, 242);
  for (int y = 0; y < picture.camera.rows; ++y)
    for (int x = 0; x < picture.camera.columns; ++x) {
      const std::size_t i = std::size_t(y) * std::size_t(picture.camera.columns) + std::size_t(x);
      if (bands[i] < 0) continue;
      const bool line = lines && is_line(picture, bands, i, x, y);
      const bool beyond = (scale.low_limit && shown.values[i] < *scale.low_limit) ||
                          (scale.high_limit && shown.values[i] > *scale.high_limit);
      if (beyond && (x + y) % kStripeWide < kStripeWide / 2) continue;  // striped with the paper, as on plans
      for (std::size_t k = 0; k < 3; ++k) {
        const int colour = colours[std::size_t(bands[i])][k];
        rgb[3 * i + k] = std::uint8_t(line ? colour * 11 / 20 : colour);
      }
    }
  return rgb;
}

/// Boxes with the limits between them, at the foot.
void draw_legend(SvgCanvas& canvas, const ColourScale& scale, const Shown& shown, double top, double width) {
  const std::size_t bands = scale.colours.size();
  const double each = std::min(72.0, (width - 2 * kPictureMargin) / double(bands)), height = 20;
  std::string words = fmt::format(FMT_STRING("{} in {}"), shown.what, shown.unit);
  if (scale.low_limit && scale.high_limit)
    words += fmt::format(FMT_STRING(", from {} to {}; beyond is striped"), scale.label(*scale.low_limit),
                         scale.label(*scale.high_limit));
  canvas.text({kPictureMargin, top + 12}, words, {});
  for (std::size_t b = 0; b < bands; ++b)
    canvas.rectangle({kPictureMargin + each * double(b), top + 22}, {each, height}, scale.colours[b].c_str());
  double free_from = -1e9;
  for (std::size_t b = 0; b < scale.levels.size(); ++b) {
    if (std::find(scale.marks.begin(), scale.marks.end(), scale.levels[b]) == scale.marks.end()) continue;
    const std::string limit = scale.label(scale.levels[b]);
    const double x = kPictureMargin + each * double(b + 1), half = text_width(limit, kLabel) / 2 + 3;
    if (x - half < free_from) continue;
    free_from = x + half;
    SvgCanvas::Text style;
    style.size = kLabel;
    style.anchor = "middle";
    canvas.text({x, top + 22 + height + 14}, limit, style);
  }
}

void draw_number(SvgCanvas& canvas, const Vec2& at, const std::string& words) {
  SvgCanvas::Text style;
  style.size = kLabel;
  style.anchor = "middle";
  style.halo = "#ffffff";
  canvas.text(at + Vec2(0, 4), words, style);
}

void draw_raster(SvgCanvas& canvas, const views::Picture& picture, const Shown& shown, const Vec2& corner,
                 int scale) {
  const int step = kRaster / scale;
  for (int y = step / 2; y < picture.camera.rows; y += step)
    for (int x = step / 2; x < picture.camera.columns; x += step) {
      const double value =
          shown.values[std::size_t(y) * std::size_t(picture.camera.columns) + std::size_t(x)];
      if (value >= 0) draw_number(canvas, corner + scale * Vec2(x + 0.5, y + 0.5), value_label(value));
    }
}

/// Those that are seen, as many as leave each other room.
void draw_points(SvgCanvas& canvas, const views::Picture& picture, const PictureStyle& style,
                 const Vec2& corner, int scale) {
  const assess::GridReading& grid = *style.values;
  std::vector<Vec2> placed;
  for (std::size_t p = 0; p < grid.grid.points.size() && p < grid.total_lx.size(); ++p) {
    Vec2 at;
    const Vec3& point = grid.grid.points[p];
    if (!picture.camera.pixel_of(point, at)) continue;
    if (at.minCoeff() < 8 || at.x() > picture.camera.columns - 8 || at.y() > picture.camera.rows - 8)
      continue;
    const std::size_t i = std::size_t(at.y()) * std::size_t(picture.camera.columns) + std::size_t(at.x());
    const Vec3 way = point - picture.camera.sight(at.x(), at.y()).from;
    const double distance = picture.camera.projection == geometry::Projection::parallel
                                ? way.dot(picture.camera.forward)
                                : way.norm();
    if (double(picture.depth_m[i]) < distance * (1 - kHiddenBehind) - kHiddenBehind) continue;
    const std::string words = value_label(style.units.light(grid.total_lx[p]));
    const double width = text_width(words, kLabel) + 6;
    if (std::any_of(placed.begin(), placed.end(), [&](const Vec2& other) {
          return scale * std::abs(other.x() - at.x()) < width &&
                 scale * std::abs(other.y() - at.y()) < kLabel + 2;
        }))
      continue;
    placed.push_back(at);
    draw_number(canvas, corner + scale * at, words);
  }
}

std::string title_of(const views::Picture& picture, const views::PictureUse& use) {
  const std::string scene = use.name.empty() ? std::string() : ", " + use.name;
  return fmt::format(FMT_STRING("{}{}: {}"), picture.room, scene, picture.view);
}

/// Lines below the title: what is shown, how sure it is, and place and time of a moment.
std::vector<std::string> captions_of(const views::Picture& picture, const views::PictureUse& use,
                                     const PictureStyle& style, const views::Photograph& photograph) {
  constexpr int kWide = 900;  // pixels, from which on the first two share a line
  std::string what, sure;
  if (style.as == ShownAs::natural) {
    const std::string white =
        photograph.white_k ? fmt::format(FMT_STRING(", white of {:.0f} K"), *photograph.white_k) : "";
    what =
        fmt::format(FMT_STRING("Natural, exposure value {:.1f} at ISO 100{}"), photograph.exposure_ev, white);
    if (style.development.bloom) what += ", with bloom";
    sure = "luminances ";
  } else {
    what = fmt::format(FMT_STRING("{} of what is seen"),
                       style.as == ShownAs::luminance ? "Luminance" : "Illuminance");
  }
  sure += fmt::format(FMT_STRING("\u00b1{:.1f} % on matt surfaces"),
                      std::max(0.1, 100 * views::uncertainty_of(picture, use)));
  if (style.values)
    sure += fmt::format(FMT_STRING("; numbers: {} on {}"), style.units.light_unit(), style.values->name);
  std::vector<std::string> lines = {what, sure};
  if (picture.camera.columns >= kWide) lines = {what + "; " + sure};
  if (!use.when.empty()) lines.push_back(use.when);
  return lines;
}

void draw_head(SvgCanvas& canvas, const std::string& title, const std::vector<std::string>& captions,
               double width) {
  SvgCanvas::Text large, small;
  large.size = 18;
  large.bold = true;
  small.colour = "#555555";
  canvas.text({kPictureMargin, 27}, fitted_text(title, width - 2 * kPictureMargin, large.size, true), large);
  for (std::size_t k = 0; k < captions.size(); ++k)
    canvas.text({kPictureMargin, kPictureTop - 10 + kPictureLine * double(k)},
                fitted_text(captions[k], width - 2 * kPictureMargin, 13), small);
}

}  // namespace

std::optional<ShownAs> shown_as(const std::string& words) {
  if (words == "natural") return ShownAs::natural;
  if (words == "luminance") return ShownAs::luminance;
  if (words == "illuminance") return ShownAs::illuminance;
  return std::nullopt;
}

std::string picture_figure(const views::Picture& picture, const views::PictureUse& use,
                           const PictureStyle& style) {
  const bool natural = style.as == ShownAs::natural;
  const views::SeenLight light = views::seen_light(picture, use);
  views::Photograph photograph;
  if (natural) photograph = views::developed(picture, light, style.development);
  const std::vector<std::string> captions = captions_of(picture, use, style, photograph);
  const int scale = std::max(1, kNarrowest / picture.camera.columns);
  const Vec2 size = scale * Vec2(picture.camera.columns, picture.camera.rows);
  const Vec2 corner(kPictureMargin, kPictureTop + kPictureLine * double(captions.size() - 1));
  const double width = size.x() + 2 * kPictureMargin, foot = corner.y() + size.y();
  SvgCanvas canvas(width, foot + (natural ? kPictureBottom : kLegend));
  canvas.rectangle({0, 0}, {width, foot + (natural ? kPictureBottom : kLegend)}, "#ffffff");
  const Shown shown = shown_values(light, style);
  std::vector<std::uint8_t> rgb = photograph.srgb;
  if (!natural) {
    const ColourScale colours = scale_of(shown, style);
    rgb = false_colours(picture, shown, colours, style.colours.lines);
    draw_legend(canvas, colours, shown, foot + 8, width);
  }
  canvas.image(corner, size, png_bytes(rgb, picture.camera.columns, picture.camera.rows));
  canvas.rectangle(corner, size, "none", "#8a8a8a");
  draw_head(canvas, title_of(picture, use), captions, width);
  if (style.raster_values) draw_raster(canvas, picture, shown, corner, scale);
  if (style.values) draw_points(canvas, picture, style, corner, scale);
  return canvas.bytes();
}

}  // namespace glow::figures
