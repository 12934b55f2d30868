#include "figures/flat/flat_view.hpp"

#include "figures/flat/dense_grid.hpp"
#include "words/topics/room_words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace glow::figures {
namespace {

constexpr const char* kBelow = "#4a4a4a";
constexpr const char* kAbove = "#ffffff";
constexpr const char* kStripes = "#b04a5a";
constexpr int kMostNodes = 160, kMostSmallNodes = 80;  // of the fine lattice along one side
constexpr const char* kNoSky = "#1d4a7a";
constexpr int kFewCells = 80;  // up to here lines are rounded in any case

}  // namespace

void draw_older(SvgCanvas& canvas, const record::RoomRecord& room, const Vec2& at) {
  const std::string words = words::older_words(room);
  if (!words.empty()) canvas.text(at, fitted_text(words, 600, 12.5, true), {12.5, "start", kFail, true});
}

std::string value_label(double shown) {
  return shown < 10 ? fmt::format(FMT_STRING("{:.1f}"), shown) : fmt::format(FMT_STRING("{:.0f}"), shown);
}

namespace {

/// Whether values span more than a factor of ten and even steps would leave most of them in the lowest bands.
bool is_mostly_dark(const std::vector<const assess::GridReading*>& grids, double low, double high) {
  constexpr double kWide = 10, kDark = 0.25;
  if (high <= kWide * low) return false;
  std::vector<double> values;
  for (const assess::GridReading* grid : grids)
    values.insert(values.end(), grid->total_lx.begin(), grid->total_lx.end());
  std::sort(values.begin(), values.end());
  return !values.empty() && assess::median(values) < kDark * high;
}

}  // namespace

ColourScale scale_of(const FigureInput& input, const std::vector<const assess::GridReading*>& grids) {
  double low = INFINITY, high = -INFINITY;
  for (const assess::GridReading* grid : grids) {
    low = std::min(low, grid->statistics.min_lx);
    high = std::max(high, grid->statistics.max_lx);
  }
  if (input.measure.kind == ShownMeasure::Kind::temperature) return temperature_scale(low, high);
  if (input.measure.kind == ShownMeasure::Kind::factor) return factor_scale(high);
  if (input.measure.kind == ShownMeasure::Kind::difference)
    return difference_scale(input.shown(low), input.shown(high));
  if (input.measure.kind == ShownMeasure::Kind::year) {
    const bool percent = input.measure.unit_of_year() == "%";
    return banded_scale(percent ? 5 : input.shown(low), percent ? 95 : input.shown(high), 10);
  }
  const bool common = input.common && input.style.common_scale;
  if (common) std::tie(low, high) = *input.common;
  if (!std::isfinite(low)) low = 0;
  model::FigureStyle style = input.style;
  if (!style.logarithmic && !common) style.logarithmic = is_mostly_dark(grids, low, high);
  return styled_scale(input.units.light(low), input.units.light(high), style, input.units);
}

FlatView::FlatView(SvgCanvas& canvas, const FigureInput& input, const assess::GridReading& grid,
                   const ColourScale& scale, const Vec2& corner, double pixels_per_m, bool small,
                   std::optional<double> limit_lx, std::optional<geometry::Box2> window)
    : canvas_(canvas),
      input_(input),
      grid_(grid),
      scale_(scale),
      corner_(corner),
      pixels_per_m_(pixels_per_m),
      small_(small),
      box_(geometry::bounding_box(grid.grid.outline)),
      window_(window.value_or(box_)),
      shapes_(shapes_on(*input.room, grid, window_)),
      luminaires_(small ? std::vector<FlatLuminaire>{} : luminaires_on(*input.room, grid, window_)) {
  if (limit_lx) limit_ = input.units.light(*limit_lx);
  for (const double value : grid.total_lx) shown_.push_back(input.shown(value));
  const DenseGrid dense = dense_grid(grid);
  std::vector<double> values;
  for (const double value : dense.lux) values.push_back(input.shown(value));
  const int most = std::max(dense.grid.count.nx, dense.grid.count.ny);
  const int parts = (small ? kMostSmallNodes : kMostNodes) / most;
  lattice_ = smooth_lattice(dense.grid, values, std::clamp(parts, most <= kFewCells ? 3 : 1, 12));
}

std::string FlatView::path_of(const std::vector<Vec2>& points, bool closed) const {
  std::vector<Vec2> drawn;
  for (const Vec2& p : points) drawn.push_back(px(p));
  return path_data(drawn, closed);
}

bool FlatView::is_free(const Rect& rect) const {
  return std::none_of(taken_.begin(), taken_.end(), [&](const Rect& t) { return t.meets(rect); });
}

bool FlatView::has_value(const Vec2& at) const {
  const readings::PlaneGrid& grid = grid_.grid;
  const Vec2 cell = (at - grid.low).cwiseQuotient(grid.cell);
  const std::array<int, 2> here = {int(std::floor(cell.x())), int(std::floor(cell.y()))};
  return std::find(grid.cells.begin(), grid.cells.end(), here) != grid.cells.end();
}

bool FlatView::is_under_luminaire(const Rect& rect) const {
  return std::any_of(luminaires_.begin(), luminaires_.end(),
                     [&](const FlatLuminaire& l) { return luminaire_rect(l).meets(rect); });
}

void FlatView::draw() {
  for (const FlatShape& shape : shapes_) {
    if (!(shape.opening || shape.covers) || shape.outline.size() < 3) continue;
    const geometry::Box2 box = geometry::bounding_box(shape.outline);
    taken_.push_back({px({box.low.x(), box.high.y()}), px({box.high.x(), box.low.y()})});
  }
  if (!small_) {
    const Rect label = lowest_rect();
    taken_.push_back({label.low - Vec2(12, 4), label.high + Vec2(12, 4)});
  }
  canvas_.begin_clip(path_of(grid_.grid.outline, true));
  colours();
  lines();
  blank_cells();
  const bool part = box_.size() != window_.size();  // things around it are seen as well
  if (part) canvas_.end_group();
  shapes(false);
  shapes(true);
  if (!part) canvas_.end_group();
  line_labels();
  outline();
  for (const FlatLuminaire& each : luminaires_) luminaire(each);
  shape_names();
  for (const FlatLuminaire& each : luminaires_) mark(each);
  if (!small_) lowest();
  if (input_.style.values != model::FigureStyle::Values::none) values();
}

void FlatView::colours() {
  if (!input_.measure.tints.empty()) return tints();
  const Vec2 top_left = px({lattice_.low.x(), lattice_.node(0, lattice_.ny - 1).y()});
  const Vec2 size =
      Vec2((lattice_.nx - 1) * lattice_.step.x(), (lattice_.ny - 1) * lattice_.step.y()) * pixels_per_m_;
  canvas_.rectangle(top_left, size, scale_.colours[0].c_str());
  for (std::size_t k = 0; k < scale_.levels.size(); ++k) {
    std::string data;
    for (const auto& piece : region_above(lattice_, scale_.levels[k])) data += path_of(piece, true);
    if (!data.empty()) canvas_.path(data, scale_.colours[k + 1].c_str());
  }
  beyond_limits();
}

/// Each cell in the tint of its light.
void FlatView::tints() {
  const readings::PlaneGrid& grid = grid_.grid;
  for (std::size_t i = 0; i < grid.cells.size(); ++i) {
    const std::string& tint = input_.measure.tints[i];
    canvas_.rectangle(px(grid.middle_of(grid.cells[i]) + Vec2(-grid.cell.x(), grid.cell.y()) / 2),
                      grid.cell * pixels_per_m_, tint.c_str(), tint.c_str(), 1);
  }
}

/// Values outside the scale's limits carry a pattern of their own.
void FlatView::beyond_limits() {
  if (scale_.high_limit) {
    std::string data;
    for (const auto& piece : region_above(lattice_, *scale_.high_limit)) data += path_of(piece, true);
    if (!data.empty()) canvas_.path(data, canvas_.stripes("above", kAbove, kStripes).c_str());
  }
  if (!scale_.low_limit) return;
  Lattice mirrored = lattice_;
  for (double& value : mirrored.values) value = -value;
  std::string data;
  for (const auto& piece : region_above(mirrored, std::nextafter(-*scale_.low_limit, 0)))
    data += path_of(piece, true);
  if (!data.empty()) canvas_.path(data, canvas_.stripes("below", kBelow, "#c9c9c9").c_str());
}

/// Cells of the area that hold no value: behind or inside of objects, and what a band goes around.
void FlatView::blank_cells() {
  const readings::PlaneGrid& grid = grid_.grid;
  const bool band = grid_.role == space::GridRole::surrounding || grid_.role == space::GridRole::background;
  if (grid.inset_m > 0)
    canvas_.path(path_of(grid.outline, true), "none", kBlank, 2 * grid.inset_m * pixels_per_m_);
  std::vector<char> has(std::size_t(grid.count.nx) * std::size_t(grid.count.ny), 0);
  for (const auto& cell : grid.cells) has[std::size_t(cell[1] * grid.count.nx + cell[0])] = 1;
  for (int j = 0; j < grid.count.ny; ++j)
    for (int i = 0; i < grid.count.nx; ++i) {
      if (has[std::size_t(j * grid.count.nx + i)]) continue;
      const Vec2 middle = grid.middle_of({i, j});
      const bool hole = std::any_of(grid.holes.begin(), grid.holes.end(),
                                    [&](const auto& h) { return geometry::contains(h, middle); });
      if ((hole && !band) || !readings::is_in_grid_area(grid.outline, grid.inset_m, middle)) continue;
      canvas_.rectangle(px(middle + Vec2(-grid.cell.x(), grid.cell.y()) / 2), grid.cell * pixels_per_m_,
                        kBlank, kBlank, 1);
    }
  for (const geometry::Polygon& hole : grid.holes) canvas_.path(path_of(hole, true), kBlank, kInk, 1);
}

void FlatView::lines() {
  for (const double level : scale_.lines) {
    if (!input_.style.lines) break;
    chains_.push_back(isolines(lattice_, level));
    for (const auto& chain : chains_.back()) {
      canvas_.path(path_of(chain, false), "none", "#ffffff", small_ ? 0.8 : 1.3);
      canvas_.opacity_of_last(0.85);
    }
  }
  if (const auto seen = sky_seen(grid_)) {
    no_sky_ = isolines(smooth_lattice(seen->grid, seen->lux, 1), 0.5);
    for (const auto& chain : no_sky_) {  // seen on dark and on light ground
      canvas_.path(path_of(chain, false), "none", "#ffffff", small_ ? 2.6 : 4);
      canvas_.path(path_of(chain, false), "none", kNoSky, small_ ? 1.4 : 2.2, "9 5");
    }
  }
  if (!limit_) return;
  for (const auto& chain : isolines(lattice_, *limit_))
    canvas_.path(path_of(chain, false), "none", kFail, 2.2, "7 4");
}

/// Over objects and what is blank; the limit first.
void FlatView::line_labels() {
  if (limit_)
    label_lines(isolines(lattice_, *limit_),
                fmt::format(FMT_STRING("U0 limit {} {}"), value_label(*limit_), input_.units.light_unit()),
                true);
  if (!small_) label_lines(no_sky_, "no-sky line", false);
  if (small_ || !input_.style.lines) return;
  for (std::size_t k = 0; k < chains_.size(); ++k)
    label_lines(chains_[k], scale_.label(scale_.lines[k]), false);
}

void FlatView::label_lines(const std::vector<std::vector<Vec2>>& chains, const std::string& words,
                           bool strong) {
  constexpr int kMostLabels = 3;  // of one value: a pattern of stripes has many lines
  const double width = text_width(words, kLabelSize) + 8;
  int labels = 0;
  for (const auto& chain : chains) {
    if (labels == kMostLabels) return;
    double length = 0;
    for (std::size_t i = 1; i < chain.size(); ++i) length += (chain[i] - chain[i - 1]).norm() * pixels_per_m_;
    if (length < 2.2 * width) continue;
    for (const double share : {0.5, 0.3, 0.7, 0.15, 0.85}) {
      const Vec2& at = chain[static_cast<std::size_t>(share * double(chain.size() - 1))];
      const Rect rect = around(px(at), width, kLabelSize + 6);
      const Rect airy = around(px(at), width + 6, kLabelSize + 12);
      const double margin = grid_.grid.inset_m + (width / 2 + 2) / pixels_per_m_;
      if (!geometry::in_inset_area(grid_.grid.outline, margin, at) || !is_free(airy) ||
          is_under_luminaire(rect) || !has_value(at))
        continue;
      taken_.push_back(rect);
      ++labels;
      canvas_.rectangle(rect.low, rect.high - rect.low, "#ffffff", strong ? kFail : "none", 1);
      canvas_.opacity_of_last(0.9);
      canvas_.text(px(at) + Vec2(0, kLabelSize * 0.36), words,
                   {kLabelSize, "middle", strong ? kFail : kInk, true});
      break;
    }
  }
}

/// What covers the area is blank within its full line; what is only near it is dashed.
void FlatView::shapes(bool covering) {
  for (const FlatShape& shape : shapes_) {
    if (shape.opening || shape.covers != covering) continue;
    const bool closed = shape.outline.size() > 2;
    canvas_.path(path_of(shape.outline, closed), covering && closed ? kBlank : "none", kInk,
                 covering ? 1.6 : 1.0, covering ? nullptr : "5 3");
  }
}

void FlatView::outline() {
  const bool is_ground = input_.room->outdoors && is_in_plan(grid_);  // that ends without a wall
  canvas_.path(path_of(grid_.grid.outline, true), "none", kInk,
               is_ground                                 ? 1
               : small_ || box_.size() != window_.size() ? 1.6
                                                         : 3,
               is_ground ? "2 3" : nullptr);
  for (const FlatShape& shape : shapes_) {
    if (!shape.opening || shape.outline.size() != 2) continue;
    canvas_.line(px(shape.outline[0]), px(shape.outline[1]), "#ffffff", small_ ? 3 : 5);
    canvas_.line(px(shape.outline[0]), px(shape.outline[1]), kInk, 1);
  }
}

double draw_scale(SvgCanvas& canvas, const ColourScale& scale, const std::string& title, double x, double y,
                  double height) {
  canvas.text({x, y - 6}, title, {13, "start", kInk, true});
  y += 8;
  const auto beyond = [&](const std::string& fill, const std::string& words) {
    canvas.rectangle({x, y}, {34, 18}, fill.c_str(), kInk, 0.6);
    canvas.text({x + 42, y + 13}, words, {12, "start", kInk});
    y += 22;
  };
  if (scale.high_limit)
    beyond(canvas.stripes("above", kAbove, kStripes), "above " + value_label(*scale.high_limit));
  const bool smooth = scale.levels != scale.marks;
  const double step = std::min(smooth ? 6.0 : 30.0, height / double(scale.colours.size()));
  double last_label = -INFINITY;
  for (std::size_t k = scale.colours.size(); k-- > 0;) {
    canvas.rectangle({x, y}, {34, step + (smooth ? 0.5 : 0)}, scale.colours[k].c_str(),
                     smooth ? "none" : "#ffffff", 1);
    y += step;
    if (k == 0) break;
    // Of smooth bands only those are named that hold a round level.
    const double level = scale.levels[k - 1];
    const auto mark = std::find_if(scale.marks.begin(), scale.marks.end(), [&](double m) {
      return smooth ? m <= level && (k < 2 || m > scale.levels[k - 2]) : m == level;
    });
    if (mark == scale.marks.end() || y - last_label < 13) continue;
    canvas.text({x + 42, y + 4}, scale.label(*mark), {12, "start", kInk});
    last_label = y;
  }
  if (scale.low_limit) {
    y += 4;
    beyond(canvas.stripes("below", kBelow, "#c9c9c9"), "below " + value_label(*scale.low_limit));
  }
  return y;
}

}  // namespace glow::figures
