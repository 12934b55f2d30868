// What furniture is made of: slabs, legs, shelves and panels in its own axes.
#include "core/space/objects/placed_objects.hpp"

namespace glow::space {
namespace {

constexpr int kRoundCorners = 16;
constexpr double kShelfOfBench = 0.2;  // m above the floor
constexpr double kBackOfDesk = 0.40;   // share of the height that the panel at the back covers
constexpr double kBedsFrame = 0.3;     // m: height of the frame's upper side
constexpr double kHeadboard = 0.4;     // m above the mattress
constexpr double kLowestShelf = 0.08;  // m

geometry::Polygon rectangle(double x, double y, double along, double deep) {
  return {{x, y}, {x + along, y}, {x + along, y + deep}, {x, y + deep}};
}

/// About the middle, with the circle's area.
geometry::Polygon circle(double diameter) {
  const double step = 2 * kPi / kRoundCorners;
  const double radius = diameter / 2 * std::sqrt(step / std::sin(step));
  geometry::Polygon polygon;
  for (int k = 0; k < kRoundCorners; ++k)
    polygon.emplace_back(radius * std::cos(k * step), radius * std::sin(k * step));
  return polygon;
}

void add_legs(std::vector<Solid>& solids, const Vec3& size, double leg, double top) {
  if (leg <= 0) return;
  for (const double x : {0.0, size.x() - leg})
    for (const double y : {0.0, size.y() - leg}) solids.push_back({rectangle(x, y, leg, leg), 0, top});
}

std::vector<Solid> table(const model::Object& o) {
  const double under = o.size.z() - o.thickness_m;
  std::vector<Solid> solids = {{rectangle(0, 0, o.size.x(), o.size.y()), under, o.size.z()}};
  add_legs(solids, o.size, o.leg_m, under);
  return solids;
}

std::vector<Solid> desk(const model::Object& o) {
  const double under = o.size.z() - o.thickness_m, panel = o.leg_m;
  std::vector<Solid> solids = {{rectangle(0, 0, o.size.x(), o.size.y()), under, o.size.z()}};
  if (panel <= 0) return solids;
  solids.push_back({rectangle(0, 0, panel, o.size.y()), 0, under});
  solids.push_back({rectangle(o.size.x() - panel, 0, panel, o.size.y()), 0, under});
  solids.push_back({rectangle(panel, o.size.y() - panel, o.size.x() - 2 * panel, panel),
                    (1 - kBackOfDesk) * o.size.z(), under});
  return solids;
}

std::vector<Solid> bench(const model::Object& o) {
  std::vector<Solid> solids = table(o);
  const double leg = o.leg_m;
  for (int k = 0; k < o.shelves; ++k) {
    const double low = kShelfOfBench + k * (o.size.z() - o.thickness_m - kShelfOfBench) / o.shelves;
    solids.push_back(
        {rectangle(leg, leg, o.size.x() - 2 * leg, o.size.y() - 2 * leg), low, low + o.thickness_m});
  }
  return solids;
}

std::vector<Solid> shelf_rack(const model::Object& o) {
  std::vector<Solid> solids;
  const double leg = o.leg_m;
  for (int k = o.shelves; k-- > 0;) {
    const double share = o.shelves > 1 ? double(k) / (o.shelves - 1) : 1;
    const double top = kLowestShelf + share * (o.size.z() - kLowestShelf);
    solids.push_back({rectangle(leg, 0, o.size.x() - 2 * leg, o.size.y()), top - o.thickness_m, top});
  }
  for (const double x : {0.0, o.size.x() - leg})
    if (leg > 0) solids.push_back({rectangle(x, 0, leg, o.size.y()), 0, o.size.z()});
  return solids;
}

std::vector<Solid> bed(const model::Object& o) {
  const double frame = std::min(kBedsFrame, o.size.z() / 2);
  const double board = o.thickness_m;
  std::vector<Solid> solids = {{rectangle(board, 0, o.size.x() - board, o.size.y()), frame, o.size.z()},
                               {rectangle(board, 0, o.size.x() - board, o.size.y()), frame / 2, frame}};
  if (board > 0) solids.push_back({rectangle(0, 0, board, o.size.y()), 0, o.size.z() + kHeadboard});
  return solids;
}

}  // namespace

std::vector<Solid> solids_of(const model::Object& o) {
  if (o.shape == model::ObjectShape::block) return {{o.outline, o.bottom_m, o.top_m}};
  if (o.shape == model::ObjectShape::cylinder || o.kind == "column")
    return {{circle(o.size.x()), 0, o.size.z()}};
  if (o.shape == model::ObjectShape::panel) return {{{{0, 0}, {o.size.x(), 0}}, 0, o.size.z()}};
  if (o.kind == "table") return table(o);
  if (o.kind == "desk") return desk(o);
  if (o.kind == "bench") return bench(o);
  if (o.kind == "shelf rack") return shelf_rack(o);
  if (o.kind == "bed") return bed(o);
  return {{rectangle(0, 0, o.size.x(), o.size.y()), 0, o.size.z()}};
}

}  // namespace glow::space
