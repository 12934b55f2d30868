#include "figures/daylight/energy_days_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/daylight/sun.hpp"
#include "figures/curves/curve_style.hpp"

namespace glow::figures {
namespace {

constexpr double kPanelTop = 120, kPanelLeft = 74, kPanelRight = 24, kPanelBetween = 62;  // px
constexpr double kPanelLight = 330, kPanelGap = 64, kPanelPower = 170;                    // px
constexpr const char *kDayFill = "#a9c4de", *kElectricFill = "#e3b98f", *kPowerFill = "#8a6a4a",
                     *kTargetInk = "#7a1f3d";

class EnergyDaysFigure {
 public:
  EnergyDaysFigure(const FigureInput& input, const studies::RoomEnergy::Hourly& year)
      : input_(input), year_(year), canvas_(kSheetWidth, kSheetHeight) {
    for (const studies::ZoneEnergy& zone : year.zones) target_ = std::max(target_, shown(zone.target_lx));
    double light = std::max(1.0, 1.2 * target_), power = 1, brightest = 1;
    for (const studies::EnergyDay& day : year.days)
      for (std::size_t h = 0; h < day.power_w.size(); ++h) {
        brightest = std::max(brightest, shown(day.daylight_lx[h] + day.electric_lx[h]));
        light = std::max(light, shown(day.electric_lx[h]));
        power = std::max(power, day.power_w[h]);
      }
    // Bright days would press what is asked to the ground: they are cut above some times of it.
    light = target_ > 0 ? std::min(brightest, std::max(light, kMostTargets * target_)) : brightest;
    is_cut_ = brightest > light;
    light_step_ = round_step(light, 5);
    light_top_ = std::ceil(light / light_step_ - 1e-9) * light_step_;
    power_step_ = round_step(power, 4);
    power_top_ = std::ceil(power / power_step_ - 1e-9) * power_step_;
    const double count = double(year.days.size());
    wide_ = (kSheetWidth - kPanelLeft - kPanelRight - (count - 1) * kPanelBetween) / count;
  }

  std::string draw() {
    title();
    for (std::size_t d = 0; d < year_.days.size(); ++d) day(d);
    return canvas_.bytes();
  }

 private:
  static constexpr double kMostTargets = 4;

  double shown(double lux) const { return input_.units.light(lux); }
  double x_of(std::size_t day, double hour) const {
    return kPanelLeft + double(day) * (wide_ + kPanelBetween) + wide_ * hour / 24;
  }
  static double y_of(double value, double top, double base, double high) {
    return base - high * std::min(1.0, value / top);
  }
  void title();
  void day(std::size_t number);
  void axis(std::size_t number, double top, double step, double base, double high);
  void hours_as_steps(std::size_t number, const std::vector<double>& from, const std::vector<double>& to,
                      double top, double base, double high, const char* fill);

  const FigureInput& input_;
  const studies::RoomEnergy::Hourly& year_;
  SvgCanvas canvas_;
  double target_ = 0, light_step_ = 1, light_top_ = 1, power_step_ = 1, power_top_ = 1, wide_ = 0;
  bool is_cut_ = false;
};

void EnergyDaysFigure::title() {
  canvas_.text({kSheetLeft, 40}, fitted_text(input_.room->title(), 700, 24, true),
               {24, "start", kSheetInk, true});
  canvas_.text({kSheetLeft, 64},
               "chosen days hour by hour: mean of the work plane, and electric power; standard time",
               {14, "start", kSheetGrey});
  double x = kSheetLeft;
  const auto key = [&](const char* fill, const std::string& words) {
    canvas_.rectangle({x, 77}, {16, 11}, fill);
    canvas_.text({x + 22, 87}, words, {12.5, "start", kSheetInk});
    x += 22 + text_width(words, 12.5) + 26;
  };
  key(kDayFill, "daylight");
  key(kElectricFill, "electric light, on top of it");
  key(kPowerFill, "power");
  if (target_ > 0) {
    canvas_.line({x, 82}, {x + 22, 82}, kTargetInk, 1.8);
    canvas_.text({x + 28, 87},
                 fmt::format(FMT_STRING("target, {} {}{}"), value_label(target_), input_.units.light_unit(),
                             is_cut_ ? "; what is far above it is cut" : ""),
                 {12.5, "start", kSheetInk});
  }
  draw_older(canvas_, *input_.room, {kSheetLeft, 106});
}

void EnergyDaysFigure::axis(std::size_t d, double top, double step, double base, double high) {
  for (double v = 0; v <= top + 1e-9; v += step) {
    const double y = y_of(v, top, base, high);
    canvas_.line({x_of(d, 0), y}, {x_of(d, 24), y}, v == 0 ? kSheetInk : kGridLine, v == 0 ? 1.4 : 0.8);
    canvas_.text({x_of(d, 0) - 8, y + 4}, fmt::format(FMT_STRING("{:g}"), v), {11.5, "end", kSheetGrey});
  }
  for (int hour = 0; hour <= 24; hour += wide_ < 400 ? 6 : 3) {
    canvas_.line({x_of(d, hour), base}, {x_of(d, hour), base + 5}, kSheetGrey);
    canvas_.text({x_of(d, hour), base + 19}, fmt::format(FMT_STRING("{}:00"), hour),
                 {11.5, "middle", kSheetGrey});
  }
}

void EnergyDaysFigure::hours_as_steps(std::size_t d, const std::vector<double>& from,
                                      const std::vector<double>& to, double top, double base, double high,
                                      const char* fill) {
  for (std::size_t h = 0; h < to.size(); ++h) {
    const double low = y_of(from[h], top, base, high), up = y_of(to[h], top, base, high);
    if (low - up > 0.05) canvas_.rectangle({x_of(d, double(h)), up}, {wide_ / 24 + 0.3, low - up}, fill);
  }
}

void EnergyDaysFigure::day(std::size_t d) {
  const studies::EnergyDay& own = year_.days[d];
  const double light_base = kPanelTop + 30 + kPanelLight, power_base = light_base + kPanelGap + kPanelPower;
  std::vector<double> day, all;
  double kwh = 0;
  for (std::size_t h = 0; h < own.power_w.size(); ++h) {
    day.push_back(shown(own.daylight_lx[h]));
    all.push_back(shown(own.daylight_lx[h] + own.electric_lx[h]));
    kwh += own.power_w[h] / 1000;
  }
  canvas_.text({x_of(d, 0), kPanelTop + 12},
               fmt::format(FMT_STRING("{} {}"), own.date, daylight::kMonths[std::size_t(own.month - 1)]),
               {15, "start", kSheetInk, true});
  canvas_.text({x_of(d, 24), kPanelTop + 12}, value_label(kwh) + " kWh", {13, "end", kSheetInk});
  axis(d, light_top_, light_step_, light_base, kPanelLight);
  const std::vector<double> none(day.size(), 0.0);
  hours_as_steps(d, none, day, light_top_, light_base, kPanelLight, kDayFill);
  hours_as_steps(d, day, all, light_top_, light_base, kPanelLight, kElectricFill);
  if (target_ > 0) {
    const double y = y_of(target_, light_top_, light_base, kPanelLight);
    canvas_.line({x_of(d, 0), y}, {x_of(d, 24), y}, kTargetInk, 1.8);
  }
  axis(d, power_top_, power_step_, power_base, kPanelPower);
  hours_as_steps(d, none, own.power_w, power_top_, power_base, kPanelPower, kPowerFill);
  if (d > 0) return;
  canvas_.text({22, light_base - kPanelLight / 2}, std::string("Illuminance in ") + input_.units.light_unit(),
               {12.5, "middle", kSheetGrey, false, nullptr, -90});
  canvas_.text({22, power_base - kPanelPower / 2}, "Power in W",
               {12.5, "middle", kSheetGrey, false, nullptr, -90});
}

}  // namespace

std::string energy_days_svg(const FigureInput& input, const studies::RoomEnergy& energy) {
  return EnergyDaysFigure(input, *energy.hourly).draw();
}

}  // namespace glow::figures
