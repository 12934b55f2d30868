#pragma once

#include <cmath>
#include <vector>

#include "core/geometry/ray_tracer.hpp"
#include "rooms/path_tracer.hpp"

namespace glow::bench {

/// The program's own rays, so that the comparison is one of methods.
struct ProgramsRays {
  const geometry::RayTracer* tracer;
  std::optional<rooms::Meeting> operator()(const Vec3& from, const Vec3& way) const {
    const geometry::Hit hit = tracer->nearest(tracer->local(from), way.cast<float>());
    if (hit.facet < 0) return std::nullopt;
    return rooms::Meeting{std::size_t(hit.facet), double(hit.distance), hit.from_behind};
  }
};

/// Root mean square of relative errors.
inline double error_of(const std::vector<double>& values, const std::vector<double>& truth) {
  double squares = 0;
  for (std::size_t i = 0; i < values.size(); ++i) squares += std::pow(values[i] / truth[i] - 1, 2);
  return std::sqrt(squares / double(values.size()));
}

}  // namespace glow::bench
