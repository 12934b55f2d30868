#include "core/space/placing/luminaire_positions.hpp"

#include <fmt/format.h>

#include <cmath>

#include "core/space/placing/array_positions.hpp"
#include "core/space/placing/flat.hpp"

namespace glow::space {
namespace {

constexpr int kMostPositionsNamed = 4;
constexpr double kOffWall = 0.001;  // m: what hangs on a wall does not lie in it

/// How far a luminaire as it hangs reaches from its middle towards the wall behind it, m.
double reach_behind(const model::LuminairePlacement& placement, const photometry::Photometry& photometry,
                    const Vec2& inwards, double turn_deg) {
  const geometry::Frame frame =
      geometry::Frame::tilted(Vec3::Zero(), placement.rotation_deg + turn_deg, placement.tilt_deg);
  const Vec3 outwards(-inwards.x(), -inwards.y(), 0);
  const photometry::LuminousArea& area = photometry.area;
  const auto reach = [&](double along_c0, double along_c90, double down, double up) {
    return std::abs(outwards.dot(frame.c0)) * along_c0 / 2 +
           std::abs(outwards.dot(frame.c90)) * along_c90 / 2 +
           std::max(outwards.dot(frame.g0) * down, -outwards.dot(frame.g0) * up);
  };
  const double lower = area.height_m() / 2;
  double most = reach(area.extent_c0_m, area.extent_c90_m, lower, lower);
  if (const auto& body = photometry.body)
    most = std::max(most, reach(body->extent_c0_m, body->extent_c90_m, lower, body->height_m - lower));
  return most;
}

}  // namespace

std::string called(const model::LuminairePlacement& placement) {
  return placement.name.empty() ? placement.mark
                                : fmt::format(FMT_STRING("{} ({})"), placement.name, placement.mark);
}

std::vector<LuminairePosition> LuminairePositions::find(const model::LuminairePlacement& placement,
                                                        const photometry::Photometry* photometry) {
  if (placement.on_wall) return on_wall(placement, photometry);
  if (placement.over) return over(placement);
  if (!placement.on.empty()) return on_surface(placement);
  return laid(placement, built_.shell.outline);
}

/// In plan, or in the coordinates of the surface whose outline it is.
std::vector<LuminairePosition> LuminairePositions::laid(const model::LuminairePlacement& placement,
                                                        const geometry::Polygon& outline) {
  if (placement.array) return array_of(placement, outline);
  std::vector<LuminairePosition> positions;
  if (placement.at) positions.push_back({*placement.at, 0, {}});
  if (placement.row)
    for (int k = 0; k < placement.row->count; ++k)
      positions.push_back({placement.row->from + double(k) / (placement.row->count - 1) *
                                                     (placement.row->to - placement.row->from),
                           0,
                           {}});
  if (placement.ring)
    for (int k = 0; k < placement.ring->count; ++k) {
      const double turn = 360.0 * k / placement.ring->count;
      const Vec2 way(std::cos(turn * kDegree), std::sin(turn * kDegree));
      positions.push_back({placement.ring->centre + placement.ring->radius_m * way, turn, {}});
    }
  if (placement.along)
    for (const auto& [at, turn] : path_positions(*placement.along)) positions.push_back({at, turn, {}});
  if (!all_inside(placement, positions, outline)) return {};
  return positions;
}

bool LuminairePositions::all_inside(const model::LuminairePlacement& placement,
                                    const std::vector<LuminairePosition>& positions,
                                    const geometry::Polygon& outline) {
  const bool in_plan = &outline == &built_.shell.outline;
  if (in_plan && !built_.shell.walled) return true;  // poles may stand beside the area that they light
  for (const LuminairePosition& each : positions) {
    if (geometry::contains(outline, each.at)) continue;
    const geometry::Box2 box = geometry::bounding_box(outline);
    const auto shown = [&](double metres) { return problems_.units().length(metres); };
    const std::string where = in_plan ? fmt::format(FMT_STRING("the room \"{}\""), room_.name)
                                      : fmt::format(FMT_STRING("\"{}\""), placement.on);
    problems_.error(
        "P014", placement.at_place,
        fmt::format(FMT_STRING("luminaire {} at {} lies outside {}; expected a point inside its outline (x "
                               "{:.2f} to {:.2f}, y {:.2f} to {:.2f}{})"),
                    called(placement), problems_.position(each.at), where, shown(box.low.x()),
                    shown(box.high.x()), shown(box.low.y()), shown(box.high.y()),
                    in_plan ? "" : ", from its lower left corner"));
    return false;
  }
  return true;
}

std::vector<LuminairePosition> LuminairePositions::array_of(const model::LuminairePlacement& placement,
                                                            const geometry::Polygon& outline) {
  const auto array = space::array_positions(outline, *placement.array);
  const bool in_plan = &outline == &built_.shell.outline;
  if (in_plan && !array.inside.empty()) array_spacings_.push_back(array.spacing);
  const std::string filled = placement.on.empty() ? room_.name : placement.on;
  if (!array.outside.empty()) {
    std::string named;
    for (std::size_t i = 0; i < array.outside.size() && i < kMostPositionsNamed; ++i)
      named += (i ? ", " : "") + problems_.position(array.outside[i]);
    if (array.outside.size() > kMostPositionsNamed) named += ", ...";
    problems_.warning(
        "P021", placement.place,
        fmt::format(FMT_STRING("{} of {} positions of the array of {} lie outside {}\"{}\" and "
                               "stay empty: {}"),
                    array.outside.size(), array.outside.size() + array.inside.size(), called(placement),
                    placement.array->within.empty() ? "the outline of " : "what it is to fill in ", filled,
                    named));
  }
  if (array.inside.empty()) {
    const bool narrow = array.outside.empty() && placement.array->margin_m;
    problems_.error(
        "P014", placement.place,
        fmt::format(FMT_STRING("no position of the array of {} lies inside \"{}\"{}"), called(placement),
                    filled,
                    narrow ? fmt::format(FMT_STRING(": margins of {} leave nothing of it; give a smaller "
                                                    "\"margin\""),
                                         problems_.length(*placement.array->margin_m))
                           : std::string()));
  }
  std::vector<LuminairePosition> positions;
  for (const Vec2& at : array.inside) positions.push_back({at, placement.array->turned_deg, {}});
  return positions;
}

/// C0 looks into the room; the back of the body, or of the luminous area, touches the wall.
std::vector<LuminairePosition> LuminairePositions::on_wall(const model::LuminairePlacement& placement,
                                                           const photometry::Photometry* photometry) {
  const model::OnWall& wish = *placement.on_wall;
  const auto place = walls_.find(wish.number, wish.name);
  if (!place) {
    problems_.error(
        "P034", placement.at_place,
        fmt::format(FMT_STRING("\"{}\" has no such wall; expected {}"), room_.name, walls_.choices()));
    return {};
  }
  const geometry::Polygon& outline = built_.shell.outline;
  const Vec2& a = outline[place->wall];
  const Vec2 way = outline[(place->wall + 1) % outline.size()] - a;
  const double along = place->along(wish.from_m);
  if (along < 0 || along > way.norm()) {
    problems_.error("P035", placement.at_place,
                    fmt::format(FMT_STRING("{} lies beyond the end of {}, which is {} long"),
                                problems_.length(wish.from_m), walls_.name_of(place->wall),
                                problems_.length(way.norm())));
    return {};
  }
  const Vec2 inwards = Vec2(-way.y(), way.x()).normalized();
  const double turn = std::atan2(inwards.y(), inwards.x()) / kDegree;
  const double behind = photometry ? reach_behind(placement, *photometry, inwards, turn) : 0;
  return {{a + along * way.normalized() + (behind + kOffWall) * inwards, turn, {}}};
}

/// The ceiling above a place as a plane through it: u as near to the plan's x as it lies.
readings::Plane LuminairePositions::ceiling_at(const Vec2& at) const {
  const geometry::RoomShell& shell = built_.shell;
  const double height = shell.clear_height(at);
  const bool on_step = height < shell.ceiling_height(at) - 1e-6;
  readings::Plane plane;
  plane.normal = on_step ? Vec3(-Vec3::UnitZ()) : shell.ceiling_facing(at);
  plane.origin = Vec3(at.x(), at.y(), height);
  plane.u = (Vec3::UnitX() - plane.normal.x() * plane.normal).normalized();
  plane.v = plane.u.cross(plane.normal);
  return plane;
}

void LuminairePositions::on_flat(const model::LuminairePlacement& placement, const std::vector<Vec3>& corners,
                                 std::vector<LuminairePosition>& positions) {
  const Flat flat = flat_of(corners);
  for (LuminairePosition& each : laid(placement, flat.outline)) {
    each.on = flat.plane;
    const Vec2 plan = (each.place() + 2 * kOffWall * flat.plane.normal).xy();
    if (built_.shell.walled && !geometry::contains(built_.shell.outline, plan)) {
      problems_.error("P014", placement.at_place,
                      fmt::format(FMT_STRING("luminaire {} on \"{}\" would lie outside \"{}\" at {}; is that "
                                             "face turned to a wall?"),
                                  called(placement), placement.on, room_.name, problems_.position(plan)));
      positions.clear();
      return;
    }
    positions.push_back(each);
  }
}

std::vector<LuminairePosition> LuminairePositions::on_surface(const model::LuminairePlacement& placement) {
  std::vector<LuminairePosition> positions;
  if (placement.on == "ceiling" && built_.shell.roofed) {
    positions = laid(placement, built_.shell.outline);
    for (LuminairePosition& each : positions) {
      each.on = ceiling_at(each.at);
      each.at = Vec2::Zero();
    }
    return positions;
  }
  if (placement.on == "floor") {
    positions = laid(placement, built_.shell.outline);
    for (LuminairePosition& each : positions)
      each.on = readings::Plane::level(built_.shell.ground.height(each.at));
    return positions;
  }
  if (const auto place = walls_.find(0, placement.on)) {
    on_flat(placement, geometry::wall_corners(built_.shell, place->wall), positions);
    return positions;
  }
  const NamedFaces found = named_faces(placement.on, built_.objects, placement.at_place, problems_);
  for (const NamedFace& named : found.faces) on_flat(placement, named.face->corners, positions);
  if (!found.known)
    tell_unknown_surface(placement.on, {"ceiling", "floor"}, room_, walls_, built_.objects,
                         placement.at_place, problems_);
  return positions;
}

std::vector<LuminairePosition> LuminairePositions::over(const model::LuminairePlacement& placement) {
  const model::Over& wish = *placement.over;
  std::vector<LuminairePosition> positions;
  std::vector<std::string> names;
  for (const PlacedObject& placed : built_.objects) {
    for (const std::string& name : {placed.name, placed.base, placed.object->kind})
      if (!name.empty()) names.push_back(name);
    if (placed.name != wish.thing && placed.base != wish.thing && placed.object->kind != wish.thing) continue;
    Vec2 middle = Vec2::Zero();
    for (const Vec2& corner : placed.extent.plan) middle += corner / double(placed.extent.plan.size());
    const double turn = placed.object->rotation_deg;
    positions.push_back({middle + Vec2(Eigen::Rotation2Dd(turn * kDegree) * wish.offset), turn, {}});
  }
  if (positions.empty()) {
    if (may_mean_unread(room_, wish.thing)) return {};
    const std::string near = nearest_word(wish.thing, names);
    problems_.error("P051", placement.at_place,
                    fmt::format(FMT_STRING("there is no \"{}\" in \"{}\" to hang luminaire {} over; {}"),
                                wish.thing, room_.name, called(placement),
                                near.empty() ? std::string("expected the name or kind of an object")
                                             : fmt::format(FMT_STRING("did you mean \"{}\"?"), near)));
    return {};
  }
  if (!all_inside(placement, positions, built_.shell.outline)) return {};
  return positions;
}

}  // namespace glow::space
