#include "core/scene/room_scene.hpp"

#include <fmt/format.h>

#include <cmath>

#include "core/scene/luminaire_placing.hpp"
#include "core/scene/room_geometry.hpp"

namespace glow::scene {
namespace {

constexpr double kDefaultInset = 0.5;        // m; EN 12464-1: strip along the walls
constexpr double kDefaultPlaneHeight = 0.8;  // m; when no task says otherwise
constexpr std::size_t kMostPoints = 200000;
constexpr double kSamePitch = 0.02;  // relative

class Builder {
 public:
  Builder(const model::Project& project, const model::Room& room, const standards::RequirementTable& table,
          Problems& problems)
      : project_(project), room_(room), table_(table), problems_(problems) {}

  std::optional<RoomScene> build() {
    const int errors_before = problems_.error_count();
    if (const auto fault = geometry::fault_of_outline(room_.outline)) {
      problems_.error(
          "P013", room_.outline_place,
          fmt::format(FMT_STRING("the outline of \"{}\" is not a simple polygon: {}"), room_.name, *fault));
      return std::nullopt;
    }
    scene_.name = room_.name;
    scene_.outline = geometry::tidied(room_.outline);
    scene_.height_m = room_.height_m;
    scene_.floor_area_m2 = geometry::signed_area(scene_.outline);
    scene_.maintenance_factor = room_.maintenance_factor;
    scene_.reflectances = room_.reflectances;
    RoomGeometry built = add_room_geometry(room_, scene_.outline, scene_.geometry, problems_);
    shell_ = std::move(built.shell);
    scene_.objects = std::move(built.objects);
    scene_.openings = std::move(built.openings);
    find_task();
    lay_grid();
    PlacedGroups placed = place_luminaires(project_, room_, shell_, scene_.geometry, problems_);
    scene_.groups = std::move(placed.groups);
    array_spacings_ = std::move(placed.array_spacings);
    if (room_.luminaires.empty())
      problems_.warning(
          "P020", room_.place,
          fmt::format(FMT_STRING("room \"{}\" has no luminaires; it will be dark"), room_.name));
    warn_of_equal_pitch();
    if (problems_.error_count() > errors_before) return std::nullopt;
    return std::move(scene_);
  }

 private:
  void find_task();
  void lay_grid();
  double plane_height();
  void warn_of_equal_pitch();

  const model::Project& project_;
  const model::Room& room_;
  const standards::RequirementTable& table_;
  Problems& problems_;
  RoomScene scene_;
  geometry::RoomShell shell_;
  std::vector<Vec2> array_spacings_;
};

void Builder::find_task() {
  if (!room_.task) return;
  if (const standards::Requirement* row = table_.find(*room_.task)) {
    scene_.requirement = *row;
    return;
  }
  const std::string near = nearest_word(*room_.task, table_.keys());
  problems_.error(
      "P012", room_.task_place,
      fmt::format(FMT_STRING("unknown task \"{}\" in {}; {}"), *room_.task, table_.name(),
                  near.empty() ? fmt::format(FMT_STRING("keys look like \"{}\""), table_.rows()[0].key)
                               : fmt::format(FMT_STRING("did you mean \"{}\"?"), near)));
}

double Builder::plane_height() {
  if (room_.work_plane.height_m) {
    scene_.plane_height_source = "given";
    return *room_.work_plane.height_m;
  }
  if (scene_.requirement && scene_.requirement->plane_height_m) {
    scene_.plane_height_source =
        fmt::format(FMT_STRING("for {}: {}"), scene_.requirement->key, scene_.requirement->plane_note);
    return *scene_.requirement->plane_height_m;
  }
  scene_.plane_height_source = "assumed: no task and no height given";
  return kDefaultPlaneHeight;
}

void Builder::lay_grid() {
  const model::WorkPlane& plane = room_.work_plane;
  const double height = plane_height();
  if (height < 0 || height >= room_.height_m) {
    problems_.error(
        "P016", plane.place,
        fmt::format(FMT_STRING("the work plane of \"{}\" is at {:.2f} m, the ceiling at {:.2f} m; expected a "
                               "height from 0 to below the ceiling"),
                    room_.name, height, room_.height_m));
    return;
  }
  const double inset = plane.inset_m.value_or(kDefaultInset);
  const auto box = geometry::inset_bounding_box(scene_.outline, inset);
  if (!box || box->size().minCoeff() <= 0) {
    problems_.error(
        "P017", plane.place,
        fmt::format(FMT_STRING("an inset of {:.2f} m leaves nothing of the work plane of \"{}\"; give a "
                               "smaller one, such as work_plane = {{ inset = 0.1 }}"),
                    inset, room_.name));
    return;
  }
  const double smallest = std::sqrt(box->size().prod() / double(kMostPoints));
  if (plane.spacing_m && *plane.spacing_m < smallest) {
    problems_.error(
        "P018", plane.place,
        fmt::format(FMT_STRING("a spacing of {:.4f} m makes more than {} points; expected {:.3f} m or more"),
                    *plane.spacing_m, kMostPoints, smallest));
    return;
  }
  if (auto grid = readings::plane_grid(scene_.outline, height, inset, plane.spacing_m)) {
    scene_.grid = std::move(*grid);
  } else {
    problems_.error(
        "P017", plane.place,
        fmt::format(
            FMT_STRING("no point of the grid of \"{}\" falls inside the inset outline; give a smaller "
                       "spacing or inset in work_plane"),
            room_.name));
  }
}

/// A grid in step with the luminaires meets every one at the same place and shows too even or too uneven a
/// picture.
void Builder::warn_of_equal_pitch() {
  for (const Vec2& spacing : array_spacings_)
    for (int axis = 0; axis < 2; ++axis) {
      const int count = axis == 0 ? scene_.grid.count.nx : scene_.grid.count.ny;
      if (count < 2 || std::abs(scene_.grid.cell[axis] / spacing[axis] - 1) > kSamePitch) continue;
      problems_.warning(
          "P022", room_.work_plane.place,
          fmt::format(FMT_STRING("the grid of \"{}\" has the same pitch as the luminaires along {} ({:.2f} "
                                 "m); give another work_plane.spacing"),
                      room_.name, axis == 0 ? "x" : "y", spacing[axis]));
    }
}

}  // namespace

std::optional<RoomScene> build_room_scene(const model::Project& project, const model::Room& room,
                                          const standards::RequirementTable& table, Problems& problems) {
  return Builder(project, room, table, problems).build();
}

}  // namespace glow::scene
