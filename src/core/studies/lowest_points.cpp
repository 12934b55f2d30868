#include "core/studies/lowest_points.hpp"

#include <algorithm>
#include <cmath>

#include "core/sources/direct/direct_light.hpp"

namespace glow::studies {
namespace {

constexpr double kLowShare = 0.1;   // of a grid's points count as its low ones
constexpr double kAlongWall = 1.2;  // m from a wall: "along" it
constexpr double kNeighbour = 1.6;  // times the points' spacing: so near low points lie in one place

std::vector<std::string> walls_along(const space::Space& space, const std::vector<Vec3>& points) {
  std::vector<std::string> along;
  for (std::size_t wall = 0; wall < space.wall_names.size(); ++wall) {
    const Vec2 a = space.outline[wall], b = space.outline[(wall + 1) % space.outline.size()];
    const Vec2 way = (b - a).normalized(), inwards(-way.y(), way.x());
    std::size_t count = 0;
    for (const Vec3& point : points) {
      const Vec2 p = point.xy() - a;
      count += p.dot(inwards) < kAlongWall && p.dot(way) > 0 && p.dot(way) < (b - a).norm();
    }
    if (2 * count > points.size()) along.push_back(space.wall_names[wall]);
  }
  return along;
}

/// Of the low receivers those that lie together with the lowest, the first, from neighbour to neighbour.
std::vector<std::size_t> lowest_cluster(const std::vector<readings::Receiver>& all,
                                        const std::vector<std::size_t>& judged,
                                        const std::vector<std::size_t>& low) {
  const auto distance = [&](std::size_t a, std::size_t b) {
    return (all[a].position - all[b].position).norm();
  };
  double spacing = INFINITY;
  for (const std::size_t r : judged)
    if (r != low.front()) spacing = std::min(spacing, distance(r, low.front()));
  std::vector<std::size_t> cluster = {low.front()}, rest(low.begin() + 1, low.end());
  for (std::size_t i = 0; i < cluster.size(); ++i) {
    const auto apart = std::stable_partition(rest.begin(), rest.end(), [&](std::size_t r) {
      return distance(r, cluster[i]) > kNeighbour * spacing;
    });
    cluster.insert(cluster.end(), apart, rest.end());
    rest.erase(apart, rest.end());
  }
  return cluster;
}

/// The object that more than half of the points lie in or close under; empty: none.
std::string object_over(const space::Space& space, const std::vector<Vec3>& points) {
  for (const space::PlanShape& object : space.objects) {
    const auto count = std::count_if(points.begin(), points.end(),
                                     [&](const Vec3& point) { return object.extent.covers(point); });
    if (2 * std::size_t(count) > points.size()) return object.name;
  }
  return "";
}

/// A luminaire with what it gives the low points straight.
struct Server {
  std::size_t group = 0, number = 0;
  double distance = 1e30, lux = -1;
  double open_lx = 0;  ///< if nothing were in the way
};

LuminaireAt at(const space::Space& space, const Server& server) {
  const space::LuminaireGroup& group = space.groups[server.group];
  return {group.mark, group.luminaires[server.number].frame.origin};
}

Server serve(const StudiedRoom& room, const LowReceivers& low, std::size_t g, std::size_t l) {
  const transport::Transport& transport = room.setting.transport();
  const photometry::PlacedLuminaire& luminaire = room.space().groups[g].luminaires[l];
  const sources::DirectLight source(luminaire, &transport.tracer(), &transport.occluders());
  const sources::DirectLight open(luminaire, nullptr);
  Server own{g, l, (luminaire.frame.origin - low.points.middle).norm(), 0, 0};
  const double share = room.lit.weights[g].maintained() / double(low.receivers.size());
  for (const std::size_t r : low.receivers) {
    own.lux += share * source.illuminance(transport.receivers()[r]);
    own.open_lx += share * open.illuminance(transport.receivers()[r]);
  }
  return own;
}

}  // namespace

LowReceivers lowest_points(const StudiedRoom& room, const std::vector<std::size_t>& judged) {
  const std::vector<readings::Receiver>& all = room.setting.transport().receivers();
  const auto lux = [&](std::size_t r) { return room.lit.light.maintained.total_lx(r); };
  LowReceivers low;
  low.receivers = judged;
  std::stable_sort(low.receivers.begin(), low.receivers.end(),
                   [&](std::size_t a, std::size_t b) { return lux(a) < lux(b); });
  low.receivers.resize(std::max<std::size_t>(1, std::size_t(std::lround(kLowShare * double(judged.size())))));
  LowestPoints& points = low.points;
  points.lowest = all[low.receivers.front()].position;
  points.lowest_lx = lux(low.receivers.front());
  points.count = low.receivers.size();
  std::vector<std::size_t> cluster = lowest_cluster(all, judged, low.receivers);
  points.apart = cluster.size() < low.receivers.size();
  low.receivers = std::move(cluster);
  points.together = low.receivers.size();
  std::vector<Vec3> positions;
  std::vector<Vec3> before;  // their faces: what they are on does not stand over them
  for (const std::size_t r : low.receivers) {
    points.middle += all[r].position / double(low.receivers.size());
    positions.push_back(all[r].position);
    constexpr double kOff = 0.01;  // m
    before.push_back(all[r].position + kOff * Vec3(all[r].normal.x(), all[r].normal.y(), 0));
  }
  points.along = walls_along(room.space(), positions);
  points.under = object_over(room.space(), before);
  return low;
}

LuminairesThere luminaires_there(const StudiedRoom& room, const LowReceivers& low) {
  const space::Space& space = room.space();
  Server nearest, best;
  for (std::size_t g = 0; g < space.groups.size(); ++g)
    for (std::size_t l = 0; l < space.groups[g].luminaires.size(); ++l) {
      const Server own = serve(room, low, g, l);
      if (own.distance < nearest.distance) nearest = own;
      if (own.lux > best.lux) best = own;
    }
  LuminairesThere there;
  if (best.lux < 0) return there;
  const photometry::PlacedLuminaire& luminaire = space.groups[nearest.group].luminaires[nearest.number];
  const geometry::Frame& frame = luminaire.frame;
  const Vec3 way = low.points.middle - frame.origin;
  const photometry::IntensityTable& table = *luminaire.table;
  there.nearest = at(space, nearest);
  there.distance_m = way.norm();
  there.straight_lx = nearest.lux;
  there.open_lx = nearest.open_lx;
  there.off_axis_deg = std::acos(std::clamp(way.normalized().dot(frame.g0), -1.0, 1.0)) / kDegree;
  there.peak_share = table.intensity_along(way.dot(frame.c0), way.dot(frame.c90), way.dot(frame.g0)) /
                     std::max(1e-9, table.peak().candela);
  const bool another = best.group != nearest.group || best.number != nearest.number;
  if (another && best.lux > 0) {
    there.best = at(space, best);
    there.best_lx = best.lux;
  }
  return there;
}

}  // namespace glow::studies
