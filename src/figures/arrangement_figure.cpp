#include "figures/arrangement_figure.hpp"

#include <algorithm>
#include <cmath>

#include "figures/canvas/svg_canvas.hpp"
#include "figures/curves/small_curves.hpp"

namespace glow::figures {
namespace {

constexpr double kFieldsWidth = 1280, kFieldsHeight = 800, kFieldsMargin = 28, kFieldsHead = 64,
                 kFieldsGap = 18;
constexpr double kWithCurves = 290;    // px: least width of a plan with words and curves above it
constexpr double kTextLine = 17;       // px: height
constexpr double kLeastLuminaire = 3;  // px

class Sheet {
 public:
  explicit Sheet(const space::Space& room) : room_(room), box_(geometry::bounding_box(room.outline)) {}

  std::string draw(const std::string& title, const std::vector<ArrangementPlan>& plans) {
    canvas_.rectangle({0, 0}, {kFieldsWidth, kFieldsHeight}, "#ffffff");
    canvas_.text({kFieldsMargin, 38}, fitted_text(title, kFieldsWidth - 2 * kFieldsMargin, 20, true),
                 {20, "start", "#1c1c1c", true});
    const std::size_t count = std::min(plans.size(), kMostPlans);
    for (std::size_t i = 0; i < count; ++i) peak_ = std::max(peak_, peak_of(plans[i].curves));
    if (peak_ > 0)
      canvas_.text({kFieldsWidth - kFieldsMargin, 38},
                   fmt::format(FMT_STRING("circles around curves: {:.0f} cd/klm"), peak_),
                   {12, "end", "#4a4a4a"});
    choose_columns(count, plans);
    for (std::size_t i = 0; i < count; ++i) draw_plan(i, plans[i]);
    return canvas_.bytes();
  }

 private:
  /// As many columns as make the plans largest.
  void choose_columns(std::size_t count, const std::vector<ArrangementPlan>& plans) {
    std::size_t lines = 0;
    for (const ArrangementPlan& plan : plans) lines = std::max(lines, plan.lines.size());
    words_ = kTextLine * double(lines + 1) + 12;
    for (std::size_t columns = 1; columns <= std::max<std::size_t>(count, 1); ++columns) {
      const double rows = std::ceil(double(count) / double(columns));
      const Vec2 cell(
          (kFieldsWidth - 2 * kFieldsMargin - (double(columns) - 1) * kFieldsGap) / double(columns),
          (kFieldsHeight - kFieldsHead - kFieldsMargin - (rows - 1) * kFieldsGap) / rows);
      const Vec2 room = (cell - Vec2(0, words_)).cwiseQuotient(box_.size());
      const bool too_narrow = columns > 1 && cell.x() < (peak_ > 0 ? kWithCurves : 0);
      if (room.minCoeff() <= scale_ || too_narrow) continue;
      scale_ = room.minCoeff();
      columns_ = columns;
      cell_ = cell;
    }
  }

  Vec2 at(const Vec2& corner, const Vec2& p) const {
    return corner + Vec2(scale_ * (p.x() - box_.low.x()), scale_ * (box_.high.y() - p.y()));
  }
  std::string outline(const Vec2& corner, const geometry::Polygon& polygon) const {
    std::vector<Vec2> points;
    for (const Vec2& p : polygon) points.push_back(at(corner, p));
    return path_data(points, polygon.size() > 2);
  }

  void draw_plan(std::size_t number, const ArrangementPlan& plan) {
    const Vec2 cell(kFieldsMargin + double(number % columns_) * (cell_.x() + kFieldsGap),
                    kFieldsHead + double(number / columns_) * (cell_.y() + kFieldsGap));
    const double width = cell_.x() - (plan.curves.empty() ? 0 : words_);
    canvas_.text(cell + Vec2(0, kTextLine - 3), fitted_text(plan.title, cell_.x(), 14, plan.best),
                 {14, "start", "#1c1c1c", plan.best});
    for (std::size_t i = 0; i < plan.lines.size(); ++i)
      canvas_.text(cell + Vec2(0, kTextLine * double(i + 2) - 4), fitted_text(plan.lines[i], width, 12),
                   {12, "start", "#4a4a4a"});
    const Vec2 corner = cell + Vec2(0, words_);
    draw_curves(cell, plan);
    canvas_.path(outline(corner, room_.outline), plan.best ? "#fbf6e6" : "#f6f6f6", "#1c1c1c",
                 plan.best ? 2.5 : 1.5);
    for (const space::PlanShape& object : room_.objects)
      canvas_.path(outline(corner, object.extent.plan), "none", "#a8a8a8", 0.8);
    for (const space::Opening& opening : room_.openings)
      if (!opening.in_roof) canvas_.path(outline(corner, opening.plan()), "none", "#ffffff", 2);
    for (const geometry::Frame& frame : plan.frames) draw_luminaire(corner, frame, plan);
  }

  /// Beside the words below the title, as large as they are high.
  void draw_curves(const Vec2& cell, const ArrangementPlan& plan) {
    const double radius = (words_ - kTextLine) / 2 - 3;
    const Vec2 middle(cell.x() + cell_.x() - radius - 4, cell.y() + kTextLine + radius + 2);
    if (!plan.curves.empty()) draw_small_curves(canvas_, middle, radius, peak_, plan.curves);
  }

  void draw_luminaire(const Vec2& corner, const geometry::Frame& frame, const ArrangementPlan& plan) {
    const Vec2 middle = at(corner, frame.origin.xy());
    const Vec2 size = (scale_ * plan.size).cwiseMax(kLeastLuminaire);
    if (plan.round) return canvas_.circle(middle, size.x() / 2, "#d9902f", "#7a4a08", 0.8);
    canvas_.begin_group(middle, -std::atan2(frame.c0.y(), frame.c0.x()) / kDegree);
    canvas_.rectangle(-size / 2, size, "#d9902f", "#7a4a08", 0.8);
    canvas_.end_group();
  }

  const space::Space& room_;
  const geometry::Box2 box_;
  SvgCanvas canvas_{kFieldsWidth, kFieldsHeight};
  double scale_ = 0, words_ = 0;
  double peak_ = 0;  // cd/klm that the circles around curves stand for
  std::size_t columns_ = 1;
  Vec2 cell_ = Vec2::Zero();
};

}  // namespace

std::string arrangement_svg(const std::string& title, const space::Space& room,
                            const std::vector<ArrangementPlan>& plans) {
  return Sheet(room).draw(title, plans);
}

}  // namespace glow::figures
