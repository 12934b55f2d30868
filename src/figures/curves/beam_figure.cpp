#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/photometry/derived.hpp"
#include "figures/curves/curve_style.hpp"

namespace glow::figures {
namespace {

constexpr double kBeamLeft = 90, kBeamTop = 110, kBeamWide = 780, kBeamHigh = 600;
constexpr int kPoints = 800;

class BeamFigure {
 public:
  BeamFigure(const std::vector<Curve>& curves, const IntensityScale& scale)
      : curves_(curves),
        scale_(scale),
        lines_(plane_curves(curves, scale.more_planes)),
        canvas_(kSheetWidth, kSheetHeight) {
    for (const PlaneCurve& line : lines_) {
      const photometry::Photometry& p = *curves[line.luminaire].photometry;
      largest_ = std::max(largest_, p.table.peak().candela * scale_factor(p, scale.per_klm));
      const auto field = photometry::beam_edges(p.table, line.c_deg, 0.1);
      reach_ = std::max(reach_, field ? 1.3 * std::max(-field->left_deg, field->right_deg) : 90.0);
    }
    reach_ = std::min(reach_, 90.0);
    step_ = round_step(largest_, 6);
    largest_ = step_ * std::ceil(largest_ / step_ - 1e-9);
  }

  std::string draw() {
    axes();
    for (const PlaneCurve& line : lines_) curve(line);
    draw_title(canvas_, curves_,
               fmt::format(FMT_STRING("intensity in {} over the angle from straight down"),
                           scale_unit(scale_.per_klm)));
    const double y = draw_legend(canvas_, curves_, lines_, 920, 120);
    if (curves_.size() == 1)
      draw_body(canvas_, *curves_[0].photometry, {1060, std::max(y + 110, 560.0)}, 170);
    return canvas_.bytes();
  }

 private:
  Vec2 at(double theta_deg, double value) const {
    return {kBeamLeft + (theta_deg / reach_ + 1) / 2 * kBeamWide,
            kBeamTop + kBeamHigh - value / largest_ * kBeamHigh};
  }
  void axes();
  void curve(const PlaneCurve& line);

  const std::vector<Curve>& curves_;
  const IntensityScale& scale_;
  std::vector<PlaneCurve> lines_;
  SvgCanvas canvas_;
  double reach_ = 0.5, largest_ = 0, step_ = 1;
};

void BeamFigure::axes() {
  for (double value = 0; value <= largest_ * (1 + 1e-9); value += step_) {
    canvas_.line(at(-reach_, value), at(reach_, value), kGridLine);
    canvas_.text(at(-reach_, value) + Vec2(-10, 4), fmt::format(FMT_STRING("{:g}"), value),
                 {12, "end", kSheetGrey});
  }
  const double step = round_step(reach_, 6);
  for (double t = -step * std::floor(reach_ / step); t <= reach_ + 1e-9; t += step) {
    canvas_.line(at(t, 0), at(t, largest_), kGridLine, std::abs(t) < 1e-9 ? 1.8 : 1);
    canvas_.text(at(t, 0) + Vec2(0, 22), fmt::format(FMT_STRING("{:g}\u00b0"), std::abs(t) < 1e-9 ? 0.0 : t),
                 {12, "middle", kSheetGrey});
  }
  canvas_.text({kBeamLeft + kBeamWide / 2, kBeamTop + kBeamHigh + 48},
               "towards C + 180   \u00b7   angle from straight down   \u00b7   towards C",
               {12, "middle", kSheetGrey});
}

void BeamFigure::curve(const PlaneCurve& line) {
  const photometry::Photometry& p = *curves_[line.luminaire].photometry;
  const double factor = scale_factor(p, scale_.per_klm);
  std::vector<Vec2> drawn;
  for (int i = 0; i <= kPoints; ++i) {
    const double t = reach_ * (2.0 * i / kPoints - 1);
    drawn.push_back(at(t, factor * p.table.intensity(t < 0 ? line.c_deg + 180 : line.c_deg, std::abs(t))));
  }
  canvas_.path(path_data(drawn), "none", line.colour.c_str(), 2.6,
               line.dash.empty() ? nullptr : line.dash.c_str());
  const auto edges = photometry::beam_edges(p.table, line.c_deg, 0.5);
  if (!edges) return;
  for (const double t : {edges->left_deg, edges->right_deg})
    canvas_.circle(at(t, 0.5 * factor * edges->peak_cd), 5, "#ffffff", line.colour.c_str(), 2);
}

}  // namespace

std::string beam_svg(const std::vector<Curve>& curves, const IntensityScale& scale) {
  return BeamFigure(curves, scale).draw();
}

}  // namespace glow::figures
