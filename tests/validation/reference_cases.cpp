#include "validation/reference_cases.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/sources/luminaire_inflow.hpp"

#include <cmath>
#include <map>
#include <nlohmann/json.hpp>
#include <stdexcept>

#include "core/geometry/room_shell.hpp"
#include "test_files.hpp"
#include "validation/scene_json.hpp"

namespace glow::validation {
namespace {

using nlohmann::json;

constexpr int kMeanPoints = 40;  // along each side of a rectangle whose mean is wanted
constexpr int kSphereRings = 36;
constexpr double kGammaStep = 1.0;  // degrees; what the notes to the cases ask for, or finer
constexpr double kPlaneStep = 5.0;

const json& document() {
  return test::shared_json("validation/transport.json");
}

/// I0 |cos g|^n (1 + sin g (a cos C + b sin C) + c sin^2 g cos 2C), in cd.
double formula(const json& set, double c_deg, double gamma_deg) {
  if (set.is_null()) return 0;
  const double g = gamma_deg * kDegree, c = c_deg * kDegree;
  const double shape =
      1 + std::sin(g) * (set["a"].get<double>() * std::cos(c) + set["b"].get<double>() * std::sin(c)) +
      set["c"].get<double>() * std::sin(g) * std::sin(g) * std::cos(2 * c);
  return set["I0"].get<double>() * std::pow(std::abs(std::cos(g)), set["n"].get<double>()) * shape;
}

std::shared_ptr<photometry::IntensityTable> table_of(const json& intensity) {
  std::vector<double> planes, gammas, candela;
  for (double c = 0; c <= 360; c += kPlaneStep) planes.push_back(c);
  // Two nodes at the horizontal, so that a jump there stays a jump.
  for (double g = 0; g <= 180; g += kGammaStep) {
    gammas.push_back(g);
    if (g == 90) gammas.push_back(90 + 1e-6);
  }
  for (const double c : planes)
    for (const double g : gammas)
      candela.push_back(std::max(0.0, formula(g <= 90 ? intensity["down"] : intensity["up"], c, g)));
  return std::make_shared<photometry::IntensityTable>(planes, gammas, candela);
}

photometry::PlacedLuminaire luminaire_of(const json& j) {
  photometry::PlacedLuminaire luminaire;
  luminaire.table = table_of(j["intensity"]);
  const Vec3 position = vec3(j["position"]);
  if (j.contains("frame")) {
    luminaire.frame = {position, vec3(j["frame"]["c0"]), vec3(j["frame"]["c90"]), vec3(j["frame"]["g0"])};
  } else {
    luminaire.frame = geometry::Frame::upright(position, j["rotation_deg"]);
  }
  const std::string type = j["type"];
  if (type == "rect") {
    luminaire.area = {photometry::LuminousShape::rectangle, j["size"][0], j["size"][1], {}};
  } else if (type == "disc") {
    const double diameter = 2 * j["radius"].get<double>();
    luminaire.area = {photometry::LuminousShape::disc, diameter, diameter, {}};
  } else if (type != "point") {
    throw std::runtime_error("unknown luminaire type " + type);
  }
  return luminaire;
}

/// Facets of the sphere, seen from inside, cut along the zones' borders; one surface a zone.
void add_sphere(geometry::Geometry& geometry, const json& sphere) {
  const Vec3 centre = vec3(sphere["centre"]);
  const double radius = sphere["radius"];
  for (const json& zone : sphere["zones"]) {
    const int surface = geometry.add_surface(zone["name"], diffuse(zone["reflectance"]));
    const double low = std::acos(zone["z_min"].get<double>() / radius);
    const double high = std::acos(zone["z_max"].get<double>() / radius);
    const int rings = std::max(2, int(std::lround((low - high) / kPi * kSphereRings)));
    const int sectors = 2 * kSphereRings;
    const auto at = [&](int ring, int sector) {
      const double polar = low + (high - low) * ring / rings, azimuth = 2 * kPi * sector / sectors;
      return Vec3(centre + radius * Vec3(std::sin(polar) * std::cos(azimuth),
                                         std::sin(polar) * std::sin(azimuth), std::cos(polar)));
    };
    for (int r = 0; r < rings; ++r)
      for (int s = 0; s < sectors; ++s) {
        // Triangles, since a ring's quadrilateral is flat only to rounding; those at the poles have no area.
        const Vec3 a = at(r, s), b = at(r, s + 1), c = at(r + 1, s + 1), d = at(r + 1, s);
        if ((a - b).norm() > 1e-6) geometry.add_polygon(surface, {a, c, b});
        if ((c - d).norm() > 1e-6) geometry.add_polygon(surface, {a, d, c});
      }
  }
}

geometry::Geometry geometry_of(const json& space) {
  geometry::Geometry geometry;
  if (space.contains("sphere")) add_sphere(geometry, space["sphere"]);
  if (space.contains("room")) {
    const json& room = space["room"];
    const json& rho = room["reflectance"];
    const double x = room["size"][0], y = room["size"][1], z = room["size"][2];
    for (const char* wall : {"wall_x1", "wall_y0", "wall_y1"})
      if (rho[wall] != rho["wall_x0"]) throw std::runtime_error("walls of different reflectance");
    geometry::add_room(geometry, {{0, 0}, {x, 0}, {x, y}, {0, y}}, z, rho["floor"], rho["wall_x0"],
                       rho["ceiling"]);
  }
  add_boxes(space, "obstacles", geometry);
  return geometry;
}

/// The points that stand for one receiver of the case: one, or an even grid for a mean.
std::vector<readings::Receiver> points_of(const json& receiver) {
  const std::string type = receiver.at("type");
  if (type == "cylindrical") return {{vec3(receiver.at("p")), Vec3::UnitZ(), readings::Kernel::cylinder}};
  if (type == "semicylindrical")
    return {{vec3(receiver.at("p")), vec3(receiver.at("dir")).normalized(), readings::Kernel::semicylinder}};
  const Vec3 normal = vec3(receiver.at("n")).normalized();
  if (type == "point") return {{vec3(receiver.at("p")), normal}};
  if (type != "mean") throw std::runtime_error("unknown receiver type " + type);
  const Vec3 low = vec3(receiver.at("min")), size = vec3(receiver.at("max")) - low;
  int flat = 0;
  for (int k = 0; k < 3; ++k)
    if (size[k] == 0) flat = k;
  const int a = (flat + 1) % 3, b = (flat + 2) % 3;
  std::vector<readings::Receiver> points;
  for (int i = 0; i < kMeanPoints; ++i)
    for (int j = 0; j < kMeanPoints; ++j) {
      Vec3 p = low;
      p[a] += size[a] * (i + 0.5) / kMeanPoints;
      p[b] += size[b] * (j + 0.5) / kMeanPoints;
      points.push_back({p, normal});
    }
  return points;
}

struct Means {
  double direct = 0, indirect = 0;
};

/// Values that belong to the whole space, or to zones of the sphere, from the patches.
double scene_value(const transport::Transport& transport, const transport::GroupLight& light,
                   const json& reference) {
  const std::string component = reference.at("component"), receiver = reference.at("receiver");
  if (component == "absorbed_flux") return light.balance.absorbed_lm;
  const bool zone = receiver.rfind("mean_", 0) == 0;
  const std::string surface = zone ? receiver.substr(5) : "";
  if (component != "mean_total" && !zone) throw std::runtime_error("unknown component " + component);
  double flux = 0, area = 0;
  for (Eigen::Index i = 0; i < light.patch_irradiance_lx.size(); ++i) {
    const transport::Patch& patch = transport.patches().patches()[std::size_t(i)];
    if (zone && transport.geometry().surfaces()[std::size_t(patch.surface)].name != surface) continue;
    flux += light.patch_irradiance_lx[i] * transport.exchange().visible_area_m2[i];
    area += transport.exchange().visible_area_m2[i];
  }
  if (area == 0) throw std::runtime_error("unknown surface " + surface);
  return flux / area;
}

const json& find_case(const std::string& id) {
  for (const json& candidate : document()["cases"])
    if (candidate["id"] == id) return candidate;
  throw std::runtime_error("no case " + id);
}

/// A point of each zone of the sphere stands for "anywhere on the sphere".
json receivers_of(const json& reference_case) {
  json receivers = reference_case["receivers"];
  if (!reference_case["scene"].contains("sphere")) return receivers;
  const double r = reference_case["scene"]["sphere"]["radius"];
  const double facet = std::cos(kPi / 2 / kSphereRings);  // the flat facets lie inside the sphere
  receivers.push_back(
      {{"id", "anywhere_on_sphere"}, {"type", "point"}, {"p", {r * facet * 0.99, 0, 0}}, {"n", {-1, 0, 0}}});
  return receivers;
}

}  // namespace

bool Row::passed() const {
  return std::abs(ours - reference) <= allowed;
}

std::vector<std::string> case_ids(const std::string& classes) {
  std::vector<std::string> ids;
  for (const json& candidate : document()["cases"])
    if (classes.find(candidate["class"].get<std::string>()) != std::string::npos)
      ids.push_back(candidate["id"]);
  return ids;
}

CaseResult run_case(const std::string& id, transport::Effort effort) {
  const json& reference_case = find_case(id);
  // A mean is read at 1600 points, so each of them needs fewer rays.
  if (reference_case.at("kind") == "enclosure") effort.rays_per_receiver = 128;
  std::vector<readings::Receiver> points;
  std::map<std::string, std::pair<std::size_t, std::size_t>> range_of;
  for (const json& receiver : receivers_of(reference_case)) {
    const auto own = points_of(receiver);
    range_of[receiver.at("id")] = {points.size(), own.size()};
    points.insert(points.end(), own.begin(), own.end());
  }
  const transport::Transport transport(geometry_of(reference_case["scene"]), points, effort, {});
  std::vector<photometry::PlacedLuminaire> luminaires;
  for (const json& luminaire : reference_case["scene"]["luminaires"])
    luminaires.push_back(luminaire_of(luminaire));
  const transport::GroupLight light = sources::relight(transport, luminaires, {});

  CaseResult result{id,
                    reference_case["title"],
                    {},
                    light.balance,
                    transport.exchange().closed && !transport.patches().patches().empty()};
  for (const json& reference : reference_case["reference"]) {
    Row row = row_of(id, reference);
    row.allowed = allowed_of(reference, row.reference);
    const auto found = range_of.find(row.receiver);
    if (found == range_of.end()) {
      row.ours = scene_value(transport, light, reference);
    } else {
      const auto [first, count] = found->second;
      Means means;
      for (std::size_t i = first; i < first + count; ++i) {
        means.direct += light.direct_lx[i] / double(count);
        means.indirect += light.interreflected_lx[i] / double(count);
      }
      if (row.component == "direct")
        row.ours = means.direct;
      else if (row.component == "indirect")
        row.ours = means.indirect;
      else if (row.component == "total")
        row.ours = means.direct + means.indirect;
      else
        throw std::runtime_error("unknown component " + row.component);
    }
    result.rows.push_back(row);
  }
  return result;
}

}  // namespace glow::validation
