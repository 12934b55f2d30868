#include "core/space/outside/outside.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/geometry/polygon_bands.hpp"

namespace glow::space {
namespace {

constexpr auto kOwn = geometry::SurfaceRole::wall;  // of the room: nobody's view
constexpr double kRevealCell = 0.25;                // of the shorter side of an opening: pieces of its reveal
constexpr int kMostRevealCells = 24, kMostAcross = 4;
constexpr double kGround = 0;  // m: level with the floors

/// Directions of an opening: along its lower edge from the left, as seen from inside, up, and out.
struct Axes {
  Vec3 left_low, along, up, out;
  double width = 0, height = 0;

  Axes(const Opening& opening, double reveal_m) : out(opening.outwards) {
    const std::vector<Vec3>& c = opening.corners;
    along = c[1] - c[0];
    up = c[3] - c[0];
    width = along.norm();
    height = up.norm();
    along /= width;
    up /= height;
    left_low = c[0] + reveal_m * out;
  }
  Vec3 at(double x, double y, double z) const { return left_low + x * along + y * up + z * out; }
};

geometry::Material of_both_sides(double reflectance) {
  geometry::Material material;
  material.diffuse = reflectance;
  material.two_sided = true;
  return material;
}

void add_overhang(const Axes& axes, const model::Shade& shade, OutsidePart& part) {
  const int surface = part.geometry.add_surface(part.name, of_both_sides(shade.reflectance), kOwn);
  const double y = axes.height + shade.gap_m, a = -shade.beyond_m, b = axes.width + shade.beyond_m;
  part.geometry.add_polygon(surface, {axes.at(a, y, 0), axes.at(b, y, 0), axes.at(b, y, shade.depth_m),
                                      axes.at(a, y, shade.depth_m)});
}

void add_fins(const Axes& axes, const model::Shade& shade, OutsidePart& part) {
  const int surface = part.geometry.add_surface(part.name, of_both_sides(shade.reflectance), kOwn);
  const double low = -shade.beyond_m, high = axes.height + shade.beyond_m;
  for (const double x : {-shade.gap_m, axes.width + shade.gap_m})
    part.geometry.add_polygon(surface, {axes.at(x, low, 0), axes.at(x, high, 0),
                                        axes.at(x, high, shade.depth_m), axes.at(x, low, shade.depth_m)});
}

/// Slats without thickness, as many as fit, each about a line half a spacing from the edges on.
void add_slats(const Axes& axes, const model::Shade& shade, OutsidePart& part) {
  const int surface = part.geometry.add_surface(part.name, of_both_sides(shade.reflectance), kOwn);
  const bool level = shade.kind == model::Shade::Kind::horizontal_slats;
  const double span = level ? axes.height : axes.width, length = level ? axes.width : axes.height;
  const int count = std::max(1, int(std::lround(span / shade.spacing_m)));
  const double reach = shade.depth_m / 2 * std::cos(shade.tilt_deg * kDegree);
  const double drop = shade.depth_m / 2 * std::sin(shade.tilt_deg * kDegree);
  for (int k = 0; k < count; ++k) {
    const double middle = span / 2 + (k - (count - 1) / 2.0) * shade.spacing_m;
    const double inner = middle + drop, outer = middle - drop;
    const double near = shade.gap_m - reach, far = shade.gap_m + reach;
    if (level)
      part.geometry.add_polygon(surface, {axes.at(0, inner, near), axes.at(length, inner, near),
                                          axes.at(length, outer, far), axes.at(0, outer, far)});
    else
      part.geometry.add_polygon(surface, {axes.at(inner, 0, near), axes.at(inner, length, near),
                                          axes.at(outer, length, far), axes.at(outer, 0, far)});
  }
}

}  // namespace

bool stands_in(const std::string& state, const std::vector<std::string>& states) {
  return state.empty() || std::find(states.begin(), states.end(), state) != states.end();
}

daylight::Glazing glazing_of(const model::Opening& opening) {
  daylight::Glazing glazing = opening.glazing;
  if (!opening.outside) {
    glazing.at_normal = 0;
    return glazing;
  }
  if (!opening.pane) return {};  // a hole
  if (!opening.has_glazing) glazing.law = daylight::Glazing::Law::clear;
  const bool by_bars = opening.bars.any() && opening.glass;
  glazing.at_normal = (by_bars ? *opening.glass : opening.pane->material).clear * opening.dirt;
  glazing.scattered = opening.pane->material.scattering;
  return glazing;
}

daylight::Glazing glazing_in(const Opening& opening, const std::vector<std::string>& states) {
  daylight::Glazing glazing = opening.glazing;
  for (const model::Shade& screen : opening.screens) {
    if (!stands_in(screen.state, states)) continue;
    const double passes = screen.transmittance, scattered = screen.scattered_share;
    glazing.scattered = passes * (glazing.scattered + scattered * glazing.even_transmittance());
    glazing.at_normal *= passes * (1 - scattered);
  }
  return glazing;
}

void add_reveal(const Opening& opening, double depth_m, double reflectance, geometry::Geometry& outside) {
  geometry::Material material;
  material.diffuse = reflectance;
  const int surface = outside.add_surface("reveal of " + opening.name, material, kOwn);
  const std::vector<Vec3>& c = opening.corners;
  const double shorter = std::min((c[1] - c[0]).norm(), (c[3] - c[0]).norm());
  // Light falls off along a shaft within about a quarter of its width.
  const double cell =
      std::clamp(kRevealCell * shorter, depth_m / kMostRevealCells, std::max(depth_m, shorter));
  const int deep = std::max(1, int(std::ceil(depth_m / cell - 1e-9)));
  for (std::size_t k = 0; k < c.size(); ++k) {
    const Vec3 &a = c[k], &b = c[(k + 1) % c.size()];
    const int across = std::clamp(int(std::ceil((b - a).norm() / cell - 1e-9)), 1, kMostAcross);
    for (int i = 0; i < deep; ++i)
      for (int j = 0; j < across; ++j) {
        const Vec3 p = a + (b - a) * j / across, q = a + (b - a) * (j + 1) / across;
        const Vec3 near = depth_m * i / deep * opening.outwards,
                   far = depth_m * (i + 1) / deep * opening.outwards;
        // Each looks into the hole: the corners run about it as they are seen from inside the room.
        outside.add_polygon(surface, {p + near, q + near, q + far, p + far});
      }
  }
}

void add_shades(const Opening& opening, const std::vector<model::Shade>& shades, double reveal_m,
                std::vector<OutsidePart>& parts) {
  using Kind = model::Shade::Kind;
  const Axes axes(opening, reveal_m);
  for (const model::Shade& shade : shades) {
    if (shade.kind == Kind::screen) continue;
    const char* what = shade.kind == Kind::overhang ? "overhang"
                       : shade.kind == Kind::fins   ? "fins"
                                                    : "slats";
    OutsidePart part{
        fmt::format(FMT_STRING("{} of {}"), what, opening.name), shade.state, {}, true, opening.name};
    if (shade.kind == Kind::overhang)
      add_overhang(axes, shade, part);
    else if (shade.kind == Kind::fins)
      add_fins(axes, shade, part);
    else
      add_slats(axes, shade, part);
    parts.push_back(std::move(part));
  }
}

std::vector<OutsidePart> place_obstructions(const model::Site& site, double level_m, const Space& space,
                                            Problems& problems) {
  constexpr double kCommon = 1e-3;  // m2
  std::vector<OutsidePart> parts;
  for (const model::Obstruction& each : site.obstructions) {
    std::vector<model::Object> written = {each.object};  // what is placed refers to it
    written.front().at.z() -= level_m;
    written.front().bottom_m -= level_m;
    written.front().top_m -= level_m;
    for (const PlacedObject& placed : place_objects(written, [](const Vec2&) { return kGround; })) {
      OutsidePart part{placed.name, each.state, {}, false};
      add_surfaces(placed, part.geometry);
      double common = 0;
      if (placed.extent.plan.size() > 2)
        for (const geometry::Polygon& piece : geometry::common_area(placed.extent.plan, space.outline))
          common += geometry::signed_area(piece);
      const bool beside = placed.extent.bottom_m < space.height_m && placed.extent.top_m > 0;
      if (common > kCommon && beside && !each.object.mesh)
        problems.warning(
            "P096", each.object.place,
            fmt::format(FMT_STRING("\"{}\" stands where \"{}\" is, {:.1f} m2 of it; obstructions are in the "
                                   "coordinates of the rooms, and hide their windows from inside"),
                        placed.name, space.name, common));
      parts.push_back(std::move(part));
    }
  }
  return parts;
}

}  // namespace glow::space
