#include "core/sources/luminaire_light.hpp"

#include <algorithm>

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
    : straight_(transport, luminaires), transport_(&transport) {
  const transport::MirrorPaths& mirrors = transport.mirrors();
  for (const photometry::PlacedLuminaire& luminaire : luminaires)
    for (const transport::MirrorPath& path : mirrors.from(luminaire.frame.origin)) {
      images_.push_back(
          std::make_unique<const photometry::PlacedLuminaire>(image_of(luminaire, mirrors, path)));
      ways_.push_back(path);
      passed_.emplace_back([&transport, path, owner = luminaire.owner](const Vec3& eye, const Vec3& image) {
        return transport.mirrors().passed(path, transport.tracer(), eye, image, owner);
      });
      mirrored_.emplace_back(*images_.back(), passed_.back());
      images_open_.emplace_back(*images_.back(), nullptr);
    }
}

bool LuminaireLight::may_show(std::size_t image, const Vec3& place) const {
  return transport_->mirrors().may_show(ways_[image], place, images_[image]->frame.origin,
                                        images_open_[image].surface().reach_m());
}

DirectLux LuminaireLight::straight(const readings::Receiver& receiver, double tolerance) const {
  std::vector<const DirectLight*> sources;
  for (std::size_t l = 0; l < straight_.size(); ++l)
    sources.push_back(&straight_.seen_from(receiver.position, l));
  return received(sources, receiver, tolerance);
}

DirectLux LuminaireLight::mirrored(const readings::Receiver& receiver, double tolerance) const {
  std::vector<const DirectLight*> sources;
  for (std::size_t m = 0; m < mirrored_.size(); ++m)
    if (may_show(m, receiver.ray_start())) sources.push_back(&mirrored_[m]);
  return received(sources, receiver, tolerance);
}

namespace {

constexpr double kRough = 0.03;  // a tolerance of drafts

/// Shares of light that come through from places of a luminaire: on average, the least and the most.
struct Seen {
  double share = 0, least = 1, most = 0;
};

/// By sight lines to places all over what is seen of it, so many along each side.
Seen seen_of(const DirectLight& light, const readings::Receiver& place, int along,
             const DirectLight::Passed& passed) {
  const geometry::Frame& frame = light.luminaire().frame;
  const Vec3 way = (place.position - frame.origin).normalized(), start = place.ray_start();
  const Vec3 towards(way.dot(frame.c0), way.dot(frame.c90), way.dot(frame.g0));
  const photometry::LuminousSurface& surface = light.surface();
  const int aside = surface.point() ? 1 : along;
  Seen seen;
  for (int k = 0; k < aside * aside; ++k) {
    const Vec3 p = surface.point()
                       ? Vec3::Zero()
                       : surface.point_seen(towards, (k % aside + 0.5) / aside, (k / aside + 0.5) / aside);
    const double own = passed(start, frame.origin + p.x() * frame.c0 + p.y() * frame.c90 + p.z() * frame.g0);
    seen.share += own / (aside * aside);
    seen.least = std::min(seen.least, own);
    seen.most = std::max(seen.most, own);
  }
  return seen;
}

/// The same, roughly: where four lines agree, and the tolerance allows for what they may miss, they do.
double share_by_net(const DirectLight& light, const readings::Receiver& place, double tolerance,
                    const DirectLight::Passed& passed) {
  if (tolerance >= kRough) {
    const Seen few = seen_of(light, place, 2, passed);
    if (few.most - few.least < 1e-6) return few.share;
  }
  return seen_of(light, place, 3, passed).share;
}

/// lx on a plane, as if nothing were in between.
double open_light(const DirectLight& light, const readings::Receiver& plane) {
  const double above = (light.luminaire().frame.origin - plane.position).dot(plane.normal);
  return above < -light.surface().reach_m() ? 0 : light.plane_illuminance(plane.position, plane.normal);
}

}  // namespace

double LuminaireLight::quickly(const readings::Receiver& plane, double tolerance) const {
  constexpr double kOfPlane = 0.01;  // of DirectLight::plane_illuminance
  constexpr double kOfNet =
      0.02;  // what shadows by a few sight lines may be off, of all light of most places
  constexpr double kSmall = 0.35;  // of the tolerance: so little of all light is seen or not, all of it
  if (tolerance < kOfPlane)
    return straight(plane, tolerance).lux + (has_mirrors() ? mirrored(plane, tolerance).lux : 0);
  std::vector<double> open;
  double all = 0;
  for (std::size_t l = 0; l < straight_.size(); ++l) {
    open.push_back(open_light(straight_.open(l), plane));
    all += open.back();
  }
  const double little = (tolerance >= kRough ? 1 : kSmall) * tolerance * all;
  double lux = 0;
  for (std::size_t l = 0; l < open.size(); ++l) {
    if (open[l] <= 0) continue;
    const DirectLight::Passed passed = [&](const Vec3& from, const Vec3& on) {
      return double(transport_->tracer().passed(from, on, straight_.open(l).luminaire().owner));
    };
    if (!straight_.may_be_hidden(l, plane.position))
      lux += open[l];
    else if (open[l] < little)
      lux += open[l] * seen_of(straight_.open(l), plane, 1, passed).share;
    else if (tolerance >= kOfNet)
      lux += open[l] * share_by_net(straight_.open(l), plane, tolerance, passed);
    else
      lux += straight_.shaded(l).illuminance(plane);
  }
  for (std::size_t m = 0; m < mirrored_.size(); ++m) {
    if (!may_show(m, plane.ray_start())) continue;
    const double image = open_light(images_open_[m], plane);
    if (image <= 0) continue;
    if (tolerance >= kOfNet) {
      lux += image * share_by_net(images_open_[m], plane, tolerance, passed_[m]);
      continue;
    }
    const Seen seen = seen_of(images_open_[m], plane, 3, passed_[m]);
    if (seen.share <= 0) continue;
    const bool whole = seen.most - seen.least < 1e-6 * seen.most;
    lux += whole || image * seen.most < kSmall * tolerance * all ? image * seen.share
                                                                 : mirrored_[m].illuminance(plane);
  }
  return lux;
}

}  // namespace glow::sources
