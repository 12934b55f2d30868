#include "figures/flat_view.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace glow::figures {
namespace {

constexpr const char* kInk = "#1c1c1c";
constexpr const char* kBelow = "#4a4a4a";
constexpr const char* kAbove = "#ffffff";
constexpr const char* kStripes = "#b04a5a";
constexpr double kLabelSize = 12, kValueSize = 11, kSmallValueSize = 9.5, kSmallestValue = 5;
constexpr int kMostNodes = 160, kMostSmallNodes = 80;  // of the fine lattice along one side
constexpr std::size_t kMostNamed = 30;                 // luminaires
constexpr int kFewCells = 80;                          // up to here lines are rounded in any case

/// Width of a character against the size of its letters, for fitting values into cells.
constexpr double kWidthOfDigit = 0.58;

}  // namespace

std::string light_label(double shown) {
  return shown < 10 ? fmt::format(FMT_STRING("{:.1f}"), shown) : fmt::format(FMT_STRING("{:.0f}"), shown);
}

ColourScale scale_of(const FigureInput& input, const std::vector<const assess::GridReading*>& grids) {
  double low = INFINITY, high = 0;
  for (const assess::GridReading* grid : grids) {
    low = std::min(low, grid->statistics.min_lx);
    high = std::max(high, grid->statistics.max_lx);
  }
  if (input.common && input.style.common_scale) std::tie(low, high) = *input.common;
  if (!std::isfinite(low)) low = 0;
  return styled_scale(input.units.light(low), input.units.light(high), input.style, input.units);
}

FlatView::FlatView(SvgCanvas& canvas, const FigureInput& input, const assess::GridReading& grid,
                   const ColourScale& scale, const Vec2& corner, double pixels_per_m, bool small,
                   std::optional<double> limit_lx)
    : canvas_(canvas),
      input_(input),
      grid_(grid),
      scale_(scale),
      corner_(corner),
      pixels_per_m_(pixels_per_m),
      small_(small),
      box_(geometry::bounding_box(grid.grid.outline)),
      shapes_(shapes_on(*input.room, grid)),
      luminaires_(small ? std::vector<FlatLuminaire>{} : luminaires_on(*input.room, grid)) {
  if (limit_lx) limit_ = input.units.light(*limit_lx);
  for (const double lux : grid.total_lx) shown_.push_back(input.units.light(lux));
  const int most = std::max(grid.grid.count.nx, grid.grid.count.ny);
  const int parts = (small ? kMostSmallNodes : kMostNodes) / most;
  lattice_ = smooth_lattice(grid.grid, shown_, std::clamp(parts, most <= kFewCells ? 3 : 1, 12));
}

std::string FlatView::path_of(const std::vector<Vec2>& points, bool closed) const {
  std::vector<Vec2> drawn;
  for (const Vec2& p : points) drawn.push_back(px(p));
  return path_data(drawn, closed);
}

bool FlatView::is_free(const Rect& rect) const {
  return std::none_of(taken_.begin(), taken_.end(), [&](const Rect& t) { return t.meets(rect); });
}

void FlatView::draw() {
  for (const FlatLuminaire& luminaire : luminaires_) taken_.push_back(luminaire_rect(luminaire));
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
  shapes(false);
  shapes(true);
  canvas_.end_group();
  shape_names();
  outline();
  for (const FlatLuminaire& each : luminaires_) luminaire(each);
  if (!small_) lowest();
  if (input_.style.values != model::FigureStyle::Values::none) values();
}

void FlatView::colours() {
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
  if (input_.style.lines) {
    std::vector<std::pair<std::vector<std::vector<Vec2>>, std::string>> labelled;
    for (const double level : scale_.lines) {
      auto chains = isolines(lattice_, level);
      for (const auto& chain : chains) {
        canvas_.path(path_of(chain, false), "none", "#ffffff", small_ ? 0.8 : 1.3);
        canvas_.opacity_of_last(0.85);
      }
      labelled.emplace_back(std::move(chains), light_label(level));
    }
    if (!small_)
      for (const auto& [chains, words] : labelled) label_lines(chains, words, false);
  }
  if (!limit_) return;
  const auto chains = isolines(lattice_, *limit_);
  for (const auto& chain : chains) canvas_.path(path_of(chain, false), "none", kFail, 2.2, "7 4");
  label_lines(chains,
              fmt::format(FMT_STRING("U0 limit {} {}"), light_label(*limit_), input_.units.light_unit()),
              true);
}

void FlatView::label_lines(const std::vector<std::vector<Vec2>>& chains, const std::string& words,
                           bool strong) {
  const double width = text_width(words, kLabelSize) + 8;
  for (const auto& chain : chains) {
    double length = 0;
    for (std::size_t i = 1; i < chain.size(); ++i) length += (chain[i] - chain[i - 1]).norm() * pixels_per_m_;
    if (length < 2.2 * width) continue;
    for (const double share : {0.5, 0.3, 0.7, 0.15, 0.85}) {
      const Vec2& at = chain[static_cast<std::size_t>(share * double(chain.size() - 1))];
      const Rect rect = around(px(at), width, kLabelSize + 6);
      const Rect airy = around(px(at), width + 6, kLabelSize + 12);
      const double margin = grid_.grid.inset_m + (width / 2 + 2) / pixels_per_m_;
      if (!geometry::in_inset_area(grid_.grid.outline, margin, at) || !is_free(airy)) continue;
      taken_.push_back(rect);
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

void FlatView::shape_names() {
  for (const FlatShape& shape : shapes_) {
    const geometry::Box2 extent = geometry::bounding_box(shape.outline);
    const double size = small_ ? kLabelSize - 2 : kLabelSize;
    if (shape.opening && shape.outline.size() > 2) {
      canvas_.path(path_of(shape.outline, true), "#ffffff", kInk, 1.2);
      canvas_.line(px(shape.outline[0]), px(shape.outline[2]), "#c9c6c0");
    }
    if (shape.opening && shape.outline.size() == 2) continue;
    if (const auto middle = name_place(shape, extent, size)) {
      taken_.push_back(around(*middle, text_width(shape.name, size) + 6, size + 6));
      canvas_.text(*middle + Vec2(0, size * 0.35), shape.name,
                   {size, "middle", kInk, false, shape.opening ? "#ffffff" : kBlank});
    }
  }
}

/// Where in a shape its name can be read: in the middle, or beside what hangs over it. Nothing: nowhere.
std::optional<Vec2> FlatView::name_place(const FlatShape& shape, const geometry::Box2& extent,
                                         double size) const {
  const Vec2 room = extent.size() * pixels_per_m_;
  const double width = text_width(shape.name, size);
  if (room.x() <= width || room.y() <= size) return std::nullopt;
  const Vec2 middle = px((extent.low + extent.high) / 2);
  if (shape.opening) return middle;
  const double aside = (room.x() - width) / 2 - 4;
  for (const double step : {0.0, -aside, aside}) {
    const Vec2 place = middle + Vec2(step, 0);
    const Rect label = around(place, width + 6, size + 6);
    const bool hidden = std::any_of(luminaires_.begin(), luminaires_.end(),
                                    [&](const FlatLuminaire& l) { return luminaire_rect(l).meets(label); });
    if (!hidden && (shape.covers || is_free(label))) return place;
  }
  return std::nullopt;
}

void FlatView::outline() {
  canvas_.path(path_of(grid_.grid.outline, true), "none", kInk, small_ ? 1.6 : 3);
  for (const FlatShape& shape : shapes_) {
    if (!shape.opening || shape.outline.size() != 2) continue;
    canvas_.line(px(shape.outline[0]), px(shape.outline[1]), "#ffffff", small_ ? 3 : 5);
    canvas_.line(px(shape.outline[0]), px(shape.outline[1]), kInk, 1);
  }
}

Vec2 FlatView::luminaire_size(const FlatLuminaire& l) const {
  return l.luminaire.size_m * pixels_per_m_;
}

/// What the drawn luminaire covers, turned, with a little air.
FlatView::Rect FlatView::luminaire_rect(const FlatLuminaire& l) const {
  const Vec2 size = luminaire_size(l);
  const double a = l.rotation_deg * kDegree;
  const double c = std::abs(std::cos(a)), s = std::abs(std::sin(a));
  return around(px(l.at), c * size.x() + s * size.y() + 12, s * size.x() + c * size.y() + 12);
}

void FlatView::luminaire(const FlatLuminaire& l) {
  const Vec2 centre = px(l.at);
  const Vec2 size = luminaire_size(l);
  canvas_.begin_group(centre, -l.rotation_deg);
  if (size.maxCoeff() < 3) {
    canvas_.line({-5, 0}, {5, 0}, kInk, 1.5);
    canvas_.line({0, -5}, {0, 5}, kInk, 1.5);
  } else if (l.luminaire.round) {
    canvas_.circle({0, 0}, size.x() / 2, "#ffffff", kInk, 1.5);
    canvas_.line({-size.x() / 2 - 3, 0}, {size.x() / 2 + 3, 0}, kInk, 1);
    canvas_.line({0, -size.x() / 2 - 3}, {0, size.x() / 2 + 3}, kInk, 1);
  } else {
    canvas_.rectangle(-size / 2, size, "#ffffff", kInk, 1.5);
    // A tick towards C0 tells the rotation where the shape alone does not.
    canvas_.line({size.x() / 2, 0}, {size.x() / 2 + 7, 0}, kInk, 1.5);
  }
  canvas_.end_group();
  const std::string& mark = l.luminaire.mark;
  // In large arrays one name for all leaves room for the values.
  if (luminaires_.size() > kMostNamed && named_.count(mark)) return;
  const Rect own = luminaire_rect(l);
  const double half = text_width(mark, kLabelSize) / 2 + 2;
  const Rect drawing{px({box_.low.x(), box_.high.y()}), px({box_.high.x(), box_.low.y()})};
  for (const Vec2& middle :
       {Vec2(centre.x(), own.high.y() + 7), Vec2(centre.x(), own.low.y() - 7),
        Vec2(own.high.x() + half + 2, centre.y()), Vec2(own.low.x() - half - 2, centre.y())}) {
    const Rect rect = around(middle, 2 * half, kLabelSize);
    if (!is_free(rect) || !drawing.holds(rect)) continue;
    taken_.push_back(rect);
    canvas_.text(middle + Vec2(0, 4), mark, {kLabelSize, "middle", kInk, true, "#ffffff"});
    named_.insert(mark);
    return;
  }
}

std::string FlatView::lowest_words() const {
  return "min " + light_label(shown_[grid_.statistics.min_at]);
}

/// The label beside the lowest point, on the side where there is more room.
FlatView::Rect FlatView::lowest_rect() const {
  const Vec2 lowest = grid_.grid.middle_of(grid_.grid.cells[grid_.statistics.min_at]);
  const double width = text_width(lowest_words(), kLabelSize) + 10;
  const bool left_half = lowest.x() < (box_.low.x() + box_.high.x()) / 2;
  return around(px(lowest) + Vec2(left_half ? width / 2 + 8 : -width / 2 - 8, 0), width, kLabelSize + 6);
}

void FlatView::lowest() {
  canvas_.circle(px(grid_.grid.middle_of(grid_.grid.cells[grid_.statistics.min_at])), 4, "#ffffff", kFail, 2);
  const Rect rect = lowest_rect();
  canvas_.rectangle(rect.low, rect.high - rect.low, "#ffffff", kFail, 1);
  canvas_.text((rect.low + rect.high) / 2 + Vec2(0, kLabelSize * 0.36), lowest_words(),
               {kLabelSize, "middle", kFail, true});
}

void FlatView::values() {
  const readings::PlaneGrid& grid = grid_.grid;
  const bool all = input_.style.values == model::FigureStyle::Values::all;
  const std::string longest = light_label(input_.units.light(grid_.statistics.max_lx));
  double size = small_ ? kSmallValueSize : kValueSize;
  const Vec2 cell = grid.cell * pixels_per_m_;
  if (all)
    size =
        std::max(kSmallestValue,
                 std::min({size, cell.x() / (kWidthOfDigit * double(longest.size() + 1)), cell.y() / 1.3}));
  const double widest = text_width(longest, size);
  const int skip_x = all ? 1 : std::max(1, int(std::ceil((widest + 12) / cell.x())));
  const int skip_y = all ? 1 : std::max(1, int(std::ceil((size + 8) / cell.y())));
  for (std::size_t i = 0; i < grid.points.size(); ++i) {
    if (grid.cells[i][0] % skip_x != skip_x / 2 || grid.cells[i][1] % skip_y != skip_y / 2) continue;
    const std::string words = light_label(shown_[i]);
    const Vec2 centre = px(grid.middle_of(grid.cells[i]));
    const double width = text_width(words, size);
    if (!all && !is_free(around(centre, width + 2, size + 2))) continue;
    const Vec2 half(width / 2 / pixels_per_m_, 0);
    const Vec2 middle = grid.middle_of(grid.cells[i]);
    const auto inside = [&](const Vec2& p) { return geometry::in_inset_area(grid.outline, grid.inset_m, p); };
    if (!inside(middle - half) || !inside(middle + half)) continue;
    const std::size_t band = scale_.band(shown_[i]);
    const bool beyond = (scale_.low_limit && shown_[i] < *scale_.low_limit) ||
                        (scale_.high_limit && shown_[i] > *scale_.high_limit);
    canvas_.text(centre + Vec2(0, size * 0.36), words,
                 {size, "middle", beyond || scale_.dark_text(band) ? kInk : "#ffffff", false,
                  beyond ? "#ffffff" : scale_.colours[band].c_str()});
  }
}

double draw_scale(SvgCanvas& canvas, const ColourScale& scale, const units::ShownUnits& units, double x,
                  double y, double height) {
  canvas.text({x, y - 6}, fmt::format(FMT_STRING("Illuminance in {}"), units.light_unit()),
              {13, "start", kInk, true});
  y += 8;
  const auto beyond = [&](const std::string& fill, const std::string& words) {
    canvas.rectangle({x, y}, {34, 18}, fill.c_str(), kInk, 0.6);
    canvas.text({x + 42, y + 13}, words, {12, "start", kInk});
    y += 22;
  };
  if (scale.high_limit)
    beyond(canvas.stripes("above", kAbove, kStripes), "above " + light_label(*scale.high_limit));
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
    canvas.text({x + 42, y + 4}, light_label(*mark), {12, "start", kInk});
    last_label = y;
  }
  if (scale.low_limit) {
    y += 4;
    beyond(canvas.stripes("below", kBelow, "#c9c9c9"), "below " + light_label(*scale.low_limit));
  }
  return y;
}

}  // namespace glow::figures
