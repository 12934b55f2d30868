#include "core/scene/room_scene.hpp"

#include <fmt/format.h>

#include <cmath>

#include "core/arrange/array_placement.hpp"
#include "core/geometry/room_shell.hpp"

namespace glow::scene {
namespace {

constexpr double kDefaultInset = 0.5;        // m; EN 12464-1: strip along the walls
constexpr double kDefaultPlaneHeight = 0.8;  // m; when no task says otherwise
constexpr std::size_t kMostPoints = 200000;
constexpr std::size_t kMostLuminaires = 20000;
constexpr double kHair = 1e-6;  // m
constexpr int kMostPositionsNamed = 4;
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
    geometry::add_room(scene_.geometry, scene_.outline, scene_.height_m, room_.reflectances.floor,
                       room_.reflectances.walls, room_.reflectances.ceiling);
    find_task();
    lay_grid();
    for (const model::LuminairePlacement& placement : room_.luminaires) place(placement);
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
  void place(const model::LuminairePlacement& placement);
  std::optional<double> height_of(const model::LuminairePlacement& placement,
                                  const photometry::LuminousArea& area);
  std::vector<Vec2> positions_of(const model::LuminairePlacement& placement);
  void warn_of_wall(const model::LuminairePlacement& placement, const photometry::PlacedLuminaire& luminaire);
  void warn_of_equal_pitch();

  const model::Project& project_;
  const model::Room& room_;
  const standards::RequirementTable& table_;
  Problems& problems_;
  RoomScene scene_;
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

std::optional<double> Builder::height_of(const model::LuminairePlacement& placement,
                                         const photometry::LuminousArea& area) {
  double bottom = room_.height_m - area.height_m();
  if (placement.mounting_height_m) bottom = *placement.mounting_height_m;
  if (placement.suspension_m) bottom = room_.height_m - *placement.suspension_m;
  const double top = bottom + area.height_m();
  if (top > room_.height_m + kHair) {
    problems_.error(
        "P015", placement.height_place,
        fmt::format(FMT_STRING("luminaire {} would reach {:.2f} m, above the ceiling of \"{}\" at {:.2f} m"),
                    placement.mark, top, room_.name, room_.height_m));
    return std::nullopt;
  }
  if (bottom < 0) {
    problems_.error("P015", placement.height_place,
                    fmt::format(FMT_STRING("luminaire {} would hang at {:.2f} m, below the floor of \"{}\""),
                                placement.mark, bottom, room_.name));
    return std::nullopt;
  }
  return std::min((bottom + top) / 2, room_.height_m);
}

std::vector<Vec2> Builder::positions_of(const model::LuminairePlacement& placement) {
  if (placement.at) {
    if (geometry::contains(scene_.outline, *placement.at)) return {*placement.at};
    const geometry::Box2 box = geometry::bounding_box(scene_.outline);
    problems_.error(
        "P014", placement.at_place,
        fmt::format(FMT_STRING("luminaire {} at ({:.2f}, {:.2f}) lies outside the room \"{}\"; expected a "
                               "point inside its outline (x {:.2f} to {:.2f}, y {:.2f} to {:.2f})"),
                    placement.mark, placement.at->x(), placement.at->y(), room_.name, box.low.x(),
                    box.high.x(), box.low.y(), box.high.y()));
    return {};
  }
  if (!placement.array) return {};
  const auto array =
      arrange::array_positions(scene_.outline, placement.array->rows, placement.array->columns);
  array_spacings_.push_back(array.spacing);
  if (!array.outside.empty()) {
    std::string named;
    for (std::size_t i = 0; i < array.outside.size() && i < kMostPositionsNamed; ++i)
      named += fmt::format(FMT_STRING("{}({:.2f}, {:.2f})"), i ? ", " : "", array.outside[i].x(),
                           array.outside[i].y());
    if (array.outside.size() > kMostPositionsNamed) named += ", ...";
    problems_.warning(
        "P021", placement.place,
        fmt::format(FMT_STRING("{} of {} positions of the array of {} lie outside the outline of \"{}\" and "
                               "stay empty: {}"),
                    array.outside.size(), array.outside.size() + array.inside.size(), placement.mark,
                    room_.name, named));
  }
  if (array.inside.empty())
    problems_.error("P014", placement.place,
                    fmt::format(FMT_STRING("no position of the array of {} lies inside \"{}\""),
                                placement.mark, room_.name));
  return array.inside;
}

void Builder::place(const model::LuminairePlacement& placement) {
  const model::ScheduledLuminaire* scheduled = project_.find(placement.mark);
  if (!scheduled) {
    std::vector<std::string> marks;
    for (const auto& entry : project_.schedule) marks.push_back(entry.mark);
    const std::string near = nearest_word(placement.mark, marks);
    problems_.error("P010", placement.mark_place,
                    fmt::format(FMT_STRING("unknown luminaire mark \"{}\"; {}"), placement.mark,
                                near.empty() ? std::string("expected one of the [luminaires.MARK] tables")
                                             : fmt::format(FMT_STRING("did you mean \"{}\"?"), near)));
    return;
  }
  const std::vector<Vec2> positions = positions_of(placement);
  if (!scheduled->photometry) return;
  const photometry::Photometry& photometry = *scheduled->photometry;
  const auto height = height_of(placement, photometry.area);
  if (!height || positions.empty()) return;
  LuminaireGroup group{placement.mark, scheduled->photometry, {}, {}};
  const std::shared_ptr<const photometry::IntensityTable> table(scheduled->photometry, &photometry.table);
  for (const Vec2& p : positions) {
    group.luminaires.push_back(
        {table, photometry.area, geometry::Frame::upright({p.x(), p.y(), *height}, placement.rotation_deg)});
    group.rotations_deg.push_back(placement.rotation_deg);
    warn_of_wall(placement, group.luminaires.back());
  }
  scene_.groups.push_back(std::move(group));
  std::size_t count = 0;
  for (const LuminaireGroup& g : scene_.groups) count += g.luminaires.size();
  if (count > kMostLuminaires)
    problems_.error("P019", placement.place,
                    fmt::format(FMT_STRING("room \"{}\" has {} luminaires; at most {} are taken"), room_.name,
                                count, kMostLuminaires));
}

/// A luminous area that reaches into a wall loses light there.
void Builder::warn_of_wall(const model::LuminairePlacement& placement,
                           const photometry::PlacedLuminaire& luminaire) {
  const geometry::Frame& f = luminaire.frame;
  for (const double s : {-0.5, 0.5})
    for (const double t : {-0.5, 0.5}) {
      const Vec3 corner =
          f.origin + s * luminaire.area.extent_c0_m * f.c0 + t * luminaire.area.extent_c90_m * f.c90;
      const bool inside = geometry::contains(scene_.outline, corner.head<2>());
      if (inside && geometry::distance_to_edges(scene_.outline, f.origin.head<2>()) > kHair) continue;
      problems_.warning(
          "P025", placement.place,
          fmt::format(FMT_STRING("luminaire {} at ({:.2f}, {:.2f}) reaches into a wall of \"{}\"; light is "
                                 "lost there"),
                      placement.mark, f.origin.x(), f.origin.y(), room_.name));
      return;
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
