#pragma once

#include <random>

#include "rooms/furnished_room.hpp"

namespace glow::rooms {

inline geometry::Material pane(double diffuse, double clear, double scattering) {
  geometry::Material material = rooms::diffuse(diffuse);
  material.clear = clear;
  material.scattering = scattering;
  return material;
}

/// A room of random size with sloped or flat ceiling, a window, boxes turned anyhow, a thin board and a pane.
inline TestRoom random_scene(unsigned seed) {
  std::mt19937 chance(seed);
  const auto between = [&](double a, double b) { return a + (b - a) * double(chance()) / 4294967296.0; };
  TestRoom space;
  const double x = between(3.5, 7), y = between(3, 6), z = between(2.4, 3.4);
  geometry::RoomShell shell = geometry::RoomShell::flat(
      {{0, 0}, {x, 0}, {x, y}, {0, y}}, z, between(0.1, 0.4), between(0.3, 0.7), between(0.5, 0.8));
  if (seed % 2) shell.ceiling.push_back({between(2.2, 2.4), {0, 0.2}});
  if (seed % 3 == 0) {
    geometry::WallOpening opening;
    opening.wall = 1;
    opening.low = {0.5, 0.9};
    opening.high = {2.5, 2.1};
    opening.name = "window";
    opening.has_pane = seed % 2 == 0;
    opening.pane = pane(0.1, 0.7, 0);
    shell.openings.push_back(opening);
  }
  geometry::add_room(space.geometry, shell);
  for (int i = 0; i < 3; ++i) {
    Eigen::Isometry3d frame = Eigen::Isometry3d::Identity();
    frame.translate(Vec3(between(0.2, 0.6) * x, between(0.2, 0.6) * y, i == 2 ? 1.3 : 0));
    frame.rotate(Eigen::AngleAxisd(between(0, 6), Vec3::UnitZ()));
    space.geometry.add_box("box", {0, 0, 0}, {between(0.3, 1), between(0.2, 0.6), between(0.05, 0.7)},
                           rooms::diffuse(between(0.1, 0.7)), frame);
  }
  const double w = between(0.5, 0.8) * x;
  geometry::Material board = pane(0.4, 0, 0);
  board.two_sided = true;
  space.geometry.add_polygon(space.geometry.add_surface("board", board),
                             {{w, 0.3, 0}, {w, 1.6, 0}, {w, 1.6, 1.5}, {w, 0.3, 1.5}});
  space.geometry.add_polygon(
      space.geometry.add_surface("pane", seed % 2 ? pane(0.15, 0, 0.55) : pane(0.1, 0.6, 0.1)),
      {{0.4, 0.7 * y, 0.2}, {0.6 * x, 0.7 * y, 0.2}, {0.6 * x, 0.7 * y, 1.9}, {0.4, 0.7 * y, 1.9}});
  for (int i = 0; i < 3; ++i) {
    photometry::PlacedLuminaire l;
    l.table = lobe(between(300, 1200), between(1, 5), between(0, 0.5));
    l.area = {photometry::LuminousShape::rectangle, between(0.1, 1.2), between(0.05, 0.5), {}};
    const Vec3 at(between(0.25, 0.75) * x, between(0.25, 0.75) * y, 2.2);
    l.frame = geometry::Frame::aimed(at, {between(0.3, 0.7) * x, between(0.3, 0.7) * y, 0}, between(0, 360));
    space.luminaires.push_back(l);
  }
  for (int i = 0; i < 5; ++i)
    space.receivers.push_back({{between(0.05, 0.95) * x, between(0.05, 0.95) * y, 1.15}, Vec3::UnitZ()});
  space.receivers.push_back({{0.5 * x, 0.02, 1.5}, Vec3::UnitY()});
  space.receivers.push_back({{between(0.3, 0.7) * x, 0.5 * y, 2.1}, -Vec3::UnitZ()});
  return space;
}

}  // namespace glow::rooms
