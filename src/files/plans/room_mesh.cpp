#include "files/plans/room_mesh.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/plans/drawing_units.hpp"
#include "core/plans/models/room_of_shell.hpp"
#include "files/meshes/mesh_reader.hpp"
#include "files/plans/dxf/drawn_text.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::files {
namespace {

namespace fs = std::filesystem;
using plans::FoundOpening;
using plans::Shell;

constexpr double kJoint = 0.002;  // m: corners nearer are one

enum class Part { shell, window, door };

/// By words in several languages.
Part part_of(const std::string& name) {
  static const char* kWindows[] = {"glass", "glaz",    "window",  "pane",     "fenster", "glas",
                                   "vitr",  "fenetre", "fenêtre", "finestra", "ventana", "skylight"};
  static const char* kDoors[] = {"door", "tür", "tuer", "porte", "porta", "puerta", "deur"};
  const std::string words = dxf::folded(name);
  const auto has = [&](const char* word) { return words.find(dxf::folded(word)) != std::string::npos; };
  if (std::any_of(std::begin(kWindows), std::end(kWindows), has)) return Part::window;
  return std::any_of(std::begin(kDoors), std::end(kDoors), has) ? Part::door : Part::shell;
}

/// Flat pieces of a part as faces.
Shell faces_of(const std::vector<Vec3>& vertices, const geometry::Mesh::Part& part) {
  Shell shell;
  for (const geometry::FlatPiece& piece : geometry::flat_pieces(vertices, part.triangles)) {
    plans::ShellFace face;
    face.material = part.material;
    for (const std::vector<int>& loop : piece.loops) {
      face.loops.emplace_back();
      for (const int corner : loop) face.loops.back().push_back(vertices[std::size_t(corner)]);
    }
    std::sort(face.loops.begin(), face.loops.end(), [](const auto& a, const auto& b) {
      return plans::loop_normal(a).norm() > plans::loop_normal(b).norm();
    });
    if (!face.loops.empty()) shell.push_back(std::move(face));
  }
  return shell;
}

double distance_to(const plans::OpenEdge& edge, const Vec3& p) {
  const Vec3 way = edge.to - edge.from;
  const double t = std::clamp(way.dot(p - edge.from) / std::max(way.squaredNorm(), 1e-12), 0.0, 1.0);
  return (edge.from + t * way - p).norm();
}

/// Edges that lie along others, whose corners are elsewhere, are closed.
std::vector<plans::OpenEdge> real_leaks(const std::vector<plans::OpenEdge>& edges) {
  constexpr std::size_t kMost = 4000;  // more are no room that somebody could mend by them
  std::vector<plans::OpenEdge> leaks;
  for (std::size_t k = 0; k < std::min(edges.size(), kMost); ++k) {
    bool closed = true;
    for (const double t : {0.02, 0.25, 0.5, 0.75, 0.98}) {
      const Vec3 p = edges[k].from + t * (edges[k].to - edges[k].from);
      bool met = false;
      for (std::size_t other = 0; other < edges.size() && !met; ++other)
        met = other != k && distance_to(edges[other], p) < kJoint;
      closed = closed && met;
    }
    if (!closed) leaks.push_back(edges[k]);
  }
  return leaks;
}

class RoomMesh {
 public:
  RoomMesh(geometry::Mesh mesh, const std::string& name) : mesh_(std::move(mesh)), name_(name) {}

  plans::Model model(double metres) {
    model_.metres_per_unit = metres;
    plans::ModelSpace space;
    space.entity = {name_, fs::path(name_).stem().string(), {}, 0};
    space.storey = 0;
    for (const geometry::Mesh::Part& part : mesh_.parts) {
      Shell faces = faces_of(mesh_.vertices, part);
      model_.kinds.push_back({part.material.empty() ? "(no name)" : part.material, faces.size(), true});
      add_openings(part_of(part.material), faces);
      add_bodies(faces, part.material);
      all_.insert(all_.end(), faces.begin(), faces.end());
    }
    const double low = plans::box_of(all_).low.z();
    model_.storeys.push_back({{{}, fs::path(name_).stem().string(), {}, 0}, 0, low});
    space.shells.push_back(all_);
    find_leaks();
    model_.spaces.push_back(std::move(space));
    return std::move(model_);
  }

 private:
  void add_openings(Part part, const Shell& faces) {
    if (part == Part::shell) return;
    constexpr double kLevel = 0.5;  // cosine: flatter panes are roof windows
    for (const plans::ShellFace& face : faces) {
      plans::ModelOpening opening;
      opening.entity.name = face.material;
      opening.kind = part == Part::window ? FoundOpening::Kind::window : FoundOpening::Kind::door;
      opening.storey = 0;
      opening.spaces = {0};
      opening.corners = face.loops.front();
      opening.in_roof = std::abs(plans::loop_normal(face.loops.front()).normalized().z()) > kLevel;
      model_.openings.push_back(std::move(opening));
    }
  }

  /// What the faces are called, for the finishes that are to be confirmed.
  void add_bodies(const Shell& faces, const std::string& material) {
    if (material.empty() || part_of(material) != Part::shell) return;
    for (const plans::ShellFace& face : faces) {
      const double up = std::abs(plans::loop_normal(face.loops.front()).normalized().z());
      plans::ModelBody body;
      body.kind = up > 0.7 ? plans::ModelBody::Kind::slab : plans::ModelBody::Kind::wall;
      body.storey = 0;
      body.material = material;
      body.shell = {face};
      model_.bodies.push_back(std::move(body));
    }
  }

  /// Of its outer faces: what stands inside may be open as it likes.
  void find_leaks() {
    const auto room = plans::room_of({all_});
    if (!room) return;
    constexpr double kOuter = 0.05;  // m
    std::vector<plans::OpenEdge> outer;
    for (const plans::OpenEdge& edge : plans::open_edges(all_, kJoint)) {
      const Vec3 middle = (edge.from + edge.to) / 2;
      if (geometry::distance_to_edges(room->outline, middle.xy()) < kOuter ||
          middle.z() > room->floor_z + room->least_height_m - kOuter)
        outer.push_back(edge);
    }
    model_.leaks = real_leaks(outer);
    double length = 0;
    for (const plans::OpenEdge& leak : model_.leaks) length += (leak.to - leak.from).norm();
    if (!model_.leaks.empty())
      model_.doubts.push_back(
          {"leak",
           fmt::format(FMT_STRING("the mesh is not closed: {} edges, {:.2f} m in all, belong to one "
                                  "face only (red in the picture). The room is taken as if it "
                                  "were; look at its outline"),
                       model_.leaks.size(), length),
           Vec2::Zero(), false});
  }

  const geometry::Mesh mesh_;
  const std::string name_;
  plans::Model model_;
  Shell all_;
};

/// The middle along an axis of the parts whose names have one of the words; nothing: there are none.
std::optional<double> middle_of(const geometry::Mesh& mesh, std::initializer_list<const char*> words,
                                int axis) {
  double sum = 0;
  std::size_t count = 0;
  for (const geometry::Mesh::Part& part : mesh.parts) {
    const std::string name = dxf::folded(part.material);
    if (std::none_of(words.begin(), words.end(),
                     [&](const char* word) { return name.find(word) != std::string::npos; }))
      continue;
    for (const auto& triangle : part.triangles)
      for (const int corner : triangle) {
        sum += mesh.vertices[std::size_t(corner)][axis];
        ++count;
      }
  }
  return count ? std::optional(sum / double(count)) : std::nullopt;
}

/// Whether floor and ceiling, by their names, lie beside each other: the mesh stands on another axis.
bool lies_on_its_side(const geometry::Mesh& mesh) {
  const auto floor = middle_of(mesh, {"floor", "boden", "vloer", "suelo", "pavimento"}, 2);
  const auto ceiling = middle_of(mesh, {"ceiling", "decke", "plafond", "techo", "soffitto"}, 2);
  return floor && ceiling && *ceiling - *floor < 0.25 * mesh.size().z();
}

/// Metres of one unit: stated, or by the format; else an error with what is likely.
std::optional<double> unit_of(const geometry::Mesh& mesh, const std::string& ending,
                              const plans::FloorWish& wish, Problems& problems) {
  if (wish.unit.metres_per_unit) return wish.unit.metres_per_unit;
  if (ending != ".OBJ") return 1;
  const Vec3 size = mesh.size();
  const double unit = plans::likely_unit(size.x() * size.y());
  const std::string likely = plans::unit_name(unit);
  problems.error(
      "unit-unknown", {wish.file, 0, 0},
      fmt::format(FMT_STRING("an OBJ file does not say in what unit it is: likely {}, by which the room "
                             "measures {:.3g} x {:.3g} x {:.3g} m. Say so with --unit {}"),
                  likely, size.x() * unit, size.y() * unit, size.z() * unit, likely));
  return std::nullopt;
}

}  // namespace

bool is_room_mesh(const std::string& name) {
  const std::string ending = in_capitals(fs::path(name).extension().string());
  return ending == ".OBJ" || ending == ".GLTF" || ending == ".GLB";
}

std::optional<plans::Model> read_room_mesh(const fs::path& path, const plans::FloorWish& wish,
                                           Problems& problems) {
  const MeshResult read = read_mesh(path, PartNames::materials_or_groups);
  if (!read.mesh) {
    problems.error("mesh", {wish.file, 0, 0}, read.fault);
    return std::nullopt;
  }
  const std::string ending = in_capitals(path.extension().string());
  Eigen::Affine3d motion = Eigen::Affine3d::Identity();
  if (wish.y_up.value_or(ending != ".OBJ")) motion.linear() << 1, 0, 0, 0, 0, -1, 0, 1, 0;
  geometry::Mesh mesh = geometry::moved(*read.mesh, motion);
  const auto unit = unit_of(mesh, ending, wish, problems);
  if (!unit) return std::nullopt;
  if (lies_on_its_side(mesh)) {
    problems.error(
        "lies-on-side", {wish.file, 0, 0},
        fmt::format(
            FMT_STRING("its ceiling does not lie above its floor: another axis points up. Say so with "
                       "--up {}"),
            wish.y_up.value_or(ending != ".OBJ") ? "z" : "y"));
    return std::nullopt;
  }
  return RoomMesh(geometry::moved(std::move(mesh), Eigen::Affine3d(Eigen::Scaling(*unit))), wish.file)
      .model(*unit);
}

}  // namespace glow::files
