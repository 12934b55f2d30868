#include "core/studies/arrangement/plain_light.hpp"

#include <algorithm>
#include <cmath>

namespace glow::studies {
namespace {

constexpr double kStride = 0.25;      // distance between points over that to the receiver
constexpr int kMostPoints = 5;        // along one side
constexpr double kRoundSide = 0.886;  // of the square with a circle's area, over its diameter
constexpr double kNearest = 1e-3;     // m

int points_along(double extent, double step) {
  return std::clamp(int(std::ceil(extent / step)), 1, kMostPoints);
}

}  // namespace

PlainLight::PlainLight(const photometry::PlacedLuminaire& luminaire, const geometry::RayTracer& tracer,
                       const geometry::Occluders& occluders)
    : luminaire_(&luminaire),
      tracer_(&tracer),
      occluders_(&occluders),
      shaded_(luminaire, &tracer, &occluders) {
  const photometry::LuminousArea& area = luminaire.area;
  const double side = photometry::is_round(area.shape) ? kRoundSide : 1;
  size_ = Vec3(side * area.extent_c0_m, side * area.extent_c90_m, area.height_m());
}

Vec3 PlainLight::at(double along_c0, double along_c90, double down) const {
  const geometry::Frame& f = luminaire_->frame;
  return f.origin + along_c0 * f.c0 + along_c90 * f.c90 + down * f.g0;
}

double PlainLight::from_point(const readings::Receiver& receiver, const Vec3& point) const {
  const Vec3 way = point - receiver.position;
  const double distance = std::max(way.norm(), kNearest);
  const Vec3 towards = way / distance;
  const double weight = receiver.weight(towards);
  if (weight <= 0) return 0;
  const geometry::Frame& f = luminaire_->frame;
  return luminaire_->table->intensity_along(-towards.dot(f.c0), -towards.dot(f.c90), -towards.dot(f.g0)) *
         weight / (distance * distance);
}

double PlainLight::from_points(const readings::Receiver& receiver, double distance) const {
  const double step = kStride * distance;
  const int along_c0 = points_along(size_.x(), step), along_c90 = points_along(size_.y(), step),
            down = points_along(size_.z(), step);
  const auto part = [](int i, int count, double extent) { return ((i + 0.5) / count - 0.5) * extent; };
  double sum = 0;
  for (int i = 0; i < along_c0; ++i)
    for (int j = 0; j < along_c90; ++j)
      for (int k = 0; k < down; ++k)
        sum += from_point(receiver, at(part(i, along_c0, size_.x()), part(j, along_c90, size_.y()),
                                       part(k, down, size_.z())));
  return sum / (along_c0 * along_c90 * down);
}

/// By its middle and the corners of its upper and lower side.
PlainLight::Seen PlainLight::seen_from(const readings::Receiver& receiver) const {
  const Vec3 start = receiver.ray_start();
  int seen = 0, lines = 0;
  bool clear = true;
  const auto look = [&](const Vec3& place) {
    const float passed = tracer_->passed(start, place, luminaire_->owner);
    seen += passed > 0;
    clear = clear && (passed <= 0 || passed >= 1);  // panes in between leave a part
    ++lines;
  };
  look(luminaire_->frame.origin);
  const Vec3 half = size_ / 2;
  for (const double side : {-1.0, 1.0})
    for (const double end : {-1.0, 1.0})
      for (const double level : {-1.0, 1.0})
        if (level > 0 || half.z() > 0) look(at(side * half.x(), end * half.y(), level * half.z()));
  return !clear ? Seen::part : seen == lines ? Seen::all : seen == 0 ? Seen::nothing : Seen::part;
}

double PlainLight::illuminance(const readings::Receiver& receiver) const {
  const Vec3& origin = luminaire_->frame.origin;
  if (occluders_->may_block({receiver.position}, {origin, shaded_.surface().reach_m()})) {
    const Seen seen = seen_from(receiver);
    if (seen == Seen::nothing) return 0;
    if (seen == Seen::part) return shaded_.illuminance(receiver);
  }
  return from_points(receiver, (origin - receiver.position).norm());
}

}  // namespace glow::studies
