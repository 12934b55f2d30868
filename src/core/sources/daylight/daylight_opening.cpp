#include "core/sources/daylight/daylight_opening.hpp"

namespace glow::sources {

bool DaylightOpening::is_met(const Vec3& from, const Vec3& towards, double margin, Vec3& at) const {
  const double falls = towards.dot(outwards);
  if (falls <= 0) return false;
  const double distance = (corner - from).dot(outwards) / falls;
  if (distance <= 0) return false;
  at = from + distance * towards;
  const Vec3 p = at - corner;
  const double u = p.dot(along) / along.norm(), v = p.dot(up) / up.norm(), m = margin * distance;
  return u > -m && v > -m && u < along.norm() + m && v < up.norm() + m;
}

/// With w for the direction and n outwards, a ray meets the plane at from + distance / (w n) w. How far that
/// moves with the place and the direction is bounded, unless they graze the plane.
bool DaylightOpening::may_be_met(const Vec3& from, double reach_m, const Vec3& towards, double margin) const {
  const double falls = towards.dot(outwards), least = falls - margin;
  const double distance = (corner - from).dot(outwards) + reach_m;
  if (falls + margin <= 0 || distance <= 0) return false;
  if (least <= margin) return true;
  const double off = reach_m * (1 + 2 / least) + distance * margin * (1 / least + 1) / falls;
  const Vec3 p = from + (distance / falls) * towards - corner;
  const double u = p.dot(along) / along.norm(), v = p.dot(up) / up.norm();
  return u > -off && v > -off && u < along.norm() + off && v < up.norm() + off;
}

bool DaylightOpening::is_clear_at(const Vec3& at) const {
  if (!bars.any()) return true;
  const Vec2 size(whole_along.norm(), whole_up.norm());
  const Vec3 p = at - whole_corner;
  return bars.is_glass({p.dot(whole_along) / size.x(), p.dot(whole_up) / size.y()}, size);
}

}  // namespace glow::sources
