#pragma once

#include "core/photometry/placed_luminaire.hpp"
#include "core/space/build_space.hpp"

namespace glow::rooms {

/// A cosine downlight of 1000 lm and 10 W with the given luminous size.
inline std::shared_ptr<const photometry::Photometry> downlight(double c0, double c90, double high,
                                                               bool with_watts = true) {
  std::vector<double> gammas, candela;
  for (int g = 0; g <= 90; g += 5) {
    gammas.push_back(g);
    candela.push_back(1000 / kPi * std::max(0.0, std::cos(g * kDegree)));
  }
  photometry::Photometry p{"EULUMDAT",
                           "",
                           "Quillon",
                           "Test",
                           "",
                           "",
                           {},
                           false,
                           1000.0,
                           {},
                           {},
                           {},
                           photometry::Symmetry::rotational,
                           photometry::IntensityTable({0}, gammas, candela),
                           {photometry::LuminousShape::rectangle, c0, c90, {high, high, high, high}},
                           {}};
  if (with_watts) p.watts = 10.0;
  return std::make_shared<const photometry::Photometry>(std::move(p));
}

/// A room of 6 x 4 x 3 m with a task on its floor, as it is written.
struct WrittenRoom {
  model::Project project;
  model::Room room;
  standards::RequirementTable table{{}};
  Problems problems;

  WrittenRoom() {
    project.schedule.emplace_back();
    project.schedule.back().mark = "P1";
    project.schedule.back().photometry = downlight(0.6, 0.3, 0.1);
    room.name = "Kiln store";
    room.outline = {{0, 0}, {6, 0}, {6, 4}, {0, 4}};
    room.height_m = 3;
    room.maintenance_factor = 0.8;
    standards::Requirement floor;
    floor.standard = "EN 12464-1";
    floor.key = "circulation.corridor";
    floor.em_lx = 100;
    floor.uo = 0.4;
    floor.plane_height_m = 0;
    table = standards::RequirementTable({floor});
  }
  model::LuminairePlacement& place(const Vec2& at) {
    model::LuminairePlacement placement;
    placement.mark = "P1";
    placement.at = at;
    room.luminaires.push_back(placement);
    return room.luminaires.back();
  }
  std::optional<space::Space> build() {
    planned = space::build_space(project, room, {table}, problems);
    return planned ? std::optional(planned->space) : std::nullopt;
  }
  std::optional<space::PlannedRoom> planned;
  bool told(const std::string& code) const {
    for (const Problem& p : problems.all())
      if (p.code == code) return true;
    return false;
  }
};

}  // namespace glow::rooms
