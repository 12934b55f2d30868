#include "core/scene/room_scene.hpp"

#include <fmt/format.h>

#include <cmath>
#include <set>

#include "core/scene/grid_placing.hpp"
#include "core/scene/luminaire_placing.hpp"
#include "core/scene/room_geometry.hpp"

namespace glow::scene {
namespace {

constexpr double kDefaultInset = 0.5;        // m; EN 12464-1: strip along the walls
constexpr double kDefaultPlaneHeight = 0.8;  // m; when no task says otherwise
constexpr double kSamePitch = 0.02;          // relative

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
    const WrittenWalls walls(room_, scene_.outline);
    scene_.wall_names = walls.names();
    RoomGeometry built = add_room_geometry(room_, scene_.outline, walls, scene_.geometry, problems_);
    describe(built);
    find_task();
    lay_work_plane();
    for (SceneGrid& grid : place_grids(room_, built, walls, problems_))
      scene_.grids.push_back(std::move(grid));
    check_grid_names();
    scene_.spots = place_spots(room_, built, problems_);
    PlacedGroups placed = place_luminaires(project_, room_, built.shell, walls, scene_.geometry, problems_);
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
  void describe(const RoomGeometry& built);
  void find_task();
  void lay_work_plane();
  void check_grid_names();
  double plane_height();
  void warn_of_equal_pitch();

  const model::Project& project_;
  const model::Room& room_;
  const standards::RequirementTable& table_;
  Problems& problems_;
  RoomScene scene_;
  std::vector<Vec2> array_spacings_;
};

/// What plans show of the room and its things, and what all of it is made of.
void Builder::describe(const RoomGeometry& built) {
  for (const Thing& thing : built.things) {
    scene_.objects.push_back(
        {thing.name, thing.extent.plan, thing.extent.bottom_m, thing.extent.top_m, thing.solids.size() == 1});
    scene_.finishes.push_back({thing.name, thing.object->finish});
  }
  for (const geometry::WallOpening& opening : built.shell.openings) {
    const std::vector<Vec3> corners = geometry::opening_corners(built.shell, opening);
    scene_.openings.push_back({opening.name,
                               {corners[1].head<2>(), corners[0].head<2>()},
                               opening.low.y(),
                               opening.high.y(),
                               false});
  }
  const auto shell = [&](const std::string& name, const geometry::Material& material) {
    model::Finish finish;
    finish.material = material;
    for (const model::Wall& wall : room_.walls)
      if (wall.finish && (wall.name == name || fmt::format(FMT_STRING("wall {}"), wall.number) == name))
        finish = *wall.finish;
    scene_.finishes.push_back({name, finish});
  };
  shell("floor", built.shell.floor_material);
  shell("ceiling", built.shell.ceiling_material);
  for (std::size_t i = 0; i < scene_.wall_names.size(); ++i)
    shell(scene_.wall_names[i], built.shell.wall_material(i));
  for (const model::Opening& opening : room_.openings)
    if (opening.pane) scene_.finishes.push_back({opening.name, *opening.pane});
  scene_.assumed = room_.assumed;
  scene_.meetings = built.meetings;
}

/// Two grids of one name would write the same files.
void Builder::check_grid_names() {
  std::set<std::string> names;
  for (const SceneGrid& grid : scene_.grids)
    if (!names.insert(grid.name).second)
      problems_.error("P008", room_.place,
                      fmt::format(FMT_STRING("\"{}\" has two grids called \"{}\"; give one another name"),
                                  room_.name, grid.name));
}

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

void Builder::lay_work_plane() {
  const model::WorkPlane& plane = room_.work_plane;
  const double height = plane_height();
  if (height < 0 || height >= room_.height_m) {
    problems_.error("P016", plane.place,
                    fmt::format(FMT_STRING("the work plane of \"{}\" is at {}, the ceiling at {}; expected a "
                                           "height from 0 to below the ceiling"),
                                room_.name, problems_.length(height), problems_.length(room_.height_m)));
    return;
  }
  const double inset = plane.inset_m.value_or(kDefaultInset);
  const auto box = geometry::inset_bounding_box(scene_.outline, inset);
  if (!box || box->size().minCoeff() <= 0) {
    problems_.error(
        "P017", plane.place,
        fmt::format(FMT_STRING("an inset of {} leaves nothing of the work plane of \"{}\"; give a "
                               "smaller one, such as work_plane = {{ inset = 0.1 }}"),
                    problems_.length(inset), room_.name));
    return;
  }
  const double smallest = std::sqrt(box->size().prod() / kMostPoints);
  const units::ShownUnits& units = problems_.units();
  if (plane.spacing_m && *plane.spacing_m < smallest) {
    problems_.error(
        "P018", plane.place,
        fmt::format(
            FMT_STRING("a spacing of {:.4f} {} makes more than {:.0f} points; expected {:.3f} {} or more"),
            units.length(*plane.spacing_m), units.length_unit(), kMostPoints, units.length(smallest),
            units.length_unit()));
    return;
  }
  if (auto grid = readings::plane_grid(scene_.outline, height, inset, plane.spacing_m)) {
    scene_.grids.push_back(
        {"work plane", GridRole::work_plane, transport::Kernel::plane, Vec3::UnitX(), std::move(*grid)});
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
  if (scene_.grids.empty()) return;
  const readings::PlaneGrid& grid = scene_.work_plane();
  for (const Vec2& spacing : array_spacings_)
    for (int axis = 0; axis < 2; ++axis) {
      const int count = axis == 0 ? grid.count.nx : grid.count.ny;
      if (count < 2 || std::abs(grid.cell[axis] / spacing[axis] - 1) > kSamePitch) continue;
      problems_.warning(
          "P022", room_.work_plane.place,
          fmt::format(FMT_STRING("the grid of \"{}\" has the same pitch as the luminaires along {} "
                                 "({}); give another work_plane.spacing"),
                      room_.name, axis == 0 ? "x" : "y", problems_.length(spacing[axis])));
    }
}

constexpr std::array<std::pair<GridRole, const char*>, 5> kRoles = {{{GridRole::work_plane, "work plane"},
                                                                     {GridRole::floor, "floor"},
                                                                     {GridRole::ceiling, "ceiling"},
                                                                     {GridRole::wall, "wall"},
                                                                     {GridRole::wanted, "wanted"}}};

}  // namespace

std::string to_string(GridRole role) {
  for (const auto& [known, words] : kRoles)
    if (known == role) return words;
  return "";
}

std::optional<GridRole> grid_role(const std::string& words) {
  for (const auto& [role, known] : kRoles)
    if (known == words) return role;
  return std::nullopt;
}

transport::Receiver SceneGrid::receiver(std::size_t point) const {
  transport::Receiver receiver{grid.points[point], grid.normal_of(point)};
  receiver.kernel = kernel;
  receiver.lean = role == GridRole::floor || role == GridRole::ceiling || role == GridRole::wall;
  if (kernel == transport::Kernel::semicylinder) receiver.normal = facing;
  if (kernel == transport::Kernel::cylinder) receiver.normal = Vec3::UnitZ();
  return receiver;
}

std::optional<RoomScene> build_room_scene(const model::Project& project, const model::Room& room,
                                          const standards::RequirementTable& table, Problems& problems) {
  return Builder(project, room, table, problems).build();
}

}  // namespace glow::scene
