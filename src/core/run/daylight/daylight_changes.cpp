#include "core/run/daylight/daylight_changes.hpp"

#include <algorithm>

#include "core/studies/repaint.hpp"

namespace glow::run {
namespace {

using Kind = studies::DaylightChange::Kind;

constexpr double kWider = 1.25;       // times
constexpr double kHigher = 0.3;       // m
constexpr double kClearest = 0.9;     // transmittance of the clearest panes
constexpr double kLightFacade = 0.7;  // reflectance
constexpr double kWallsBy = 0.2;      // floor and ceiling by half of that

constexpr double kOverhang = 1.0;  // m, and twice that
constexpr double kDarker = 0.5;    // times
constexpr double kBlind = 0.15;    // of the light that falls on it

bool lets_in(const model::Opening& opening) {
  return opening.outside &&
         (!opening.pane || opening.pane->material.clear + opening.pane->material.scattering > 0);
}

bool widen(model::Project&, model::Room& room) {
  bool any = false;
  for (model::Opening& opening : room.openings) {
    if (!lets_in(opening)) continue;
    const double more = (kWider - 1) * opening.size.x();
    if (!opening.in_roof) opening.from_m = std::max(0.0, opening.from_m - more / 2);
    opening.size.x() += more;
    any = true;
  }
  return any;
}

bool raise(model::Project&, model::Room& room) {
  bool any = false;
  for (model::Opening& opening : room.openings) {
    if (!lets_in(opening) || opening.in_roof) continue;
    const double most = room.height_m - opening.sill_m;
    const double height = std::min(most, opening.size.y() + kHigher);
    any = any || height > opening.size.y() + 0.01;
    opening.size.y() = std::max(opening.size.y(), height);
  }
  return any;
}

bool clear(model::Project&, model::Room& room) {
  bool any = false;
  for (model::Opening& opening : room.openings) {
    if (!lets_in(opening) || !opening.pane || !opening.glass || opening.glass->clear <= 0) continue;
    const double times = std::max(1.0, kClearest / opening.glass->clear);
    if (times == 1 && opening.dirt == 1) continue;
    opening.pane->material.clear *= times;
    opening.pane->material.diffuse =
        std::min(opening.pane->material.diffuse, 0.99 - opening.pane->material.clear);
    opening.glass->clear = std::max(kClearest, opening.glass->clear);
    opening.dirt = 1;
    any = true;
  }
  return any;
}

bool lighten_outside(model::Project& project, model::Room&) {
  bool any = false;
  for (model::Obstruction& each : project.site.obstructions) {
    double& diffuse = each.object.finish.material.diffuse;
    any = any || diffuse < kLightFacade;
    diffuse = std::max(diffuse, kLightFacade);
  }
  return any;
}

/// Repaints walls, those with a finish of their own too, floor and ceiling.
bool brighten(model::Project&, model::Room& room) {
  bool any = false;
  const auto paint = [&](geometry::Material material, double by) {
    const double before = material.diffuse;
    material.diffuse = material.diffuse_shifted(by, studies::kLeastPaint, studies::kMostPaint);
    any = any || material.diffuse > before;
    return material;
  };
  const auto repaint = [&](double& reflectance, double by) {
    geometry::Material plain;
    plain.diffuse = reflectance;
    reflectance = paint(plain, by).diffuse;
  };
  repaint(room.reflectances.walls, kWallsBy);
  repaint(room.reflectances.ceiling, kWallsBy / 2);
  repaint(room.reflectances.floor, kWallsBy / 2);
  for (model::Wall& wall : room.walls)
    if (wall.finish) wall.finish->material = paint(wall.finish->material, kWallsBy);
  return any;
}

/// A level board over each window in a wall, at its head.
bool shade(model::Room& room, double depth_m) {
  bool any = false;
  for (model::Opening& opening : room.openings) {
    if (!lets_in(opening) || opening.in_roof) continue;
    model::Shade board;
    board.kind = model::Shade::Kind::overhang;
    board.depth_m = depth_m;
    board.beyond_m = depth_m / 2;
    opening.shades.push_back(board);
    any = true;
  }
  return any;
}

bool darken(model::Project&, model::Room& room) {
  bool any = false;
  for (model::Opening& opening : room.openings) {
    if (!lets_in(opening) || !opening.pane || !opening.glass) continue;
    opening.pane->material.clear *= kDarker;
    opening.pane->material.scattering *= kDarker;
    opening.glass->clear *= kDarker;
    any = true;
  }
  return any;
}

/// An even blind before all windows, which comes down by the rule of the year.
bool hang_blinds(model::Project& project, model::Room& room) {
  if (!project.year || !project.year->blinds.states.empty()) return false;
  constexpr const char* kState = "blinds that are tried";
  bool any = false;
  for (model::Opening& opening : room.openings) {
    if (!lets_in(opening)) continue;
    model::Shade blind;
    blind.kind = model::Shade::Kind::screen;
    blind.transmittance = kBlind;
    blind.state = kState;
    opening.shades.push_back(blind);
    any = true;
  }
  project.year->blinds.states = {kState};
  return any;
}

}  // namespace

/// The room with nothing in it but what daylight meets, and what is asked of that.
model::Room bare(const model::Room& room) {
  model::Room other = room;
  other.task.reset();
  other.areas.clear();
  other.luminaires.clear();
  other.scenes.clear();
  other.escape_routes.clear();
  other.open_area = false;
  other.grids.clear();
  other.points.clear();
  other.eye_wishes.clear();
  other.screens.reset();
  return other;
}

std::optional<space::PlannedRoom> planned_as_changed(const model::Project& project, const model::Room& room) {
  const std::vector<standards::RequirementTable> no_tasks = {
      standards::RequirementTable(std::vector<standards::Requirement>{})};
  Problems unheard;
  return space::build_space(project, room, no_tasks, unheard);
}

transport::Effort effort_of_trials(const transport::Effort& effort) {
  transport::Effort half = effort;
  half.patches /= 2;
  half.rays_per_patch /= 2;
  half.rays_per_receiver /= 2;
  return half;
}

void put_best_first(const std::vector<standards::Check>& checks,
                    std::vector<studies::Explanation>& explanations) {
  for (std::size_t c = 0; c < checks.size(); ++c) {
    const double better = standards::is_upper_limit(checks[c].demand.quantity) ? -1 : 1;
    const auto order = [&](const studies::Mend& mend) {
      return std::pair(!mend.meets, mend.meets ? 0 : -better * mend.value);
    };
    std::stable_sort(explanations[c].mends.begin(), explanations[c].mends.end(),
                     [&](const studies::Mend& a, const studies::Mend& b) { return order(a) < order(b); });
  }
}

std::vector<TriedChange> more_daylight() {
  return {{{Kind::wider, kWider}, widen},
          {{Kind::higher, kHigher}, raise},
          {{Kind::clearer, kClearest}, clear},
          {{Kind::lighter_outside, kLightFacade}, lighten_outside},
          {{Kind::brighter_inside, kWallsBy}, brighten}};
}

std::vector<TriedChange> less_daylight() {
  const auto overhang = [](double depth_m) {
    return [depth_m](model::Project&, model::Room& room) { return shade(room, depth_m); };
  };
  return {{{Kind::overhangs, kOverhang}, overhang(kOverhang)},
          {{Kind::overhangs, 2 * kOverhang}, overhang(2 * kOverhang)},
          {{Kind::darker_panes, kDarker}, darken},
          {{Kind::blinds, kBlind}, hang_blinds}};
}

}  // namespace glow::run
