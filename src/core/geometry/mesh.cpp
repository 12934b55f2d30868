#include "core/geometry/mesh.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numeric>

namespace glow::geometry {
namespace {

constexpr double kSamePlaneCosine = 1 - 1e-8;
constexpr double kSamePlaneShare = 1e-5;  // of the mesh's size: how far apart two planes may be
constexpr double kCoarser = 1.25;         // of the lattice, from one attempt to the next
constexpr int kMostAttempts = 60;

Vec3 area_vector(const std::vector<Vec3>& vertices, const std::array<int, 3>& t) {
  const Vec3& a = vertices[std::size_t(t[0])];
  return (vertices[std::size_t(t[1])] - a).cross(vertices[std::size_t(t[2])] - a);
}

/// Sets of numbers that grow together.
class Unions {
 public:
  explicit Unions(std::size_t count) : parent_(count) { std::iota(parent_.begin(), parent_.end(), 0); }
  std::size_t root(std::size_t i) {
    while (parent_[i] != i) i = parent_[i] = parent_[parent_[i]];
    return i;
  }
  void join(std::size_t a, std::size_t b) {
    a = root(a);
    b = root(b);
    parent_[std::max(a, b)] = std::min(a, b);
  }

 private:
  std::vector<std::size_t> parent_;
};

/// Outer edges of triangles: those that no neighbour runs the other way, chained into loops.
std::vector<std::vector<int>> loops_of(const std::vector<std::array<int, 3>>& triangles) {
  std::map<std::pair<int, int>, int> edges;
  for (const auto& t : triangles)
    for (int k = 0; k < 3; ++k) ++edges[{t[std::size_t(k)], t[std::size_t((k + 1) % 3)]}];
  std::multimap<int, int> next;
  for (const auto& [edge, count] : edges)
    if (edges.find({edge.second, edge.first}) == edges.end()) next.emplace(edge.first, edge.second);
  std::vector<std::vector<int>> loops;
  while (!next.empty()) {
    std::vector<int> loop;
    for (auto here = next.begin(); here != next.end(); here = next.find(loop.back())) {
      if (loop.empty()) loop.push_back(here->first);
      const int to = here->second;
      next.erase(here);
      if (to == loop.front()) break;
      loop.push_back(to);
    }
    if (loop.size() >= 3) loops.push_back(std::move(loop));
  }
  return loops;
}

/// The mesh with its vertices moved to the mean of all that share a cube.
Mesh on_lattice(const Mesh& mesh, const Vec3& low, double edge) {
  std::map<std::array<long, 3>, int> cube;
  std::vector<int> merged;
  std::vector<Vec3> sums;
  std::vector<double> counts;
  for (const Vec3& p : mesh.vertices) {
    const Vec3 cell = ((p - low) / edge).array().floor();
    const auto [found, is_new] =
        cube.emplace(std::array<long, 3>{long(cell.x()), long(cell.y()), long(cell.z())}, int(sums.size()));
    if (is_new) {
      sums.push_back(Vec3::Zero());
      counts.push_back(0);
    }
    sums[std::size_t(found->second)] += p;
    ++counts[std::size_t(found->second)];
    merged.push_back(found->second);
  }
  Mesh result;
  for (std::size_t i = 0; i < sums.size(); ++i) result.vertices.push_back(sums[i] / counts[i]);
  for (const Mesh::Part& part : mesh.parts) {
    std::map<std::array<int, 3>, bool> seen;
    Mesh::Part smaller{part.material, {}};
    for (const auto& [a, b, c] : part.triangles) {
      std::array<int, 3> t = {merged[std::size_t(a)], merged[std::size_t(b)], merged[std::size_t(c)]};
      if (t[0] == t[1] || t[1] == t[2] || t[2] == t[0]) continue;
      std::rotate(t.begin(), std::min_element(t.begin(), t.end()), t.end());
      if (seen.emplace(t, true).second) smaller.triangles.push_back(t);
    }
    result.parts.push_back(std::move(smaller));
  }
  return result;
}

}  // namespace

std::size_t Mesh::triangle_count() const {
  std::size_t count = 0;
  for (const Part& part : parts) count += part.triangles.size();
  return count;
}

Vec3 Mesh::size() const {
  if (vertices.empty()) return Vec3::Zero();
  Vec3 low = vertices.front(), high = low;
  for (const Vec3& p : vertices) {
    low = low.cwiseMin(p);
    high = high.cwiseMax(p);
  }
  return high - low;
}

Enclosure enclosure_of(const Mesh& mesh) {
  std::map<std::pair<int, int>, int> edges;
  double volume = 0;
  for (const Mesh::Part& part : mesh.parts)
    for (const auto& t : part.triangles) {
      for (std::size_t k = 0; k < 3; ++k) ++edges[{t[k], t[(k + 1) % 3]}];
      const Vec3 origin = mesh.vertices.front();
      volume += area_vector(mesh.vertices, t).dot(mesh.vertices[std::size_t(t[0])] - origin);
    }
  for (const auto& [edge, count] : edges) {
    const auto other = edges.find({edge.second, edge.first});
    if (other == edges.end() || other->second != count) return Enclosure::open;
  }
  return volume >= 0 ? Enclosure::outwards : Enclosure::inwards;
}

std::string material_names(const Mesh& mesh) {
  std::string names;
  for (const Mesh::Part& part : mesh.parts) names += (names.empty() ? "\"" : ", \"") + part.material + "\"";
  return names;
}

Mesh moved(Mesh mesh, const Eigen::Affine3d& motion) {
  for (Vec3& p : mesh.vertices) p = motion * p;
  return mesh;
}

SimplerMesh simplified(const Mesh& mesh, std::size_t most) {
  if (mesh.triangle_count() <= most) return {mesh, 0};
  Vec3 low = mesh.vertices.front();
  for (const Vec3& p : mesh.vertices) low = low.cwiseMin(p);
  // A lattice whose faces could hold about that many triangles; coarser until they do.
  double edge = mesh.size().norm() / std::sqrt(double(most)) / 2;
  for (int attempt = 0; attempt < kMostAttempts; ++attempt, edge *= kCoarser) {
    Mesh smaller = on_lattice(mesh, low, edge);
    if (smaller.triangle_count() <= most) return {std::move(smaller), edge};
  }
  return {Mesh{}, edge};
}

std::vector<FlatPiece> flat_pieces(const std::vector<Vec3>& vertices,
                                   const std::vector<std::array<int, 3>>& triangles) {
  Vec3 low = Vec3::Constant(std::numeric_limits<double>::infinity()), high = -low;
  for (const Vec3& p : vertices) {
    low = low.cwiseMin(p);
    high = high.cwiseMax(p);
  }
  const double apart = kSamePlaneShare * (high - low).norm();
  std::vector<Vec3> normals;
  for (const auto& t : triangles) normals.push_back(area_vector(vertices, t).normalized());
  std::map<std::pair<int, int>, std::size_t> by_edge;
  for (std::size_t i = 0; i < triangles.size(); ++i)
    for (std::size_t k = 0; k < 3; ++k) by_edge[{triangles[i][k], triangles[i][(k + 1) % 3]}] = i;
  Unions unions(triangles.size());
  for (const auto& [edge, i] : by_edge) {
    const auto other = by_edge.find({edge.second, edge.first});
    if (other == by_edge.end() || normals[i].dot(normals[other->second]) < kSamePlaneCosine) continue;
    // Many small turns must not add up: held against the plane of the piece's first triangle.
    const std::size_t first = std::min(unions.root(i), unions.root(other->second));
    const Vec3& origin = vertices[std::size_t(triangles[first][0])];
    bool in_plane = true;
    for (const int corner : triangles[other->second])
      in_plane = in_plane && std::abs(normals[first].dot(vertices[std::size_t(corner)] - origin)) <= apart;
    if (in_plane) unions.join(i, other->second);
  }
  std::map<std::size_t, FlatPiece> pieces;
  for (std::size_t i = 0; i < triangles.size(); ++i) pieces[unions.root(i)].triangles.push_back(triangles[i]);
  std::vector<FlatPiece> result;
  for (auto& [root, piece] : pieces) {
    piece.loops = loops_of(piece.triangles);
    result.push_back(std::move(piece));
  }
  return result;
}

}  // namespace glow::geometry
