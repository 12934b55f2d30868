#include "files/meshes/mesh_reader.hpp"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include "core/geometry/geometry.hpp"
#include "temporary_folder.hpp"

namespace glow::files {
namespace mesh_reader_test {

using test::TemporaryFolder;

const char* kCube =
    "o cube\nv 0 0 0\nv 1 0 0\nv 1 2 0\nv 0 2 0\nv 0 0 3\nv 1 0 3\nv 1 2 3\nv 0 2 3\n"
    "usemtl wood\nf 4 3 2 1\nf 5 6 7 8\nusemtl paint\nf 1 2 6 5\nf 2 3 7 6\nf 3 4 8 7\nf 4 1 5 8\n";

double area_of(const geometry::Geometry& geometry) {
  double area = 0;
  for (const geometry::Facet& facet : geometry.facets()) area += facet.area();
  return area;
}

geometry::Geometry surfaces_of(const geometry::Mesh& mesh) {
  geometry::Geometry geometry;
  for (const geometry::Mesh::Part& part : mesh.parts)
    geometry.add_triangles(geometry.add_surface(part.material, {0.5}), mesh.vertices, part.triangles);
  return geometry;
}

TEST(MeshReader, AnObjKeepsItsMaterialsAndItsFacesBecomeWholeAgain) {
  const TemporaryFolder folder;
  folder.write("cube.obj", kCube);
  const MeshResult result = read_mesh(folder.path() / "cube.obj");
  ASSERT_TRUE(result.mesh) << result.fault;
  EXPECT_EQ(result.mesh->size(), Vec3(1, 2, 3));
  EXPECT_EQ(result.mesh->triangle_count(), 12u);
  EXPECT_EQ(geometry::enclosure_of(*result.mesh), geometry::Enclosure::outwards);
  ASSERT_EQ(result.mesh->parts.size(), 2u);
  const geometry::Geometry geometry = surfaces_of(*result.mesh);
  EXPECT_EQ(geometry.facets().size(), 6u);  // twelve triangles, two of them in each plane
  EXPECT_NEAR(area_of(geometry), 22, 1e-6);
  for (const geometry::Facet& facet : geometry.facets()) {
    ASSERT_EQ(facet.loops.size(), 1u);
    EXPECT_EQ(facet.loops[0].size(), 4u);
  }
}

TEST(MeshReader, AnLShapedFaceIsTriangulatedRightWhereverItBegins) {
  const std::vector<std::string> corners = {"0 0 0", "6 0 0", "6 4 0", "3 4 0", "3 8 0", "0 8 0"};
  for (std::size_t start = 0; start < corners.size(); ++start)
    for (const bool reversed : {false, true}) {
      const TemporaryFolder folder;
      std::string text, face = "f";
      for (std::size_t k = 0; k < corners.size(); ++k) {
        text += "v " + corners[k] + "\n";
        const std::size_t at = (start + (reversed ? corners.size() - k : k)) % corners.size();
        face += " " + std::to_string(at + 1);
      }
      folder.write("l.obj", text + face + "\n");
      const MeshResult result = read_mesh(folder.path() / "l.obj");
      ASSERT_TRUE(result.mesh) << result.fault;
      EXPECT_NEAR(area_of(surfaces_of(*result.mesh)), 36, 1e-6) << start << reversed;
    }
}

std::string binary_stl() {
  std::string bytes(80, ' ');
  const auto put = [&](const auto& value) {
    bytes.append(reinterpret_cast<const char*>(&value), sizeof value);
  };
  put(std::uint32_t{1});
  for (const float f : {0.f, 0.f, 1.f, 0.f, 0.f, 0.f, 2.f, 0.f, 0.f, 0.f, 3.f, 0.f}) put(f);
  put(std::uint16_t{0});
  return bytes;
}

/// One triangle, its buffer inside the file or beside it.
std::string gltf(const std::string& uri) {
  return fmt::format(FMT_STRING(R"({{"asset":{{"version":"2.0"}},"scene":0,"scenes":[{{"nodes":[0]}}],
"nodes":[{{"mesh":0,"translation":[5,0,0]}}],"meshes":[{{"primitives":[{{"attributes":{{"POSITION":0}}}}]}}],
"buffers":[{{"uri":"{}","byteLength":36}}],"bufferViews":[{{"buffer":0,"byteLength":36}}],
"accessors":[{{"bufferView":0,"componentType":5126,"count":3,"type":"VEC3","max":[2,3,0],"min":[0,0,0]}}]}})"),
                     uri);
}
const char* kTriangleData =  // (0, 0, 0), (2, 0, 0), (0, 3, 0) as floats
    "data:application/octet-stream;base64,AAAAAAAAAAAAAAAAAAAAQAAAAAAAAAAAAAAAAAAAQEAAAAAA";

TEST(MeshReader, EveryFormatGivesTheSameTriangle) {
  const TemporaryFolder folder;
  folder.write("t.obj", "v 0 0 0\nv 2 0 0\nv 0 3 0\nf 1 2 3\n");
  folder.write("text.stl",
               "solid t\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 2 0 0\nvertex 0 3 0\nendloop\n"
               "endfacet\nendsolid t\n");
  folder.write("binary.STL", binary_stl());
  folder.write("t.gltf", gltf(kTriangleData));
  for (const char* name : {"t.obj", "text.stl", "binary.STL", "t.gltf"}) {
    const MeshResult result = read_mesh(folder.path() / name);
    ASSERT_TRUE(result.mesh) << name << ": " << result.fault;
    EXPECT_EQ(result.mesh->triangle_count(), 1u) << name;
    EXPECT_TRUE(result.mesh->size().isApprox(Vec3(2, 3, 0))) << name;
    EXPECT_EQ(geometry::enclosure_of(*result.mesh), geometry::Enclosure::open);
  }
}

struct BadMesh {
  const char* name;
  std::string bytes;
  const char* words;
};

TEST(MeshReader, WhatCannotBeUsedIsRefusedInWords) {
  const BadMesh cases[] = {
      {"empty.obj", "", "the file is empty"},
      {"nothing.obj", "v 0 0 0\nv 1 0 0\n", ""},
      {"junk.stl", "solid \x01\x02\xff facet facet facet", ""},
      {"short.stl", binary_stl().substr(0, 100), ""},
      {"cut.gltf", gltf(kTriangleData).substr(0, 200), ""},
      {"index.obj", "v 0 0 0\nv 1 0 0\nv 1 1 0\nf 1 2 99999999\n", ""},
      {"nan.obj", "v 0 0 0\nv nan 0 0\nv 1 1 0\nf 1 2 3\n", ""},
      {"picture.png", "\x89PNG", "expected an OBJ, STL, glTF or GLB"},
      {"escape.gltf", gltf("../outside.bin"), "outside its own folder"},
  };
  const TemporaryFolder folder;
  folder.write("outside.bin", std::string(36, '\0'));
  for (const BadMesh& bad : cases) {
    folder.write(std::string("meshes/") + bad.name, bad.bytes);
    const MeshResult result = read_mesh(folder.path() / "meshes" / bad.name);
    EXPECT_FALSE(result.mesh) << bad.name;
    EXPECT_NE(result.fault, "") << bad.name;
    EXPECT_NE(result.fault.find(bad.words), std::string::npos) << bad.name << ": " << result.fault;
  }
  EXPECT_FALSE(read_mesh(folder.path() / "missing.obj").mesh);
}

TEST(MeshReader, SurvivesEveryCutOfAFile) {
  const TemporaryFolder folder;
  for (const auto& [name, bytes] : {std::pair<std::string, std::string>{"a.obj", kCube},
                                    {"a.stl", binary_stl()},
                                    {"a.gltf", gltf(kTriangleData)}})
    for (std::size_t length = 0; length < bytes.size(); length += 1 + bytes.size() / 12) {
      folder.write(name, bytes.substr(0, length));
      const MeshResult result = read_mesh(folder.path() / name);
      EXPECT_TRUE(result.mesh || !result.fault.empty()) << name << " " << length;
    }
}

/// A bumpy sheet of n x n squares.
geometry::Mesh sheet(int n) {
  geometry::Mesh mesh;
  for (int j = 0; j <= n; ++j)
    for (int i = 0; i <= n; ++i)
      mesh.vertices.emplace_back(double(i) / n, double(j) / n,
                                 0.05 * std::sin(20.0 * i / n) * std::sin(17.0 * j / n));
  mesh.parts.push_back({"m", {}});
  for (int j = 0; j < n; ++j)
    for (int i = 0; i < n; ++i) {
      const int a = j * (n + 1) + i, b = a + 1, c = a + n + 2, d = a + n + 1;
      mesh.parts[0].triangles.push_back({a, b, c});
      mesh.parts[0].triangles.push_back({a, c, d});
    }
  return mesh;
}

TEST(Mesh, IsMadeSimplerWithoutLosingItsSizeOrMuchOfItsArea) {
  const geometry::Mesh fine = sheet(150);
  const geometry::SimplerMesh simpler = geometry::simplified(fine, 4000);
  EXPECT_GT(simpler.edge, 0);
  EXPECT_LE(simpler.mesh.triangle_count(), 4000u);
  EXPECT_GT(simpler.mesh.triangle_count(), 1000u);
  EXPECT_NEAR(area_of(surfaces_of(simpler.mesh)) / area_of(surfaces_of(fine)), 1, 0.05);
  EXPECT_LT((simpler.mesh.size() - fine.size()).norm(), 2 * simpler.edge);
  EXPECT_EQ(geometry::simplified(fine, 1000000).edge, 0);
}

}  // namespace mesh_reader_test
}  // namespace glow::files
