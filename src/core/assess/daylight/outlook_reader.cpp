#include "core/assess/daylight/outlook_reader.hpp"

#include <algorithm>
#include <cmath>

#include "core/daylight/sun.hpp"
#include "core/standards/daylight_rules.hpp"

namespace glow::assess {
namespace {

using space::Opening;

constexpr double kHair = 2 * geometry::kStartOffset;  // m before and behind a pane
constexpr double kFarGround = 20;                     // m: the ground beyond it belongs to the landscape
constexpr double kAngleStep = 0.5;                    // degrees
constexpr int kPlacesAside = 8, kPlacesUp = 8;        // on an opening that is looked through
constexpr int kAcross = 9;                            // places from which distances are measured

/// Openings that can be looked through.
std::vector<const Opening*> clear_openings(const space::Space& space) {
  std::vector<const Opening*> list;
  for (const Opening& opening : space.openings)
    if (opening.glazing.at_normal > 0) list.push_back(&opening);
  return list;
}

/// A point of a pane; x and y are shares of its sides.
Vec3 on_pane(const Opening& opening, double x, double y) {
  const std::vector<Vec3>& c = opening.corners;
  return c[0] + x * (c[1] - c[0]) + y * (c[3] - c[0]);
}

/// Where EN 17037 counts sunlight: at the middle of its width, above floor and sill.
Vec3 sun_point(const Opening& opening) {
  if (opening.in_roof) return opening.middle();
  const double height = opening.top_m() - opening.bottom_m();
  const double z = std::max(standards::kSunPointFloor, opening.bottom_m() + standards::kSunPointSill);
  return on_pane(opening, 0.5, std::clamp((z - opening.bottom_m()) / height, 0.0, 1.0));
}

/// See SunOnOpening::sky.
std::string sky_from(const Vec3& from, const Vec3& outwards, const sources::Outdoors& outdoors) {
  std::string sky;
  for (int ring = 0; ring < SunOnOpening::kRings; ++ring)
    for (int sector = 0; sector < SunOnOpening::kSectors; ++sector) {
      const Vec3 towards =
          daylight::direction_of((ring + 0.5) * SunOnOpening::kStep, (sector + 0.5) * SunOnOpening::kStep);
      sky += towards.dot(outwards) <= 0 ? '-' : outdoors.sees_sun(from, towards) ? '1' : '0';
    }
  return sky;
}

/// The value that a share of them reaches.
double reached(std::vector<double> values, double share) {
  if (values.empty()) return 0;
  std::sort(values.rbegin(), values.rend());
  return values[std::size_t(std::ceil(share * double(values.size()) - 1e-9)) - 1];
}

class Looking {
 public:
  Looking(const Setting& setting, const lighting::Daylight& by_day)
      : setting_(setting), outdoors_(by_day.outdoors()), openings_(clear_openings(setting.space())) {}

  ViewOut look(const Watch& watch) const;

 private:
  struct Seen {
    double angle_deg = 0;
    bool sky = false, landscape = false, ground = false;
  };
  std::vector<Vec3> eyes() const;
  bool sees(const Vec3& eye, const Vec3& at, const Opening& opening) const {
    return setting_.transport().tracer().passed(eye, at - kHair * opening.outwards) > 0;
  }
  double angle_from(const Vec3& eye) const;
  void look_through(const Vec3& eye, const Opening& opening, Seen& seen) const;
  double distance_before(const Opening& opening) const;

  const Setting& setting_;
  const sources::Outdoors& outdoors_;
  std::vector<const Opening*> openings_;
};

std::vector<Vec3> Looking::eyes() const {
  std::vector<Vec3> eyes;
  for (std::size_t g = 0; g < setting_.space().grids.size(); ++g) {
    if (setting_.space().grids[g].role != space::GridRole::daylight_plane) continue;
    for (const Vec3& p : setting_.space().grids[g].grid.points)
      eyes.emplace_back(p.x(), p.y(), standards::kDaylightEye);
  }
  return eyes;
}

/// All around, in plan: the directions that lead out.
double Looking::angle_from(const Vec3& eye) const {
  double angle = 0;
  for (double a = kAngleStep / 2; a < 360; a += kAngleStep) {
    const Vec2 way(std::cos(a * kDegree), std::sin(a * kDegree));
    for (const Opening* opening : openings_) {
      if (opening->in_roof) continue;
      const Vec2 from = opening->corners[0].xy(), side = opening->corners[1].xy() - from;
      const double across = way.x() * side.y() - way.y() * side.x();
      if (std::abs(across) < 1e-12 || way.dot(opening->outwards.xy()) <= 0) continue;
      const Vec2 to = from - eye.xy();
      const double distance = (to.x() * side.y() - to.y() * side.x()) / across;
      const double share = (to.x() * way.y() - to.y() * way.x()) / across;
      if (distance <= 0 || share < 0 || share > 1) continue;
      const double z = std::clamp(eye.z(), opening->bottom_m() + kHair, opening->top_m() - kHair);
      const Vec2 at = eye.xy() + distance * way;
      if (!sees(eye, {at.x(), at.y(), z}, *opening)) continue;
      angle += kAngleStep;
      break;
    }
  }
  return angle;
}

void Looking::look_through(const Vec3& eye, const Opening& opening, Seen& seen) const {
  for (int i = 0; i < kPlacesAside; ++i)
    for (int j = 0; j < kPlacesUp; ++j) {
      const Vec3 at = on_pane(opening, (i + 0.5) / kPlacesAside, (j + 0.5) / kPlacesUp);
      const Vec3 way = (at - eye).normalized();
      if (way.dot(opening.outwards) <= 0 || !sees(eye, at, opening)) continue;
      const std::int32_t target = outdoors_.seen(at + kHair * opening.outwards, way);
      if (target < 0) continue;
      if (target < outdoors_.ground())
        seen.sky = true;
      else if (target > outdoors_.ground())
        seen.landscape = seen.landscape || outdoors_.is_surroundings(target);
      else if (eye.z() * way.xy().norm() > kFarGround * -way.z())
        seen.landscape = true;
      else
        seen.ground = true;
    }
}

/// The least of what lies straight before it.
double Looking::distance_before(const Opening& opening) const {
  const double height = opening.top_m() - opening.bottom_m();
  const double y = std::clamp((standards::kDaylightEye - opening.bottom_m()) / height, 0.02, 0.98);
  double least = ViewOut::kOpen;
  for (int k = 0; k < kAcross; ++k)
    least = std::min(least,
                     outdoors_.distance(on_pane(opening, (k + 0.5) / kAcross, y) + kHair * opening.outwards,
                                        opening.outwards));
  return least;
}

ViewOut Looking::look(const Watch& watch) const {
  const std::vector<Vec3> eyes = this->eyes();
  std::vector<Seen> seen(eyes.size());
  parallel_for(eyes.size(), watch, "view out", [&](std::size_t e) {
    seen[e].angle_deg = angle_from(eyes[e]);
    for (const Opening* opening : openings_) look_through(eyes[e], *opening, seen[e]);
  });
  ViewOut view;
  std::vector<double> angles, layers;
  for (const Seen& each : seen) {
    angles.push_back(each.angle_deg);
    layers.push_back(each.landscape ? 1 + each.sky + each.ground : 0);
    view.sky += double(each.sky) / double(seen.size());
    view.landscape += double(each.landscape) / double(seen.size());
    view.ground += double(each.ground) / double(seen.size());
  }
  view.angle_deg = reached(angles, standards::kViewShare);
  view.layers = reached(layers, standards::kViewShare);
  for (const Opening* opening : openings_)
    if (!opening->in_roof) view.distances.push_back({opening->name, distance_before(*opening)});
  return view;
}

}  // namespace

double ViewOut::distance_m() const {
  double farthest = 0;
  for (const DistanceOutside& each : distances) farthest = std::max(farthest, each.distance_m);
  return farthest;
}

std::optional<Outlook> look_out(const Setting& setting, const lighting::Daylight& by_day,
                                const Watch& watch) {
  const std::optional<space::DaylightBrief>& brief = setting.brief().daylight;
  if (!brief || (brief->sunlight.empty() && brief->view.empty())) return std::nullopt;
  Outlook outlook;
  if (brief->day) outlook.day = *brief->day;
  std::vector<daylight::Interval> all;
  for (const Opening& opening : setting.space().openings) {
    if (!brief->day || brief->sunlight.empty() || !opening.lets_daylight_in()) continue;
    SunOnOpening& sun = outlook.sun.emplace_back();
    sun.opening = opening.name;
    sun.point = sun_point(opening);
    const Vec3 from = sun.point + kHair * opening.outwards;
    sun.intervals = daylight::lit_intervals(*brief->day, [&](const Vec3& towards) {
      return towards.dot(opening.outwards) > 0 && by_day.outdoors().sees_sun(from, towards);
    });
    sun.outwards = opening.outwards;
    sun.sky = sky_from(from, opening.outwards, by_day.outdoors());
    all.insert(all.end(), sun.intervals.begin(), sun.intervals.end());
  }
  outlook.sun_at_all = daylight::joined(std::move(all));
  if (!brief->view.empty()) outlook.view = Looking(setting, by_day).look(watch);
  return outlook;
}

}  // namespace glow::assess
