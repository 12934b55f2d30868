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

bool DaylightOpening::is_clear_at(const Vec3& at) const {
  if (!bars.any()) return true;
  const Vec2 size(whole_along.norm(), whole_up.norm());
  const Vec3 p = at - whole_corner;
  return bars.is_glass({p.dot(whole_along) / size.x(), p.dot(whole_up) / size.y()}, size);
}

}  // namespace glow::sources
