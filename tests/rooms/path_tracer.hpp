#pragma once

#include <algorithm>
#include <cmath>
#include <optional>
#include <random>

#include "core/photometry/placed_luminaire.hpp"
#include "rooms/every_triangle.hpp"
#include "rooms/furnished_room.hpp"

namespace glow::rooms {

/// Plain backward path tracing with one luminaire, at one chance spot, asked at every vertex. For flat
/// luminaires and surfaces that do not mirror. Independent of the program's transport.
template <class FirstMet>
class PathTracer {
 public:
  PathTracer(const TestRoom& space, const FirstMet& first_met, unsigned seed)
      : space_(&space), first_met_(&first_met), chance_(seed) {}

  /// One estimate of the illuminance of a plane receiver, lx.
  double illuminance(const readings::Receiver& receiver) {
    double lux = direct(receiver.position + kLift * receiver.normal, receiver.normal);
    Vec3 from = receiver.position + kLift * receiver.normal, normal = receiver.normal;
    for (int bounce = 0; bounce < kMostBounces; ++bounce) {
      const Vec3 way = cosine_direction(normal);
      const auto met = landing(from, way);
      if (!met) return lux;
      const geometry::Material& material =
          space_->geometry.material_of(space_->geometry.facets()[met->facet]);
      // The side that is looked at sends back what falls on it, or what falls on the other side.
      const double stays = 1 - material.clear;
      const double total = (material.diffuse + material.scattering) / stays;
      if (uniform() >= total) return lux;  // Russian roulette
      const bool through = uniform() * (material.diffuse + material.scattering) < material.scattering;
      const Vec3 outwards = space_->geometry.facets()[met->facet].normal * (met->behind ? -1.0 : 1.0);
      normal = through ? Vec3(-outwards) : outwards;
      from = met->place + kLift * normal;
      lux += direct(from, normal);
    }
    return lux;
  }

 private:
  static constexpr double kLift = 1e-6;
  static constexpr int kMostBounces = 60;
  struct Landing {
    std::size_t facet;
    bool behind;
    Vec3 place;
  };

  double uniform() { return double(chance_() >> 5) * 0x1.0p-27; }

  Vec3 cosine_direction(const Vec3& normal) {
    const double radius = std::sqrt(uniform()), angle = 2 * kPi * uniform();
    const Vec3 x = normal.unitOrthogonal(), y = normal.cross(x);
    return radius * std::cos(angle) * x + radius * std::sin(angle) * y +
           std::sqrt(std::max(0.0, 1 - radius * radius)) * normal;
  }

  /// Straight on through clear panes; nothing where the ray ends on the inside of something.
  std::optional<Landing> landing(Vec3 from, const Vec3& way) {
    for (;;) {
      const auto met = (*first_met_)(from, way);
      if (!met) return std::nullopt;
      const geometry::Material& material =
          space_->geometry.material_of(space_->geometry.facets()[met->facet]);
      if (met->behind && !material.two_sided) return std::nullopt;
      const Vec3 place = from + met->distance * way;
      if (uniform() >= material.clear) return Landing{met->facet, met->behind, place};
      from = place + kLift * way;
    }
  }

  double direct(const Vec3& point, const Vec3& normal) {
    const std::size_t count = space_->luminaires.size();
    const photometry::PlacedLuminaire& l =
        space_->luminaires[std::min(count - 1, std::size_t(uniform() * double(count)))];
    Vec3 spot = l.frame.origin;
    if (l.area.shape != photometry::LuminousShape::point)
      spot += (uniform() - 0.5) * l.area.extent_c0_m * l.frame.c0 +
              (uniform() - 0.5) * l.area.extent_c90_m * l.frame.c90;
    const Vec3 way = spot - point;
    const double distance = way.norm();
    if (normal.dot(way) <= 0) return 0;
    double passed = 1, gone = 0;
    while (passed > 0) {
      const auto met = (*first_met_)(point + gone * way / distance, way / distance);
      if (!met || gone + met->distance > distance - 1e-6) break;
      passed *= space_->geometry.material_of(space_->geometry.facets()[met->facet]).clear;
      gone += met->distance + kLift;
    }
    const double candela =
        l.table->intensity_along(-way.dot(l.frame.c0), -way.dot(l.frame.c90), -way.dot(l.frame.g0));
    return double(count) * passed * candela * normal.dot(way) / (distance * distance * distance);
  }

  const TestRoom* space_;
  const FirstMet* first_met_;
  std::mt19937 chance_;
};

/// Mean over `paths` estimates with its standard error.
struct Estimate {
  double mean = 0, standard_error = 0;
};

template <class FirstMet>
Estimate estimate(PathTracer<FirstMet>& tracer, const readings::Receiver& receiver, int paths) {
  double sum = 0, squares = 0;
  for (int i = 0; i < paths; ++i) {
    const double lux = tracer.illuminance(receiver);
    sum += lux;
    squares += lux * lux;
  }
  const double mean = sum / paths;
  return {mean, std::sqrt(std::max(0.0, squares / paths - mean * mean) / paths)};
}

}  // namespace glow::rooms
