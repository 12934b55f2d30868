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
    colliding_luminaires();
    buried_eyes();
    coarse_grids();
    maintenance();
    dimensions();
    plane_height();
    neighbours();
  }

 private:
  void reflectances();
  void colour();
  void buried_luminaires();
  void colliding_luminaires();
  void buried_eyes();
  void coarse_grids();
  void maintenance();
  void dimensions();
  void plane_height();
  void neighbours();

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
    if ((range.surface == "ceiling" && !space_.roofed) || space_.outdoors) continue;
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
    if (!group.colour.cct_k && !group.colour.tunable)
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
        if (!object.solid || !object.extent.holds(at)) continue;
        problems_.warning(
            "P063", room_.place,
            fmt::format(FMT_STRING("luminaire {} at {} is inside \"{}\"; its light is lost there. Move one "
                                   "of them"),
                        group.mark, problems_.position(at), object.name));
      }
}

namespace {

/// A luminaire's luminous part, as large as it is in plan and height.
struct Taken {
  const LuminaireGroup* group;
  const photometry::PlacedLuminaire* luminaire;
  double radius;  ///< of the circle that fits into its plan, m
};

/// Whether the luminous parts run into each other. Those in the very same place are one luminaire with two
/// kinds of light, unless both are of one mark.
bool collide(const Taken& a, const Taken& b) {
  constexpr double kSamePlace = 1e-3;  // m
  const Vec3 way = b.luminaire->frame.origin - a.luminaire->frame.origin;
  if (way.norm() < kSamePlace) return a.group->mark == b.group->mark;
  const double high = (a.luminaire->area.height_m() + b.luminaire->area.height_m()) / 2;
  return std::abs(way.z()) <= high + kSamePlace && way.xy().norm() < a.radius + b.radius - kSamePlace;
}

}  // namespace

void DoubtfulInput::colliding_luminaires() {
  std::vector<Taken> all;
  double widest = 0;
  for (const LuminaireGroup& group : space_.groups)
    for (const photometry::PlacedLuminaire& luminaire : group.luminaires) {
      all.push_back(
          {&group, &luminaire, std::min(luminaire.area.extent_c0_m, luminaire.area.extent_c90_m) / 2});
      widest = std::max(widest, all.back().radius);
    }
  const auto x = [&](const Taken& t) { return t.luminaire->frame.origin.x(); };
  std::stable_sort(all.begin(), all.end(), [&](const Taken& a, const Taken& b) { return x(a) < x(b); });
  std::size_t pairs = 0;
  const Taken *first = nullptr, *second = nullptr;
  for (std::size_t i = 0; i < all.size(); ++i)
    for (std::size_t k = i + 1; k < all.size() && x(all[k]) <= x(all[i]) + 2 * widest + 1e-3; ++k)
      if (collide(all[i], all[k]) && pairs++ == 0) {
        first = &all[i];
        second = &all[k];
      }
  if (pairs == 0) return;
  const std::string more =
      pairs > 1 ? fmt::format(FMT_STRING(", and {} more pairs"), pairs - 1) : std::string();
  problems_.warning(
      "P075", room_.luminaires[second->group->placement].place,
      fmt::format(
          FMT_STRING("in \"{}\" luminaires {} and {} are in the same place at {}{}; is one of them there "
                     "twice?"),
          room_.name, first->group->mark, second->group->mark,
          problems_.position(second->luminaire->frame.origin), more));
}

void DoubtfulInput::buried_eyes() {
  for (const EyeSet& set : space_.eyes) {
    std::size_t buried = 0;
    const PlanShape* inside = nullptr;
    for (const Vec3& eye : set.positions)
      for (const PlanShape& object : space_.objects) {
        if (!object.solid || !object.extent.holds(eye)) continue;
        ++buried;
        inside = &object;
        break;
      }
    if (!inside) continue;
    Place place = room_.place;
    for (const model::EyesWish& wish : room_.eye_wishes)
      if (wish.name == set.name) place = wish.place;
    problems_.warning(
        "P076", place,
        fmt::format(FMT_STRING("{} of {} eyes of \"{}\" are inside \"{}\" and will be left out; move "
                               "them"),
                    buried, set.positions.size(), set.name, inside->name));
  }
}

/// A grid of its own density that is coarser than the standard's cannot be held against it.
void DoubtfulInput::coarse_grids() {
  for (std::size_t g = 0; g < space_.grids.size(); ++g) {
    const Grid& grid = space_.grids[g];
    if (brief_.grids[g].demands.empty() || grid.grid.by_rule || grid.role == GridRole::neighbour) continue;
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
    const model::ScheduledLuminaire& entry = *project_.find(group.mark);
    const bool stated = room_.maintenance_factor || entry.maintenance;  // a missing one is said already
    if (!stated || model::maintenance_factor(entry, room_) < 1) continue;
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

/// A window that looks away from all luminaires gets nothing, most often since its azimuth is the other way
/// round.
void DoubtfulInput::neighbours() {
  for (const NeighbourPlace& neighbour : space_.neighbours) {
    bool any = space_.groups.empty() || neighbour.facing.isZero();
    for (const LuminaireGroup& group : space_.groups)
      for (const photometry::PlacedLuminaire& luminaire : group.luminaires)
        any = any || (luminaire.frame.origin - neighbour.eyes.front()).dot(neighbour.facing) > 0;
    if (any) continue;
    for (const model::Neighbour& written : project_.neighbours)
      if (written.name == neighbour.name)
        problems_.warning("P133", written.place,
                          fmt::format(FMT_STRING("neighbour \"{}\" looks away from all luminaires of \"{}\"; "
                                                 "azimuth is where it looks outwards, and a facade's outside "
                                                 "lies to the right of the way from \"from\" to \"to\""),
                                      neighbour.name, room_.name));
  }
}

}  // namespace

void warn_of_doubtful_input(const model::Project& project, const model::Room& room, const Space& space,
                            const Brief& brief, Problems& problems) {
  DoubtfulInput(project, room, space, brief, problems).look();
}

}  // namespace glow::space
