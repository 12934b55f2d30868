#pragma once

#include <algorithm>
#include <cmath>

#include "core/geometry/ray_tracer.hpp"
#include "core/readings/kernel.hpp"

namespace glow::readings {

/// A point where illuminance is read, m. An eye is a plane that faces along its line of sight.
struct Receiver {
  Vec3 position = Vec3::Zero();
  Vec3 normal = Vec3::UnitZ();  ///< unit length; plane: its normal; semicylinder: where it faces (at right
                                ///< angles to the axis); hemisphere: its zenith; others: not used
  Kernel kernel = Kernel::plane;
  Vec3 axis = Vec3::UnitZ();    ///< of a cylinder or semicylinder, unit length
  bool reflected_only = false;  ///< straight light is not read: eyes
  bool lean = false;  ///< a quarter of the rays: one of many points whose mean counts, and no requirement

  /// Weight of light that comes from `towards` (unit length), as the kernel says; lx per cd/m2.
  double weight(const Vec3& towards) const {
    switch (kernel) {
      case Kernel::plane:
        return std::max(0.0, normal.dot(towards));
      case Kernel::cylinder:
        return sine(towards) / kPi;
      case Kernel::semicylinder:
        return (sine(towards) + normal.dot(towards)) / kPi;
      case Kernel::hemisphere:
        return (1 + normal.dot(towards)) / 4;
      case Kernel::sphere:
        return 0.25;
    }
    return 0;
  }
  /// Where its rays begin: planes and domes may lie on a surface.
  Vec3 ray_start() const {
    const bool lifted = kernel == Kernel::plane || kernel == Kernel::hemisphere;
    return lifted ? Vec3(position + geometry::kStartOffset * normal) : position;
  }

 private:
  double sine(const Vec3& towards) const {
    const double cosine = axis.dot(towards);
    return std::sqrt(std::max(0.0, 1 - cosine * cosine));
  }
};

}  // namespace glow::readings
