#include "core/sources/luminaire_light.hpp"

#include "core/sources/received_light.hpp"

namespace glow::sources {
namespace {

/// The luminaire as it is seen over mirrors: its frame is left-handed after an odd number of them.
photometry::PlacedLuminaire image_of(const photometry::PlacedLuminaire& luminaire,
                                     const transport::MirrorPaths& mirrors,
                                     const transport::MirrorPath& path) {
  photometry::PlacedLuminaire image = luminaire;
  image.frame.origin = mirrors.image_of_point(path, luminaire.frame.origin);
  for (Vec3* axis : {&image.frame.c0, &image.frame.c90, &image.frame.g0})
    *axis = mirrors.image_of_direction(path, *axis);
  return image;
}

}  // namespace

LuminaireLight::LuminaireLight(const transport::Transport& transport,
                               const std::vector<photometry::PlacedLuminaire>& luminaires)
    : straight_(transport, luminaires), tracer_(&transport.tracer()) {
  const transport::MirrorPaths& mirrors = transport.mirrors();
  for (const photometry::PlacedLuminaire& luminaire : luminaires)
    for (const transport::MirrorPath& path : mirrors.from(luminaire.frame.origin)) {
      images_.push_back(
          std::make_unique<const photometry::PlacedLuminaire>(image_of(luminaire, mirrors, path)));
      mirrored_.emplace_back(*images_.back(),
                             [&transport, path, owner = luminaire.owner](const Vec3& eye, const Vec3& image) {
                               return transport.mirrors().passed(path, transport.tracer(), eye, image, owner);
                             });
    }
}

DirectLux LuminaireLight::straight(const readings::Receiver& receiver, double tolerance) const {
  std::vector<const DirectLight*> sources;
  for (std::size_t l = 0; l < straight_.size(); ++l)
    sources.push_back(&straight_.seen_from(receiver.position, l));
  return received(sources, receiver, tolerance);
}

DirectLux LuminaireLight::mirrored(const readings::Receiver& receiver, double tolerance) const {
  std::vector<const DirectLight*> sources;
  for (const DirectLight& source : mirrored_) sources.push_back(&source);
  return received(sources, receiver, tolerance);
}

/// By sight lines to places all over what is seen of it, so many along each side.
double LuminaireLight::seen_share(std::size_t l, const readings::Receiver& place, int along) const {
  const photometry::PlacedLuminaire& luminaire = straight_.open(l).luminaire();
  const geometry::Frame& frame = luminaire.frame;
  const Vec3 way = (place.position - frame.origin).normalized(), start = place.ray_start();
  const Vec3 towards(way.dot(frame.c0), way.dot(frame.c90), way.dot(frame.g0));
  const photometry::LuminousSurface& surface = straight_.open(l).surface();
  const int aside = surface.point() ? 1 : along;
  double passed = 0;
  for (int k = 0; k < aside * aside; ++k) {
    const Vec3 p = surface.point()
                       ? Vec3::Zero()
                       : surface.point_seen(towards, (k % aside + 0.5) / aside, (k / aside + 0.5) / aside);
    const Vec3 on = frame.origin + p.x() * frame.c0 + p.y() * frame.c90 + p.z() * frame.g0;
    passed += double(tracer_->passed(start, on, luminaire.owner));
  }
  return passed / (aside * aside);
}

double LuminaireLight::quickly(const readings::Receiver& plane, double tolerance) const {
  constexpr double kOfPlane = 0.01;  // of DirectLight::plane_illuminance
  constexpr double kOfNet =
      0.02;  // what shadows by a few sight lines may be off, of all light of most places
  constexpr double kSmall = 0.35;  // of the tolerance: so little of all light is seen or not, all of it
  const double over_mirrors = has_mirrors() ? mirrored(plane, tolerance).lux : 0;
  if (tolerance < kOfPlane) return over_mirrors + straight(plane, tolerance).lux;
  std::vector<double> open(straight_.size(), 0.0);
  double all = 0;
  for (std::size_t l = 0; l < open.size(); ++l) {
    const DirectLight& light = straight_.open(l);
    const double above = (light.luminaire().frame.origin - plane.position).dot(plane.normal);
    if (above < -light.surface().reach_m()) continue;
    all += open[l] = light.plane_illuminance(plane.position, plane.normal);
  }
  double lux = over_mirrors;
  for (std::size_t l = 0; l < open.size(); ++l) {
    if (open[l] <= 0) continue;
    if (!straight_.may_be_hidden(l, plane.position))
      lux += open[l];
    else if (open[l] < kSmall * tolerance * all)
      lux += open[l] * seen_share(l, plane, 1);
    else if (tolerance >= kOfNet)
      lux += open[l] * seen_share(l, plane, 3);
    else
      lux += straight_.shaded(l).illuminance(plane);
  }
  return lux;
}

}  // namespace glow::sources
