#include "figures/daylight/year_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "core/daylight/sun.hpp"
#include "core/daylight/weather.hpp"
#include "figures/curves/curve_style.hpp"
#include "figures/raster/png_bytes.hpp"

namespace glow::figures {
namespace {

constexpr int kDays = 365, kHours = 24;
constexpr double kCarpetLeft = 80, kCarpetTop = 150, kCarpetWide = 912.5, kCarpetHigh = 288;
constexpr double kMonthsTop = 530, kMonthsHigh = 170;
constexpr const char *kBar = "#8a6a4a", *kNight = "#2b2b33";

/// The x of a month's first day, as a share of the year.
double begin_of(int month) {
  return (daylight::day_of_year(daylight::kSunYear, month, 1) - 1) / double(kDays);
}

std::string short_month(int month) {
  return std::string(daylight::kMonths[std::size_t(month - 1)]).substr(0, 3);
}

/// Bands of 1, 2, 5 up to the brightest: daylight spans several powers of ten.
ColourScale daylight_scale(double most) {
  ColourScale scale;
  for (double power = 10; power <= most; power *= 10)
    for (const double step : {1.0, 2.0, 5.0})
      if (power * step >= 50 && power * step < most) scale.levels.push_back(power * step);
  scale.lines = scale.marks = scale.levels;
  colour_bands(scale);
  return scale;
}

class YearFigure {
 public:
  YearFigure(const FigureInput& input, const assess::YearReading& year, const assess::YearAtPoint* point)
      : input_(input), year_(year), point_(point), canvas_(kSheetWidth, kSheetHeight) {}

  std::string draw() {
    title();
    carpet();
    months();
    numbers();
    return canvas_.bytes();
  }

 private:
  void title();
  void carpet();
  void months();
  void numbers();
  const assess::YearOnGrid& first() const { return year_.grids.front(); }
  std::string subject() const {
    return point_ ? "at " + point_->name : "on " + input_.room->assessment.grids[first().grid].name;
  }
  /// The first of a metric's maps: with blinds, where there are any.
  const assess::YearMap& map_of(assess::YearMetric metric) const {
    const std::vector<assess::YearMap>& maps = point_ ? point_->maps : first().maps;
    return *std::find_if(maps.begin(), maps.end(),
                         [&](const assess::YearMap& map) { return map.metric == metric; });
  }

  const FigureInput& input_;
  const assess::YearReading& year_;
  const assess::YearAtPoint* point_;  // null: the mean of the first grid
  SvgCanvas canvas_;
};

void YearFigure::title() {
  canvas_.text({kSheetLeft, 40}, fitted_text(input_.room->title(), 700, 24, true),
               {24, "start", kSheetInk, true});
  canvas_.text({kSheetLeft, 64},
               fitted_text(fmt::format(FMT_STRING("daylight {} by day and hour; weather of {} ({})"),
                                       subject(), year_.place.empty() ? "its file" : year_.place, year_.file),
                           1100, 14),
               {14, "start", kSheetGrey});
  std::string blinds = "no blinds";
  if (!year_.blinds.empty()) {
    int down = 0;
    for (const int hours : year_.hours_down) down = std::max(down, hours);
    blinds =
        fmt::format(FMT_STRING("blinds down when the sun gives {:.0f} lx on more than {:g} % of it: {} h of "
                               "use"),
                    year_.rule_lx, 100 * year_.rule_share, down);
  }
  canvas_.text(
      {kSheetLeft, 84},
      fmt::format(FMT_STRING("hours of use: {}, {} h; {}"), year_.hours_words, year_.used_hours, blinds),
      {12.5, "start", kSheetGrey});
  draw_older(canvas_, *input_.room, {kSheetLeft, 104});
}

void YearFigure::carpet() {
  const std::vector<int>& lux = point_ ? point_->by_hour_lx : year_.mean_lx;
  std::vector<double> shown(lux.size());
  double most = 100;
  for (std::size_t h = 0; h < shown.size(); ++h) {
    shown[h] = lux[h] > 0 ? input_.units.light(lux[h]) : -1;
    most = std::max(most, shown[h]);
  }
  const ColourScale scale = daylight_scale(most);
  draw_carpet(canvas_, shown, scale, {kCarpetLeft, kCarpetTop}, {kCarpetWide, kCarpetHigh});
  draw_scale(canvas_, scale,
             (point_ ? "Illuminance in " : "Mean in ") + std::string(input_.units.light_unit()),
             kCarpetLeft + kCarpetWide + 30, kCarpetTop, kCarpetHigh);
}

void YearFigure::months() {
  const auto& lux = point_ ? point_->by_month_lx : first().by_month_lx;
  const double most = input_.units.light(*std::max_element(lux.begin(), lux.end()));
  const double step = round_step(std::max(most, 1.0), 4), top = std::ceil(most / step - 1e-9) * step;
  const double base = kMonthsTop + kMonthsHigh;
  canvas_.text({kCarpetLeft, kMonthsTop - 16},
               fmt::format(FMT_STRING("mean of the hours of use by month, {}{}"), input_.units.light_unit(),
                           year_.blinds.empty() ? "" : "; here and above with blinds by their rule"),
               {12.5, "start", kSheetGrey});
  for (double v = 0; v <= top + 1e-9; v += step) {
    const double y = base - kMonthsHigh * v / std::max(top, 1e-9);
    canvas_.line({kCarpetLeft, y}, {kCarpetLeft + kCarpetWide, y}, v == 0 ? kSheetInk : kGridLine,
                 v == 0 ? 1.4 : 0.8);
    canvas_.text({kCarpetLeft - 10, y + 4}, fmt::format(FMT_STRING("{:g}"), v), {12, "end", kSheetGrey});
  }
  for (int month = 1; month <= 12; ++month) {
    const double value = input_.units.light(lux[std::size_t(month - 1)]);
    const double high = kMonthsHigh * value / std::max(top, 1e-9);
    const double wide = kCarpetWide / 12, x = kCarpetLeft + (month - 1) * wide;
    canvas_.rectangle({x + wide * 0.18, base - high}, {wide * 0.64, high}, kBar);
    canvas_.text({x + wide / 2, base - high - 6}, value_label(value), {12, "middle", kSheetInk});
    canvas_.text({x + wide / 2, base + 18}, short_month(month), {12, "middle", kSheetGrey});
  }
}

/// What the year comes to, at the right of the months.
void YearFigure::numbers() {
  double x = kCarpetLeft + kCarpetWide + 30, y = kMonthsTop - 6;
  const auto tell = [&](const std::string& value, const std::string& what) {
    canvas_.text({x, y}, value, {18, "start", kSheetInk, true});
    canvas_.text({x, y + 17}, what, {12, "start", kSheetGrey});
    y += 46;
  };
  const assess::YearMap& autonomy = map_of(assess::YearMetric::autonomy);
  tell(fmt::format(FMT_STRING("{:.0f} %"), autonomy.mean),
       fmt::format(FMT_STRING("of use with {:.0f} lx by day"), autonomy.level_lx));
  tell(fmt::format(FMT_STRING("{:.0f} %"), map_of(assess::YearMetric::useful_300_to_3000).mean),
       "of use within 300 to 3000 lx");
  if (point_) {
    tell(fmt::format(FMT_STRING("{:.0f} h"), map_of(assess::YearMetric::sun_hours).mean),
         "of sun in the year");
    tell(fmt::format(FMT_STRING("{:.0f} klx h"), map_of(assess::YearMetric::exposure).mean), "in the year");
    return;
  }
  tell(fmt::format(FMT_STRING("{:.0f} %"), first().spatial_autonomy.percent),
       "spatial autonomy 300 lx, 50 %");
  tell(fmt::format(FMT_STRING("{:.0f} %"), first().sun_exposure.percent), "sun exposure 1000 lx, 250 h");
}

}  // namespace

void draw_carpet(SvgCanvas& canvas, const std::vector<double>& by_hours, const ColourScale& scale,
                 const Vec2& low, const Vec2& size) {
  constexpr int kWide = 5, kHigh = 24;  // pixels of an hour
  std::vector<std::array<std::uint8_t, 3>> colours;
  for (const std::string& colour : scale.colours) colours.push_back(bytes_of(colour));
  const std::array<std::uint8_t, 3> night = bytes_of(kNight);
  std::vector<std::uint8_t> rgb(std::size_t(3 * kDays * kWide * kHours * kHigh));
  for (int row = 0; row < kHours * kHigh; ++row)
    for (int column = 0; column < kDays * kWide; ++column) {
      const std::size_t hour = std::size_t(column / kWide * kHours + (kHours - 1 - row / kHigh));
      const double value = hour < by_hours.size() ? by_hours[hour] : -1;
      const auto& own = value < 0 ? night : colours[scale.band(value)];
      std::copy(own.begin(), own.end(), rgb.begin() + 3 * (std::ptrdiff_t(row) * kDays * kWide + column));
    }
  canvas.image(low, size, png_bytes(rgb, kDays * kWide, kHours * kHigh));
  canvas.rectangle(low, size, "none", kSheetInk, 1);
  for (int hour = 0; hour <= kHours; hour += 3) {
    const double y = low.y() + size.y() * (1 - double(hour) / kHours);
    canvas.line({low.x() - 5, y}, {low.x(), y}, kSheetGrey);
    canvas.text({low.x() - 9, y + 4}, fmt::format(FMT_STRING("{}:00"), hour), {11.5, "end", kSheetGrey});
  }
  for (int month = 1; month <= 12; ++month) {
    const double x = low.x() + size.x() * begin_of(month);
    if (month > 1) canvas.line({x, low.y() + size.y()}, {x, low.y() + size.y() + 5}, kSheetGrey);
    canvas.text({x + size.x() / 24, low.y() + size.y() + 18}, short_month(month),
                {11.5, "middle", kSheetGrey});
  }
  canvas.text({low.x() + size.x(), low.y() - 8}, "standard time", {11.5, "end", kSheetGrey});
}

std::string year_svg(const FigureInput& input, const assess::YearReading& year,
                     const assess::YearAtPoint* point) {
  return YearFigure(input, year, point).draw();
}

}  // namespace glow::figures
