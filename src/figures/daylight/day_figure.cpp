#include "figures/daylight/day_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "core/units/clock.hpp"
#include "figures/curves/curve_style.hpp"

namespace glow::figures {
namespace {

constexpr double kLeftEdge = 110, kRightEdge = 330, kUpper = 130, kLower = 90;  // px around the chart
constexpr std::size_t kMostLines = 8;
constexpr std::array<const char*, 8> kInks = {"#1d4a7a", "#c05a1c", "#3d7d4f", "#8a3b78",
                                              "#7a6a1a", "#2f8f9d", "#a3243b", "#555555"};
constexpr std::array<const char*, 3> kDashes = {nullptr, "9 4", "3 3"};

class DayFigure {
 public:
  DayFigure(const FigureInput& input, const assess::DaySeries& series)
      : input_(input), series_(series), canvas_(kSheetWidth, kSheetHeight) {
    for (const auto& step : series.steps) hours_.push_back(step.time_h);
    for (std::size_t k = 0; k < std::min(kMostLines, series.lines.size()); ++k)
      for (const double lux : series.lines[k].lux) most_ = std::max(most_, input.units.light(lux));
    step_ = round_step(most_, 6);
    top_ = std::ceil(most_ / step_ - 1e-9) * step_;
  }

  std::string draw() {
    title();
    axes();
    for (std::size_t k = 0; k < std::min(kMostLines, series_.lines.size()); ++k) line(k);
    labels();
    return canvas_.bytes();
  }

 private:
  Vec2 px(double hour, double shown) const {
    const double width = kSheetWidth - kLeftEdge - kRightEdge, height = kSheetHeight - kUpper - kLower;
    const double span = std::max(1e-9, hours_.back() - hours_.front());
    return {kLeftEdge + width * (hour - hours_.front()) / span,
            kSheetHeight - kLower - height * shown / top_};
  }
  void title();
  void axes();
  void line(std::size_t number);
  void labels();

  const FigureInput& input_;
  const assess::DaySeries& series_;
  SvgCanvas canvas_;
  std::vector<double> hours_;
  double most_ = 1, step_ = 1, top_ = 1;
};

void DayFigure::title() {
  const record::RoomRecord& room = *input_.room;
  canvas_.text({kSheetLeft, 40}, fitted_text(room.title(), 700, 24, true), {24, "start", kSheetInk, true});
  canvas_.text({kSheetLeft, 64}, "the course of the day", {14, "start", kSheetGrey});
  const auto highest =
      std::max_element(series_.steps.begin(), series_.steps.end(), [](const auto& a, const auto& b) {
        return a.altitude_deg.value_or(-90) < b.altitude_deg.value_or(-90);
      });
  std::string words = room.moment ? room.moment->date : "";
  if (highest->altitude_deg)
    words += fmt::format(FMT_STRING("; sun highest near {} (solar {}), {:.0f} deg"),
                         units::clock_words(highest->time_h), highest->solar_time, *highest->altitude_deg);
  canvas_.text({kSheetLeft, 84}, words, {12.5, "start", kSheetGrey});
}

void DayFigure::axes() {
  for (double v = 0; v <= top_ + 1e-9; v += step_) {
    canvas_.line(px(hours_.front(), v), px(hours_.back(), v), v == 0 ? kSheetInk : "#dedbd4",
                 v == 0 ? 1.4 : 0.8);
    canvas_.text(px(hours_.front(), v) + Vec2(-10, 4), fmt::format(FMT_STRING("{:g}"), v),
                 {12, "end", kSheetGrey});
  }
  const double each = hours_.back() - hours_.front() > 8 ? 2 : 1;
  for (double h = std::ceil(hours_.front() / each) * each; h <= hours_.back() + 1e-9; h += each) {
    canvas_.line(px(h, 0), px(h, 0) + Vec2(0, 6), kSheetGrey);
    canvas_.text(px(h, 0) + Vec2(0, 22), fmt::format(FMT_STRING("{:g}:00"), h), {12, "middle", kSheetGrey});
  }
  canvas_.text({(px(hours_.front(), 0).x() + px(hours_.back(), 0).x()) / 2, px(0, 0).y() + 46}, "local time",
               {12.5, "middle", kSheetGrey});
  canvas_.text({36, (kUpper + kSheetHeight - kLower) / 2},
               std::string("Illuminance in ") + input_.units.light_unit(),
               {12.5, "middle", kSheetGrey, false, nullptr, -90});
}

void DayFigure::line(std::size_t k) {
  std::vector<Vec2> points;
  for (std::size_t s = 0; s < hours_.size(); ++s)
    points.push_back(px(hours_[s], input_.units.light(series_.lines[k].lux[s])));
  canvas_.path(path_data(points), "none", kInks[k % kInks.size()], 2.2, kDashes[(k / 3) % kDashes.size()]);
  if (hours_.size() < 60)
    for (const Vec2& p : points) canvas_.circle(p, 2.6, "#ffffff", kInks[k % kInks.size()], 1.3);
}

/// Names beside the chart, each with its line and its largest value.
void DayFigure::labels() {
  const double x = kSheetWidth - kRightEdge + 40;
  double y = kUpper + 6;
  for (std::size_t k = 0; k < std::min(kMostLines, series_.lines.size()); ++k) {
    const assess::DaySeries::Line& line = series_.lines[k];
    const char* dash = kDashes[(k / 3) % kDashes.size()];
    canvas_.path(path_data({{x, y}, {x + 36, y}}), "none", kInks[k % kInks.size()], 2.6, dash);
    canvas_.text({x + 46, y + 4}, fitted_text(line.name, kRightEdge - 100, 13, true),
                 {13, "start", kSheetInk, true});
    const auto most = std::max_element(line.lux.begin(), line.lux.end());
    canvas_.text({x + 46, y + 21},
                 fmt::format(FMT_STRING("{}, most {} {} at {}"), line.is_point ? "point" : "mean",
                             value_label(input_.units.light(*most)), input_.units.light_unit(),
                             units::clock_words(series_.steps[std::size_t(most - line.lux.begin())].time_h)),
                 {12, "start", kSheetGrey});
    y += 46;
  }
  if (series_.lines.size() > kMostLines)
    canvas_.text({x, y},
                 fmt::format(FMT_STRING("and {} more, in the table"), series_.lines.size() - kMostLines),
                 {12, "start", kSheetGrey});
}

}  // namespace

std::string day_svg(const FigureInput& input, const assess::DaySeries& series) {
  return DayFigure(input, series).draw();
}

}  // namespace glow::figures
