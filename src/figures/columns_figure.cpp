#include "figures/columns_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include "figures/curves/curve_style.hpp"

namespace glow::figures {
namespace {

constexpr double kAzimuth = 32 * kDegree;    // from which the plan is looked at
constexpr double kElevation = 34 * kDegree;  // above the horizon
constexpr double kThickness = 0.86;          // of a column against its cell
constexpr double kTallest = 0.45;            // of the tallest column against the plan's longer side
constexpr int kMostAlong = 60;               // columns
constexpr double kColumnsLeft = 60, kColumnsTop = 110, kColumnsRight = 200, kColumnsBottom = 40;

struct Column {
  Vec2 middle, size;
  double sum = 0;
  int count = 0;
  double value() const { return sum / count; }
};

std::string darker(const std::string& colour, double factor) {
  std::string result = "#";
  for (int k = 0; k < 3; ++k)
    result += fmt::format(FMT_STRING("{:02x}"),
                          int(std::stoi(colour.substr(std::size_t(1 + 2 * k), 2), nullptr, 16) * factor));
  return result;
}

class ColumnsFigure {
 public:
  ColumnsFigure(const FigureInput& input, const assess::GridReading& grid)
      : input_(input),
        grid_(grid),
        canvas_(kSheetWidth, kSheetHeight),
        scale_(scale_of(input, {&grid})),
        box_(geometry::bounding_box(grid.grid.outline)) {
    gather();
    top_ = axis_top();
    metres_per_light_ = kTallest * box_.size().maxCoeff() / top_;
    fit();
  }

  std::string draw() {
    title();
    path(outline_at(0), kBlank, kSheetInk, 1.4);
    axis();
    // From the far side to the near one, so that near columns hide far ones.
    std::sort(columns_.begin(), columns_.end(),
              [&](const Column& a, const Column& b) { return depth(a.middle) > depth(b.middle); });
    for (const Column& column : columns_) draw(column);
    draw_scale(canvas_, scale_, input_.measure.title(input_.units), kSheetWidth - kColumnsRight + 54,
               kColumnsTop + 14, 320);
    return canvas_.bytes();
  }

 private:
  void gather();
  double axis_top() const;
  void fit();
  void title();
  void axis();
  void draw(const Column& column);

  static double depth(const Vec2& p) { return std::cos(kAzimuth) * p.y() + std::sin(kAzimuth) * p.x(); }
  Vec2 projected(const Vec2& p, double z) const {
    const double across = std::cos(kAzimuth) * p.x() - std::sin(kAzimuth) * p.y();
    return {across, -(depth(p) * std::sin(kElevation) + z * std::cos(kElevation))};
  }
  Vec2 px(const Vec2& p, double light) const {
    return shift_ + pixels_per_m_ * projected(p, light * metres_per_light_);
  }
  std::vector<Vec2> outline_at(double light) const {
    std::vector<Vec2> points;
    for (const Vec2& p : grid_.grid.outline) points.push_back(px(p, light));
    return points;
  }
  void path(const std::vector<Vec2>& points, const std::string& fill, const char* stroke, double width) {
    canvas_.path(path_data(points, true), fill.c_str(), stroke, width);
  }

  const FigureInput& input_;
  const assess::GridReading& grid_;
  SvgCanvas canvas_;
  ColourScale scale_;
  geometry::Box2 box_;
  std::vector<Column> columns_;
  int block_ = 1;  // points along each side of one column
  double top_ = 1, metres_per_light_ = 1, pixels_per_m_ = 1;
  Vec2 shift_ = Vec2::Zero();
};

void ColumnsFigure::gather() {
  const readings::PlaneGrid& grid = grid_.grid;
  block_ = (std::max(grid.count.nx, grid.count.ny) + kMostAlong - 1) / kMostAlong;
  std::map<std::array<int, 2>, Column> blocks;
  for (std::size_t i = 0; i < grid.cells.size(); ++i) {
    const std::array<int, 2> at = {grid.cells[i][0] / block_, grid.cells[i][1] / block_};
    Column& column = blocks[at];
    column.middle = grid.low + Vec2((at[0] + 0.5) * grid.cell.x(), (at[1] + 0.5) * grid.cell.y()) * block_;
    column.size = kThickness * block_ * grid.cell;
    column.sum += input_.units.light(grid_.total_lx[i]);
    ++column.count;
  }
  for (auto& [at, column] : blocks) columns_.push_back(column);
}

/// The end of the vertical axis: a round value above all columns.
double ColumnsFigure::axis_top() const {
  double most = 1e-3;
  for (const Column& column : columns_) most = std::max(most, column.value());
  const double step = round_step(most, 5);
  return step * std::ceil(most / step);
}

void ColumnsFigure::fit() {
  Vec2 low = Vec2::Constant(INFINITY), high = -low;
  for (const double z : {0.0, top_ * metres_per_light_})
    for (const Vec2& p : grid_.grid.outline) {
      low = low.cwiseMin(projected(p, z));
      high = high.cwiseMax(projected(p, z));
    }
  const Vec2 room(kSheetWidth - kColumnsLeft - kColumnsRight, kSheetHeight - kColumnsTop - kColumnsBottom);
  pixels_per_m_ = std::min(room.x() / (high - low).x(), room.y() / (high - low).y());
  const Vec2 free = room - pixels_per_m_ * (high - low);
  shift_ = Vec2(kColumnsLeft, kColumnsTop) + free / 2 - pixels_per_m_ * low;
}

void ColumnsFigure::title() {
  canvas_.text({24, 40}, fitted_text(input_.room->title(), kSheetWidth - 48, 24, true),
               {24, "start", kSheetInk, true});
  draw_older(canvas_, *input_.room, {24, 88});
  std::string words = fmt::format(FMT_STRING("{}, {}; maintained (factor {:.2f})"), grid_.name,
                                  place_words(grid_, input_.units), input_.room->maintenance_factor);
  if (block_ > 1)
    words += fmt::format(FMT_STRING("; each column is the mean of up to {0} x {0} points"), block_);
  canvas_.text({24, 66}, fitted_text(words, kSheetWidth - 48, 14), {14, "start", kSheetGrey});
}

/// Upright scale at the left end of the plan, with lines along the two far sides.
void ColumnsFigure::axis() {
  const Vec2 left(box_.low.x(), box_.high.y()), far = box_.high, right(box_.high.x(), box_.low.y());
  const double step = round_step(top_, 5);
  for (double light = 0; light <= top_ * (1 + 1e-9); light += step) {
    canvas_.path(path_data({px(left, light), px(far, light), px(right, light)}), "none", kGridLine, 1);
    canvas_.text(px(left, light) + Vec2(-8, 4), fmt::format(FMT_STRING("{:g}"), light),
                 {12, "end", kSheetGrey});
  }
  for (const Vec2& corner : {left, far, right}) canvas_.line(px(corner, 0), px(corner, top_), kGridLine, 1);
  canvas_.text(px(left, top_) + Vec2(-8, -14), input_.units.light_unit(), {12, "end", kSheetGrey});
}

void ColumnsFigure::draw(const Column& column) {
  const double value = column.value();
  const std::string& colour = scale_.colours[scale_.band(value)];
  const Vec2 half = column.size / 2;
  const Vec2 a = column.middle - half, c = column.middle + half, b(c.x(), a.y()), d(a.x(), c.y());
  path({px(a, 0), px(b, 0), px(b, value), px(a, value)}, darker(colour, 0.82), kSheetInk, 0.4);
  path({px(d, 0), px(a, 0), px(a, value), px(d, value)}, darker(colour, 0.68), kSheetInk, 0.4);
  path({px(a, value), px(b, value), px(c, value), px(d, value)}, colour, kSheetInk, 0.4);
}

}  // namespace

std::string columns_svg(const FigureInput& input, const assess::GridReading& grid) {
  return ColumnsFigure(input, grid).draw();
}

}  // namespace glow::figures
