#include "figures/curves/shelf_figure.hpp"

#include <algorithm>
#include <cmath>

#include "figures/curves/small_curves.hpp"

namespace glow::figures {
namespace {

constexpr double kShelfWidth = 1280, kShelfHeight = 800, kShelfMargin = 28, kShelfHead = 64, kShelfGap = 16;
constexpr double kCardLine = 15, kMostRadius = 64, kWidestCard = 420;

/// Columns and rows that leave each card the most room for its curves, beside words of a readable width.
std::pair<std::size_t, std::size_t> columns_and_rows(std::size_t count) {
  std::pair<std::size_t, std::size_t> best = {1, 1};
  double largest = 0;
  for (std::size_t columns = 1; columns <= 3; ++columns) {
    const std::size_t rows = (std::max<std::size_t>(count, 1) + columns - 1) / columns;
    const double width = (kShelfWidth - 2 * kShelfMargin) / double(columns),
                 height = (kShelfHeight - kShelfHead) / double(rows);
    const double size = std::min(width / 2.4, height);
    if (size > largest) {
      largest = size;
      best = {columns, rows};
    }
  }
  return best;
}

void draw_card(SvgCanvas& canvas, const Vec2& corner, const Vec2& size, const ShelfCard& card) {
  const double radius = std::min({kMostRadius, size.y() / 2 - 4, size.x() * 0.21});
  const Vec2 middle = corner + Vec2(radius + 2, size.y() / 2);
  draw_small_curves(canvas, middle, radius, peak_of(card.curves), card.curves);
  const double left = corner.x() + 2 * radius + 14, width = size.x() - 2 * radius - 18;
  double y = middle.y() - kCardLine * double(card.lines.size()) / 2;
  canvas.text({left, y}, fitted_text(card.title, width, 13, true), {13, "start", "#1c1c1c", true});
  for (const std::string& line : card.lines) {
    y += kCardLine;
    canvas.text({left, y}, fitted_text(line, width, 11.5), {11.5, "start", "#4a4a4a"});
  }
}

}  // namespace

std::string shelf_svg(const std::string& title, const std::vector<ShelfCard>& cards) {
  SvgCanvas canvas(kShelfWidth, kShelfHeight);
  canvas.rectangle({0, 0}, {kShelfWidth, kShelfHeight}, "#ffffff");
  constexpr const char* kLegend = "solid C0-C180, dashed C90-C270, each to its own peak";
  canvas.text({kShelfMargin, 38}, fitted_text(title, kShelfWidth - 2 * kShelfMargin - 400, 20, true),
              {20, "start", "#1c1c1c", true});
  canvas.text({kShelfWidth - kShelfMargin, 38}, kLegend, {12, "end", "#4a4a4a"});
  const std::size_t count = std::min(cards.size(), kMostCards);
  const auto [columns, rows] = columns_and_rows(count);
  const Vec2 cell(
      std::min(kWidestCard,
               (kShelfWidth - 2 * kShelfMargin - (double(columns) - 1) * kShelfGap) / double(columns)),
      std::min(2 * kMostRadius + 8,
               (kShelfHeight - kShelfHead - kShelfMargin - (double(rows) - 1) * kShelfGap) / double(rows)));
  for (std::size_t i = 0; i < count; ++i)
    draw_card(canvas,
              {kShelfMargin + double(i % columns) * (cell.x() + kShelfGap),
               kShelfHead + double(i / columns) * (cell.y() + kShelfGap)},
              cell, cards[i]);
  return canvas.bytes();
}

}  // namespace glow::figures
