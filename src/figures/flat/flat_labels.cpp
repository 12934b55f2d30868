// What is written into a flat drawing: luminaires with their marks, names, the lowest point, values. Labels
// keep clear of each other: names of objects and marks come first, values give way.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "figures/flat/flat_view.hpp"

namespace glow::figures {
namespace {

constexpr double kValueSize = 11, kSmallValueSize = 9.5, kSmallestValue = 5;
constexpr double kLine = 1.4, kHaloLine = 3.6;  // px
constexpr double kShortestAim = 14;             // px
constexpr std::size_t kMostNamed = 30;          // luminaires

/// Width of a character against the size of its letters, for fitting values into cells.
constexpr double kWidthOfDigit = 0.58;

}  // namespace

void FlatView::shape_names() {
  for (const FlatShape& shape : shapes_) {
    geometry::Box2 extent = geometry::bounding_box(shape.outline);
    extent = {extent.low.cwiseMax(window_.low), extent.high.cwiseMin(window_.high)};
    const double size = small_ ? kLabelSize - 2 : kLabelSize;
    if (shape.opening && shape.outline.size() > 2) {
      canvas_.path(path_of(shape.outline, true), "#ffffff", kInk, 1.2);
      canvas_.line(px(shape.outline[0]), px(shape.outline[2]), "#c9c6c0");
    }
    if (shape.opening && shape.outline.size() == 2) continue;
    if (const auto middle = name_place(shape, extent, size)) {
      const Rect label = around(*middle, text_width(shape.name, size) + 6, size + 6);
      taken_.push_back(label);
      if (!shape.opening && !shape.covers) {
        canvas_.rectangle(label.low, label.high - label.low, kBlank);
        canvas_.opacity_of_last(0.85);
      }
      canvas_.text(*middle + Vec2(0, size * 0.35), shape.name, {size, "middle", kInk});
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
    const bool on_lowest = !small_ && lowest_rect().meets(label);
    if (!is_under_luminaire(label) && !on_lowest && (shape.covers || is_free(label))) return place;
  }
  return std::nullopt;
}

Vec2 FlatView::luminaire_size(const FlatLuminaire& l) const {
  return l.luminaire.size_m * pixels_per_m_;
}

/// What the drawn luminaire covers, turned, with a little air.
FlatView::Rect FlatView::luminaire_rect(const FlatLuminaire& l) const {
  if (!l.outline.empty()) {
    const geometry::Box2 box = geometry::bounding_box(l.outline);
    const Vec2 size = box.size() * pixels_per_m_;
    return around(px((box.low + box.high) / 2), size.x() + 12, size.y() + 12);
  }
  const Vec2 size = luminaire_size(l);
  const double a = l.rotation_deg * kDegree;
  const double c = std::abs(std::cos(a)), s = std::abs(std::sin(a));
  return around(px(l.at), c * size.x() + s * size.y() + 12, s * size.x() + c * size.y() + 12);
}

/// One that leans, by its corners as they are seen from above.
void FlatView::leaning(const FlatLuminaire& l) {
  constexpr double kSeen = 10;  // px: less is marked by a cross
  const bool small = geometry::bounding_box(l.outline).size().maxCoeff() * pixels_per_m_ < kSeen;
  const Vec2 middle = px(l.at);
  std::vector<Vec2> points;
  for (const Vec2& corner : l.outline) points.push_back(px(corner));
  for (const auto& [colour, width] : {std::pair("#ffffff", kHaloLine), std::pair(kInk, kLine)})
    if (small) {
      canvas_.line(middle - Vec2(5, 0), middle + Vec2(5, 0), colour, width);
      canvas_.line(middle - Vec2(0, 5), middle + Vec2(0, 5), colour, width);
    } else {
      canvas_.path(path_data(points, true), "none", colour, width);
    }
}

void FlatView::luminaire(const FlatLuminaire& l) {
  if (!l.outline.empty()) {
    leaning(l);
    return aim(l);
  }
  const Vec2 centre = px(l.at);
  const Vec2 size = luminaire_size(l);
  canvas_.begin_group(centre, -l.rotation_deg);
  // Only an outline, on a pale one so that it can be seen on any colour: values are read within it.
  for (const auto& [colour, width] : {std::pair("#ffffff", kHaloLine), std::pair(kInk, kLine)}) {
    if (size.maxCoeff() < 3) {
      canvas_.line({-5, 0}, {5, 0}, colour, width);
      canvas_.line({0, -5}, {0, 5}, colour, width);
    } else if (l.luminaire.round) {
      canvas_.circle({0, 0}, size.x() / 2, "none", colour, width);
      for (const double turn : {0.0, 90.0, 180.0, 270.0}) {
        const Vec2 way(std::cos(turn * kDegree), std::sin(turn * kDegree));
        canvas_.line((size.x() / 2 - 4) * way, (size.x() / 2 + 3) * way, colour, width);
      }
    } else {
      canvas_.rectangle(-size / 2, size, "none", colour, width);
      // A tick towards C0 tells the rotation where the shape alone does not.
      canvas_.line({size.x() / 2, 0}, {size.x() / 2 + 7, 0}, colour, width);
    }
  }
  canvas_.end_group();
  aim(l);
}

/// An arrow to what it is aimed at.
void FlatView::aim(const FlatLuminaire& l) {
  if (!l.aim) return;
  const Vec2 from = px(l.at), to = px(*l.aim), way = to - from;
  if (way.norm() < kShortestAim) return;
  const Vec2 along = way.normalized(), across(-along.y(), along.x());
  for (const auto& [colour, width] : {std::pair("#ffffff", kHaloLine), std::pair(kInk, kLine)}) {
    canvas_.line(from, to, colour, width);
    for (const double side : {-1.0, 1.0}) canvas_.line(to - 9 * along + side * 4 * across, to, colour, width);
  }
}

/// Beside it, where nothing else stands.
void FlatView::mark(const FlatLuminaire& l) {
  const Vec2 centre = px(l.at);
  const std::string& mark = l.luminaire.mark;
  // In large arrays one name for all leaves room for the values.
  if (luminaires_.size() > kMostNamed && named_.count(mark)) return;
  const Rect own = luminaire_rect(l);
  const double half = text_width(mark, kLabelSize) / 2 + 2;
  const Rect drawing{px({window_.low.x(), window_.high.y()}), px({window_.high.x(), window_.low.y()})};
  for (const Vec2& middle :
       {Vec2(centre.x(), own.high.y() + 7), Vec2(centre.x(), own.low.y() - 7),
        Vec2(own.high.x() + half + 2, centre.y()), Vec2(own.low.x() - half - 2, centre.y()),
        Vec2(own.high.x() + half, own.low.y() - 5), Vec2(own.low.x() - half, own.low.y() - 5),
        Vec2(own.high.x() + half, own.high.y() + 5), Vec2(own.low.x() - half, own.high.y() + 5)}) {
    const Rect rect = around(middle, 2 * half, kLabelSize);
    if (!is_free(rect) || is_under_luminaire(rect) || !drawing.holds(rect)) continue;
    taken_.push_back(rect);
    canvas_.text(middle + Vec2(0, 4), mark, {kLabelSize, "middle", kInk, true, "#ffffff"});
    named_.insert(mark);
    return;
  }
}

std::string FlatView::lowest_words() const {
  return "min " + input_.measure.label(shown_[grid_.statistics.min_at]);
}

/// The label beside the lowest point, on the side where there is more room.
FlatView::Rect FlatView::lowest_rect() const {
  const Vec2 lowest = grid_.grid.middle_of(grid_.grid.cells[grid_.statistics.min_at]);
  const double width = text_width(lowest_words(), kLabelSize) + 10;
  const bool left_half = lowest.x() < (window_.low.x() + window_.high.x()) / 2;
  return around(px(lowest) + Vec2(left_half ? width / 2 + 8 : -width / 2 - 8, 0), width, kLabelSize + 6);
}

void FlatView::lowest() {
  canvas_.circle(px(grid_.grid.middle_of(grid_.grid.cells[grid_.statistics.min_at])), 4, "#ffffff", kFail, 2);
  const Rect rect = lowest_rect();
  canvas_.rectangle(rect.low, rect.high - rect.low, "#ffffff", kFail, 1);
  canvas_.text((rect.low + rect.high) / 2 + Vec2(0, kLabelSize * 0.36), lowest_words(),
               {kLabelSize, "middle", kFail, true});
}

/// Whether no line between bands runs through a value: then it needs nothing behind its letters.
bool FlatView::is_of_one_band(const Vec2& middle, const Vec2& half) const {
  const Vec2 up(0, kValueSize / pixels_per_m_);
  const auto band_at = [&](const Vec2& p) {
    const Vec2 node = (p - lattice_.low).cwiseQuotient(lattice_.step);
    const double value = lattice_.at(std::clamp(int(std::lround(node.x())), 0, lattice_.nx - 1),
                                     std::clamp(int(std::lround(node.y())), 0, lattice_.ny - 1));
    return std::pair(scale_.band(value), limit_ && value < *limit_);
  };
  const auto band = band_at(middle);
  for (const Vec2& aside : {half, Vec2(-half)})
    for (const Vec2& over : {Vec2(0, 0), up, Vec2(-up)})
      if (band_at(middle + 1.2 * aside + over) != band) return false;
  const Rect rect = around(px(middle), 2.4 * half.x() * pixels_per_m_, 2 * kValueSize);
  return std::none_of(shapes_.begin(), shapes_.end(), [&](const FlatShape& shape) {
    const geometry::Box2 box = geometry::bounding_box(shape.outline);
    return Rect{px({box.low.x(), box.high.y()}), px({box.high.x(), box.low.y()})}.meets(rect);
  });
}

void FlatView::values() {
  const readings::PlaneGrid& grid = grid_.grid;
  const bool all = input_.style.values == model::FigureStyle::Values::all;
  const std::string longest = input_.measure.label(input_.shown(grid_.statistics.max_lx));
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
    const std::string words = input_.measure.label(shown_[i]);
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
    const Rect rect = around(centre, width + 3, size + 1);
    if (is_under_luminaire(rect) && !beyond)  // its outline gives way
      canvas_.rectangle(rect.low, rect.high - rect.low, scale_.colours[band].c_str());
    canvas_.text(centre + Vec2(0, size * 0.36), words,
                 {size, "middle", beyond || scale_.dark_text(band) ? kInk : "#ffffff", false,
                  beyond                         ? "#ffffff"
                  : is_of_one_band(middle, half) ? nullptr
                                                 : scale_.colours[band].c_str()});
  }
}

}  // namespace glow::figures
