#include "core/record/record.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace glow::record {

GroupRecord::GroupRecord() = default;
GroupRecord::GroupRecord(const GroupRecord&) = default;
GroupRecord::GroupRecord(GroupRecord&&) noexcept = default;
GroupRecord& GroupRecord::operator=(const GroupRecord&) = default;
GroupRecord& GroupRecord::operator=(GroupRecord&&) noexcept = default;
GroupRecord::~GroupRecord() = default;

SceneRecord::SceneRecord() = default;
SceneRecord::SceneRecord(const SceneRecord&) = default;
SceneRecord::SceneRecord(SceneRecord&&) noexcept = default;
SceneRecord& SceneRecord::operator=(const SceneRecord&) = default;
SceneRecord& SceneRecord::operator=(SceneRecord&&) noexcept = default;
SceneRecord::~SceneRecord() = default;

RoomRecord::RoomRecord() = default;
RoomRecord::RoomRecord(const RoomRecord&) = default;
RoomRecord::RoomRecord(RoomRecord&&) noexcept = default;
RoomRecord& RoomRecord::operator=(const RoomRecord&) = default;
RoomRecord& RoomRecord::operator=(RoomRecord&&) noexcept = default;
RoomRecord::~RoomRecord() = default;

RunRecord::RunRecord() = default;
RunRecord::RunRecord(const RunRecord&) = default;
RunRecord::RunRecord(RunRecord&&) noexcept = default;
RunRecord& RunRecord::operator=(const RunRecord&) = default;
RunRecord& RunRecord::operator=(RunRecord&&) noexcept = default;
RunRecord::~RunRecord() = default;

namespace {

GroupRecord group_of(const model::Project& project, const model::Room& room,
                     const space::LuminaireGroup& group, const lighting::Weight& weight) {
  const photometry::Photometry& ph = *group.photometry;
  GroupRecord record;
  record.name = group.name;
  record.fitting = group.fitting;
  record.mark = group.mark;
  record.manufacturer = ph.manufacturer;
  record.luminaire = ph.luminaire;
  record.format = ph.format;
  record.flux_lm = ph.flux_lm();
  record.weight = weight;
  record.watts_w = ph.watts;
  record.cct_k = group.colour.cct_k;
  record.ra = group.ra;
  if (const auto* entry = project.find(group.mark); entry && entry->maintenance) {
    record.maintenance = entry->maintenance;
    record.room_surfaces = room.room_surfaces.value_or(model::SurfaceMaintenance{});
  }
  record.size_m = {ph.area.extent_c0_m, ph.area.extent_c90_m};
  if (ph.body) record.size_m = {ph.body->extent_c0_m, ph.body->extent_c90_m};
  record.round = ph.body ? ph.body->round : photometry::is_round(ph.area.shape);
  record.rotations_deg = group.rotations_deg;
  for (const auto& luminaire : group.luminaires) {
    record.positions.push_back(luminaire.frame.origin);
    record.c0.push_back(luminaire.frame.c0);
    record.g0.push_back(luminaire.frame.g0);
    record.tilts_deg.push_back(std::acos(std::clamp(-luminaire.frame.g0.z(), -1.0, 1.0)) / kDegree);
  }
  record.aim = room.luminaires[group.placement].aim;
  return record;
}

std::vector<TaskRecord> tasks_of(const space::Brief& brief) {
  std::vector<TaskRecord> tasks;
  for (const standards::TaskInForce& task : brief.tasks)
    tasks.push_back({task.row.key, task.row.standard_name(), task.row.source(), task.row.certainty,
                     task.em_lx, task.reason});
  return tasks;
}

/// A plane as one triangle that reaches under all of the outline.
std::optional<std::vector<Vec3>> corners_of(const geometry::Ground& ground,
                                            const geometry::Polygon& outline) {
  if (ground.is_level()) return std::nullopt;
  std::vector<Vec3> corners;
  for (const std::array<Vec3, 3>& triangle : ground.triangles())
    corners.insert(corners.end(), triangle.begin(), triangle.end());
  if (!corners.empty()) return corners;
  const geometry::Box2 box = geometry::bounding_box(outline);
  for (const Vec2& p : {box.low, Vec2(box.low.x() + 2 * box.size().x(), box.low.y()),
                        Vec2(box.low.x(), box.low.y() + 2 * box.size().y())})
    corners.emplace_back(p.x(), p.y(), ground.height(p));
  return corners;
}

}  // namespace

const assess::GridReading* RoomRecord::find_grid(const std::string& wanted) const {
  for (const assess::GridReading& grid : assessment.grids)
    if (grid.name == wanted) return &grid;
  return nullptr;
}

std::vector<Vec3> LuminaireRecord::corners() const {
  const Vec3 c90 = c0.cross(g0);
  std::vector<Vec2> outline = {{-0.5, -0.5}, {0.5, -0.5}, {0.5, 0.5}, {-0.5, 0.5}};
  if (round) {
    constexpr int kCorners = 24;
    outline.clear();
    for (int k = 0; k < kCorners; ++k)
      outline.push_back(0.5 * Vec2(std::cos(2 * kPi * k / kCorners), std::sin(2 * kPi * k / kCorners)));
  }
  std::vector<Vec3> corners;
  for (const Vec2& at : outline)
    corners.push_back(position + at.x() * size_m.x() * c0 + at.y() * size_m.y() * c90);
  return corners;
}

std::vector<LuminaireRecord> RoomRecord::luminaires() const {
  std::vector<LuminaireRecord> list;
  for (const GroupRecord& group : groups)
    for (std::size_t i = 0; i < group.positions.size(); ++i)
      list.push_back({group.mark, group.positions[i], group.rotations_deg[i], group.size_m, group.round,
                      group.aim, group.c0[i], group.g0[i]});
  return list;
}

std::vector<MarkRecord> RoomRecord::marks() const {
  std::vector<MarkRecord> marks;
  for (const GroupRecord& group : groups) {
    auto same = std::find_if(marks.begin(), marks.end(), [&](const auto& m) { return m.mark == group.mark; });
    if (same == marks.end()) same = marks.insert(same, {group.mark, group.luminaire, 0});
    same->count += group.positions.size();
  }
  return marks;
}

std::vector<FloorRecord> floors_with_rooms(const RunRecord& run) {
  std::vector<FloorRecord> floors = run.floors;
  floors.emplace_back();
  const auto is_empty = [&](const FloorRecord& floor) {
    const auto is_on_it = [&](const auto& room) { return room.floor == floor.name; };
    return std::none_of(run.rooms.begin(), run.rooms.end(), is_on_it) &&
           std::none_of(run.not_computed.begin(), run.not_computed.end(), is_on_it);
  };
  floors.erase(std::remove_if(floors.begin(), floors.end(), is_empty), floors.end());
  return floors;
}

std::vector<std::string> changed_inputs(const RoomRecord& room, const std::vector<InputPart>& now) {
  std::vector<std::string> changed;
  const auto find = [](const std::vector<InputPart>& list, const std::string& what) {
    return std::find_if(list.begin(), list.end(), [&](const InputPart& part) { return part.what == what; });
  };
  for (const InputPart& part : now) {
    const auto then = find(room.inputs, part.what);
    if (then == room.inputs.end() || then->print != part.print) changed.push_back(part.what);
  }
  for (const InputPart& part : room.inputs)
    if (find(now, part.what) == now.end()) changed.push_back(part.what);
  return changed;
}

void drop_values(RoomRecord& room) {
  RoomRecord kept;
  kept.name = room.name;
  kept.number = room.number;
  kept.floor = room.floor;
  kept.drawn = room.drawn;
  kept.floor_area_m2 = room.floor_area_m2;
  kept.thresholds_lx = room.thresholds_lx;
  kept.kept_shares = plane_shares(room);
  kept.changed_since = room.changed_since;
  kept.outline = room.outline;
  kept.assessment.status = room.assessment.status;
  kept.assessment.checks = room.assessment.checks;
  for (const assess::GridReading& grid : room.assessment.grids) {
    kept.assessment.grids.emplace_back().name = grid.name;
    kept.assessment.grids.back().role = grid.role;
  }
  for (const assess::EyeSetGlare& set : room.assessment.glare.sets)
    kept.assessment.glare.sets.emplace_back().set.name = set.set.name;
  if (room.assessment.spill) {
    kept.assessment.spill.emplace();
    for (const assess::RoadUserReading& user : room.assessment.spill->road_users)
      kept.assessment.spill->road_users.emplace_back().name = user.name;
  }
  for (const GroupRecord& group : room.groups) kept.groups.emplace_back().mark = group.mark;
  for (const SceneRecord& scene : room.scenes) {
    kept.scenes.emplace_back().name = scene.name;
    kept.scenes.back().assessment.status = scene.assessment.status;
    kept.scenes.back().assessment.checks = scene.assessment.checks;
  }
  room = std::move(kept);
}

const assess::GridReading* work_plane(const assess::Assessment& assessment) {
  for (const assess::GridReading& grid : assessment.grids)
    if (grid.role == space::GridRole::work_plane && !grid.total_lx.empty()) return &grid;
  return nullptr;
}

std::optional<double> drawn_power(const std::vector<GroupRecord>& groups, const std::vector<double>& shares) {
  double watts = 0;
  for (std::size_t g = 0; g < groups.size(); ++g) {
    if (!groups[g].watts_w) return std::nullopt;
    watts += *groups[g].watts_w * double(groups[g].positions.size()) * groups[g].weight.output * shares[g];
  }
  return watts;
}

std::optional<double> drawn_power(const RoomRecord& room) {
  return drawn_power(room.groups, std::vector<double>(room.groups.size(), 1.0));
}

std::string MomentRecord::when() const {
  std::string when = date;
  if (!time.empty()) when += (when.empty() ? "" : " ") + time;
  if (!solar_time.empty()) when += " (solar " + solar_time + ")";
  return place().empty() ? when : when.empty() ? place() : place() + ", " + when;
}

std::string MomentRecord::words() const {
  return when().empty() ? sky : when() + ", " + sky;
}

std::string MomentRecord::place() const {
  if (!latitude_deg || !longitude_deg) return {};
  return fmt::format(FMT_STRING("{:.5g} {}, {:.5g} {}"), std::abs(*latitude_deg),
                     *latitude_deg < 0 ? "S" : "N", std::abs(*longitude_deg), *longitude_deg < 0 ? "W" : "E");
}

bool verifies_daylight(const assess::Assessment& assessment) {
  if (assessment.year) return false;
  return std::any_of(assessment.checks.begin(), assessment.checks.end(), [](const standards::Check& check) {
    return standards::is_of_daylight(check.demand.quantity);
  });
}

RoomRecord in_scene(const RoomRecord& room, std::size_t number) {
  const SceneRecord& scene = room.scenes[number];
  RoomRecord seen = room;
  seen.scenes.clear();
  seen.tolerance.reset();
  seen.energy.reset();
  seen.times.clear();
  seen.scene = scene.name;
  seen.direct_only = scene.emergency;
  seen.moment = scene.moment;
  seen.series = scene.series;
  if (scene.moment &&
      (scene.assessment.checks.empty() || scene.assessment.year || verifies_daylight(scene.assessment)))
    seen.verified_as = space::VerifiedAs::nothing;
  if (scene.emergency) seen.verified_as = space::VerifiedAs::nothing;
  seen.tasks = scene.tasks;
  seen.rates_ugr = scene.rates_ugr;
  seen.assessment = scene.assessment;
  seen.balance = scene.balance;
  seen.explanations = scene.explanations;
  seen.explanations.resize(scene.assessment.checks.size());
  for (std::size_t g = 0; g < seen.groups.size(); ++g) {
    if (g < scene.shares.size()) seen.groups[g].weight.output *= scene.shares[g];
    if (g < scene.cct_k.size() && scene.cct_k[g]) seen.groups[g].cct_k = scene.cct_k[g];
  }
  return seen;
}

RoomRecord planned(const model::Project& project, const space::PlannedRoom& room,
                   const lighting::Weights& weights) {
  const space::Space& space = room.space;
  const space::Brief& brief = room.brief;
  RoomRecord record;
  record.name = space.name;
  record.number = room.room->number;
  record.floor = room.room->floor;
  record.drawn = room.room->drawn;
  record.thresholds_lx = project.thresholds_lx;
  record.tasks = tasks_of(brief);
  record.verified_as = brief.verified_as;
  record.floor_area_m2 = space.floor_area_m2;
  record.height_m = space.height_m;
  record.roofed = space.roofed;
  record.outdoors = space.outdoors;
  record.reflectances = space.reflectances;
  record.maintenance_factor =
      lighting::mean_maintenance(space, weights, room.room->maintenance_factor.value_or(1));
  record.plane_height = brief.plane_height;
  if (brief.plane_height == space::PlaneHeight::by_task)
    record.plane_note = brief.tasks.front().row.plane_note;
  record.assumed = room.room->assumed;
  record.rates_ugr = brief.glare.rates_ugr;
  record.outline = space.outline;
  record.ground = corners_of(space.ground, space.outline);
  record.wall_names = space.wall_names;
  for (std::size_t g = 0; g < space.groups.size(); ++g)
    record.groups.push_back(group_of(project, *room.room, space.groups[g], weights[g]));
  record.objects = space.objects;
  record.openings = space.openings;
  for (space::Opening& opening : record.openings) opening.pane.reset();  // it is among the finishes
  record.finishes = space.finishes;
  for (const space::PlannedScene& scene : room.scenes) {
    SceneRecord& own = record.scenes.emplace_back();
    own.name = scene.name;
    own.shares = scene.shares;
    own.cct_k = scene.cct_k;
    own.emergency = scene.emergency;
    if (const auto& m = scene.moment)
      own.moment = MomentRecord{m->date,
                                m->time,
                                m->solar_time,
                                m->sky_words,
                                project.site.latitude_deg,
                                project.site.longitude_deg,
                                m->altitude_deg,
                                m->azimuth_deg,
                                m->sky.diffuse_lx(),
                                m->sun_normal_lx,
                                m->open_lx()};
    if (!scene.emergency) own.drawn_w = drawn_power(record.groups, scene.shares);
    own.tasks = tasks_of(scene.brief);
    own.rates_ugr = scene.brief.glare.rates_ugr;
  }
  return record;
}

}  // namespace glow::record
