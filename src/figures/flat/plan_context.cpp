#include "figures/flat/plan_context.hpp"

#include <algorithm>
#include <cmath>

#include "figures/curves/curve_style.hpp"

namespace glow::figures {
namespace {

constexpr double kSmallShare = 0.45;  // of the whole along both sides: a part is drawn large
constexpr double kAround = 0.4;       // of a part's longer side is shown beside it
constexpr double kLeastAround = 0.3;  // m
constexpr double kBeyondWall = 0.1;   // m
constexpr double kNameSize = 11, kNameOff = 8;

geometry::Box2 grown(const geometry::Box2& box, double by) {
  return {box.low - Vec2::Constant(by), box.high + Vec2::Constant(by)};
}

geometry::Box2 within(const geometry::Box2& box, const geometry::Box2& limits) {
  return {box.low.cwiseMax(limits.low), box.high.cwiseMin(limits.high)};
}

/// About the cells that hold a value.
geometry::Box2 box_of_cells(const readings::PlaneGrid& grid) {
  geometry::Box2 box{grid.middle_of(grid.cells.front()), grid.middle_of(grid.cells.front())};
  for (const auto& cell : grid.cells) {
    box.low = box.low.cwiseMin(grid.middle_of(cell) - grid.cell / 2);
    box.high = box.high.cwiseMax(grid.middle_of(cell) + grid.cell / 2);
  }
  return box;
}

}  // namespace

geometry::Box2 window_of(const record::RoomRecord& room, const assess::GridReading& grid) {
  const geometry::Box2 own = geometry::bounding_box(grid.grid.outline);
  if (!is_in_plan(grid)) return own;
  const geometry::Box2 whole = geometry::bounding_box(room.outline), cells = box_of_cells(grid.grid);
  const bool part = (own.size().array() < whole.size().array() - 1e-6).any();
  const bool small = (cells.size().array() < kSmallShare * whole.size().array()).all();
  if (!part && !small) return own;
  const geometry::Box2& shown = part ? own : cells;
  const double around = std::max(kLeastAround, kAround * shown.size().maxCoeff());
  return within(grown(shown, around), grown(whole, kBeyondWall));
}

void draw_room_around(SvgCanvas& canvas, const record::RoomRecord& room, const FlatView& view) {
  std::vector<Vec2> corners;
  for (const Vec2& p : room.outline) corners.push_back(view.px(p));
  canvas.path(path_data(corners, true), kBlank, "#8d8a82", 3);
}

void draw_wall_names(SvgCanvas& canvas, const record::RoomRecord& room, const FlatView& view,
                     const geometry::Box2& window, bool inside) {
  if (room.outdoors) return;
  const double turn = geometry::signed_area(room.outline) < 0 ? -1 : 1;
  for (std::size_t i = 0; i < std::min(room.outline.size(), room.wall_names.size()); ++i) {
    const Vec2 &a = room.outline[i], &b = room.outline[(i + 1) % room.outline.size()];
    const Vec2 middle = (a + b) / 2;
    const bool seen =
        (middle.array() >= window.low.array()).all() && (middle.array() <= window.high.array()).all();
    const Vec2 way = view.px(b) - view.px(a);  // px, y downwards
    if (!seen || way.norm() < text_width(room.wall_names[i], kNameSize) + 8) continue;
    Vec2 off = turn * Vec2(-way.y(), way.x()).normalized() * (inside ? -1 : 1);
    double angle = std::atan2(way.y(), way.x()) / kDegree;
    if (angle > 90.5) angle -= 180;
    if (angle <= -90.5) angle += 180;
    // Letters stand on their line: the middle of their height lies off it by the same on either side.
    const Vec2 up(std::sin(angle * kDegree), -std::cos(angle * kDegree));
    const Vec2 at = view.px(middle) + kNameOff * off - 0.36 * kNameSize * up;
    canvas.text(at, room.wall_names[i], {kNameSize, "middle", kSheetGrey, false, nullptr, angle});
  }
}

}  // namespace glow::figures
