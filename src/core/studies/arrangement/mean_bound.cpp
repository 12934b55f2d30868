#include "core/studies/arrangement/mean_bound.hpp"

#include <algorithm>
#include <cmath>
#include <queue>

namespace glow::studies {
namespace {

constexpr double kMostWork = 1e6;        // pairs of boxes and receivers
constexpr double kLeastDistance = 1e-4;  // m

struct Piece {
  Eigen::AlignedBox3d box;
  double bound = 0;
  bool operator<(const Piece& other) const { return bound < other.bound; }
};

/// Of light from any way, as Receiver::weight says.
double most_weight(readings::Kernel kernel) {
  switch (kernel) {
    case readings::Kernel::cylinder:
      return 1 / kPi;
    case readings::Kernel::semicylinder:
      return 2 / kPi;
    case readings::Kernel::hemisphere:
      return 0.5;
    case readings::Kernel::sphere:
      return 0.25;
    case readings::Kernel::plane:
      break;
  }
  return 1;
}

/// Of a luminaire that is a point.
class Bound {
 public:
  Bound(const photometry::PlacedLuminaire& luminaire, const std::vector<readings::Receiver>& receivers)
      : luminaire_(luminaire), receivers_(receivers) {}

  double over(const Eigen::AlignedBox3d& box) const {
    double sum = 0;
    for (const readings::Receiver& receiver : receivers_)
      sum += most_of(receiver, box.center(), box.sizes() / 2);
    return sum / double(receivers_.size());
  }
  double at(const Vec3& place) const {
    double sum = 0;
    for (const readings::Receiver& receiver : receivers_) sum += straight(receiver, place);
    return sum / double(receivers_.size());
  }

 private:
  Vec3 in_frame(const Vec3& way) const {
    const geometry::Frame& f = luminaire_.frame;
    return {way.dot(f.c0), way.dot(f.c90), way.dot(f.g0)};
  }
  double most_of(const readings::Receiver& receiver, const Vec3& middle, const Vec3& reach) const;
  double straight(const readings::Receiver& receiver, const Vec3& place) const;

  const photometry::PlacedLuminaire& luminaire_;
  const std::vector<readings::Receiver>& receivers_;
};

double Bound::most_of(const readings::Receiver& receiver, const Vec3& middle, const Vec3& reach) const {
  if (receiver.reflected_only) return 0;
  const Vec3 way = middle - receiver.position;
  const double nearest = std::max((way.cwiseAbs() - reach).cwiseMax(0.0).norm(), kLeastDistance),
               distance = way.norm();
  const bool is_plane = receiver.kernel == readings::Kernel::plane;
  const double rise = receiver.normal.dot(way) + receiver.normal.cwiseAbs().dot(reach);
  if (is_plane && rise <= 0) return 0;
  const double weight = is_plane ? std::min(1.0, rise / nearest) : most_weight(receiver.kernel);
  const double sine = reach.norm() / std::max(distance, kLeastDistance);
  const double cone_deg = sine < 1 ? std::asin(sine) / kDegree : 180;
  return luminaire_.table->most_within(in_frame(-way), cone_deg) * weight / (nearest * nearest);
}

double Bound::straight(const readings::Receiver& receiver, const Vec3& place) const {
  const Vec3 way = place - receiver.position;
  const double distance = std::max(way.norm(), kLeastDistance);
  const double weight = receiver.reflected_only ? 0 : receiver.weight(way / distance);
  if (weight <= 0) return 0;
  const Vec3 along = in_frame(-way);
  return luminaire_.table->intensity_along(along.x(), along.y(), along.z()) * weight / (distance * distance);
}

/// Half of what the luminous area reaches along the axes of the room.
Vec3 reach_of(const photometry::PlacedLuminaire& luminaire) {
  const photometry::LuminousArea& area = luminaire.area;
  const geometry::Frame& f = luminaire.frame;
  return (area.extent_c0_m * f.c0.cwiseAbs() + area.extent_c90_m * f.c90.cwiseAbs() +
          area.height_m() * f.g0.cwiseAbs()) /
         2;
}

}  // namespace

double most_straight_mean_lx(const HangingPlaces& places, const std::vector<readings::Receiver>& receivers,
                             double enough_lx) {
  if (receivers.empty()) return 0;
  const Bound bound(places.luminaire, receivers);
  std::priority_queue<Piece> pieces;
  double best = 0, work = 0;
  const auto add = [&](const Eigen::AlignedBox3d& box) {
    pieces.push({box, bound.over(box)});
    best = std::max(best, bound.at(box.center()));
    work += double(receivers.size());
  };
  const Vec3 reach = reach_of(places.luminaire);
  add({Vec3(places.where.min()) - reach, Vec3(places.where.max()) + reach});
  while (pieces.top().bound > (1 + kMeanBoundOver) * best && best < enough_lx && work < kMostWork) {
    const Eigen::AlignedBox3d box = pieces.top().box;
    pieces.pop();
    int axis = 0;
    box.sizes().maxCoeff(&axis);
    Eigen::AlignedBox3d low = box, high = box;
    low.max()[axis] = high.min()[axis] = box.center()[axis];
    add(low);
    add(high);
  }
  return pieces.top().bound;
}

}  // namespace glow::studies
