#pragma once

#include "core/geometry/room_shell.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/readings/grid.hpp"
#include "core/transport/transport.hpp"

namespace glow::rooms {

inline geometry::Material diffuse(double reflectance) {
  geometry::Material material;
  material.diffuse = reflectance;
  return material;
}

/// A cosine-power lobe downwards, skewed along C0; 15 degree planes, 2.5 degree steps.
inline std::shared_ptr<photometry::IntensityTable> lobe(double peak, double exponent, double skew) {
  std::vector<double> planes, gammas, candela;
  for (double c = 0; c <= 360; c += 15) planes.push_back(c);
  for (double g = 0; g <= 90; g += 2.5) gammas.push_back(g);
  for (const double c : planes)
    for (const double g : gammas)
      candela.push_back(peak * std::pow(std::max(0.0, std::cos(g * kDegree)), exponent) *
                        (1 + skew * std::sin(g * kDegree) * std::cos(c * kDegree)));
  return std::make_shared<photometry::IntensityTable>(planes, gammas, candela);
}

/// What a calculation needs: one group of luminaires, receivers on a grid.
struct TestRoom {
  geometry::Geometry geometry;
  std::vector<photometry::PlacedLuminaire> luminaires;
  std::vector<readings::Receiver> receivers;
};

/// An office of 6 x 5 x 2.8 m: two desks with tops of 3 cm, a cupboard, an open rack of thin boards, a screen
/// between the desks; six long luminaires below the ceiling; points 5 cm above the desks' height.
inline TestRoom furnished_room() {
  TestRoom space;
  geometry::Geometry& g = space.geometry;
  geometry::add_room(g, {{0, 0}, {6, 0}, {6, 5}, {0, 5}}, 2.8, 0.2, 0.5, 0.7);
  for (const double x : {1.2, 3.4}) {
    g.add_box("desk top", {x, 2.0, 0.70}, {x + 1.6, 2.8, 0.73}, diffuse(0.4));
    g.add_box("desk side", {x, 2.0, 0}, {x + 0.03, 2.8, 0.70}, diffuse(0.4));
    g.add_box("desk side", {x + 1.57, 2.0, 0}, {x + 1.6, 2.8, 0.70}, diffuse(0.4));
  }
  g.add_box("cupboard", {0, 4.0, 0}, {1.2, 5, 1.9}, diffuse(0.5));
  g.add_box("screen", {2.88, 1.6, 0}, {2.92, 3.2, 1.4}, diffuse(0.6));
  for (const double z : {0.3, 0.7, 1.1, 1.5})
    g.add_box("shelf", {4.0, 4.6, z}, {6.0, 5.0, z + 0.02}, diffuse(0.5));
  photometry::PlacedLuminaire luminaire;
  luminaire.table = lobe(900, 1.3, 0.15);
  luminaire.area = {photometry::LuminousShape::rectangle, 1.2, 0.1, {}};
  for (const double x : {1.0, 3.0, 5.0})
    for (const double y : {1.25, 3.75}) {
      luminaire.frame = geometry::Frame::upright({x, y, 2.7}, 90);
      space.luminaires.push_back(luminaire);
    }
  const auto grid = readings::plane_grid({{0, 0}, {6, 0}, {6, 5}, {0, 5}}, 0.75, 0.5, 0.6);
  for (const Vec3& p : grid->points)
    if (!(p.x() < 1.2 && p.y() > 4.0)) space.receivers.push_back({p, Vec3::UnitZ()});
  return space;
}

}  // namespace glow::rooms
