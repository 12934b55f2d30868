#include "figures/flat/plan_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "figures/curves/curve_style.hpp"
#include "figures/flat/plan_context.hpp"
#include "words/topics/room_words.hpp"

namespace glow::figures {
namespace {

constexpr double kPlanLeft = 92, kPlanTop = 116, kPlanRight = 236, kPlanBottom = 76;
constexpr double kSpread = 110;     // px, least, from one number of the title to the next
constexpr double kSensorRing = 15;  // px
constexpr const char* kSensorInk = "#1d4a7a";
constexpr double kNumbersLeft = 620, kTitleWidth = 490;  // px: where the numbers begin, and begin at least

/// A round step for axes: 1, 2 or 5 times a power of ten, at least `least`.
double axis_step(double least) {
  const double power = std::pow(10.0, std::floor(std::log10(least)));
  for (const double factor : {1.0, 2.0, 5.0})
    if (factor * power >= least) return factor * power;
  return 10 * power;
}

class PlanFigure {
 public:
  PlanFigure(const FigureInput& input, const assess::GridReading& grid)
      : input_(input),
        room_(*input.room),
        grid_(grid),
        canvas_(kSheetWidth, kSheetHeight),
        box_(window_of(room_, grid)),
        scale_(scale_of(input, {&grid})) {
    const Vec2 size = box_.size();
    pixels_per_m_ = std::min((kSheetWidth - kPlanLeft - kPlanRight) / size.x(),
                             (kSheetHeight - kPlanTop - kPlanBottom) / size.y());
    const Vec2 drawn = size * pixels_per_m_;
    const Vec2 low = (geometry::bounding_box(grid.grid.outline).low - box_.low) * pixels_per_m_;
    corner_ = {kPlanLeft + (kSheetWidth - kPlanLeft - kPlanRight - drawn.x()) / 2 + low.x(),
               kPlanTop + (kSheetHeight - kPlanTop - kPlanBottom + drawn.y()) / 2 - low.y()};
  }

  std::string draw() {
    FlatView view(canvas_, input_, grid_, scale_, corner_, pixels_per_m_, false, u0_limit(), box_);
    canvas_.note_metres(view.px(Vec2::Zero()), pixels_per_m_);
    draw_area(view);
    draw_sensors(view);
    axes(view);
    title();
    legend();
    return canvas_.bytes();
  }

 private:
  /// Points below this share of the mean make the uniformity check fail; lx.
  std::optional<double> u0_limit() const {
    for (const standards::Check& check : room_.assessment.checks)
      if (is_of_grid(check) && check.demand.quantity == standards::Quantity::uniformity)
        return check.demand.required * grid_.statistics.mean_lx;
    return std::nullopt;
  }
  std::string with_unit(double lux) const {
    return fmt::format(FMT_STRING("{} {}"), value_label(input_.units.light(lux)), input_.units.light_unit());
  }
  void draw_area(FlatView& view);
  std::string around(const FlatView& view) const;
  void axes(const FlatView& view);
  /// A number of the grid and the words below it.
  struct Number {
    std::string value, below, asked;
    bool failed;
    std::string standard;
  };
  std::vector<Number> numbers() const;
  void add_factors(std::vector<Number>& numbers) const;
  void title();
  void legend();
  double legend_luminaires(double x, double y);
  std::vector<const studies::ZoneEnergy*> zones_with_sensors() const;
  void draw_sensors(const FlatView& view);
  double legend_sensors(double x, double y);

  const FigureInput& input_;
  /// Whether the grid is held against more than one standard.
  bool several_standards() const {
    std::set<std::string> names;
    for (const standards::Check& check : room_.assessment.checks)
      if (is_of_grid(check)) names.insert(check.demand.standard);
    return names.size() > 1;
  }
  bool is_of_grid(const standards::Check& check) const {
    return check.target.kind == standards::Target::Kind::grid &&
           room_.assessment.grids[check.target.id].name == grid_.name;
  }

  const record::RoomRecord& room_;
  const assess::GridReading& grid_;
  SvgCanvas canvas_;
  geometry::Box2 box_;
  ColourScale scale_;
  double pixels_per_m_ = 1;
  Vec2 corner_;
};

/// The drawing with room for its outline.
std::string PlanFigure::around(const FlatView& view) const {
  constexpr double kAir = 20;  // px
  const Vec2 low = view.px(box_.low) + Vec2(-kAir, kAir), high = view.px(box_.high) + Vec2(kAir, -kAir);
  return path_data({low, {high.x(), low.y()}, high, {low.x(), high.y()}}, true);
}

/// A part of the room in a frame, with the room around it; or all of it.
void PlanFigure::draw_area(FlatView& view) {
  const bool plan = is_in_plan(grid_);
  const geometry::Box2 own = geometry::bounding_box(grid_.grid.outline);
  const bool part = !own.low.isApprox(box_.low) || !own.high.isApprox(box_.high);
  if (!part) {
    // Of a strip across the room luminaires reach far out.
    if (!plan) canvas_.begin_clip(around(view));
    view.draw();
    if (!plan) canvas_.end_group();
    if (plan) draw_wall_names(canvas_, room_, view, box_, false);
    return;
  }
  const std::string frame = path_data({view.px(box_.low), view.px({box_.high.x(), box_.low.y()}),
                                       view.px(box_.high), view.px({box_.low.x(), box_.high.y()})},
                                      true);
  canvas_.begin_clip(frame);
  draw_room_around(canvas_, room_, view);
  view.draw();
  draw_wall_names(canvas_, room_, view, box_, true);
  canvas_.end_group();
  canvas_.path(frame, "none", "#c9c6c0", 1);
}

void PlanFigure::axes(const FlatView& view) {
  const units::ShownUnits& units = input_.units;
  const double step = axis_step(60 / pixels_per_m_ * units.length(1));
  const Vec2 low = view.px(box_.low), high = view.px(box_.high);
  const Vec2 first(units.length(box_.low.x()), units.length(box_.low.y()));
  const Vec2 last(units.length(box_.high.x()), units.length(box_.high.y()));
  for (double x = std::ceil(first.x() / step - 1e-9) * step; x <= last.x() + 1e-9; x += step) {
    const double at = view.px({units.metres_of(x), box_.low.y()}).x();
    canvas_.line({at, low.y() + 22}, {at, low.y() + 28}, kSheetGrey);
    canvas_.text({at, low.y() + 43}, fmt::format(FMT_STRING("{:.6g}"), std::abs(x) < 1e-9 ? 0 : x),
                 {12, "middle", kSheetGrey});
  }
  for (double y = std::ceil(first.y() / step - 1e-9) * step; y <= last.y() + 1e-9; y += step) {
    const double at = view.px({box_.low.x(), units.metres_of(y)}).y();
    canvas_.line({low.x() - 28, at}, {low.x() - 22, at}, kSheetGrey);
    canvas_.text({low.x() - 33, at + 4}, fmt::format(FMT_STRING("{:.6g}"), std::abs(y) < 1e-9 ? 0 : y),
                 {12, "end", kSheetGrey});
  }
  const readings::Plane& plane = grid_.grid.plane;
  const bool plan = plane.u.isApprox(Vec3::UnitX()) && plane.v.isApprox(Vec3::UnitY());
  const bool upright = plane.v.isApprox(Vec3::UnitZ());
  canvas_.text({(low.x() + high.x()) / 2, low.y() + 62},
               fmt::format(FMT_STRING("{} in {}"), plan ? "x" : "along", units.length_unit()),
               {12, "middle", kSheetGrey});
  canvas_.text({low.x() - 68, (low.y() + high.y()) / 2},
               fmt::format(FMT_STRING("{} in {}"),
                           plan      ? "y"
                           : upright ? "height"
                                     : "across",
                           units.length_unit()),
               {12, "middle", kSheetGrey, false, nullptr, -90});
}

/// What half of the plane and 95 % of it reach, where that is asked.
void PlanFigure::add_factors(std::vector<Number>& numbers) const {
  for (const standards::Check& check : room_.assessment.checks) {
    if (!is_of_grid(check) || !standards::is_daylight_factor(check.demand.quantity)) continue;
    const bool half = check.demand.quantity == standards::Quantity::daylight_over_half;
    numbers.push_back({fmt::format(FMT_STRING("{:.2f} %"), check.actual), half ? "on 50 %" : "on 95 %",
                       fmt::format(FMT_STRING("{:.2f} % required: {}"), check.demand.required,
                                   standards::to_string(check.verdict)),
                       check.verdict != standards::Verdict::met, check.demand.standard});
  }
}

/// Mean, U0, minimum and maximum, each with what is asked of it.
std::vector<PlanFigure::Number> PlanFigure::numbers() const {
  const auto ratio = [](double v) { return fmt::format(FMT_STRING("{:.2f}"), v); };
  const readings::Statistics& s = grid_.statistics;
  if (input_.measure.kind != ShownMeasure::Kind::illuminance) {
    const auto shown = [&](double v) {
      return input_.measure.label(input_.shown(v)) + " " + input_.measure.unit(input_.units);
    };
    const bool kelvin = input_.measure.kind == ShownMeasure::Kind::temperature;
    std::vector<Number> numbers = {{shown(s.min_lx), kelvin ? "warmest" : "least", "", false, ""},
                                   {shown(s.max_lx), kelvin ? "coolest" : "most", "", false, ""}};
    if (!kelvin) numbers.insert(numbers.begin(), {shown(s.mean_lx), "mean", "", false, ""});
    add_factors(numbers);
    return numbers;
  }
  std::vector<Number> numbers = {{with_unit(s.mean_lx), "mean", "", false, ""},
                                 {s.u0 ? ratio(*s.u0) : "-", "U0 = min / mean", "", false, ""},
                                 {with_unit(s.min_lx), "min", "", false, ""},
                                 {with_unit(s.max_lx), "max", "", false, ""}};
  for (const standards::Check& check : room_.assessment.checks) {
    if (!is_of_grid(check) || standards::is_daylight_factor(check.demand.quantity)) continue;
    const bool mean = check.demand.quantity == standards::Quantity::mean_illuminance;
    const bool low = check.demand.quantity == standards::Quantity::minimum_illuminance;
    const bool spread = check.demand.quantity == standards::Quantity::illuminance_ratio;
    Number& number = numbers[mean ? 0 : low ? 2 : spread ? 3 : 1];
    // Of several standards the first, or the first that is not met.
    const bool fails = check.verdict != standards::Verdict::met;
    if (number.failed || (!number.standard.empty() && !fails)) continue;
    number.failed = fails;
    number.standard = check.demand.standard;
    // Of walls and ceiling less than what is shown is judged: without their edges.
    if (spread) {
      number.asked = fmt::format(FMT_STRING("max/min {:.1f}, at most {:g}: {}"), check.actual,
                                 check.demand.required, standards::to_string(check.verdict));
      continue;
    }
    const bool light = mean || low;
    const auto shown = [&](double v) { return light ? with_unit(v) : ratio(v); };
    const std::string judged = shown(check.actual);
    const std::string inner =
        judged == number.value ? std::string() : fmt::format(FMT_STRING(", inner part {}"), judged);
    number.asked = fmt::format(FMT_STRING("{}{} required{}: {}"), shown(check.demand.required),
                               check.demand.certainty == "agreed" ? "" : "*", inner,
                               standards::to_string(check.verdict));
  }
  return numbers;
}

void PlanFigure::title() {
  const std::vector<Number> numbers = this->numbers();
  const auto width = [](const Number& number) {
    return std::max({kSpread, text_width(number.below, 12.5) + 30, text_width(number.asked, 12.5) + 24});
  };
  double total = 0;
  for (const Number& number : numbers) total += width(number);
  double x = std::clamp(kSheetWidth - total, kTitleWidth, kNumbersLeft);
  const double room = x - kSheetLeft - 20;
  for (const Number& number : numbers) {
    const char* ink = number.failed ? kFail : kSheetInk;
    canvas_.text({x, 42}, number.value, {22, "start", ink, true});
    canvas_.text({x, 62}, number.below, {12.5, "start", number.failed ? kFail : kSheetGrey});
    canvas_.text({x, 80}, number.asked, {12.5, "start", number.failed ? kFail : kSheetGrey});
    x += width(number);
  }
  canvas_.text({kSheetLeft, 40}, fitted_text(room_.title(), room, 24, true), {24, "start", kSheetInk, true});
  std::string place = fmt::format(FMT_STRING("{}, {}"), grid_.name, place_words(grid_, input_.units));
  if (room_.moment && input_.measure.kind != ShownMeasure::Kind::year) place += "; " + room_.moment->sky;
  canvas_.text({kSheetLeft, 64}, fitted_text(place, room, 14), {14, "start", kSheetGrey});
  std::string values = fmt::format(FMT_STRING("maintained (factor {:.2f})"), room_.maintenance_factor);
  if (!input_.measure.subject.empty()) values = input_.measure.subject;
  if (several_standards()) {
    std::string by;
    for (const Number& number : numbers)
      if (!number.standard.empty() && by.find(number.standard) == std::string::npos)
        by += (by.empty() ? "; required by " : ", ") + number.standard;
    values += by;
  }
  if (room_.moment && !room_.assessment.year) values = room_.moment->when();
  if (room_.direct_only) values += ", direct light only";
  if (!room_.changed_since.empty()) values = words::older_words(room_);
  canvas_.text({kSheetLeft, 84}, fitted_text(values, room, 12.5),
               {12.5, "start", room_.changed_since.empty() ? kSheetGrey : kFail});
}

double PlanFigure::legend_luminaires(double x, double y) {
  if (luminaires_on(room_, grid_, box_).empty()) return y - 34;
  canvas_.text({x, y}, "Luminaires", {13, "start", kSheetInk, true});
  for (const record::MarkRecord& mark : room_.marks()) {
    y += 20;
    canvas_.text({x, y}, fmt::format(FMT_STRING("{} x {}"), mark.count, mark.mark),
                 {12.5, "start", kSheetInk, true});
    y += 16;
    canvas_.text({x, y}, fitted_text(mark.luminaire, kSheetWidth - x - 10, 12), {12, "start", kSheetGrey});
  }
  return y;
}

/// Zones that daylight moves, on the plane that their sensors are placed on.
std::vector<const studies::ZoneEnergy*> PlanFigure::zones_with_sensors() const {
  std::vector<const studies::ZoneEnergy*> zones;
  if (grid_.role != space::GridRole::work_plane || !room_.energy || !room_.energy->hourly) return zones;
  for (const studies::ZoneEnergy& zone : room_.energy->hourly->zones)
    if (!zone.sensors.empty()) zones.push_back(&zone);
  return zones;
}

/// Rings, so that no number is hidden.
void PlanFigure::draw_sensors(const FlatView& view) {
  for (const studies::ZoneEnergy* zone : zones_with_sensors())
    for (const studies::ZoneEnergy::Sensor& sensor : zone->sensors) {
      const Vec2 at = view.px(sensor.at.xy());
      canvas_.circle(at, kSensorRing, "none", "#ffffff", 4.5);
      canvas_.circle(at, kSensorRing, "none", kSensorInk, 2);
    }
}

/// What each ring's zone is, and what its sensor sees.
double PlanFigure::legend_sensors(double x, double y) {
  const auto zones = zones_with_sensors();
  if (zones.empty()) return y;
  y += 34;
  canvas_.text({x, y}, "Daylight sensors", {13, "start", kSheetInk, true});
  for (const studies::ZoneEnergy* zone : zones) {
    y += 20;
    canvas_.circle({x + 6, y - 4}, 5, "none", kSensorInk, 2);
    canvas_.text({x + 18, y}, fitted_text(zone->name, kSheetWidth - x - 28, 12.5),
                 {12.5, "start", kSheetInk});
    y += 16;
    canvas_.text({x, y}, "sees " + with_unit(zone->sensor_mean_lx) + " on average",
                 {12, "start", kSheetGrey});
  }
  return y;
}

void PlanFigure::legend() {
  const double x = kSheetWidth - kPlanRight + 42;
  double y = draw_scale(canvas_, scale_, input_.measure.title(input_.units), x, kPlanTop + 14, 300);
  y = legend_sensors(x, legend_luminaires(x, y + 34));
  y += 34;
  canvas_.text({x, y}, "Grid", {13, "start", kSheetInk, true});
  const readings::PlaneGrid& grid = grid_.grid;
  const units::ShownUnits& units = input_.units;
  canvas_.text({x, y + 19},
               fmt::format(FMT_STRING("{} points, {:.2f} x {:.2f} {}"), grid.points.size(),
                           units.length(grid.cell.x()), units.length(grid.cell.y()), units.length_unit()),
               {12, "start", kSheetGrey});
  if (grid.inset_m > 0)
    canvas_.text({x, y + 35},
                 fmt::format(FMT_STRING("{:.2f} {} along edges left out"), units.length(grid.inset_m),
                             units.length_unit()),
                 {12, "start", kSheetGrey});
}

}  // namespace

std::string plan_svg(const FigureInput& input, const assess::GridReading& grid) {
  return PlanFigure(input, grid).draw();
}

}  // namespace glow::figures
