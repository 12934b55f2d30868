#include "figures/daylight/energy_figure.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/daylight/sun.hpp"
#include "figures/curves/curve_style.hpp"
#include "figures/daylight/year_figure.hpp"

namespace glow::figures {
namespace {

constexpr double kFieldLeft = 80, kFieldWide = 912.5;
constexpr double kPowerTop = 128, kPowerHigh = 288;
constexpr double kDaysTop = 470, kDaysHigh = 120, kEnergyTop = 640, kEnergyHigh = 100;
constexpr double kStandby = 0.03;  // of the most: less is shown as off
constexpr const char *kEnergyInk = "#8a4b2a", *kDayInk = "#1d4a7a", *kFilled = "#8a6a4a",
                     *kDayBar = "#dcc9b6";

class EnergyFigure {
 public:
  EnergyFigure(const FigureInput& input, const studies::RoomEnergy& energy)
      : input_(input), energy_(energy), year_(*energy.hourly), canvas_(kSheetWidth, kSheetHeight) {}

  std::string draw() {
    title();
    power();
    days();
    months();
    numbers();
    return canvas_.bytes();
  }

 private:
  void title();
  std::string zones() const;
  void power();
  void days();
  void months();
  void numbers();
  void line(const std::vector<double>& by_days, double top, double most, double high, const char* ink);

  const FigureInput& input_;
  const studies::RoomEnergy& energy_;
  const studies::RoomEnergy::Hourly& year_;
  SvgCanvas canvas_;
};

void EnergyFigure::title() {
  canvas_.text({kSheetLeft, 40}, fitted_text(input_.room->title(), 700, 24, true),
               {24, "start", kSheetInk, true});
  canvas_.text({kSheetLeft, 64}, fitted_text("electric power by day and hour; " + zones(), 1000, 14),
               {14, "start", kSheetGrey});
  canvas_.text({kSheetLeft, 84}, fmt::format(FMT_STRING("{:.0f} hours of use"), year_.used_h),
               {12.5, "start", kSheetGrey});
  draw_older(canvas_, *input_.room, {kSheetLeft, 104});
}

/// Two zones by name and control; more of them by number and power.
std::string EnergyFigure::zones() const {
  std::string words;
  double watts = 0;
  for (const studies::ZoneEnergy& zone : year_.zones) {
    words += fmt::format(FMT_STRING("{}{}: {:.0f} W, {}"), words.empty() ? "" : "; ", zone.name, zone.watts,
                         zone.control);
    watts += zone.watts;
  }
  if (year_.zones.size() <= 2) return words;
  return fmt::format(FMT_STRING("{} zones of {:.0f} W in all"), year_.zones.size(), watts);
}

void EnergyFigure::power() {
  std::vector<double> watts(year_.power_w.begin(), year_.power_w.end());
  double most = 1;
  for (const double own : watts) most = std::max(most, own);
  for (double& own : watts)
    if (own < kStandby * most) own = -1;
  const ColourScale scale = banded_scale(0.02 * most, most, 8);
  draw_carpet(canvas_, watts, scale, {kFieldLeft, kPowerTop}, {kFieldWide, kPowerHigh});
  draw_scale(canvas_, scale, "Power in W", kFieldLeft + kFieldWide + 30, kPowerTop, kPowerHigh);
}

void EnergyFigure::line(const std::vector<double>& by_days, double top, double most, double high,
                        const char* ink) {
  std::vector<Vec2> points;
  for (std::size_t d = 0; d < by_days.size(); ++d)
    if (by_days[d] > 0)  // days without use have none
      points.push_back({kFieldLeft + kFieldWide * (double(d) + 0.5) / 365,
                        top + high * (1 - std::min(1.0, by_days[d] / most))});
  canvas_.path(path_data(points), "none", ink, 1.2);
}

/// Day by day: electric energy as bars, by the axis at the right, and daylight at the first sensor.
void EnergyFigure::days() {
  const double largest = *std::max_element(year_.daylight_by_day_lx.begin(), year_.daylight_by_day_lx.end());
  const double most = std::max(1.0, input_.units.light(largest)), step = round_step(most, 3);
  const double top = std::ceil(most / step) * step;
  canvas_.text({kFieldLeft, kDaysTop - 10},
               fmt::format(FMT_STRING("line: daylight at the sensor, mean of each day's hours of use, {}"),
                           input_.units.light_unit()),
               {12.5, "start", kDayInk});
  for (double v = 0; v <= top + 1e-9; v += step) {
    const double y = kDaysTop + kDaysHigh * (1 - v / top);
    canvas_.line({kFieldLeft, y}, {kFieldLeft + kFieldWide, y}, v == 0 ? kSheetInk : kGridLine);
    canvas_.text({kFieldLeft - 9, y + 4}, fmt::format(FMT_STRING("{:g}"), v), {11.5, "end", kSheetGrey});
  }
  double most_kwh = 1e-9;
  for (const double kwh : year_.by_day_kwh) most_kwh = std::max(most_kwh, kwh);
  const double kwh_step = round_step(most_kwh, 3), kwh_top = std::ceil(most_kwh / kwh_step) * kwh_step;
  const double wide = kFieldWide / double(year_.by_day_kwh.size()), base = kDaysTop + kDaysHigh;
  for (std::size_t d = 0; d < year_.by_day_kwh.size(); ++d) {
    const double high = kDaysHigh * year_.by_day_kwh[d] / kwh_top;
    canvas_.rectangle({kFieldLeft + double(d) * wide, base - high}, {wide, high}, kDayBar);
  }
  canvas_.text({kFieldLeft + kFieldWide, kDaysTop - 10}, "bars: electric energy of each day, kWh",
               {12.5, "end", kEnergyInk});
  for (double v = 0; v <= kwh_top + 1e-9; v += kwh_step)
    canvas_.text({kFieldLeft + kFieldWide + 5, base - kDaysHigh * v / kwh_top + 4},
                 fmt::format(FMT_STRING("{:g}"), v), {10.5, "start", kEnergyInk});
  std::vector<double> shown;
  for (const double lux : year_.daylight_by_day_lx) shown.push_back(input_.units.light(lux));
  line(shown, kDaysTop, top, kDaysHigh, kDayInk);
}

/// Months as bars: what is taken, and what would be without control.
void EnergyFigure::months() {
  double most = 1;
  for (const double kwh : year_.by_month_kwh) most = std::max(most, kwh);
  const double without = year_.uncontrolled_kwh / 12;
  most = std::max(most, without);
  const double step = round_step(most, 4), top = std::ceil(most / step) * step,
               base = kEnergyTop + kEnergyHigh;
  canvas_.text({kFieldLeft, kEnergyTop - 10}, "electric energy by month, kWh; line: mean without control",
               {12.5, "start", kEnergyInk});
  for (double v = 0; v <= top + 1e-9; v += step) {
    const double y = base - kEnergyHigh * v / top;
    canvas_.line({kFieldLeft, y}, {kFieldLeft + kFieldWide, y}, v == 0 ? kSheetInk : kGridLine);
    canvas_.text({kFieldLeft - 9, y + 4}, fmt::format(FMT_STRING("{:g}"), v), {11.5, "end", kSheetGrey});
  }
  const double wide = kFieldWide / 12, mean = base - kEnergyHigh * without / top;
  const auto bar = [&](int m) { return kEnergyHigh * year_.by_month_kwh[std::size_t(m)] / top; };
  for (int m = 0; m < 12; ++m)
    canvas_.rectangle({kFieldLeft + (m + 0.18) * wide, base - bar(m)}, {wide * 0.64, bar(m)}, kFilled);
  canvas_.line({kFieldLeft, mean}, {kFieldLeft + kFieldWide, mean}, kEnergyInk, 1.6);
  for (int m = 0; m < 12; ++m) {
    double y = base - bar(m) - 5;
    if (mean > y - 12 && mean < y + 3) y = mean - 5;  // not through the number
    canvas_.text({kFieldLeft + (m + 0.5) * wide, y}, value_label(year_.by_month_kwh[std::size_t(m)]),
                 {11.5, "middle", kSheetInk, false, "#ffffff"});
    canvas_.text({kFieldLeft + (m + 0.5) * wide, base + 17},
                 std::string(daylight::kMonths[std::size_t(m)]).substr(0, 3), {11.5, "middle", kSheetGrey});
  }
}

void EnergyFigure::numbers() {
  double x = kFieldLeft + kFieldWide + 30, y = kDaysTop;
  const auto tell = [&](const std::string& value, const std::string& what) {
    canvas_.text({x, y}, value, {18, "start", kSheetInk, true});
    canvas_.text({x, y + 17}, what, {12, "start", kSheetGrey});
    y += 46;
  };
  tell(value_label(year_.kwh) + " kWh", "in the year");
  tell(value_label(year_.uncontrolled_kwh) + " kWh",
       fmt::format(FMT_STRING("without control: saves {:.0f} %"), 100 * year_.saving()));
  tell(fmt::format(FMT_STRING("{:.1f} kWh/m2"), energy_.kwh_m2()), "in the year");
  if (energy_.price) tell(value_label(*energy_.price * year_.kwh) + " " + energy_.currency, "a year");
  if (energy_.co2_kg) tell(value_label(*energy_.co2_kg * year_.kwh) + " kg", "CO2 a year");
}

}  // namespace

std::string energy_svg(const FigureInput& input, const studies::RoomEnergy& energy) {
  return EnergyFigure(input, energy).draw();
}

}  // namespace glow::figures
