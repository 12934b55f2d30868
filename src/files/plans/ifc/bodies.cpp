#include "files/plans/ifc/bodies.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace glow::files::ifc {
namespace {

using plans::Shell;
using plans::ShellFace;

constexpr int kDeepestShape = 32;
constexpr std::size_t kMostFaces = 4'000'000;  // of all bodies together
constexpr double kLargest = 1e7;               // m: no building is so far away

void append(Shell& shell, Shell more) {
  for (ShellFace& face : more) shell.push_back(std::move(face));
}

bool is_sane(const Shell& shell) {
  for (const ShellFace& face : shell)
    for (const std::vector<Vec3>& loop : face.loops)
      for (const Vec3& p : loop)
        if (!(p.cwiseAbs().maxCoeff() < kLargest)) return false;
  return true;
}

}  // namespace

std::vector<Shell> Bodies::of(const Item& product) {
  std::vector<Shell> shells;
  const Item shape = file_.item(product, 6);
  if (!shape) return shells;
  const auto place = placements_.of(product.reference(5));
  if (!place) return shells;
  // The body; a plain box only where nothing else is there.
  const Item* box = nullptr;
  std::vector<Item> representations;
  for (const std::uint64_t number : shape.references(2)) representations.push_back(file_.item(number));
  for (const Item& representation : representations) {
    if (!representation.is("IFCSHAPEREPRESENTATION")) continue;
    const std::string name = representation.text(1);
    if (name == "Box") box = &representation;
    if (name == "Body" || name == "Facetation" || name.empty())
      add_representation(representation, *place, 0, shells);
  }
  if (shells.empty() && box) add_representation(*box, *place, 0, shells);
  std::vector<Shell> sane;
  for (Shell& shell : shells) {
    Shell metres = plans::moved(std::move(shell), Eigen::Affine3d(Eigen::Scaling(file_.metre)));
    if (is_sane(metres))
      sane.push_back(std::move(metres));
    else
      file_.doubt("out-of-range", *product.record,
                  fmt::format(FMT_STRING("{} lies further away than any building; it was left out"),
                              number_word(*product.record)));
  }
  return sane;
}

Shell Bodies::whole(const Item& product) {
  Shell all;
  for (Shell& shell : of(product)) append(all, std::move(shell));
  return all;
}

void Bodies::add_representation(const Item& representation, const Eigen::Affine3d& motion, int depth,
                                std::vector<Shell>& shells) {
  for (const std::uint64_t number : representation.references(3))
    add_item(file_.item(number), motion, depth, shells);
}

void Bodies::add_item(const Item& item, const Eigen::Affine3d& motion, int depth,
                      std::vector<Shell>& shells) {
  if (!item) return;
  if (depth > kDeepestShape) {
    file_.doubt(
        "too-deep", *item.record,
        fmt::format(FMT_STRING("{} is a shape within itself, or nested deeper than {}; it was left out"),
                    number_word(*item.record), kDeepestShape));
    return;
  }
  if (item.is("IFCMAPPEDITEM")) {
    const Item map = file_.item(item, 0), target = file_.item(item, 1);
    const Item mapped = map ? file_.item(map, 1) : Item();
    if (!mapped || !target) return;
    const Eigen::Affine3d own =
        placements_.operation(target) * placements_.axes(file_.item(map, 0)).inverse();
    add_representation(mapped, motion * own, depth + 1, shells);
    return;
  }
  Shell shell = solid(item, depth);
  if (!shell.empty()) shells.push_back(plans::moved(std::move(shell), motion));
}

Shell Bodies::solid(const Item& item, int depth) {
  if (!item || depth > kDeepestShape || faces_ > kMostFaces) return {};
  if (item.is("IFCEXTRUDEDAREASOLID") || item.is("IFCEXTRUDEDAREASOLIDTAPERED")) return extruded(item);
  if (item.is("IFCFACETEDBREP") || item.is("IFCFACETEDBREPWITHVOIDS") || item.is("IFCADVANCEDBREP"))
    return faces_of_shell(file_.item(item, 0));
  if (item.is("IFCSHELLBASEDSURFACEMODEL") || item.is("IFCFACEBASEDSURFACEMODEL")) {
    Shell all;
    for (const std::uint64_t number : item.references(0)) append(all, faces_of_shell(file_.item(number)));
    return all;
  }
  if (item.is("IFCTRIANGULATEDFACESET")) return triangles(item);
  if (item.is("IFCPOLYGONALFACESET")) return polygons(item);
  if (item.is("IFCBOOLEANCLIPPINGRESULT") || item.is("IFCBOOLEANRESULT")) return cut(item, depth);
  if (item.is("IFCCSGSOLID")) return solid(file_.item(item, 0), depth + 1);
  const bool block = item.is("IFCBLOCK"), box = item.is("IFCBOUNDINGBOX");
  if (block || box) {
    const double x = item.number(1).value_or(0), y = item.number(2).value_or(0),
                 z = item.number(3).value_or(0);
    Eigen::Affine3d place = block ? placements_.axes(file_.item(item, 0)) : Eigen::Affine3d::Identity();
    if (box) place.translation() = placements_.point(file_.item(item, 0)).value_or(Vec3::Zero());
    if (!(x > 0) || !(y > 0) || !(z > 0)) return {};
    return plans::prism({{{0, 0}, {x, 0}, {x, y}, {0, y}}, {}}, place, Vec3(0, 0, z));
  }
  file_.doubt("shape-kind", *item.record,
              fmt::format(FMT_STRING("{} is an {}, which is not read; what has this shape was left out"),
                          number_word(*item.record), *item.type));
  return {};
}

Shell Bodies::extruded(const Item& item) {
  const auto profile = profiles_.profile(file_.item(item, 0));
  const auto way = placements_.direction(file_.item(item, 2));
  const auto depth = item.number(3);
  if (!profile || !depth || *depth == 0) return {};
  faces_ += profile->outline.size();
  return plans::prism(*profile, placements_.axes(file_.item(item, 1)), way.value_or(Vec3::UnitZ()) * *depth);
}

std::vector<Vec3> Bodies::loop_of(const Item& bound) {
  std::vector<Vec3> points;
  const Item loop = bound ? file_.item(bound, 0) : Item();
  if (loop.is("IFCPOLYLOOP")) {
    for (const std::uint64_t number : loop.references(0))
      if (const auto p = placements_.point(file_.item(number))) points.push_back(*p);
  } else if (loop.is("IFCEDGELOOP")) {  // its corners: edges are taken as straight
    for (const std::uint64_t number : loop.references(0)) {
      const Item oriented = file_.item(number);
      const Item edge = oriented ? file_.item(oriented, 2) : Item();
      const Item vertex = edge ? file_.item(edge, oriented.word(3) == "F" ? 1 : 0) : Item();
      if (const auto p = vertex ? placements_.point(file_.item(vertex, 0)) : std::nullopt)
        points.push_back(*p);
    }
  }
  return points;
}

ShellFace Bodies::face_of(const Item& face) {
  ShellFace found;
  for (const std::uint64_t number : face.references(0)) {
    const Item bound = file_.item(number);
    std::vector<Vec3> loop = loop_of(bound);
    if (loop.size() < 3) continue;
    if (bound.is("IFCFACEOUTERBOUND"))
      found.loops.insert(found.loops.begin(), std::move(loop));
    else
      found.loops.push_back(std::move(loop));
  }
  ++faces_;
  return found;
}

Shell Bodies::faces_of_shell(const Item& shell) {
  Shell all;
  if (!shell) return all;
  for (const std::uint64_t number : shell.references(0)) {
    if (faces_ > kMostFaces) break;
    const Item face = file_.item(number);
    ShellFace found = face ? face_of(face) : ShellFace();
    if (!found.loops.empty()) all.push_back(std::move(found));
  }
  return all;
}

std::vector<Vec3> Bodies::points_of(const Item& list) const {
  std::vector<Vec3> points;
  for (const Value& row : list.at(0).items) {
    Vec3 p = Vec3::Constant(HUGE_VAL);  // one that is no point spoils the face that has it
    for (std::size_t k = 0; k < std::min<std::size_t>(3, row.items.size()); ++k)
      p[Eigen::Index(k)] = number_of(row.items[k]).value_or(HUGE_VAL);
    points.push_back(p);
  }
  return points;
}

Shell Bodies::triangles(const Item& item) {
  const std::vector<Vec3> points = points_of(file_.item(item, 0));
  Shell all;
  for (const Value& row : item.at(3).items) {
    ShellFace face;
    face.loops.emplace_back();
    for (const Value& index : row.items) {
      const double k = number_of(index).value_or(0);
      if (k >= 1 && k <= double(points.size())) face.loops.front().push_back(points[std::size_t(k) - 1]);
    }
    if (face.loops.front().size() == 3 && ++faces_ <= kMostFaces) all.push_back(std::move(face));
  }
  return all;
}

Shell Bodies::polygons(const Item& item) {
  const std::vector<Vec3> points = points_of(file_.item(item, 0));
  Shell all;
  const auto loop = [&](const Value& list) {
    std::vector<Vec3> corners;
    for (const Value& index : list.items) {
      const double k = number_of(index).value_or(0);
      if (k >= 1 && k <= double(points.size())) corners.push_back(points[std::size_t(k) - 1]);
    }
    return corners;
  };
  for (const std::uint64_t number : item.references(2)) {
    const Item face = file_.item(number);
    if (!face || ++faces_ > kMostFaces) continue;
    ShellFace found;
    found.loops.push_back(loop(face.at(0)));
    if (face.is("IFCINDEXEDPOLYGONALFACEWITHVOIDS"))
      for (const Value& hole : face.at(1).items) found.loops.push_back(loop(hole));
    if (found.loops.front().size() > 2) all.push_back(std::move(found));
  }
  return all;
}

/// Whether the bounds of a half space lie round all of the body, seen along its own axis.
bool Bodies::is_within_bounds(const Shell& body, const Item& half_space) {
  const geometry::Polygon bounds = profiles_.curve(file_.item(half_space, 3));
  if (bounds.size() < 3) return false;
  constexpr double kSlack = 1e-3;  // of a unit
  const Eigen::Affine3d own = placements_.axes(file_.item(half_space, 2)).inverse();
  for (const ShellFace& face : body)
    for (const std::vector<Vec3>& loop : face.loops)
      for (const Vec3& p : loop) {
        const Vec2 q = (own * p).head<2>();
        if (!geometry::contains(bounds, q) && geometry::distance_to_edges(bounds, q) > kSlack) return false;
      }
  return true;
}

/// A body less a half space; what is cut otherwise stays whole, and is told.
Shell Bodies::cut(const Item& item, int depth) {
  Shell first = solid(file_.item(item, 1), depth + 1);
  const Item second = file_.item(item, 2);
  if (item.word(0) != "DIFFERENCE" || !second) return first;
  const bool half = second.is("IFCHALFSPACESOLID") || second.is("IFCPOLYGONALBOUNDEDHALFSPACE");
  const Item plane = half ? file_.item(second, 0) : Item();
  const bool in_part = second.is("IFCPOLYGONALBOUNDEDHALFSPACE") && !is_within_bounds(first, second);
  if (!plane.is("IFCPLANE") || in_part) {
    file_.doubt("cut-kind", *item.record,
                fmt::format(FMT_STRING("{} is a body with a part cut out of it; it was taken whole"),
                            number_word(*item.record)));
    return first;
  }
  const Eigen::Affine3d place = placements_.axes(file_.item(plane, 0));
  Vec3 normal = place.linear().col(2);
  // .T.: the half space lies against the normal, and is what is taken away.
  if (second.word(1) != "F") normal = -normal;
  return plans::clipped(first, normal, normal.dot(place.translation()));
}

}  // namespace glow::files::ifc
