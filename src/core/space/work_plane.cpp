#include "core/space/work_plane.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/space/placing/footprints.hpp"
#include "core/space/placing/grid_placing.hpp"
#include "core/space/room_tasks.hpp"
#include "core/space/tolerances.hpp"

namespace glow::space {
namespace {

constexpr double kDefaultPlaneHeight = 0.8;  // m; when no task says otherwise
constexpr double kNarrowestPlane = 0.01;     // m; less is what rounding leaves of an inset that takes all
constexpr double kSamePitch = 0.02;          // relative

double plane_height(const model::Room& room, Brief& brief) {
  if (room.work_plane.height_m) return *room.work_plane.height_m;
  if (!brief.tasks.empty() && brief.tasks.front().row.plane_height_m) {
    brief.plane_height = PlaneHeight::by_task;
    return *brief.tasks.front().row.plane_height_m;
  }
  brief.plane_height = PlaneHeight::assumed;
  return kDefaultPlaneHeight;
}

void say_no_work_plane(const model::Room& room, Brief& brief, Problems& problems) {
  if (brief.tasks.empty() || !whole_room_counts(room)) return;
  problems.warning(
      "P080", room.work_plane.place,
      fmt::format(FMT_STRING("\"{}\" has no work plane and no task area for its task; the task's "
                             "illuminances are not verified"),
                  room.name));
  brief.not_verified.push_back({standards::NotVerified::Why::no_plane_for_task, {}, 0});
}

/// The task's values, where the whole room is verified and the task is done on a level plane.
void demand_of_work_plane(const model::Room& room, Brief& brief, Problems& problems) {
  if (brief.tasks.empty() || !whole_room_counts(room)) return;
  const standards::Requirement& row = brief.tasks.front().row;
  const bool upright = row.orientation() == standards::PlaneOrientation::vertical;
  if (upright && !room.work_plane.height_m) {
    problems.warning(
        "P056", room.task_place,
        fmt::format(FMT_STRING("\"{}\" is read on a plane that is {}; say where with [[rooms.areas]] "
                               "(on = \"rack.front\", say). The level work plane is not held against it"),
                    row.key, row.plane_note));
    brief.not_verified.push_back({standards::NotVerified::Why::no_plane_for_task, {}, 0});
    return;
  }
  GridBrief& plane = brief.grids.back();
  plane.task = row.key;
  for (const standards::TaskInForce& task : brief.tasks)
    for (standards::Demand& demand : standards::task_demands(task))
      plane.demands.push_back(std::move(demand));
}

}  // namespace

bool whole_room_counts(const model::Room& room) {
  const auto& areas = room.areas;
  return room.verification == model::Verification::whole_room ||
         std::none_of(areas.begin(), areas.end(), [&](const model::AreaWish& area) {
           return area.task.empty() || area.task == *room.task;
         });
}

void lay_work_plane(const model::Room& room, const RoomGeometry& built, Space& space, Brief& brief,
                    Problems& problems) {
  const model::WorkPlane& plane = room.work_plane;
  if (!plane.is_read) return say_no_work_plane(room, brief, problems);
  const double height = plane_height(room, brief);
  if (height < 0 || height >= room.height_m) {
    problems.error("P016", plane.place,
                   fmt::format(FMT_STRING("the work plane of \"{}\" is at {}, the ceiling at {}; expected a "
                                          "height from 0 to below the ceiling"),
                               room.name, problems.length(height), problems.length(room.height_m)));
    return;
  }
  // EN 12464-1 leaves no border out in health care.
  const bool whole = !brief.tasks.empty() && brief.tasks.front().row.area.rfind("health", 0) == 0;
  const double inset = plane.inset_m.value_or(whole || room.outdoors ? 0 : kDefaultInset);
  const auto box = geometry::inset_bounding_box(space.outline, inset);
  if (!box || box->size().minCoeff() < kNarrowestPlane) {
    problems.error("P017", plane.place,
                   fmt::format(FMT_STRING("an inset of {} leaves nothing of the work plane of \"{}\"; give a "
                                          "smaller one, such as work_plane = {{ inset = 0.1 }}"),
                               problems.length(inset), room.name));
    return;
  }
  const double smallest = std::sqrt(box->size().prod() / kMostPoints);
  const units::ShownUnits& units = problems.units();
  if (plane.spacing_m && *plane.spacing_m < smallest) {
    problems.error(
        "P018", plane.place,
        fmt::format(
            FMT_STRING("a spacing of {:.4f} {} makes more than {:.0f} points; expected {:.3f} {} or more"),
            units.length(*plane.spacing_m), units.length_unit(), kMostPoints, units.length(smallest),
            units.length_unit()));
    return;
  }
  if (auto grid = readings::plane_grid(readings::Plane::level(height), space.outline, {}, inset,
                                       {plane.spacing_m, {}, {}, count_rule(brief.tasks)})) {
    const bool follows = follow_ground(built.shell.ground, *grid);
    if (plane.leave_out)
      leave_out_footprints(built.objects, *plane.leave_out, plane.leave_out_place, "work plane", *grid,
                           problems);
    space.grids.push_back({"work plane", GridRole::work_plane, readings::Kernel::plane, Vec3::UnitX(),
                           std::move(*grid), follows});
    brief.grids.push_back({});
    demand_of_work_plane(room, brief, problems);
  } else {
    problems.error(
        "P017", plane.place,
        fmt::format(
            FMT_STRING("no point of the grid of \"{}\" falls inside the inset outline; give a smaller "
                       "spacing or inset in work_plane"),
            room.name));
  }
}

void warn_of_equal_pitch(const model::Room& room, const readings::PlaneGrid& grid,
                         const std::vector<Vec2>& array_spacings, Problems& problems) {
  for (const Vec2& spacing : array_spacings)
    for (int axis = 0; axis < 2; ++axis) {
      const int count = axis == 0 ? grid.count.nx : grid.count.ny;
      if (count < 2 || std::abs(grid.cell[axis] / spacing[axis] - 1) > kSamePitch) continue;
      problems.warning(
          "P022", room.work_plane.place,
          fmt::format(FMT_STRING("the grid of \"{}\" has the same pitch as the luminaires along {} "
                                 "({}); give another work_plane.spacing"),
                      room.name, axis == 0 ? "x" : "y", problems.length(spacing[axis])));
    }
}

}  // namespace glow::space
