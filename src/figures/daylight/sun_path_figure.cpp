#include "figures/daylight/sun_path_figure.hpp"

#include <fmt/format.h>

#include <array>
#include <cmath>

#include "core/daylight/sun.hpp"
#include "figures/curves/curve_style.hpp"
#include "words/topics/daylight_words.hpp"

namespace glow::figures {
namespace {

constexpr double kRadius = 310, kPlan = 150;  // px: of the horizon; of the plan's longer side
constexpr const char *kFree = "#ffffff", *kHidden = "#8d8f94", *kBehind = "#ecebe7";
constexpr const char *kSun = "#d98200", *kOtherDay = "#a9a49a";

std::string date_words(const daylight::SunDay& day) {
  return fmt::format(FMT_STRING("{} {}"), day.day, daylight::kMonths[std::size_t(day.month - 1)]);
}

class SunPath {
 public:
  SunPath(const FigureInput& input, const assess::Outlook& outlook, const assess::SunOnOpening& sun)
      : input_(input), outlook_(outlook), sun_(sun), canvas_(kSheetWidth, kSheetHeight) {}

  std::string draw() {
    title();
    sky();
    plan();
    rings();
    for (const auto& [month, day] : {std::pair(6, 21), std::pair(12, 21)}) {
      daylight::SunDay other = outlook_.day;
      other.month = month;
      other.day = day;
      if (month != outlook_.day.month) way(other, kOtherDay, 1.6);
    }
    way(outlook_.day, kSheetInk, 1.8);
    lit();
    legend();
    return canvas_.bytes();
  }

 private:
  /// A direction on the page: the plan's axes, +y up.
  Vec2 px(const Vec3& towards) const {
    const double altitude = std::asin(std::clamp(towards.z(), -1.0, 1.0)) / kDegree;
    const Vec2 level = towards.xy().normalized();
    return middle_ + kRadius * (90 - altitude) / 90 * Vec2(level.x(), -level.y());
  }
  Vec2 px(double altitude_deg, double from_y_deg) const {
    return middle_ + kRadius * (90 - altitude_deg) / 90 *
                         Vec2(std::sin(from_y_deg * kDegree), -std::cos(from_y_deg * kDegree));
  }
  void title();
  void sky();
  void plan();
  void rings();
  void way(const daylight::SunDay& day, const char* ink, double width);
  void lit();
  void legend();

  const FigureInput& input_;
  const assess::Outlook& outlook_;
  const assess::SunOnOpening& sun_;
  SvgCanvas canvas_;
  Vec2 middle_{410, 450};
};

void SunPath::title() {
  const record::RoomRecord& room = *input_.room;
  canvas_.text({kSheetLeft, 40}, fitted_text(room.title(), 560, 24, true), {24, "start", kSheetInk, true});
  canvas_.text({kSheetLeft, 64},
               fmt::format(FMT_STRING("sky over {}, from {:.2f} {} above the floor"), sun_.opening,
                           input_.units.length(sun_.point.z()), input_.units.length_unit()),
               {14, "start", kSheetGrey});
  canvas_.text({kSheetLeft, 84},
               fmt::format(FMT_STRING("latitude {:g}, longitude {:g}; hours of standard time"),
                           outlook_.day.latitude_deg, outlook_.day.longitude_deg),
               {12.5, "start", kSheetGrey});
  double x = kSheetWidth - 400;
  canvas_.text({x, 42}, fmt::format(FMT_STRING("{:.1f} h"), daylight::hours_of(sun_.intervals)),
               {22, "start", kSheetInk, true});
  canvas_.text({x, 62}, "of sun here on " + date_words(outlook_.day), {12.5, "start", kSheetGrey});
  for (const standards::Check& check : room.assessment.checks)
    if (check.demand.quantity == standards::Quantity::sunlight_hours) {
      const bool met = check.verdict == standards::Verdict::met;
      canvas_.text({x + 200, 42}, fmt::format(FMT_STRING("{:.1f} h"), check.actual),
                   {22, "start", met ? kSheetInk : kFail, true});
      canvas_.text({x + 200, 62}, "by all openings", {12.5, "start", met ? kSheetGrey : kFail});
      canvas_.text(
          {x + 200, 80},
          fmt::format(FMT_STRING("{:g} h required: {}"), check.demand.required, to_string(check.verdict)),
          {12.5, "start", met ? kSheetGrey : kFail});
    }
}

/// Pieces of a ring that look alike are one shape.
void SunPath::sky() {
  using Sun = assess::SunOnOpening;
  canvas_.circle(middle_, kRadius, kFree, "none");
  for (int ring = 0; ring < Sun::kRings; ++ring)
    for (int sector = 0; sector < Sun::kSectors;) {
      const char kind = sun_.sky[std::size_t(ring * Sun::kSectors + sector)];
      int end = sector;
      while (end < Sun::kSectors && sun_.sky[std::size_t(ring * Sun::kSectors + end)] == kind) ++end;
      std::vector<Vec2> shape;
      const double low = ring * Sun::kStep, high = low + Sun::kStep + 0.15;  // no seams
      for (int k = sector; k <= end; ++k) shape.push_back(px(low, k * Sun::kStep));
      for (int k = end; k >= sector; --k) shape.push_back(px(std::min(90.0, high), k * Sun::kStep));
      if (kind != '1') canvas_.path(path_data(shape, true), kind == '0' ? kHidden : kBehind);
      sector = end;
    }
}

/// The room's plan about the zenith, and where the opening is.
void SunPath::plan() {
  const geometry::Box2 box = geometry::bounding_box(input_.room->outline);
  const double scale = kPlan / box.size().maxCoeff();
  const Vec2 centre = (box.low + box.high) / 2;
  const auto at = [&](const Vec2& p) {
    return Vec2(middle_.x() + scale * (p.x() - centre.x()), middle_.y() - scale * (p.y() - centre.y()));
  };
  std::vector<Vec2> outline;
  for (const Vec2& p : input_.room->outline) outline.push_back(at(p));
  canvas_.path(path_data(outline, true), "#ffffff", kSheetGrey, 1.4);
  canvas_.opacity_of_last(0.75);
  for (const space::Opening& opening : input_.room->openings) {
    std::vector<Vec2> line;
    for (const Vec2& p : opening.plan()) line.push_back(at(p));
    const bool own = opening.name == sun_.opening;
    canvas_.path(path_data(line, opening.in_roof), "none", own ? kSun : kSheetGrey, own ? 5 : 2);
  }
}

void SunPath::rings() {
  for (const double altitude : {0.0, 30.0, 60.0}) {
    canvas_.circle(middle_, kRadius * (90 - altitude) / 90, "none", altitude > 0 ? "#c9c6c0" : kSheetInk,
                   altitude > 0 ? 0.8 : 1.6);
    if (altitude > 0)
      canvas_.text(px(altitude, -outlook_.day.north_deg) + Vec2(3, 14),
                   fmt::format(FMT_STRING("{:g}\u00b0"), altitude),
                   {11, "start", kSheetGrey, false, "#ffffff"});
  }
  for (const auto& [name, bearing] : {std::pair("N", 0.0), {"E", 90.0}, {"S", 180.0}, {"W", 270.0}}) {
    const double turn = bearing - outlook_.day.north_deg;
    canvas_.line(px(0, turn), px(-3, turn), kSheetInk, 1.4);
    canvas_.text(px(-7.5, turn) + Vec2(0, 5), name, {16, "middle", kSheetInk, true});
  }
}

void SunPath::way(const daylight::SunDay& day, const char* ink, double width) {
  std::vector<Vec2> points;
  const auto flush = [&] {
    if (points.size() > 1) canvas_.path(path_data(points), "none", ink, width);
    points.clear();
  };
  for (int k = 0; k <= 24 * 12; ++k) {
    daylight::SunDay all = day;
    all.least_altitude_deg = 0;
    const auto sun = all.sun_at(k / 12.0);
    if (!sun) {
      flush();
      continue;
    }
    points.push_back(px(*sun));
    if (k % 12 != 0) continue;
    canvas_.circle(points.back(), 3, "#ffffff", ink, 1.2);
    if (k % 36 == 0)
      canvas_.text(points.back() + Vec2(0, -7), fmt::format(FMT_STRING("{}"), k / 12),
                   {11, "middle", kSheetInk, false, "#ffffff"});
  }
  flush();
}

void SunPath::lit() {
  for (const daylight::Interval& each : sun_.intervals) {
    std::vector<Vec2> points;
    for (double hour = each.from_h; hour < each.to_h; hour += 1.0 / 30)
      if (const auto sun = outlook_.day.sun_at(hour)) points.push_back(px(*sun));
    if (points.size() > 1) canvas_.path(path_data(points), "none", kSun, 5);
  }
}

void SunPath::legend() {
  const double x = kSheetWidth - 400;
  double y = 150;
  const auto entry = [&](const std::string& words) {
    canvas_.text({x + 46, y + 5}, words, {13, "start", kSheetInk});
    y += 30;
  };
  canvas_.line({x, y}, {x + 34, y}, kSun, 5);
  entry("the sun reaches the opening on " + date_words(outlook_.day));
  canvas_.line({x, y}, {x + 34, y}, kSheetInk, 1.8);
  entry("the sun's way on that day");
  canvas_.line({x, y}, {x + 34, y}, kOtherDay, 1.6);
  entry("and on 21 June and 21 December");
  for (const auto& [fill, words] :
       {std::pair(kHidden, "sky that something hides"), {kBehind, "behind the wall"}, {kFree, "free sky"}}) {
    canvas_.rectangle({x, y - 9}, {34, 18}, fill, "#c9c6c0", 1);
    entry(words);
  }
  y += 14;
  canvas_.text({x, y}, "Sun at the opening", {13, "start", kSheetInk, true});
  for (const daylight::Interval& each : sun_.intervals) {
    y += 20;
    canvas_.text({x, y}, words::interval_words({each}), {13, "start", kSheetInk});
  }
  if (sun_.intervals.empty()) canvas_.text({x, y + 20}, "never on this day", {13, "start", kFail});
  if (outlook_.day.least_altitude_deg > 0)
    canvas_.text(
        {x, y + 26},
        fmt::format(FMT_STRING("suns below {:g} deg are not counted"), outlook_.day.least_altitude_deg),
        {12, "start", kSheetGrey});
}

}  // namespace

std::string sun_path_svg(const FigureInput& input, const assess::Outlook& outlook,
                         const assess::SunOnOpening& sun) {
  return SunPath(input, outlook, sun).draw();
}

}  // namespace glow::figures
