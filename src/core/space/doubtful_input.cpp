#include "core/space/doubtful_input.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace glow::space {
namespace {

constexpr double kRaised = 0.3;                           // m above the task's plane: another plane
constexpr double kCoarser = 1.05;                         // times the rule's pitch
constexpr double kTallRoom = 7.0, kTallestInFeet = 16.0;  // m: heights that rooms have in feet

class DoubtfulInput {
 public:
  DoubtfulInput(const model::Project& project, const model::Room& room, const Space& space,
                const Brief& brief, Problems& problems)
      : project_(project), room_(room), space_(space), brief_(brief), problems_(problems) {}

  void look() {
    reflectances();
    colour();
    buried_luminaires();
    coarse_grids();
    maintenance();
    dimensions();
    plane_height();
  }

 private:
  void reflectances();
  void colour();
  void buried_luminaires();
  void coarse_grids();
  void maintenance();
  void dimensions();
  void plane_height();

  const model::Project& project_;
  const model::Room& room_;
  const Space& space_;
  const Brief& brief_;
  Problems& problems_;
};

void DoubtfulInput::reflectances() {
  if (brief_.tasks.empty()) return;
  const std::string standard = brief_.tasks.front().row.standard_name();
  for (const standards::ReflectanceRange& range : standards::reflectance_ranges(standard)) {
    const double value = range.surface == "ceiling" ? space_.reflectances.ceiling
                         : range.surface == "walls" ? space_.reflectances.walls
                                                    : space_.reflectances.floor;
    if (range.surface == "ceiling" && !space_.roofed) continue;
    if (value >= range.low && value <= range.high) continue;
    problems_.warning(
        "P060", room_.reflectance_place,
        fmt::format(FMT_STRING("\"{}\": {} of reflectance {:.2f}; {} advises {:.1f} to {:.1f}. Check the "
                               "finish; dark surfaces cost light and evenness"),
                    room_.name, range.surface, value, standard, range.low, range.high));
  }
}

void DoubtfulInput::colour() {
  double required = 0;
  for (const standards::Demand& demand : brief_.light) required = std::max(required, demand.required);
  std::set<std::string> seen;
  for (std::size_t g = 0; g < space_.groups.size(); ++g) {
    const LuminaireGroup& group = space_.groups[g];
    if (!seen.insert(group.mark).second) continue;
    if (group.ra && *group.ra < required)
      problems_.warning(
          "P061", room_.place,
          fmt::format(FMT_STRING("\"{}\": luminaire {} has Ra {:g}, the task asks for {:g}; take one "
                                 "with better colour rendering"),
                      room_.name, group.mark, *group.ra, required));
    if (!group.cct_k)
      problems_.warning(
          "P066", room_.place,
          fmt::format(FMT_STRING("\"{}\": no colour temperature of luminaire {} is known; state it with cct "
                                 "= in [luminaires.{}]"),
                      room_.name, group.mark, group.mark));
  }
}

void DoubtfulInput::buried_luminaires() {
  for (const LuminaireGroup& group : space_.groups)
    for (const photometry::PlacedLuminaire& luminaire : group.luminaires)
      for (const PlanShape& object : space_.objects) {
        const Vec3& at = luminaire.frame.origin;
        if (!object.solid || object.outline.size() < 3) continue;
        if (at.z() <= object.bottom_m || at.z() >= object.top_m) continue;
        if (!geometry::contains(object.outline, at.head<2>())) continue;
        problems_.warning(
            "P063", room_.place,
            fmt::format(FMT_STRING("luminaire {} at {} is inside \"{}\"; its light is lost there. Move one "
                                   "of them"),
                        group.mark, problems_.position(at), object.name));
      }
}

/// A grid of its own density that is coarser than the standard's cannot be held against it.
void DoubtfulInput::coarse_grids() {
  for (std::size_t g = 0; g < space_.grids.size(); ++g) {
    const Grid& grid = space_.grids[g];
    if (brief_.grids[g].demands.empty() || grid.grid.by_rule) continue;
    const Vec2 side = grid.grid.cell.cwiseProduct(Vec2(grid.grid.count.nx, grid.grid.count.ny));
    const readings::GridCount rule = readings::grid_count(side.x(), side.y());
    if (grid.grid.cell.maxCoeff() <= kCoarser * rule.p_m) continue;
    problems_.warning(
        "P064", room_.place,
        fmt::format(FMT_STRING("grid \"{}\" of \"{}\" is coarser ({}) than the rule's {}; leave its "
                               "spacing out, or make it finer"),
                    grid.name, room_.name, problems_.length(grid.grid.cell.maxCoeff()),
                    problems_.length(rule.p_m)));
  }
}

void DoubtfulInput::maintenance() {
  for (const LuminaireGroup& group : space_.groups) {
    if (model::maintenance_factor(*project_.find(group.mark), room_) < 1) continue;
    problems_.warning(
        "P065", room_.maintenance_place.file.empty() ? room_.place : room_.maintenance_place,
        fmt::format(FMT_STRING("\"{}\": a maintenance factor of 1 means that nothing ages or gets dirty; "
                               "verdicts need maintained values (0.80 is usual in clean rooms)"),
                    room_.name));
    return;
  }
}

/// Rooms for people at desks and in corridors are not that high; written in feet they are.
void DoubtfulInput::dimensions() {
  if (brief_.tasks.empty() || room_.height_m < kTallRoom || room_.height_m > kTallestInFeet) return;
  const std::string& area = brief_.tasks.front().row.area;
  const bool low_rooms = area == "offices" || area == "circulation" || area.rfind("health", 0) == 0 ||
                         area == "retail" || area == "nurseries" || area == "rest and sanitary";
  if (!low_rooms) return;
  problems_.warning(
      "P067", room_.place,
      fmt::format(FMT_STRING("\"{}\" is {} high; if that is {:.0f} ft, say height = \"{:.0f} ft\" (and the "
                             "outline likewise), or units = \"lx, ft\" in [project]"),
                  room_.name, problems_.length(room_.height_m), room_.height_m, room_.height_m));
}

void DoubtfulInput::plane_height() {
  if (brief_.tasks.empty() || space_.grids.empty() || !room_.work_plane.height_m) return;
  const standards::Requirement& row = brief_.tasks.front().row;
  if (!row.plane_height_m || std::abs(*row.plane_height_m - *room_.work_plane.height_m) < kRaised) return;
  problems_.warning(
      "P058", room_.work_plane.place.line > 0 ? room_.work_plane.place : room_.place,
      fmt::format(FMT_STRING("the plane of \"{}\" is put at {}, but \"{}\" is read at {} ({}); leave the "
                             "height out, and the task brings it"),
                  room_.name, problems_.length(*room_.work_plane.height_m), row.key,
                  problems_.length(*row.plane_height_m), row.plane_note));
}

}  // namespace

void warn_of_doubtful_input(const model::Project& project, const model::Room& room, const Space& space,
                            const Brief& brief, Problems& problems) {
  DoubtfulInput(project, room, space, brief, problems).look();
}

}  // namespace glow::space
