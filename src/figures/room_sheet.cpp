#include "figures/room_sheet.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "figures/curves/curve_style.hpp"

namespace glow::figures {
namespace {

constexpr double kRoomLeft = 28, kRoomTop = 92, kRoomRight = 150, kRoomBottom = 24;
constexpr double kRoomGap = 22, kRoomLabel = 40, kRoomRowGap = 14;
constexpr double kMostPixelsPerM = 200;
constexpr int kBisections = 40;

/// Where each grid's drawing begins (its upper left corner), in rows, at a scale.
struct Packing {
  std::vector<Vec2> corners;
  double height = 0;
  double widest = 0;
};

/// Room for its label, however narrow the grid is.
double width_of(const assess::GridReading& grid, double pixels_per_m) {
  return geometry::bounding_box(grid.grid.outline).size().x() * pixels_per_m;
}

Packing pack(const std::vector<const assess::GridReading*>& grids, double pixels_per_m) {
  const double width = kSheetWidth - kRoomLeft - kRoomRight;
  Packing packing;
  double x = 0, y = 0, row = 0;
  for (const assess::GridReading* grid : grids) {
    const double w = width_of(*grid, pixels_per_m);
    const double h = geometry::bounding_box(grid->grid.outline).size().y() * pixels_per_m + kRoomLabel;
    if (x > 0 && x + w > width) {
      x = 0;
      y += row + kRoomRowGap;
      row = 0;
    }
    packing.corners.push_back({kRoomLeft + x, kRoomTop + y});
    packing.widest = std::max(packing.widest, x + w);
    x += w + kRoomGap;
    row = std::max(row, h);
  }
  packing.height = y + row;
  return packing;
}

/// The largest scale at which all fits.
double fitting_scale(const std::vector<const assess::GridReading*>& grids) {
  const auto fits = [&](double scale) {
    const Packing packing = pack(grids, scale);
    return packing.height <= kSheetHeight - kRoomTop - kRoomBottom &&
           packing.widest <= kSheetWidth - kRoomLeft - kRoomRight;
  };
  double low = 1e-3, high = kMostPixelsPerM;
  for (int k = 0; k < kBisections; ++k) {
    const double middle = (low + high) / 2;
    (fits(middle) ? low : high) = middle;
  }
  return low;
}

}  // namespace

std::vector<const assess::GridReading*> walls_in_order(const record::RoomRecord& room) {
  std::vector<const assess::GridReading*> walls;
  const std::size_t n = room.wall_names.size();
  for (std::size_t k = 0; k < n; ++k) {
    const assess::GridReading* grid = room.find_grid(room.wall_names[(n - k) % n]);
    if (grid && grid->role == space::GridRole::wall && !grid->total_lx.empty()) walls.push_back(grid);
  }
  return walls;
}

std::string sheet_svg(const FigureInput& input, const std::string& subject,
                      const std::vector<const assess::GridReading*>& grids) {
  SvgCanvas canvas(kSheetWidth, kSheetHeight);
  const ColourScale scale = scale_of(input, grids);
  const double pixels_per_m = fitting_scale(grids);
  const Packing packing = pack(grids, pixels_per_m);
  canvas.text({kRoomLeft, 40}, fitted_text(input.room->title(), kSheetWidth - 2 * kRoomLeft, 24, true),
              {24, "start", kSheetInk, true});
  canvas.text(
      {kRoomLeft, 66},
      fmt::format(FMT_STRING("{}; maintained (factor {:.2f})"), subject, input.room->maintenance_factor),
      {14, "start", kSheetGrey});
  draw_older(canvas, *input.room, {kRoomLeft, 86});
  for (std::size_t i = 0; i < grids.size(); ++i) {
    const assess::GridReading& grid = *grids[i];
    const Vec2& corner = packing.corners[i];
    const geometry::Box2 box = geometry::bounding_box(grid.grid.outline);
    const double width = std::max(width_of(grid, pixels_per_m) + kRoomGap - 4, 40.0);
    canvas.text(corner + Vec2(0, 12), fitted_text(grid.name, width, 13, true),
                {13, "start", kSheetInk, true});
    const auto words = [&](double lux) { return value_label(input.units.light(lux)); };
    const std::string numbers =
        fmt::format(FMT_STRING("mean {}, min {}, max {} {}"), words(grid.statistics.mean_lx),
                    words(grid.statistics.min_lx), words(grid.statistics.max_lx), input.units.light_unit());
    const std::string mean_only = fmt::format(FMT_STRING("mean {}"), words(grid.statistics.mean_lx));
    canvas.text(corner + Vec2(0, 28),
                text_width(numbers, 11.5) <= width ? numbers : fitted_text(mean_only, width, 11.5),
                {11.5, "start", kSheetGrey});
    FlatView(canvas, input, grid, scale, corner + Vec2(0, kRoomLabel - 4 + box.size().y() * pixels_per_m),
             pixels_per_m, true)
        .draw();
  }
  draw_scale(canvas, scale, input.measure.title(input.units),
             std::min(kRoomLeft + packing.widest + 46, kSheetWidth - kRoomRight + 24), kRoomTop + 14, 400);
  return canvas.bytes();
}

}  // namespace glow::figures
