#include "figures/glare_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "figures/curves/curve_style.hpp"
#include "figures/flat/bare_plan.hpp"

namespace glow::figures {
namespace {

constexpr double kGlareLeft = 28, kGlareTop = 96, kGlareRight = 196, kGlareBottom = 20;
constexpr double kGlareHead = 34, kGlareGap = 26;  // px above a panel, and between panels
constexpr double kMostSeatPixels = 160;
constexpr const char* kNothing = "#ffffff";                             // eyes that nothing glares at
constexpr double kLeastForValue = 19;                                   // px of a cell that a value fits into
constexpr double kLeastForArrow = 34;                                   // the same with an arrow under it
constexpr double kSightLength = 54;                                     // px of a seat's line of sight
constexpr std::array<double, 7> kSteps = {10, 13, 16, 19, 22, 25, 28};  // RUGL, EN 12464-1

ColourScale ugr_scale() {
  ColourScale scale;
  scale.levels.assign(kSteps.begin(), kSteps.end());
  colour_bands(scale);
  return scale;
}

/// The limit of UGR at these eyes, the strictest of several.
std::optional<double> limit_of(const record::RoomRecord& room, const assess::EyeSetGlare& eyes) {
  std::optional<double> limit;
  for (const standards::Check& check : room.assessment.checks)
    if (check.demand.quantity == standards::Quantity::unified_glare &&
        check.target.kind == standards::Target::Kind::eyes &&
        &room.assessment.glare.sets[check.target.id] == &eyes)
      limit = std::min(limit.value_or(check.demand.required), check.demand.required);
  return limit;
}

std::string ugr_words(double value) {
  return fmt::format(FMT_STRING("{:.1f}"), value);
}

/// Direction on the drawing, y downwards.
Vec2 on_paper(double azimuth_deg) {
  return {std::cos(azimuth_deg * kDegree), -std::sin(azimuth_deg * kDegree)};
}

void arrow(SvgCanvas& canvas, const Vec2& from, const Vec2& way, double length, const char* colour,
           double width) {
  const Vec2 tip = from + length * way, side(-way.y(), way.x());
  const double head = std::min(9.0, length / 2);
  canvas.line(from, tip - 0.6 * head * way, colour, width);
  canvas.path(
      path_data({tip, tip - head * way + 0.45 * head * side, tip - head * way - 0.45 * head * side}, true),
      colour);
}

/// The bands, what is outlined, and what is blank.
void draw_key(SvgCanvas& canvas, const ColourScale& scale, const std::optional<double>& limit, bool map) {
  const double x = kSheetWidth - kGlareRight + 40;
  double y = kGlareTop + 24;
  canvas.text({x, y - 14}, "UGR", {13, "start", kSheetInk, true});
  for (std::size_t k = scale.colours.size(); k-- > 0;) {
    canvas.rectangle({x, y}, {34, 26}, scale.colours[k].c_str(), "#ffffff", 1);
    if (k > 0)
      canvas.text({x + 42, y + 30}, fmt::format(FMT_STRING("{:g}"), scale.levels[k - 1]),
                  {12, "start", kSheetInk});
    y += 26;
  }
  y += 22;
  if (limit && map) {
    canvas.rectangle({x + 2, y}, {30, 20}, "none", kFail, 2.4);
    canvas.text({x + 42, y + 14}, fmt::format(FMT_STRING("above {:g}"), *limit), {12, "start", kSheetInk});
    y += 34;
  }
  if (!map) canvas.text({x, y + 4}, "-  nothing glares", {12, "start", kSheetInk});
  if (map) {
    canvas.rectangle({x, y}, {34, 22}, kNothing, "#c9c6c0", 1);
    canvas.text({x + 17, y + 15}, "-", {12, "middle", kSheetGrey});
    canvas.text({x + 42, y + 15}, "nothing glares", {12, "start", kSheetInk});
    y += 32;
    canvas.rectangle({x, y}, {34, 22}, kBlank, "#c9c6c0", 1);
    canvas.text({x + 42, y + 15}, "no eyes here", {12, "start", kSheetInk});
    y += 40;
    canvas.circle({x + 8, y + 8}, 5, "#ffffff", kSheetInk, 1.6);
    arrow(canvas, {x + 13, y + 8}, {1, 0}, 20, kSheetInk, 1.8);
    canvas.text({x + 42, y + 12}, "the worst view", {12, "start", kSheetInk});
  }
}

class GlareMap {
 public:
  GlareMap(const FigureInput& input, const assess::EyeSetGlare& eyes)
      : input_(input),
        eyes_(eyes),
        canvas_(kSheetWidth, kSheetHeight),
        scale_(ugr_scale()),
        limit_(limit_of(*input.room, eyes)) {
    size_ = geometry::bounding_box(input.room->outline).size();
    worst_ = eyes.worst;
  }

  std::string draw() {
    title();
    draw_key(canvas_, scale_, limit_, true);
    const int count = int(eyes_.set.looking.size());
    int columns = 1;
    double best = 0;
    for (int c = 1; c <= count; ++c) {
      const int rows = (count + c - 1) / c;
      const double across = (kSheetWidth - kGlareLeft - kGlareRight - (c - 1) * kGlareGap) / c / size_.x();
      const double down =
          (kSheetHeight - kGlareTop - kGlareBottom - (rows - 1) * kGlareGap - rows * kGlareHead) / rows /
          size_.y();
      const double fits = std::min({across, down, kMostSeatPixels});
      if (fits > best) columns = c;
      best = std::max(best, fits);
    }
    for (int d = 0; d < count; ++d) {
      const Vec2 corner(kGlareLeft + d % columns * (size_.x() * best + kGlareGap),
                        kGlareTop + d / columns * (size_.y() * best + kGlareHead + kGlareGap) + kGlareHead);
      panel(std::size_t(d), corner, best);
    }
    return canvas_.bytes();
  }

 private:
  void title();
  void panel(std::size_t direction, const Vec2& corner, double pixels_per_m);
  void cell(const BarePlan& plan, std::size_t view, const Vec2& size);
  void value(const BarePlan& plan, std::size_t view, const Vec2& size, bool with_arrow);
  void sight(const BarePlan& plan, std::size_t view, const Vec2& size);

  const FigureInput& input_;
  const assess::EyeSetGlare& eyes_;
  SvgCanvas canvas_;
  ColourScale scale_;
  std::optional<double> limit_;
  std::optional<std::size_t> worst_;
  Vec2 size_;
};

void GlareMap::title() {
  const units::ShownUnits& units = input_.units;
  canvas_.text({kGlareLeft, 40}, fitted_text(input_.room->title(), 640, 24, true),
               {24, "start", kSheetInk, true});
  canvas_.text({kGlareLeft, 66},
               fitted_text(fmt::format(FMT_STRING("UGR of {}, at {:.1f} {}; luminaires as new"),
                                       eyes_.set.name, units.length(eyes_.set.height_m), units.length_unit()),
                           640, 14),
               {14, "start", kSheetGrey});
  draw_older(canvas_, *input_.room, {kGlareLeft, 86});
  if (!worst_) return;
  const bool failed = limit_ && *eyes_.views[*worst_].ugr > *limit_;
  std::size_t above = 0, rated = 0;
  for (const assess::ViewGlare& view : eyes_.views) {
    rated += view.ugr.has_value();
    above += view.ugr && limit_ && *view.ugr > *limit_;
  }
  canvas_.text({700, 42}, ugr_words(*eyes_.views[*worst_].ugr),
               {22, "start", failed ? kFail : kSheetInk, true});
  canvas_.text(
      {700, 64},
      limit_ ? fmt::format(FMT_STRING("worst view; limit {:g}"), *limit_) : std::string("worst view"),
      {12.5, "start", failed ? kFail : kSheetGrey});
  if (!limit_) return;
  canvas_.text({900, 42}, fmt::format(FMT_STRING("{} of {}"), above, rated), {22, "start", kSheetInk, true});
  canvas_.text({900, 64}, "views above the limit", {12.5, "start", kSheetGrey});
}

void GlareMap::cell(const BarePlan& plan, std::size_t view, const Vec2& size) {
  const std::size_t place = view / eyes_.set.looking.size();
  const Vec2 middle = plan.px(eyes_.set.positions[place].xy());
  if (!eyes_.views[view].ugr) {
    if (place >= eyes_.buried.size() || !eyes_.buried[place])
      canvas_.rectangle(middle - size / 2 + Vec2(0.5, 0.5), size - Vec2(1, 1), kNothing, "#dedbd4", 1);
    return;
  }
  const double value = *eyes_.views[view].ugr;
  const std::size_t band = scale_.band(value);
  const Vec2 centre = plan.px(eyes_.set.positions[view / eyes_.set.looking.size()].xy());
  canvas_.rectangle(centre - size / 2, size + Vec2(0.4, 0.4), scale_.colours[band].c_str());
  if (limit_ && value > *limit_)
    canvas_.rectangle(centre - size / 2 + Vec2(1.5, 1.5), size - Vec2(3, 3), "none", kFail, 2.2);
}

void GlareMap::value(const BarePlan& plan, std::size_t view, const Vec2& size, bool with_arrow) {
  if (view == worst_) return;
  if (!eyes_.views[view].ugr) {
    const std::size_t place = view / eyes_.set.looking.size();
    if (place >= eyes_.buried.size() || !eyes_.buried[place])
      canvas_.text(plan.px(eyes_.set.positions[place].xy()) + Vec2(0, 4), "-", {10.5, "middle", kSheetGrey});
    return;
  }
  if (size.x() < kLeastForValue + 6 || size.y() < kLeastForValue - 4) return;
  const std::size_t band = scale_.band(*eyes_.views[view].ugr);
  const Vec2 middle = plan.px(eyes_.set.positions[view / eyes_.set.looking.size()].xy());
  const Vec2 letters(std::min(27.0, size.x() - 5), 12);  // outlines of luminaires give way to them
  canvas_.rectangle(middle + Vec2(0, with_arrow ? -8 : 0) - letters / 2, letters,
                    scale_.colours[band].c_str());
  canvas_.text(middle + Vec2(0, with_arrow ? -4 : 4), ugr_words(*eyes_.views[view].ugr),
               {10.5, "middle", scale_.dark_text(band) ? kSheetInk : "#ffffff"});
}

/// The line of sight of the worst view; of others under their value, where there is room for it.
void GlareMap::sight(const BarePlan& plan, std::size_t view, const Vec2& size) {
  const Vec2 centre = plan.px(eyes_.set.positions[view / eyes_.set.looking.size()].xy());
  const Vec2 way = on_paper(eyes_.set.azimuths_deg[view]);
  if (view == worst_) {
    canvas_.circle(centre, 5, "#ffffff", kSheetInk, 1.6);
    arrow(canvas_, centre + 5 * way, way, 20, kSheetInk, 1.8);
  } else if (size.minCoeff() >= kLeastForArrow) {
    const bool light = eyes_.views[view].ugr && !scale_.dark_text(scale_.band(*eyes_.views[view].ugr));
    arrow(canvas_, centre + Vec2(0, 9) - 7 * way, way, 14, light ? "#ffffff" : kSheetInk, 1.2);
  }
}

void GlareMap::panel(std::size_t direction, const Vec2& corner, double pixels_per_m) {
  const std::size_t directions = eyes_.set.looking.size();
  const bool each_its_own = eyes_.set.looking[direction].rfind("to ", 0) == 0;
  std::optional<double> most;
  for (std::size_t p = 0; p < eyes_.set.positions.size(); ++p)
    if (const auto& value = eyes_.views[p * directions + direction].ugr)
      most = std::max(most.value_or(*value), *value);
  if (!each_its_own) {
    const Vec2 way = on_paper(eyes_.set.azimuths_deg[direction]);
    arrow(canvas_, corner + Vec2(14, -17) - 11 * way, way, 22, kSheetInk, 2.4);
  }
  canvas_.text(corner + Vec2(each_its_own ? 0 : 34, -12),
               fmt::format(FMT_STRING("looking {}{}"), eyes_.set.looking[direction],
                           most ? fmt::format(FMT_STRING(", worst {:.1f}"), *most) : std::string()),
               {13, "start", kSheetInk, true});
  BarePlan plan(canvas_, *input_.room, geometry::bounding_box(input_.room->outline),
                corner + Vec2(0, size_.y() * pixels_per_m), pixels_per_m);
  plan.ground();
  for (std::size_t p = 0; p < eyes_.set.positions.size(); ++p)
    cell(plan, p * directions + direction, *eyes_.set.cell_m * pixels_per_m);
  plan.overlay(false);
  for (std::size_t p = 0; p < eyes_.set.positions.size(); ++p)
    value(plan, p * directions + direction, *eyes_.set.cell_m * pixels_per_m,
          each_its_own && (*eyes_.set.cell_m * pixels_per_m).minCoeff() >= kLeastForArrow);
  for (std::size_t p = 0; p < eyes_.set.positions.size(); ++p) {
    const std::size_t view = p * directions + direction;
    if (view == worst_ || each_its_own) sight(plan, view, *eyes_.set.cell_m * pixels_per_m);
  }
}

}  // namespace

std::string glare_map_svg(const FigureInput& input, const assess::EyeSetGlare& eyes) {
  return GlareMap(input, eyes).draw();
}

std::string seats_svg(const FigureInput& input, const std::vector<const assess::EyeSetGlare*>& seats) {
  SvgCanvas canvas(kSheetWidth, kSheetHeight);
  const ColourScale scale = ugr_scale();
  const Vec2 size = geometry::bounding_box(input.room->outline).size();
  const double pixels_per_m =
      std::min({(kSheetWidth - kGlareLeft - kGlareRight) / size.x(),
                (kSheetHeight - kGlareTop - kGlareBottom) / size.y(), kMostSeatPixels});
  canvas.text({kGlareLeft, 40}, fitted_text(input.room->title(), kSheetWidth - 2 * kGlareLeft, 24, true),
              {24, "start", kSheetInk, true});
  std::optional<double> strictest;
  for (const assess::EyeSetGlare* seat : seats)
    if (const auto limit = limit_of(*input.room, *seat))
      strictest = std::min(strictest.value_or(*limit), *limit);
  canvas.text({kGlareLeft, 66},
              "UGR of people at their places; luminaires as new" +
                  (strictest ? fmt::format(FMT_STRING("; limit {:g}"), *strictest) : std::string()),
              {14, "start", kSheetGrey});
  draw_older(canvas, *input.room, {kGlareLeft, 86});
  draw_key(canvas, scale, std::nullopt, false);
  const double left = kGlareLeft + (kSheetWidth - kGlareLeft - kGlareRight - size.x() * pixels_per_m) / 2;
  BarePlan plan(canvas, *input.room, geometry::bounding_box(input.room->outline),
                {left, kGlareTop + size.y() * pixels_per_m}, pixels_per_m);
  plan.ground();
  plan.overlay(true);
  for (const assess::EyeSetGlare* seat : seats) {
    const Vec2 eye = plan.px(seat->set.positions.front().xy());
    const auto limit = limit_of(*input.room, *seat);
    for (std::size_t d = 0; d < seat->set.looking.size(); ++d) {
      const Vec2 way = on_paper(seat->set.azimuths_deg[d]);
      const auto& value = seat->views[d].ugr;
      const char* ink = value && limit && *value > *limit ? kFail : kSheetInk;
      arrow(canvas, eye + 8 * way, way, kSightLength, ink, 2.4);
      const Vec2 at = (eye + (kSightLength + 30) * way)
                          .cwiseMax(Vec2(22, 90))
                          .cwiseMin(Vec2(kSheetWidth - kGlareRight + 20, kSheetHeight - 14));
      const std::string fill = value ? scale.colours[scale.band(*value)] : std::string(kBlank);
      canvas.rectangle(at - Vec2(20, 11), {40, 22}, fill.c_str(), ink, 1.4);
      canvas.text(
          at + Vec2(0, 5), value ? ugr_words(*value) : "-",
          {13, "middle", !value || scale.dark_text(scale.band(*value)) ? kSheetInk : "#ffffff", true});
    }
    canvas.circle(eye, 8, "#ffffff", kSheetInk, 2.2);
    canvas.circle(eye, 3, kSheetInk, "none");
    // On the side that nobody looks to.
    const bool down = std::any_of(seat->set.azimuths_deg.begin(), seat->set.azimuths_deg.end(),
                                  [](double azimuth) { return on_paper(azimuth).y() > 0.4; });
    const double half = text_width(seat->set.name, 12.5) / 2;
    const double x = std::clamp(eye.x(), half + 4, std::max(half + 4, kSheetWidth - kGlareRight + 30 - half));
    canvas.text({x, std::clamp(eye.y() + (down ? -16 : 24), 90.0, kSheetHeight - 6)}, seat->set.name,
                {12.5, "middle", kSheetInk, true, "#ffffff"});
  }
  return canvas.bytes();
}

}  // namespace glow::figures
