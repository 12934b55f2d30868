#pragma once

#include <array>
#include <string>
#include <vector>

#include "core/geometry/vec.hpp"

namespace glow::geometry {

/// Triangles as a file holds them, in the file's own unit and axes.
struct Mesh {
  struct Part {
    std::string material;                       ///< the file's name for it
    std::vector<std::array<int, 3>> triangles;  ///< counter-clockwise seen from outside
  };
  std::vector<Vec3> vertices;
  std::vector<Part> parts;  ///< one a material

  std::size_t triangle_count() const;
  /// Size of the bounding box, in the file's unit.
  Vec3 size() const;
};

/// Whether triangles enclose a space: their fronts look out of it, into it, or there are edges without a
/// neighbour.
enum class Enclosure { outwards, inwards, open };
Enclosure enclosure_of(const Mesh& mesh);

/// Names of its materials, with commas between.
std::string material_names(const Mesh& mesh);

/// The mesh with every vertex moved.
Mesh moved(Mesh mesh, const Eigen::Affine3d& motion);

/// Same shape with at most `most` triangles: vertices that fall into one cube of a lattice become one. Gives
/// the cube's edge as well, in the mesh's unit; 0 when nothing had to be done.
struct SimplerMesh {
  Mesh mesh;
  double edge = 0;
};
SimplerMesh simplified(const Mesh& mesh, std::size_t most);

/// Flat pieces of a mesh: neighbours in one plane joined, with their outer edges. Corner indices.
struct FlatPiece {
  std::vector<std::array<int, 3>> triangles;
  std::vector<std::vector<int>> loops;
};
std::vector<FlatPiece> flat_pieces(const std::vector<Vec3>& vertices,
                                   const std::vector<std::array<int, 3>>& triangles);

}  // namespace glow::geometry
