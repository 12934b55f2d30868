#include "core/plans/take_plan.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/plans/line_work.hpp"
#include "core/plans/naming.hpp"
#include "core/plans/openings.hpp"
#include "core/plans/outlines.hpp"

namespace glow::plans {
namespace {

double median(std::vector<double> values) {
  if (values.empty()) return 0;
  std::nth_element(values.begin(), values.begin() + std::ptrdiff_t(values.size() / 2), values.end());
  return values[values.size() / 2];
}

void put_in_reading_order(FoundPlan& plan) {
  std::vector<geometry::Polygon> outlines;
  for (const FoundRoom& room : plan.rooms) outlines.push_back(room.outline);
  std::vector<FoundRoom> ordered;
  for (const std::size_t k : reading_order(outlines)) ordered.push_back(std::move(plan.rooms[k]));
  plan.rooms = std::move(ordered);
}

/// Outlines begin at their lower left corner; numbers that are a hair from a whole millimetre are that.
void tidy_outlines(FoundPlan& plan) {
  constexpr double kHair = 2e-5;  // m
  const auto whole = [](double v) {
    const double mm = std::round(v * 1000) / 1000;
    return std::abs(v - mm) < kHair ? mm + 0.0 : v;
  };
  for (FoundRoom& room : plan.rooms) {
    geometry::Polygon& outline = room.outline;
    for (Vec2& p : outline) p = Vec2(whole(p.x()), whole(p.y()));
    const geometry::Box2 box = geometry::bounding_box(outline);
    const auto first = std::min_element(outline.begin(), outline.end(), [&](const Vec2& a, const Vec2& b) {
      return (a - box.low).squaredNorm() < (b - box.low).squaredNorm();
    });
    std::rotate(outline.begin(), first, outline.end());
  }
}

/// The first room that holds a place; -1: none.
int room_at(const FoundPlan& plan, const Vec2& at) {
  for (std::size_t r = 0; r < plan.rooms.size(); ++r)
    if (geometry::contains(plan.rooms[r].outline, at)) return int(r);
  return -1;
}

}  // namespace

std::vector<std::size_t> reading_order(const std::vector<geometry::Polygon>& outlines) {
  struct Entry {
    geometry::Box2 box;
    std::size_t room;
  };
  std::vector<Entry> left;
  for (std::size_t k = 0; k < outlines.size(); ++k) left.push_back({geometry::bounding_box(outlines[k]), k});
  std::sort(left.begin(), left.end(), [](const Entry& a, const Entry& b) {
    return a.box.high.y() != b.box.high.y() ? a.box.high.y() > b.box.high.y() : a.box.low.x() < b.box.low.x();
  });
  std::vector<std::size_t> order;
  for (std::size_t begin = 0; begin < left.size();) {
    const double row_height = left[begin].box.size().y();
    std::size_t end = begin + 1;
    while (end < left.size() && left[end].box.high.y() > left[begin].box.high.y() - 0.5 * row_height) ++end;
    std::sort(left.begin() + std::ptrdiff_t(begin), left.begin() + std::ptrdiff_t(end),
              [](const Entry& a, const Entry& b) { return a.box.low.x() < b.box.low.x(); });
    for (; begin < end; ++begin) order.push_back(left[begin].room);
  }
  return order;
}

FoundPlan take_plan(const Drawing& drawing, const Request& request) {
  FoundPlan plan;
  std::vector<Gap> gaps;
  switch (request.from) {
    case RoomsFrom::outlines:
      rooms_of_outlines(drawing, request, plan);
      break;
    case RoomsFrom::hatches:
      rooms_of_hatches(drawing, request, plan);
      break;
    case RoomsFrom::lines:
      rooms_of_lines(drawing, request, plan);
      break;
    case RoomsFrom::walls:
      gaps = rooms_of_walls(drawing, request, plan);
      break;
  }
  tidy_outlines(plan);
  put_in_reading_order(plan);
  name_rooms(drawing, request, plan);
  place_openings(request, opening_signs(drawing, request), gaps, plan);
  find_things(drawing, request, plan);
  for (FoundLuminaire& luminaire : plan.luminaires) luminaire.room = room_at(plan, luminaire.at);
  for (FoundObject& object : plan.objects) object.room = room_at(plan, mean_point(object.footprint));
  return plan;
}

double median_area(const FoundPlan& plan) {
  std::vector<double> areas;
  for (const FoundRoom& room : plan.rooms) areas.push_back(geometry::signed_area(room.outline));
  return median(std::move(areas));
}

bool has_likely_sizes(const Drawing& drawing, const FoundPlan& plan) {
  constexpr double kSmallest = 0.5, kLargest = 10'000, kSmall = 1.5, kLarge = 1'000;  // m2
  constexpr double kSmallText = 0.02, kLargeText = 1.2;                               // m
  std::vector<double> heights;
  for (const Label& label : drawing.labels)
    if (label.height_m > 0) heights.push_back(label.height_m);
  if (plan.rooms.empty()) return true;
  const double area = median_area(plan), text = median(heights);
  const bool too_large = area > kLargest || (area > kLarge && text > kLargeText);
  const bool too_small = area < kSmallest || (area < kSmall && text > 0 && text < kSmallText);
  return !too_large && !too_small;
}

}  // namespace glow::plans
