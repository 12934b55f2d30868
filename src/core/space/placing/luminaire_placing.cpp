#include "core/space/placing/luminaire_placing.hpp"

#include <fmt/format.h>

#include <limits>
#include <map>

#include "core/photometry/transform.hpp"
#include "core/space/placing/array_positions.hpp"
#include "core/space/placing/luminaire_positions.hpp"
#include "core/space/tolerances.hpp"

namespace glow::space {
namespace {

constexpr std::size_t kMostLuminaires = 20000;
constexpr double kBodyReflectance = 0.5;
constexpr double kOffSurface = 0.001;  // m: what is mounted on a surface does not lie in it

class Placing {
 public:
  Placing(const model::Project& project, const model::Room& room, const RoomGeometry& built,
          const WrittenWalls& walls, geometry::Geometry& geometry, Problems& problems)
      : project_(project),
        room_(room),
        shell_(built.shell),
        geometry_(geometry),
        problems_(problems),
        positions_(room, built, walls, problems) {}

  PlacedGroups place_all() {
    for (const model::LuminairePlacement& placement : room_.luminaires) place(placement);
    name_groups();
    placed_.array_spacings = positions_.array_spacings();
    return std::move(placed_);
  }

 private:
  void place(const model::LuminairePlacement& placement);
  std::vector<model::FittingPart> parts_of(const model::LuminairePlacement& placement);
  void add_group(const model::LuminairePlacement& placement, const model::FittingPart& part,
                 const std::vector<geometry::Frame>& frames, const std::vector<double>& rotations_deg);
  void set_temperature(const model::LuminairePlacement& placement, LuminaireGroup& group);
  std::optional<double> height_of(const model::LuminairePlacement& placement,
                                  const photometry::Photometry& photometry, const Vec2& at);
  std::optional<geometry::Frame> frame_of(const model::LuminairePlacement& placement,
                                          const photometry::Photometry& photometry,
                                          const LuminairePosition& position);
  double ceiling_over(const Vec2& at) const;
  void warn_of_aim(const model::LuminairePlacement& placement);
  bool has_room(const model::LuminairePlacement& placement, const photometry::Photometry& photometry);
  const model::ScheduledLuminaire* scheduled(const std::string& mark, const Place& place);
  void warn_of_wall(const model::LuminairePlacement& placement, const photometry::PlacedLuminaire& luminaire);
  void add_body(const model::LuminairePlacement& placement, const photometry::Photometry& photometry,
                photometry::PlacedLuminaire& luminaire);
  void name_groups();

  const model::Project& project_;
  const model::Room& room_;
  const geometry::RoomShell& shell_;
  geometry::Geometry& geometry_;
  Problems& problems_;
  LuminairePositions positions_;
  PlacedGroups placed_;
  std::vector<Vec3> owners_;  // places of bodies: those at one place do not shade each other
};

/// On a surface C0 lies along its first edge, or as near to the plan's x as a ceiling lies; turned about
/// gamma 0 as an upright luminaire is about the vertical.
geometry::Frame on_plane(const readings::Plane& plane, const Vec3& origin, double turn_deg) {
  geometry::Frame frame;
  frame.origin = origin;
  frame.g0 = plane.normal;
  const Vec3 c90 = plane.u.cross(frame.g0);
  const double a = turn_deg * kDegree;
  frame.c0 = std::cos(a) * plane.u + std::sin(a) * c90;
  frame.c90 = std::cos(a) * c90 - std::sin(a) * plane.u;
  return frame;
}

std::optional<geometry::Frame> Placing::frame_of(const model::LuminairePlacement& placement,
                                                 const photometry::Photometry& photometry,
                                                 const LuminairePosition& position) {
  const double rotation = placement.rotation_deg + position.turn_deg;
  if (position.on) {
    const double luminous = photometry.area.height_m();
    const bool stands_off = placement.mounting == model::Mounting::surface;
    const double body = photometry.body ? std::max(photometry.body->height_m, luminous) : luminous;
    const double off = stands_off ? body - luminous / 2 : luminous / 2;
    return on_plane(*position.on, position.place() + (off + kOffSurface) * position.on->normal, rotation);
  }
  const auto height = height_of(placement, photometry, position.at);
  if (!height) return std::nullopt;
  const Vec3 origin = shell_.ground.raised({position.at.x(), position.at.y(), *height});
  if (placement.aim)
    return geometry::Frame::aimed(origin, shell_.ground.raised(*placement.aim), placement.rotation_deg);
  return geometry::Frame::tilted(origin, rotation, placement.tilt_deg);
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
                    called(placement), room_.name));
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
                    called(placement), problems_.length(top), room_.name, problems_.length(ceiling)));
    return std::nullopt;
  }
  if (bottom < 0) {
    problems_.error("P015", placement.height_place,
                    fmt::format(FMT_STRING("luminaire {} would hang at {}, below the floor of \"{}\""),
                                called(placement), problems_.length(bottom), room_.name));
    return std::nullopt;
  }
  return std::min((bottom + top) / 2, ceiling);
}

/// Infinite in the open.
double Placing::ceiling_over(const Vec2& at) const {
  return shell_.roofed ? shell_.clear_height(at) : std::numeric_limits<double>::infinity();
}

const model::ScheduledLuminaire* Placing::scheduled(const std::string& mark, const Place& place) {
  if (const model::ScheduledLuminaire* found = project_.find(mark)) return found;
  std::vector<std::string> marks;
  for (const auto& entry : project_.schedule) marks.push_back(entry.mark);
  const std::string near = nearest_word(mark, marks);
  problems_.error("P010", place,
                  fmt::format(FMT_STRING("unknown luminaire mark \"{}\"; {}"), mark,
                              near.empty() ? std::string("expected one of the [luminaires.MARK] tables")
                                           : fmt::format(FMT_STRING("did you mean \"{}\"?"), near)));
  return nullptr;
}

/// A fitting's parts, or the luminaire itself as the only one. Empty: something is wrong with them.
std::vector<model::FittingPart> Placing::parts_of(const model::LuminairePlacement& placement) {
  const model::ScheduledLuminaire* entry = scheduled(placement.mark, placement.mark_place);
  if (!entry) return {};
  if (entry->parts.empty()) return {{entry->mark, 1, {}, placement.mark_place}};
  for (const model::FittingPart& part : entry->parts) {
    const model::ScheduledLuminaire* own = scheduled(part.mark, part.place);
    if (!own) return {};
    if (own->parts.empty()) continue;
    problems_.error("P010", part.place,
                    fmt::format(FMT_STRING("{} is a fitting itself; a part of {} is a luminaire with a file"),
                                part.mark, entry->mark));
    return {};
  }
  return entry->parts;
}

bool Placing::has_room(const model::LuminairePlacement& placement, const photometry::Photometry& photometry) {
  const geometry::Box2 box = geometry::bounding_box(shell_.outline);
  const double longest = std::max(photometry.area.extent_c0_m, photometry.area.extent_c90_m);
  if (longest <= box.size().norm()) return true;
  problems_.error(
      "P073", placement.mark_place,
      fmt::format(
          FMT_STRING("luminaire {} is {:g} m long, more than the room \"{}\"; its file probably states "
                     "millimetres or feet where metres are read"),
          placement.mark, longest, room_.name));
  return false;
}

/// The first part's size tells how it hangs; all parts shine from the same place.
void Placing::place(const model::LuminairePlacement& placement) {
  if (placement.arrange) return;  // has no places yet
  const std::vector<model::FittingPart> parts = parts_of(placement);
  if (parts.empty()) return;
  const photometry::Photometry* first = project_.find(parts.front().mark)->photometry.get();
  const std::vector<LuminairePosition> positions = positions_.find(placement, first);
  if (positions.empty()) return;
  for (const model::FittingPart& part : parts) {
    const photometry::Photometry* own = project_.find(part.mark)->photometry.get();
    if (!own || !has_room(placement, *own)) return;
  }
  warn_of_aim(placement);
  std::vector<geometry::Frame> frames;
  std::vector<double> rotations;
  for (const LuminairePosition& each : positions) {
    const auto frame = frame_of(placement, *first, each);
    if (!frame) return;
    frames.push_back(*frame);
    rotations.push_back(placement.rotation_deg + each.turn_deg);
  }
  for (const model::FittingPart& part : parts) add_group(placement, part, frames, rotations);
  std::size_t count = 0;
  for (const LuminaireGroup& g : placed_.groups) count += g.luminaires.size();
  if (count > kMostLuminaires)
    problems_.error("P019", placement.place,
                    fmt::format(FMT_STRING("room \"{}\" has {} luminaires; at most {} are taken"), room_.name,
                                count, kMostLuminaires));
}

void Placing::add_group(const model::LuminairePlacement& placement, const model::FittingPart& part,
                        const std::vector<geometry::Frame>& frames,
                        const std::vector<double>& rotations_deg) {
  const model::ScheduledLuminaire& entry = *project_.find(part.mark);
  std::shared_ptr<const photometry::Photometry> whole = entry.photometry;
  if (placement.shield_deg) {
    photometry::Photometry cut = *entry.photometry;
    cut.table = photometry::shielded(cut.table, *placement.shield_deg);
    whole = std::make_shared<const photometry::Photometry>(std::move(cut));
  }
  const photometry::Photometry& photometry = *whole;
  LuminaireGroup group;
  group.mark = entry.mark;
  group.name = placement.name;
  group.fitting = entry.mark == placement.mark ? std::string() : placement.mark;
  group.share = part.dimming;
  group.photometry = whole;
  group.placement = std::size_t(&placement - room_.luminaires.data());
  group.colour = entry.colour;
  if (!group.colour.tunable && !group.colour.cct_k) group.colour.cct_k = photometry.cct_k;
  if (part.cct_k) group.colour.cct_k = part.cct_k;
  set_temperature(placement, group);
  group.ra = entry.ra ? entry.ra : photometry.colour_rendering;
  group.lamp_luminance_cd_m2 = entry.lamp_luminance_cd_m2;
  group.shielding_deg = entry.shielding_deg;
  group.rotations_deg = rotations_deg;
  if (placement.array && placement.on.empty()) {
    const auto array = space::array_positions(shell_.outline, *placement.array);
    group.array = *placement.array;
    group.array->rows = array.rows;
    group.array->columns = array.columns;
    group.array->spacing.reset();
  }
  const std::shared_ptr<const photometry::IntensityTable> table(whole, &photometry.table);
  for (const geometry::Frame& frame : frames) {
    group.luminaires.push_back({table, photometry.area, frame});
    warn_of_wall(placement, group.luminaires.back());
    if (placement.blocks_light) add_body(placement, photometry, group.luminaires.back());
  }
  placed_.groups.push_back(std::move(group));
}

/// Of a tunable luminaire the placement says what it is set to.
void Placing::set_temperature(const model::LuminairePlacement& placement, LuminaireGroup& group) {
  if (!placement.cct_k) return;
  if (const auto fault = fault_of_temperature(group, *placement.cct_k)) {
    problems_.error("P094", placement.cct_place, *fault);
    return;
  }
  group.colour.cct_k = placement.cct_k;
}

/// Where no name is written the mark serves, with a number where the room has several groups of it.
void Placing::name_groups() {
  std::map<std::string, int> groups, numbers;
  const auto base = [](const LuminaireGroup& group) {
    return group.fitting.empty() ? group.mark : group.fitting + " " + group.mark;
  };
  for (const LuminaireGroup& group : placed_.groups)
    if (group.name.empty()) ++groups[base(group)];
  for (LuminaireGroup& group : placed_.groups) {
    const bool written = !group.name.empty();
    if (written && !group.fitting.empty()) group.name += " " + group.mark;
    if (written) continue;
    group.name = base(group);
    if (groups[group.name] > 1) group.name += fmt::format(FMT_STRING(" {}"), ++numbers[base(group)]);
  }
}

/// What is aimed at lies in the room, most often on one of its surfaces.
void Placing::warn_of_aim(const model::LuminairePlacement& placement) {
  if (!placement.aim) return;
  constexpr double kBeyond = 0.01;  // m
  const Vec3& aim = *placement.aim;
  const Vec2 plan = aim.xy();
  const bool beside = shell_.walled && !geometry::contains(shell_.outline, plan) &&
                      geometry::distance_to_edges(shell_.outline, plan) > kBeyond;
  const bool above = !beside && aim.z() > ceiling_over(plan) + kBeyond;
  if (!beside && !above && aim.z() > -kBeyond) return;
  problems_.warning("P074", placement.place,
                    fmt::format(FMT_STRING("luminaire {} is aimed at {}, {}; aim it at a point in the room"),
                                called(placement), problems_.position(aim),
                                beside  ? "outside \"" + room_.name + "\""
                                : above ? std::string("above the ceiling")
                                        : std::string("below the floor")));
}

/// A luminous area that reaches into a wall loses light there.
void Placing::warn_of_wall(const model::LuminairePlacement& placement,
                           const photometry::PlacedLuminaire& luminaire) {
  const geometry::Frame& f = luminaire.frame;
  if (!shell_.walled) return;
  for (const double s : {-0.5, 0.5})
    for (const double t : {-0.5, 0.5}) {
      const Vec3 corner =
          f.origin + s * luminaire.area.extent_c0_m * f.c0 + t * luminaire.area.extent_c90_m * f.c90;
      if (geometry::contains(shell_.outline, corner.xy()) ||
          geometry::distance_to_edges(shell_.outline, corner.xy()) < 2 * kOffSurface)
        continue;
      problems_.warning("P025", placement.place,
                        fmt::format(FMT_STRING("luminaire {} at {} reaches into a wall of \"{}\"; light is "
                                               "lost there"),
                                    called(placement), problems_.position(Vec2(f.origin.xy())), room_.name));
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
                              const RoomGeometry& built, const WrittenWalls& walls,
                              geometry::Geometry& geometry, Problems& problems) {
  return Placing(project, room, built, walls, geometry, problems).place_all();
}

std::optional<std::string> fault_of_temperature(const LuminaireGroup& group, double kelvin) {
  const auto& range = group.colour.tunable;
  if (!range)
    return fmt::format(
        FMT_STRING("luminaire {} cannot be set to {:g} K: it is not tunable; state its range, cct = "
                   "[2700, 6500], in [luminaires.{}]"),
        group.mark, kelvin, group.mark);
  if (kelvin >= range->first && kelvin <= range->second) return std::nullopt;
  return fmt::format(FMT_STRING("luminaire {} cannot be set to {:g} K; expected {:g} to {:g} K"), group.mark,
                     kelvin, range->first, range->second);
}

}  // namespace glow::space
