#include "core/space/placing/luminaire_placing.hpp"

#include <fmt/format.h>

#include <limits>

#include "core/space/array_positions.hpp"

namespace glow::space {
namespace {

constexpr std::size_t kMostLuminaires = 20000;
constexpr double kHair = 1e-6;  // m
constexpr int kMostPositionsNamed = 4;
constexpr double kBodyReflectance = 0.5;
constexpr double kOffWall = 0.001;  // m: what hangs on a wall does not lie in it

/// Where one luminaire hangs, in plan, and how far it is turned beyond the placement's own rotation.
struct Position {
  Vec2 at = Vec2::Zero();
  double turn_deg = 0;
};

class Placing {
 public:
  Placing(const model::Project& project, const model::Room& room, const geometry::RoomShell& shell,
          const WrittenWalls& walls, geometry::Geometry& geometry, Problems& problems)
      : project_(project),
        room_(room),
        shell_(shell),
        walls_(walls),
        geometry_(geometry),
        problems_(problems) {}

  PlacedGroups place_all() {
    for (const model::LuminairePlacement& placement : room_.luminaires) place(placement);
    return std::move(placed_);
  }

 private:
  void place(const model::LuminairePlacement& placement);
  std::optional<double> height_of(const model::LuminairePlacement& placement,
                                  const photometry::Photometry& photometry, const Vec2& at);
  std::vector<Position> positions_of(const model::LuminairePlacement& placement,
                                     const photometry::Photometry* photometry);
  std::vector<Position> on_wall(const model::LuminairePlacement& placement,
                                const photometry::Photometry* photometry);
  std::vector<Position> array_of(const model::LuminairePlacement& placement);
  bool is_inside(const model::LuminairePlacement& placement, const Vec2& at);
  double ceiling_over(const Vec2& at) const;
  void warn_of_aim(const model::LuminairePlacement& placement);
  const model::ScheduledLuminaire* scheduled(const model::LuminairePlacement& placement);
  void warn_of_wall(const model::LuminairePlacement& placement, const photometry::PlacedLuminaire& luminaire);
  void add_body(const model::LuminairePlacement& placement, const photometry::Photometry& photometry,
                photometry::PlacedLuminaire& luminaire);

  const model::Project& project_;
  const model::Room& room_;
  const geometry::RoomShell& shell_;
  const WrittenWalls& walls_;
  geometry::Geometry& geometry_;
  Problems& problems_;
  PlacedGroups placed_;
  std::vector<Vec3> owners_;  // places of bodies: those at one place do not shade each other
};

geometry::Frame frame_of(const model::LuminairePlacement& placement, const Vec3& position, double turn_deg) {
  const double rotation = placement.rotation_deg + turn_deg;
  if (placement.aim) return geometry::Frame::aimed(position, *placement.aim, placement.rotation_deg);
  return geometry::Frame::tilted(position, rotation, placement.tilt_deg);
}

/// Height of the middle of the luminous part, m.
std::optional<double> Placing::height_of(const model::LuminairePlacement& placement,
                                         const photometry::Photometry& photometry, const Vec2& at) {
  const photometry::LuminousArea& area = photometry.area;
  const double body = std::max(photometry.body ? photometry.body->height_m : 0, area.height_m());
  const bool hangs = !placement.mounting_height_m && placement.mounting != model::Mounting::standing;
  if (!shell_.roofed && hangs) {
    problems_.error(
        "P015", placement.height_place,
        fmt::format(FMT_STRING("luminaire {} has no ceiling to hang from: \"{}\" is open above; give "
                               "it a mounting_height"),
                    placement.mark, room_.name));
    return std::nullopt;
  }
  const double ceiling = ceiling_over(at);
  double bottom = ceiling - area.height_m();
  if (placement.mounting == model::Mounting::surface) bottom = ceiling - body;
  if (placement.mounting == model::Mounting::standing) bottom = body - area.height_m();
  if (placement.mounting_height_m) bottom = *placement.mounting_height_m;
  if (placement.suspension_m) bottom = ceiling - *placement.suspension_m;
  const double top = bottom + area.height_m();
  if (top > ceiling + kHair) {
    problems_.error(
        "P015", placement.height_place,
        fmt::format(FMT_STRING("luminaire {} would reach {}, above the ceiling of \"{}\" at {}"),
                    placement.mark, problems_.length(top), room_.name, problems_.length(ceiling)));
    return std::nullopt;
  }
  if (bottom < 0) {
    problems_.error("P015", placement.height_place,
                    fmt::format(FMT_STRING("luminaire {} would hang at {}, below the floor of \"{}\""),
                                placement.mark, problems_.length(bottom), room_.name));
    return std::nullopt;
  }
  return std::min((bottom + top) / 2, ceiling);
}

/// Infinite in the open.
double Placing::ceiling_over(const Vec2& at) const {
  return shell_.roofed ? shell_.clear_height(at) : std::numeric_limits<double>::infinity();
}

bool Placing::is_inside(const model::LuminairePlacement& placement, const Vec2& at) {
  if (geometry::contains(shell_.outline, at)) return true;
  const geometry::Box2 box = geometry::bounding_box(shell_.outline);
  const auto shown = [&](double metres) { return problems_.units().length(metres); };
  problems_.error("P014", placement.at_place,
                  fmt::format(FMT_STRING("luminaire {} at {} lies outside the room \"{}\"; expected a "
                                         "point inside its outline (x {:.2f} to {:.2f}, y {:.2f} to {:.2f})"),
                              placement.mark, problems_.position(at), room_.name, shown(box.low.x()),
                              shown(box.high.x()), shown(box.low.y()), shown(box.high.y())));
  return false;
}

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

/// C0 looks into the room; the back of the body, or of the luminous area, touches the wall.
std::vector<Position> Placing::on_wall(const model::LuminairePlacement& placement,
                                       const photometry::Photometry* photometry) {
  const model::OnWall& wish = *placement.on_wall;
  const auto place = walls_.find(wish.number, wish.name);
  if (!place) {
    problems_.error(
        "P034", placement.at_place,
        fmt::format(FMT_STRING("\"{}\" has no such wall; expected {}"), room_.name, walls_.choices()));
    return {};
  }
  const Vec2& a = shell_.outline[place->wall];
  const Vec2 way = shell_.outline[(place->wall + 1) % shell_.outline.size()] - a;
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
  return {{a + along * way.normalized() + (behind + kOffWall) * inwards, turn}};
}

std::vector<Position> Placing::positions_of(const model::LuminairePlacement& placement,
                                            const photometry::Photometry* photometry) {
  if (placement.array) return array_of(placement);
  if (placement.on_wall) return on_wall(placement, photometry);
  std::vector<Position> positions;
  if (placement.at) positions.push_back({*placement.at});
  if (placement.row)
    for (int k = 0; k < placement.row->count; ++k)
      positions.push_back({placement.row->from + double(k) / (placement.row->count - 1) *
                                                     (placement.row->to - placement.row->from)});
  if (placement.ring)
    for (int k = 0; k < placement.ring->count; ++k) {
      const double turn = 360.0 * k / placement.ring->count;
      const Vec2 way(std::cos(turn * kDegree), std::sin(turn * kDegree));
      positions.push_back({placement.ring->centre + placement.ring->radius_m * way, turn});
    }
  for (const Position& each : positions)
    if (!is_inside(placement, each.at)) return {};
  return positions;
}

std::vector<Position> Placing::array_of(const model::LuminairePlacement& placement) {
  const auto array = space::array_positions(shell_.outline, *placement.array);
  placed_.array_spacings.push_back(array.spacing);
  if (!array.outside.empty()) {
    std::string named;
    for (std::size_t i = 0; i < array.outside.size() && i < kMostPositionsNamed; ++i)
      named += (i ? ", " : "") + problems_.position(array.outside[i]);
    if (array.outside.size() > kMostPositionsNamed) named += ", ...";
    problems_.warning(
        "P021", placement.place,
        fmt::format(FMT_STRING("{} of {} positions of the array of {} lie outside {}\"{}\" and "
                               "stay empty: {}"),
                    array.outside.size(), array.outside.size() + array.inside.size(), placement.mark,
                    placement.array->within.empty() ? "the outline of " : "what it is to fill in ",
                    room_.name, named));
  }
  if (array.inside.empty())
    problems_.error("P014", placement.place,
                    fmt::format(FMT_STRING("no position of the array of {} lies inside \"{}\""),
                                placement.mark, room_.name));
  std::vector<Position> positions;
  for (const Vec2& at : array.inside) positions.push_back({at});
  return positions;
}

const model::ScheduledLuminaire* Placing::scheduled(const model::LuminairePlacement& placement) {
  if (const model::ScheduledLuminaire* found = project_.find(placement.mark)) return found;
  std::vector<std::string> marks;
  for (const auto& entry : project_.schedule) marks.push_back(entry.mark);
  const std::string near = nearest_word(placement.mark, marks);
  problems_.error("P010", placement.mark_place,
                  fmt::format(FMT_STRING("unknown luminaire mark \"{}\"; {}"), placement.mark,
                              near.empty() ? std::string("expected one of the [luminaires.MARK] tables")
                                           : fmt::format(FMT_STRING("did you mean \"{}\"?"), near)));
  return nullptr;
}

void Placing::place(const model::LuminairePlacement& placement) {
  const model::ScheduledLuminaire* entry = scheduled(placement);
  if (!entry) return;
  const std::vector<Position> positions = positions_of(placement, entry->photometry.get());
  if (!entry->photometry || positions.empty()) return;
  const photometry::Photometry& photometry = *entry->photometry;
  const geometry::Box2 box = geometry::bounding_box(shell_.outline);
  if (const double longest = std::max(photometry.area.extent_c0_m, photometry.area.extent_c90_m);
      longest > box.size().norm()) {
    problems_.error(
        "P073", placement.mark_place,
        fmt::format(
            FMT_STRING("luminaire {} is {:g} m long, more than the room \"{}\"; its file probably states "
                       "millimetres or feet where metres are read"),
            placement.mark, longest, room_.name));
    return;
  }
  warn_of_aim(placement);
  LuminaireGroup group;
  group.mark = placement.mark;
  group.photometry = entry->photometry;
  group.placement = std::size_t(&placement - room_.luminaires.data());
  group.cct_k = entry->cct_k ? entry->cct_k : photometry.cct_k;
  group.ra = entry->ra ? entry->ra : photometry.colour_rendering;
  group.lamp_luminance_cd_m2 = entry->lamp_luminance_cd_m2;
  group.shielding_deg = entry->shielding_deg;
  if (placement.array) {
    const auto array = space::array_positions(shell_.outline, *placement.array);
    group.array = model::Array{array.rows, array.columns, std::nullopt, placement.array->within};
  }
  const std::shared_ptr<const photometry::IntensityTable> table(entry->photometry, &photometry.table);
  for (const Position& each : positions) {
    const auto height = height_of(placement, photometry, each.at);
    if (!height) return;
    const Vec3 position(each.at.x(), each.at.y(), *height);
    group.luminaires.push_back({table, photometry.area, frame_of(placement, position, each.turn_deg)});
    group.rotations_deg.push_back(placement.rotation_deg + each.turn_deg);
    warn_of_wall(placement, group.luminaires.back());
    if (placement.blocks_light) add_body(placement, photometry, group.luminaires.back());
  }
  placed_.groups.push_back(std::move(group));
  std::size_t count = 0;
  for (const LuminaireGroup& g : placed_.groups) count += g.luminaires.size();
  if (count > kMostLuminaires)
    problems_.error("P019", placement.place,
                    fmt::format(FMT_STRING("room \"{}\" has {} luminaires; at most {} are taken"), room_.name,
                                count, kMostLuminaires));
}

/// What is aimed at lies in the room, most often on one of its surfaces.
void Placing::warn_of_aim(const model::LuminairePlacement& placement) {
  if (!placement.aim) return;
  constexpr double kBeyond = 0.01;  // m
  const Vec3& aim = *placement.aim;
  const Vec2 plan = aim.head<2>();
  const bool beside = !geometry::contains(shell_.outline, plan) &&
                      geometry::distance_to_edges(shell_.outline, plan) > kBeyond;
  const bool above = !beside && aim.z() > ceiling_over(plan) + kBeyond;
  if (!beside && !above && aim.z() > -kBeyond) return;
  problems_.warning("P074", placement.place,
                    fmt::format(FMT_STRING("luminaire {} is aimed at {}, {}; aim it at a point in the room"),
                                placement.mark, problems_.position(aim),
                                beside  ? "outside \"" + room_.name + "\""
                                : above ? std::string("above the ceiling")
                                        : std::string("below the floor")));
}

/// A luminous area that reaches into a wall loses light there.
void Placing::warn_of_wall(const model::LuminairePlacement& placement,
                           const photometry::PlacedLuminaire& luminaire) {
  const geometry::Frame& f = luminaire.frame;
  for (const double s : {-0.5, 0.5})
    for (const double t : {-0.5, 0.5}) {
      const Vec3 corner =
          f.origin + s * luminaire.area.extent_c0_m * f.c0 + t * luminaire.area.extent_c90_m * f.c90;
      if (geometry::contains(shell_.outline, corner.head<2>()) ||
          geometry::distance_to_edges(shell_.outline, corner.head<2>()) < 2 * kOffWall)
        continue;
      problems_.warning(
          "P025", placement.place,
          fmt::format(FMT_STRING("luminaire {} at {} reaches into a wall of \"{}\"; light is "
                                 "lost there"),
                      placement.mark, problems_.position(Vec2(f.origin.head<2>())), room_.name));
      return;
    }
}

/// A box about the luminous part, from its lower face upwards, as large as the file says.
void Placing::add_body(const model::LuminairePlacement& placement, const photometry::Photometry& photometry,
                       photometry::PlacedLuminaire& luminaire) {
  if (!photometry.body) {
    problems_.warning("P038", placement.place,
                      fmt::format(FMT_STRING("blocks_light is set, but the file of {} states no size of its "
                                             "body; it blocks nothing"),
                                  placement.mark));
    return;
  }
  const geometry::Frame& f = luminaire.frame;
  std::size_t owner = 0;
  while (owner < owners_.size() && (owners_[owner] - f.origin).norm() > kHair) ++owner;
  if (owner == owners_.size()) owners_.push_back(f.origin);
  luminaire.owner = static_cast<int>(owner);
  const photometry::Body& body = *photometry.body;
  const double lower = photometry.area.height_m() / 2;
  Eigen::Isometry3d frame = Eigen::Isometry3d::Identity();
  frame.translation() = f.origin;
  frame.linear() << f.c0, f.c90, -f.g0;
  geometry::Material material;
  material.diffuse = kBodyReflectance;
  geometry_.add_box(fmt::format(FMT_STRING("luminaire {}"), placement.mark),
                    {-body.extent_c0_m / 2, -body.extent_c90_m / 2, -lower},
                    {body.extent_c0_m / 2, body.extent_c90_m / 2, body.height_m - lower}, material, frame,
                    luminaire.owner, geometry::SurfaceRole::luminaire);
}

}  // namespace

PlacedGroups place_luminaires(const model::Project& project, const model::Room& room,
                              const geometry::RoomShell& shell, const WrittenWalls& walls,
                              geometry::Geometry& geometry, Problems& problems) {
  return Placing(project, room, shell, walls, geometry, problems).place_all();
}

}  // namespace glow::space
