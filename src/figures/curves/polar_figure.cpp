#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "core/photometry/derived.hpp"
#include "figures/curves/curve_style.hpp"

namespace glow::figures {
namespace {

constexpr double kAngleStep = 0.5;                 // degrees between drawn points
constexpr double kMiddle = 450, kHalfWidth = 400;  // px of the drawing

class PolarFigure {
 public:
  PolarFigure(const std::vector<Curve>& curves, const IntensityScale& scale)
      : curves_(curves),
        scale_(scale),
        lines_(plane_curves(curves, scale.more_planes)),
        canvas_(kSheetWidth, kSheetHeight) {
    double largest = 0;
    bool up = false;
    for (const Curve& curve : curves_) {
      const auto& table = curve.photometry->table;
      largest = std::max(largest, table.peak().candela * scale_factor(*curve.photometry, scale.per_klm));
      up = up || table.upward_flux() > 0.01 * table.flux();
    }
    step_ = round_step(largest, 5);
    rings_ = static_cast<int>(std::ceil(largest / step_ - 1e-9));
    centre_ = up ? Vec2(kMiddle, 440) : Vec2(kMiddle, 140);
    radius_ = up ? 310 : std::min(610.0, kHalfWidth / std::max(0.1, widest()));
    lowest_deg_ = up ? 180 : 90;
  }

  std::string draw() {
    grid();
    for (const PlaneCurve& line : lines_) curve(line);
    ring_labels();
    draw_title(canvas_, curves_,
               fmt::format(FMT_STRING("intensity in {}, gamma 0\u00b0 down"), scale_unit(scale_.per_klm)));
    const double y = draw_legend(canvas_, curves_, lines_, 920, 120);
    if (curves_.size() == 1)
      draw_body(canvas_, *curves_[0].photometry, {1060, std::max(y + 110, 560.0)}, 170);
    return canvas_.bytes();
  }

 private:
  /// Angle from straight down, positive to the right.
  Vec2 at(double theta_deg, double share) const {
    const double a = theta_deg * kDegree;
    return centre_ + share * radius_ * Vec2(std::sin(a), std::cos(a));
  }
  /// How far any curve reaches sideways, as a share of the outermost ring.
  double widest() const {
    double most = 0;
    for (const PlaneCurve& line : lines_) {
      const photometry::Photometry& p = *curves_[line.luminaire].photometry;
      for (double g = 0; g <= 180; g += kAngleStep)
        for (const double c : {line.c_deg, line.c_deg + 180})
          most = std::max(most, std::abs(std::sin(g * kDegree)) *
                                    share(scale_factor(p, scale_.per_klm) * p.table.intensity(c, g)));
    }
    return most;
  }
  void grid();
  void ring_labels();
  void curve(const PlaneCurve& line);
  void mark_half_peak(const PlaneCurve& line, double factor);
  double share(double candela) const { return candela / (step_ * rings_); }

  const std::vector<Curve>& curves_;
  const IntensityScale& scale_;
  std::vector<PlaneCurve> lines_;
  SvgCanvas canvas_;
  double step_ = 1, radius_ = 1, lowest_deg_ = 180;
  int rings_ = 1;
  Vec2 centre_;
};

void PolarFigure::grid() {
  const double left = kMiddle - kHalfWidth - 4, right = kMiddle + kHalfWidth + 4;
  canvas_.begin_clip(path_data({{left, 90}, {right, 90}, {right, 790}, {left, 790}}, true));
  for (int ring = 1; ring <= rings_; ++ring) {
    std::vector<Vec2> arc;
    for (double t = -lowest_deg_; t <= lowest_deg_ + 1e-9; t += 2)
      arc.push_back(at(t, double(ring) / rings_));
    canvas_.path(path_data(arc), "none", kGridLine, 1);
  }
  for (int t = -150; t <= 180; t += 15) {
    if (std::abs(t) > lowest_deg_) continue;
    canvas_.line(centre_, at(t, 1), kGridLine, t % 90 == 0 ? 1.6 : 1);
  }
  canvas_.end_group();
  // At the end of each ray, or where it leaves the drawing.
  for (int t = -150; t <= 180; t += 30) {
    if (std::abs(t) > lowest_deg_) continue;
    const double sine = std::abs(std::sin(t * kDegree));
    const double length = std::min(1.0, kHalfWidth / radius_ / std::max(1e-9, sine));
    canvas_.text(at(t, length + 16 / radius_) + Vec2(0, 4), fmt::format(FMT_STRING("{}\u00b0"), std::abs(t)),
                 {12, "middle", kSheetGrey});
  }
}

void PolarFigure::ring_labels() {
  for (int ring = 1; ring <= rings_; ++ring)
    canvas_.text(at(0, double(ring) / rings_) + Vec2(5, -4), fmt::format(FMT_STRING("{:g}"), ring * step_),
                 {12, "start", kSheetGrey, false, "#ffffff"});
}

void PolarFigure::curve(const PlaneCurve& line) {
  const photometry::Photometry& p = *curves_[line.luminaire].photometry;
  const double factor = scale_factor(p, scale_.per_klm);
  // Even steps, and the table's own angles between them: a narrow beam has its shape there.
  std::set<double> angles(p.table.gamma_deg().begin(), p.table.gamma_deg().end());
  for (double g = 0; g <= 180; g += kAngleStep) angles.insert(g);
  std::vector<Vec2> drawn;
  const auto add = [&](double g, int side) {
    drawn.push_back(
        at(side * g, share(factor * p.table.intensity(side < 0 ? line.c_deg + 180 : line.c_deg, g))));
  };
  for (auto g = angles.rbegin(); g != angles.rend(); ++g) add(*g, -1);
  for (const double g : angles) add(g, 1);
  canvas_.path(path_data(drawn), "none", line.colour.c_str(), 2.6,
               line.dash.empty() ? nullptr : line.dash.c_str());
  mark_half_peak(line, factor);
}

void PolarFigure::mark_half_peak(const PlaneCurve& line, double factor) {
  const auto edges = photometry::beam_edges(curves_[line.luminaire].photometry->table, line.c_deg, 0.5);
  if (!edges) return;
  for (const double t : {edges->left_deg, edges->right_deg})
    canvas_.circle(at(t, share(0.5 * factor * edges->peak_cd)), 5, "#ffffff", line.colour.c_str(), 2);
}

}  // namespace

std::string polar_svg(const std::vector<Curve>& curves, const IntensityScale& scale) {
  return PolarFigure(curves, scale).draw();
}

}  // namespace glow::figures
