#include "files/meshes/mesh_parser.hpp"

#include <assimp/material.h>
#include <assimp/scene.h>

#include <assimp/DefaultIOSystem.h>
#include <fmt/format.h>
#include <assimp/DefaultLogger.hpp>
#include <assimp/Importer.hpp>

#include <cmath>
#include <map>

#include "core/geometry/area_vector.hpp"
#include "core/geometry/polygon.hpp"
#include "files/meshes/mesh_reader.hpp"

namespace glow::files {
namespace {

namespace fs = std::filesystem;

constexpr int kDeepestNode = 200;
constexpr int kMostNodes = 20000;
constexpr unsigned kMostCorners = 500;  // of one polygon

/// Opens files below one folder, for reading only.
class FilesBelow : public Assimp::DefaultIOSystem {
 public:
  explicit FilesBelow(fs::path root) : root_(std::move(root)) {}

  bool Exists(const char* file) const override { return allowed(file) && DefaultIOSystem::Exists(file); }
  Assimp::IOStream* Open(const char* file, const char* mode) override {
    if (!allowed(file) || mode[0] != 'r') {
      refused_ = file;
      return nullptr;
    }
    return DefaultIOSystem::Open(file, mode);
  }
  const std::string& refused() const { return refused_; }

 private:
  bool allowed(const fs::path& file) const {
    std::error_code error;
    const fs::path real = fs::weakly_canonical(file, error);
    if (error) return false;
    // A pipe would be waited for.
    if (fs::exists(real, error) && !fs::is_regular_file(real, error)) return false;
    const fs::path relative = real.lexically_relative(root_);
    const auto size = fs::file_size(real, error);
    return !relative.empty() && *relative.begin() != ".." && (error || size <= kLargestMeshFile);
  }

  fs::path root_;
  std::string refused_;
};

class Collector {
 public:
  Collector(const aiScene& space, PartNames names, geometry::Mesh& mesh)
      : space_(space), names_(names), mesh_(mesh) {}

  std::string collect() {
    for (unsigned i = 0; i < space_.mNumMaterials; ++i)
      mesh_.parts.push_back({space_.mMaterials[i]->GetName().C_Str(), {}});
    if (mesh_.parts.empty()) mesh_.parts.push_back({});
    if (space_.mRootNode) add(*space_.mRootNode, aiMatrix4x4(), 0);
    std::vector<geometry::Mesh::Part> kept;
    for (geometry::Mesh::Part& part : mesh_.parts)
      if (!part.triangles.empty()) kept.push_back(std::move(part));
    mesh_.parts = std::move(kept);
    return fault_;
  }

 private:
  void add(const aiNode& node, const aiMatrix4x4& above, int depth) {
    if (!fault_.empty()) return;
    if (depth > kDeepestNode || ++nodes_ > kMostNodes) {
      fault_ = "its parts are nested too deeply or are too many";
      return;
    }
    const aiMatrix4x4 here = above * node.mTransformation;
    for (unsigned i = 0; i < node.mNumMeshes; ++i)
      if (node.mMeshes[i] < space_.mNumMeshes) add(*space_.mMeshes[node.mMeshes[i]], node, here);
    for (unsigned i = 0; i < node.mNumChildren; ++i) add(*node.mChildren[i], here, depth + 1);
  }

  /// Where triangles of a mesh go: to its material, or to its group where it has none to speak of.
  std::size_t part_of(const aiMesh& part, const aiNode& node) {
    const std::size_t material = part.mMaterialIndex < mesh_.parts.size() ? part.mMaterialIndex : 0;
    const std::string& name = mesh_.parts[material].material;
    if (names_ == PartNames::materials || !(name.empty() || name == AI_DEFAULT_MATERIAL_NAME))
      return material;
    const std::string group = part.mName.length > 0 ? part.mName.C_Str() : node.mName.C_Str();
    const auto [found, is_new] = groups_.emplace(group, mesh_.parts.size());
    if (is_new) mesh_.parts.push_back({group, {}});
    return found->second;
  }

  void add(const aiMesh& part, const aiNode& node, const aiMatrix4x4& place) {
    std::vector<int> index;
    for (unsigned i = 0; i < part.mNumVertices && fault_.empty(); ++i) {
      const aiVector3D p = place * part.mVertices[i];
      if (!std::isfinite(p.x) || !std::isfinite(p.y) || !std::isfinite(p.z)) {
        fault_ = "it holds a corner that is not a finite number";
        return;
      }
      index.push_back(welded({double(p.x), double(p.y), double(p.z)}));
    }
    auto& triangles = mesh_.parts[part_of(part, node)].triangles;
    for (unsigned f = 0; f < part.mNumFaces; ++f) {
      const aiFace& face = part.mFaces[f];
      if (face.mNumIndices < 3 || face.mNumIndices > kMostCorners) continue;
      std::vector<int> corners;
      for (unsigned k = 0; k < face.mNumIndices; ++k)
        if (face.mIndices[k] < index.size()) corners.push_back(index[face.mIndices[k]]);
      add_face(corners, triangles);
      if (mesh_.vertices.size() > 3 * kMostMeshTriangles ||
          (count_ += corners.size()) > 3 * kMostMeshTriangles) {
        fault_ = fmt::format(FMT_STRING("it has more than {} triangles; simplify it before it is used here"),
                             kMostMeshTriangles);
        return;
      }
    }
  }

  /// Ear clipping in the face's own plane: the library's triangulation gets an L wrong.
  void add_face(const std::vector<int>& corners, std::vector<std::array<int, 3>>& triangles) {
    if (corners.size() == 3) {
      triangles.push_back({corners[0], corners[1], corners[2]});
      return;
    }
    if (corners.size() < 3) return;
    const auto at = [&](std::size_t k) { return mesh_.vertices[std::size_t(corners[k % corners.size()])]; };
    std::vector<Vec3> points;
    for (std::size_t k = 0; k < corners.size(); ++k) points.push_back(at(k));
    const Vec3 normal = geometry::area_vector(points);
    if (normal.norm() <= 0) return;
    const Vec3 u = normal.unitOrthogonal(), v = normal.normalized().cross(u);
    geometry::Polygon flat;
    for (std::size_t k = 0; k < corners.size(); ++k)
      flat.emplace_back((at(k) - at(0)).dot(u), (at(k) - at(0)).dot(v));
    if (geometry::fault_of_outline(flat)) {  // a fan is as good as anything
      for (std::size_t k = 2; k < corners.size(); ++k)
        triangles.push_back({corners[0], corners[k - 1], corners[k]});
      return;
    }
    for (const auto& [a, b, c] : geometry::triangulate(flat))
      triangles.push_back({corners[std::size_t(a)], corners[std::size_t(b)], corners[std::size_t(c)]});
  }

  int welded(const Vec3& p) {
    const auto [found, is_new] =
        known_.emplace(std::array<double, 3>{p.x(), p.y(), p.z()}, int(mesh_.vertices.size()));
    if (is_new) mesh_.vertices.push_back(p);
    return found->second;
  }

  const aiScene& space_;
  const PartNames names_;
  geometry::Mesh& mesh_;
  std::map<std::string, std::size_t> groups_;
  std::map<std::array<double, 3>, int> known_;
  std::string fault_;
  int nodes_ = 0;
  std::size_t count_ = 0;
};

}  // namespace

std::string parse_mesh(const fs::path& path, const fs::path& root, PartNames names, geometry::Mesh& mesh) {
  Assimp::Importer importer;
  auto* files = new FilesBelow(root);
  importer.SetIOHandler(files);  // takes it over
  const aiScene* space = importer.ReadFile(path.string(), 0);
  if (!files->refused().empty())
    return fmt::format(FMT_STRING("it names \"{}\", which lies outside its own folder or is no file"),
                       files->refused());
  if (!space) return std::string(importer.GetErrorString()).substr(0, 200);
  const std::string fault = Collector(*space, names, mesh).collect();
  if (!fault.empty()) return fault;
  return mesh.triangle_count() == 0 ? "it holds no triangle" : "";
}

}  // namespace glow::files
