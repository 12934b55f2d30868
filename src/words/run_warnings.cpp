#include "words/run_warnings.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "words/topics/colour_words.hpp"
#include "words/topics/room_words.hpp"

namespace glow::words {
namespace {

void warn_of_lost_light(const record::RoomRecord& room, Problems& problems) {
  constexpr double kWorthTelling = 0.001;
  const transport::FluxBalance& b = room.balance;
  constexpr double kBalanced = 0.01;
  if (std::abs(b.unaccounted_lm()) > kBalanced * b.emitted_lm)
    problems.warning(
        "E010", {room.name, 0, 0},
        fmt::format(FMT_STRING("{:.0f} of {:.0f} lm are lost where objects run through each other or "
                               "through walls; check names them. Levels near them are too low"),
                    b.unaccounted_lm(), b.emitted_lm));
  if (b.emitted_lm <= 0 || b.lost_lm < kWorthTelling * b.emitted_lm) return;
  problems.warning(
      "E001", {room.name, 0, 0},
      fmt::format(
          FMT_STRING("{:.0f} of {:.0f} lm are lost in the surfaces or objects that the luminaires touch: "
                     "they shine into them. Hang such luminaires lower (suspension)"),
          b.lost_lm, b.emitted_lm));
}

/// Of a plane that somebody asked for most points should be readable; a few inside objects the table tells
/// of. Points of walls and the like lie behind objects as a matter of course.
void warn_of_left_out(const record::RoomRecord& room, const assess::GridReading& grid, Problems& problems) {
  using space::GridRole;
  if (grid.role != GridRole::work_plane && grid.role != GridRole::requested &&
      grid.role != GridRole::task_area)
    return;
  constexpr std::size_t kWorthWarning = 4;  // one point in so many
  if (kWorthWarning * grid.left_out.size() < grid.left_out.size() + grid.total_lx.size()) return;
  std::map<std::string, std::vector<Vec3>> places;
  for (const assess::MisplacedPoint& point : grid.left_out) places[point.inside].push_back(point.position);
  for (const auto& [inside, points] : places)
    problems.warning("E003", {room.name, 0, 0},
                     fmt::format(FMT_STRING("{} of {} points of {} lie {} and are left out, the first at {}"),
                                 points.size(), grid.left_out.size() + grid.total_lx.size(), grid.name,
                                 place_words(inside), problems.position(points[0])));
  if (grid.total_lx.empty())
    problems.error("E004", {room.name, 0, 0},
                   fmt::format(FMT_STRING("no point of {} is left to read; give the plane another height "
                                          "or move the objects"),
                               grid.name));
}

void warn_of_buried_eyes(const record::RoomRecord& room, Problems& problems) {
  for (const assess::EyeSetGlare& set : room.assessment.glare.sets) {
    const auto buried = std::count(set.buried.begin(), set.buried.end(), true);
    if (buried > 0)
      problems.warning(
          "E007", {room.name, 0, 0},
          fmt::format(FMT_STRING("{} of {} eyes of \"{}\" lie inside things and are left out, the "
                                 "first at {}"),
                      buried, set.set.positions.size(), set.set.name,
                      problems.position(set.set.positions[std::size_t(
                          std::find(set.buried.begin(), set.buried.end(), true) - set.buried.begin())])));
  }
}

/// Light of two colours at one task is meant, or a mistake: either way it is said.
void note_colours(const record::RoomRecord& room, Problems& problems) {
  for (const assess::GridReading& grid : room.assessment.grids)
    if (!grid.task.empty() && grid.colour && grid.colour->differs())
      problems.note("E011", {room.title(), 0, 0},
                    fmt::format(FMT_STRING("light of different colours falls on {}: {}"), grid.name,
                                colour_words(*grid.colour)));
}

void warn_of_accuracy(const record::RoomRecord& room, double wanted, Problems& problems) {
  const assess::GridReading& grid =
      *std::max_element(room.assessment.grids.begin(), room.assessment.grids.end(),
                        [&](const auto& a, const auto& b) { return a.roughness() < b.roughness(); });
  problems.warning(
      "E005", {room.name, 0, 0},
      fmt::format(
          FMT_STRING("an accuracy of {} % was asked for; after {} refinements the mean of {} is sure to "
                     "{:.2f} %, the minimum to {:.2f} %"),
          wanted, room.engine.refinements, grid.name,
          100 * grid.uncertainty.mean_lx / grid.statistics.mean_lx,
          100 * grid.uncertainty.min_lx / grid.statistics.min_lx));
}

}  // namespace

void warn_of_room(const record::RoomRecord& room, const std::optional<double>& wanted, Problems& problems) {
  warn_of_lost_light(room, problems);
  for (const assess::GridReading& grid : room.assessment.grids) warn_of_left_out(room, grid, problems);
  for (const assess::PointReading& point : room.assessment.points)
    if (point.misplaced)
      problems.warning("E006", {room.name, 0, 0},
                       fmt::format(FMT_STRING("point \"{}\" lies {} and cannot be read"), point.name,
                                   place_words(point.misplaced->inside)));
  warn_of_buried_eyes(room, problems);
  note_colours(room, problems);
  if (!room.engine.accuracy_reached && wanted) warn_of_accuracy(room, *wanted, problems);
}

}  // namespace glow::words
