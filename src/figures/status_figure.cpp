#include "figures/status_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "figures/canvas/svg_canvas.hpp"
#include "figures/curves/curve_style.hpp"
#include "figures/floor_figure.hpp"
#include "figures/status_look.hpp"
#include "words/standing.hpp"
#include "words/topics/room_words.hpp"

namespace glow::figures {
namespace {

constexpr double kStatusLeft = 40, kStatusTop = 124, kStatusRight = 40, kStatusBottom = 30;
constexpr double kWords = 78;         // px below a room for its name and verdict
constexpr double kStatusGap = 26;     // px between tiles
constexpr double kLargestScale = 60;  // px for a metre

struct Tile {
  std::string name, status, count, detail;
  geometry::Polygon outline;
};

std::vector<Tile> tiles_of(const record::RunRecord& run) {
  std::vector<Tile> tiles;
  for (const record::RoomRecord& room : run.rooms) {
    const words::Standing standing = words::standing(room);
    std::string count, detail;
    if (standing.decisive) {
      count = fmt::format(FMT_STRING("{} of {} checks met"), standing.met, standing.binding);
      detail = words::check_words(*standing.decisive, room, run.units);
    }
    if (!room.changed_since.empty()) detail = words::older_words(room);
    tiles.push_back({room.name, to_string(room.assessment.status), count, detail, room.outline});
  }
  for (const record::UncomputedRoom& room : run.not_computed)
    tiles.push_back({room.name, "not computed", room.fault, "", room.outline});
  return tiles;
}

/// Columns, and px for a metre, at which all tiles fit the sheet as large as they can.
struct Layout {
  int columns = 1;
  double width = 0;  ///< of a tile
  double pixels_per_m = 0;
};

double height_of(const std::vector<Tile>& tiles, std::size_t first, std::size_t count) {
  double height = 0;
  for (std::size_t i = first; i < std::min(tiles.size(), first + count); ++i)
    height = std::max(height, geometry::bounding_box(tiles[i].outline).size().y());
  return height;
}

Layout layout_of(const std::vector<Tile>& tiles) {
  Layout best;
  double widest = 0.1;
  for (const Tile& tile : tiles) widest = std::max(widest, geometry::bounding_box(tile.outline).size().x());
  for (std::size_t columns = 1; columns <= tiles.size(); ++columns) {
    double metres = 0;
    const std::size_t rows = (tiles.size() + columns - 1) / columns;
    for (std::size_t row = 0; row < rows; ++row) metres += height_of(tiles, row * columns, columns);
    const double width =
        (kSheetWidth - kStatusLeft - kStatusRight - double(columns - 1) * kStatusGap) / double(columns);
    const double free = kSheetHeight - kStatusTop - kStatusBottom - double(rows) * (kWords + kStatusGap);
    const double scale = std::min({width / widest, free / std::max(0.1, metres), kLargestScale});
    if (scale > best.pixels_per_m) best = {int(columns), width, scale};
  }
  return best;
}

/// `height` px are for the outline, which stands on their lower edge.
void draw_tile(SvgCanvas& canvas, const Tile& tile, const Vec2& corner, double width, double height,
               double pixels_per_m) {
  const StatusLook look = look_of(tile.status);
  const geometry::Box2 box = geometry::bounding_box(tile.outline);
  std::vector<Vec2> corners;
  for (const Vec2& p : tile.outline)
    corners.push_back(
        corner + Vec2((p.x() - box.low.x()) * pixels_per_m, height - (p.y() - box.low.y()) * pixels_per_m));
  const std::string fill = look.fill(canvas);
  canvas.path(path_data(corners, true), fill.c_str(), look.ink, 2.5, look.dash);
  const double text_top = corner.y() + height;
  canvas.text({corner.x(), text_top + 20}, fitted_text(tile.name, width, 15, true),
              {15, "start", kSheetInk, true});
  canvas.text({corner.x(), text_top + 38}, look.word, {14, "start", look.ink, true});
  canvas.text({corner.x(), text_top + 55}, fitted_text(tile.count, width, 12), {12, "start", kSheetGrey});
  canvas.text({corner.x(), text_top + 71}, fitted_text(tile.detail, width, 12), {12, "start", kSheetGrey});
}

}  // namespace

std::string status_svg(const record::RunRecord& run) {
  if (!run.floors.empty()) return building_svg(run);
  SvgCanvas canvas(kSheetWidth, kSheetHeight);
  const std::vector<Tile> tiles = tiles_of(run);
  canvas.text({kStatusLeft, 40}, fitted_text(run.project, kSheetWidth - kStatusLeft - kStatusRight, 24, true),
              {24, "start", kSheetInk, true});
  canvas.text(
      {kStatusLeft, 64},
      fmt::format(FMT_STRING("verdicts by {}; rooms at one scale"), words::standards_words(run.standards)),
      {14, "start", kSheetGrey});
  std::vector<std::string> statuses;
  for (const Tile& tile : tiles) statuses.push_back(tile.status);
  draw_status_key(canvas, statuses, {kStatusLeft, 80});
  const Layout layout = layout_of(tiles);
  double top = kStatusTop;
  for (std::size_t first = 0; first < tiles.size(); first += std::size_t(layout.columns)) {
    const double height = layout.pixels_per_m * height_of(tiles, first, std::size_t(layout.columns));
    for (std::size_t i = first; i < std::min(tiles.size(), first + std::size_t(layout.columns)); ++i)
      draw_tile(canvas, tiles[i], {kStatusLeft + double(i - first) * (layout.width + kStatusGap), top},
                layout.width, height, layout.pixels_per_m);
    top += height + kWords + kStatusGap;
  }
  return canvas.bytes();
}

}  // namespace glow::figures
