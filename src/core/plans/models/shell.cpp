#include "core/plans/models/shell.hpp"

#include <algorithm>
#include <cmath>
#include <map>

namespace glow::plans {
namespace {

constexpr double kUpright = 0.02;  // sine of the slope beyond which a face has an area in plan

/// Two directions that span a plane with the unit normal n.
std::pair<Vec3, Vec3> axes_of(const Vec3& n) {
  const Vec3 other = std::abs(n.z()) < 0.9 ? Vec3::UnitZ() : Vec3::UnitX();
  const Vec3 u = other.cross(n).normalized();
  return {u, n.cross(u)};
}

/// One loop cut by a plane (Sutherland and Hodgman); where a loop is not convex it runs along the cut to and
/// fro, which encloses nothing. `cut`: its edges in the plane.
std::vector<Vec3> clipped_loop(const std::vector<Vec3>& loop, const Vec3& n, double offset,
                               std::vector<std::pair<Vec3, Vec3>>& cut) {
  constexpr double kOn = 1e-7;  // m
  std::vector<Vec3> out;
  bool reaches_in = false;
  for (std::size_t k = 0; k < loop.size(); ++k) {
    const Vec3 &a = loop[k], &b = loop[(k + 1) % loop.size()];
    const double da = n.dot(a) - offset, db = n.dot(b) - offset;
    reaches_in = reaches_in || da < -kOn;
    if (da <= kOn) out.push_back(a);
    if ((da < -kOn && db > kOn) || (da > kOn && db < -kOn)) out.push_back(a + (b - a) * (da / (da - db)));
  }
  if (!reaches_in) return {};
  for (std::size_t k = 0; k < out.size(); ++k) {
    const Vec3 &a = out[k], &b = out[(k + 1) % out.size()];
    if (std::abs(n.dot(a) - offset) <= kOn && std::abs(n.dot(b) - offset) <= kOn) cut.emplace_back(a, b);
  }
  return out;
}

}  // namespace

Vec3 loop_normal(const std::vector<Vec3>& loop) {
  Vec3 sum = Vec3::Zero();
  for (std::size_t k = 0; k < loop.size(); ++k)
    sum += (loop[k] - loop[0]).cross(loop[(k + 1) % loop.size()] - loop[0]);
  return sum;
}

Shell prism(const Face& profile, const Eigen::Affine3d& place, const Vec3& way) {
  Shell shell(2);
  const auto loop = [&](const geometry::Polygon& ring) {
    std::vector<Vec3> low, high;
    for (const Vec2& p : ring) {
      const Vec3 at(p.x(), p.y(), 0);
      low.push_back(place * at);
      high.push_back(place * Vec3(at + way));
    }
    for (std::size_t k = 0; k < ring.size(); ++k) {
      const std::size_t next = (k + 1) % ring.size();
      shell.push_back({{{low[k], low[next], high[next], high[k]}}, {}});
    }
    shell[0].loops.push_back(std::move(low));
    shell[1].loops.push_back(std::move(high));
  };
  loop(profile.outline);
  for (const geometry::Polygon& hole : profile.holes) loop(hole);
  return shell;
}

Shell clipped(const Shell& shell, const Vec3& normal, double offset) {
  const Vec3 n = normal.normalized();
  const double d = offset / normal.norm();
  Shell out;
  std::vector<std::pair<Vec3, Vec3>> cut;
  for (const ShellFace& face : shell) {
    ShellFace rest;
    rest.material = face.material;
    for (const std::vector<Vec3>& loop : face.loops) {
      std::vector<Vec3> kept = clipped_loop(loop, n, d, cut);
      if (kept.size() > 2) rest.loops.push_back(std::move(kept));
    }
    if (!rest.loops.empty()) out.push_back(std::move(rest));
  }
  if (cut.empty()) return out;
  const auto [u, v] = axes_of(n);
  std::vector<Segment> lines;
  for (const auto& [a, b] : cut) lines.push_back({Vec2(u.dot(a), v.dot(a)), Vec2(u.dot(b), v.dot(b))});
  for (const Face& cap : faces_of(lines)) {
    ShellFace face;
    const auto add = [&, u = u, v = v](const geometry::Polygon& ring) {
      face.loops.emplace_back();
      for (const Vec2& p : ring) face.loops.back().push_back(u * p.x() + v * p.y() + n * d);
    };
    add(cap.outline);
    for (const geometry::Polygon& hole : cap.holes) add(hole);
    out.push_back(std::move(face));
  }
  return out;
}

Shell moved(Shell shell, const Eigen::Affine3d& motion) {
  for (ShellFace& face : shell)
    for (std::vector<Vec3>& loop : face.loops)
      for (Vec3& p : loop) p = motion * p;
  return shell;
}

Box3 box_of(const Shell& shell) {
  Box3 box;
  for (const ShellFace& face : shell)
    for (const std::vector<Vec3>& loop : face.loops)
      for (const Vec3& p : loop) box.add(p);
  return box;
}

Face in_plan(const ShellFace& face) {
  Face plan;
  if (face.loops.empty()) return plan;
  const Vec3 normal = loop_normal(face.loops.front());
  if (!(std::abs(normal.z()) > kUpright * normal.norm())) return plan;
  for (const std::vector<Vec3>& loop : face.loops) {
    geometry::Polygon ring;
    for (const Vec3& p : loop) ring.push_back(p.xy());
    if (geometry::signed_area(ring) < 0) std::reverse(ring.begin(), ring.end());
    if (plan.outline.empty())
      plan.outline = std::move(ring);
    else
      plan.holes.push_back(std::move(ring));
  }
  return plan;
}

std::vector<Face> covered_in_plan(const std::vector<Shell>& shells) {
  std::vector<Face> faces;
  for (const Shell& shell : shells)
    for (const ShellFace& face : shell) {
      Face plan = in_plan(face);
      if (plan.outline.size() > 2) faces.push_back(std::move(plan));
    }
  return united(faces);
}

std::vector<OpenEdge> open_edges(const Shell& shell, double join_m) {
  std::map<std::array<std::int64_t, 3>, std::size_t> corners;
  std::map<std::pair<std::size_t, std::size_t>, std::pair<int, OpenEdge>> edges;
  const auto corner = [&](const Vec3& p) {
    // Corners on either side of a cell's border are looked for in the cells around.
    std::array<std::int64_t, 3> cell;
    for (int a = 0; a < 3; ++a) cell[std::size_t(a)] = std::int64_t(std::floor(p[a] / (2 * join_m)));
    for (std::int64_t x = -1; x <= 1; ++x)
      for (std::int64_t y = -1; y <= 1; ++y)
        for (std::int64_t z = -1; z <= 1; ++z) {
          const auto found = corners.find({cell[0] + x, cell[1] + y, cell[2] + z});
          if (found == corners.end()) continue;
          const Vec3 middle =
              (Vec3(double(cell[0] + x), double(cell[1] + y), double(cell[2] + z)).array() + 0.5) *
              (2 * join_m);
          if ((middle - p).norm() <= 3 * join_m) return found->second;
        }
    return corners.emplace(cell, corners.size()).first->second;
  };
  for (const ShellFace& face : shell)
    for (const std::vector<Vec3>& loop : face.loops)
      for (std::size_t k = 0; k < loop.size(); ++k) {
        const Vec3 &a = loop[k], &b = loop[(k + 1) % loop.size()];
        std::size_t from = corner(a), to = corner(b);
        if (from == to) continue;
        if (from > to) std::swap(from, to);
        auto& edge = edges[{from, to}];
        ++edge.first;
        edge.second = {a, b};
      }
  std::vector<OpenEdge> open;
  for (const auto& [ends, edge] : edges)
    if (edge.first % 2 == 1) open.push_back(edge.second);
  return open;
}

}  // namespace glow::plans
