#include "core/space/placing/view_placing.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace glow::space {
namespace {

using geometry::Camera, geometry::Projection;
using Kind = model::ViewWish::Kind;

constexpr double kEyeHeight = 1.6;        // m: somebody who stands
constexpr double kLookedAt = 1.0;         // m: where people look at when nothing else is said
constexpr double kInsideDoor = 0.5;       // m
constexpr double kThreshold = 0.3;        // m: one comes in over no more
constexpr double kFromCorner = 0.4;       // m, along both walls or so
constexpr double kOpeningAngle = 70;      // degrees, from left to right
constexpr double kWideAngle = 85;         // the same from a corner
constexpr double kCutawayAzimuth = 235;   // degrees
constexpr double kCutawayElevation = 38;  // degrees above the horizon
constexpr double kAround = 1.04;          // what is left around what has to be in the picture
constexpr double kSamePlace = 1e-3;       // m

Vec3 level(double degrees) {
  return {std::cos(degrees * kDegree), std::sin(degrees * kDegree), 0};
}

class ViewPlacer {
 public:
  ViewPlacer(const Space& space, Problems& problems) : space_(space), problems_(problems) {}

  std::optional<PlannedView> place(const model::ViewWish& wish) {
    PlannedView view{wish.name, to_string(wish.kind), {}};
    view.camera.columns = wish.columns;
    view.camera.rows = wish.rows;
    switch (wish.kind) {
      case Kind::plan:
        from_outside(-Vec3::UnitZ(), view.camera);
        view.camera.right = Vec3::UnitX();
        view.camera.up = Vec3::UnitY();
        take_all_in(view.camera);
        return view;
      case Kind::cutaway: {
        const double rise = std::tan(kCutawayElevation * kDegree);
        from_outside(-(level(wish.azimuth_deg.value_or(kCutawayAzimuth)) + rise * Vec3::UnitZ()),
                     view.camera);
        take_all_in(view.camera);
        return view;
      }
      case Kind::elevation:
        return elevation(wish, view);
      case Kind::perspective:
      case Kind::panorama:
        break;
    }
    return from_an_eye(wish, view);
  }

  std::vector<PlannedView> sensible_ones();

 private:
  std::optional<PlannedView> elevation(const model::ViewWish& wish, PlannedView& view);
  std::optional<PlannedView> from_an_eye(const model::ViewWish& wish, PlannedView& view);
  std::optional<Vec3> eye_of(const model::ViewWish& wish, std::optional<Vec3>& sight);
  std::optional<Vec3> target_of(const model::ViewWish& wish);
  bool is_in_the_way(const Vec3& eye, std::string& what) const;
  static void from_outside(const Vec3& along, Camera& camera) {
    camera.projection = Projection::parallel;
    camera.from_outside = true;
    look_along(along, camera);
  }
  void take_all_in(Camera& camera) const;
  Vec3 middle() const;
  Vec3 inside_of(const Opening& opening) const {
    Vec3 at = opening.middle() - kInsideDoor * opening.outwards;
    at.z() = std::min(kEyeHeight, 0.9 * space_.height_m);
    return at;
  }
  std::vector<Vec3> corners_inside() const;
  void no_such(const Place& place, const char* key, const std::string& name,
               const std::vector<std::string>& names, const char* what);

  const Space& space_;
  Problems& problems_;
};

/// Near the middle of the floor, on it: of an L the point of it that is nearest to the middle of its outline.
Vec3 ViewPlacer::middle() const {
  Vec2 mean = Vec2::Zero();
  for (const Vec2& p : space_.outline) mean += p / double(space_.outline.size());
  if (geometry::contains(space_.outline, mean)) return {mean.x(), mean.y(), 0};
  Vec2 best = space_.outline.front();
  for (std::size_t i = 0; i < space_.outline.size(); ++i)
    for (std::size_t j = i + 1; j < space_.outline.size(); ++j) {
      const Vec2 between = (space_.outline[i] + space_.outline[j]) / 2;
      if (geometry::contains(space_.outline, between) && (between - mean).norm() < (best - mean).norm())
        best = between;
    }
  return {best.x(), best.y(), 0};
}

/// Moves and sizes a parallel camera so that the whole room is in the picture.
void ViewPlacer::take_all_in(Camera& camera) const {
  Vec2 low = Vec2::Constant(1e9), high = -low;
  double nearest = 1e9;
  for (const Vec2& p : space_.outline)
    for (const double z : {0.0, space_.height_m}) {
      const Vec3 corner = space_.ground.raised({p.x(), p.y(), z});
      const Vec2 seen(corner.dot(camera.right), corner.dot(camera.up));
      low = low.cwiseMin(seen);
      high = high.cwiseMax(seen);
      nearest = std::min(nearest, corner.dot(camera.forward));
    }
  const Vec2 half = kAround * (high - low) / 2, mean = (high + low) / 2;
  camera.half_width = std::max(half.x(), half.y() * camera.columns / camera.rows);
  camera.eye = mean.x() * camera.right + mean.y() * camera.up + (nearest - 1) * camera.forward;
}

void ViewPlacer::no_such(const Place& place, const char* key, const std::string& name,
                         const std::vector<std::string>& names, const char* what) {
  const std::string near = nearest_word(name, names);
  problems_.error(
      "P100", place,
      fmt::format(FMT_STRING("\"{}\" is \"{}\"; {}expected a point [x, y, z], or the name of {}"), key, name,
                  near.empty() ? "" : fmt::format(FMT_STRING("did you mean \"{}\"? "), near), what));
}

std::optional<PlannedView> ViewPlacer::elevation(const model::ViewWish& wish, PlannedView& view) {
  for (std::size_t w = 0; w < space_.wall_names.size(); ++w) {
    if (space_.wall_names[w] != wish.to) continue;
    const Vec2 along = space_.outline[(w + 1) % space_.outline.size()] - space_.outline[w];
    from_outside(Vec3(along.y(), -along.x(), 0), view.camera);
    take_all_in(view.camera);
    return view;
  }
  no_such(wish.to_place, "to", wish.to, space_.wall_names, "a wall");
  return std::nullopt;
}

bool ViewPlacer::is_in_the_way(const Vec3& eye, std::string& what) const {
  if ((!space_.outdoors && !geometry::contains(space_.outline, eye.xy())) ||
      eye.z() <= space_.ground.height(eye.xy()) || (space_.roofed && eye.z() >= space_.height_m)) {
    what.clear();
    return true;
  }
  for (const PlanShape& object : space_.objects)
    if (object.solid && object.extent.holds(eye)) {
      what = object.name;
      return true;
    }
  return false;
}

std::optional<Vec3> ViewPlacer::eye_of(const model::ViewWish& wish, std::optional<Vec3>& sight) {
  if (wish.from_at) return space_.ground.raised(*wish.from_at);
  std::vector<std::string> names;
  for (const EyeSet& eyes : space_.eyes) {
    if (eyes.cell_m || eyes.positions.empty()) continue;
    names.push_back(eyes.name);
    if (eyes.name != wish.from) continue;
    sight = eyes.sight(0);
    return eyes.positions.front();
  }
  for (const Opening& opening : space_.openings) {
    names.push_back(opening.name);
    if (opening.name == wish.from) return inside_of(opening);
  }
  if (wish.from.empty())
    problems_.error("P100", wish.place,
                    fmt::format(FMT_STRING("\"{}\" needs \"from\": a point [x, y, z], or the name of eyes or "
                                           "an opening"),
                                wish.name));
  else
    no_such(wish.from_place, "from", wish.from, names, "somebody's eyes or an opening");
  return std::nullopt;
}

std::optional<Vec3> ViewPlacer::target_of(const model::ViewWish& wish) {
  if (wish.to_at) return space_.ground.raised(*wish.to_at);
  std::vector<std::string> names;
  for (const PlanShape& object : space_.objects) {
    names.push_back(object.name);
    if (object.name != wish.to) continue;
    Vec2 mean = Vec2::Zero();
    for (const Vec2& p : object.extent.plan) mean += p / double(object.extent.plan.size());
    return Vec3(mean.x(), mean.y(), (object.extent.bottom_m + object.extent.top_m) / 2);
  }
  for (const Opening& opening : space_.openings) {
    names.push_back(opening.name);
    if (opening.name == wish.to) return opening.middle();
  }
  for (std::size_t w = 0; w < space_.wall_names.size(); ++w) {
    names.push_back(space_.wall_names[w]);
    if (space_.wall_names[w] != wish.to) continue;
    const Vec2 mean = (space_.outline[w] + space_.outline[(w + 1) % space_.outline.size()]) / 2;
    return space_.ground.raised({mean.x(), mean.y(), std::min(kEyeHeight, space_.height_m / 2)});
  }
  no_such(wish.to_place, "to", wish.to, names, "an object, an opening or a wall");
  return std::nullopt;
}

std::optional<PlannedView> ViewPlacer::from_an_eye(const model::ViewWish& wish, PlannedView& view) {
  std::optional<Vec3> sight;
  const auto eye = eye_of(wish, sight);
  if (!eye) return std::nullopt;
  std::string what;
  if (is_in_the_way(*eye, what)) {
    problems_.error(
        "P101", wish.from_place,
        fmt::format(
            FMT_STRING("the eye of \"{}\" lies {}; expected a place in the open room"), wish.name,
            what.empty() ? "outside the room, or in a wall" : fmt::format(FMT_STRING("in \"{}\""), what)));
    return std::nullopt;
  }
  Vec3 target = space_.ground.raised(middle() + kLookedAt * Vec3::UnitZ());
  if (!wish.to.empty() || wish.to_at) {
    const auto named = target_of(wish);
    if (!named) return std::nullopt;
    target = *named;
  } else if (sight) {
    target = *eye + *sight;
  }
  if ((target - *eye).norm() < kSamePlace) {
    problems_.error("P102", wish.to_place,
                    fmt::format(FMT_STRING("the eye of \"{}\" looks at itself; expected \"to\" at another "
                                           "place than \"from\""),
                                wish.name));
    return std::nullopt;
  }
  view.camera.eye = *eye;
  view.camera.half_width = std::tan(wish.angle_deg.value_or(kOpeningAngle) / 2 * kDegree);
  if (wish.kind == Kind::panorama) {
    view.camera.projection = Projection::panorama;
    target.z() = eye->z();
    if ((target - *eye).norm() < kSamePlace) target.x() += 1;
  }
  look_along(target - *eye, view.camera);
  return view;
}

/// Places near the corners from which a room can be looked at, the farthest from the first ones last.
std::vector<Vec3> ViewPlacer::corners_inside() const {
  std::vector<Vec3> places;
  const std::size_t n = space_.outline.size();
  for (std::size_t i = 0; i < n; ++i) {
    const Vec2 &before = space_.outline[(i + n - 1) % n], &at = space_.outline[i],
               &after = space_.outline[(i + 1) % n];
    const Vec2 in = (after - at).normalized() + (before - at).normalized();
    const Vec2 place = at + kFromCorner * in;
    const Vec3 eye =
        space_.ground.raised({place.x(), place.y(), std::min(kEyeHeight, 0.9 * space_.height_m)});
    std::string what;
    if (!is_in_the_way(eye, what)) places.push_back(eye);
  }
  return places;
}

std::vector<PlannedView> ViewPlacer::sensible_ones() {
  std::vector<PlannedView> views;
  const Vec3 target = space_.ground.raised(middle() + kLookedAt * Vec3::UnitZ());
  const auto add = [&](const std::string& name, const Vec3& eye, const Vec3& to) {
    if ((to - eye).xy().norm() < kSamePlace) return;
    PlannedView view{name, "perspective", {}};
    view.camera.eye = eye;
    view.camera.half_width = std::tan(kWideAngle / 2 * kDegree);
    look_along(to - eye, view.camera);
    views.push_back(std::move(view));
  };
  std::vector<Vec3> corners = corners_inside();
  std::optional<Vec3> first;
  std::string what, name = "from the door";
  for (const Opening& opening : space_.openings)
    if (!first && !opening.in_roof && opening.bottom_m() < kThreshold &&
        !is_in_the_way(inside_of(opening), what))
      first = inside_of(opening);
  if (!first && !corners.empty()) {
    name = "from a corner";
    first = *std::max_element(corners.begin(), corners.end(), [&](const Vec3& a, const Vec3& b) {
      return (a - target).norm() < (b - target).norm() - kSamePlace;
    });
  }
  if (first) {
    add(name, *first, target);
    const auto far = std::max_element(corners.begin(), corners.end(), [&](const Vec3& a, const Vec3& b) {
      return (a - *first).norm() < (b - *first).norm() - kSamePlace;
    });
    if (far != corners.end()) add("from the far end", *far, target);
  }
  for (const Kind kind : {Kind::cutaway, Kind::plan}) {
    model::ViewWish wish;
    wish.kind = kind;
    wish.name = kind == Kind::plan ? "plan" : "from above";
    views.push_back(*place(wish));
  }
  return views;
}

}  // namespace

std::vector<PlannedView> place_views(const model::Room& room, const Space& space, Problems& problems) {
  ViewPlacer placer(space, problems);
  if (room.views.empty()) return placer.sensible_ones();
  std::vector<PlannedView> views;
  for (const model::ViewWish& wish : room.views)
    if (auto view = placer.place(wish)) views.push_back(std::move(*view));
  return views;
}

}  // namespace glow::space
