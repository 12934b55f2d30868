#include "files/results/luminaire_csv.hpp"

#include <fmt/format.h>

#include "files/text/csv_cell.hpp"

namespace glow::files {
namespace {

std::string place(const Vec3& p, const units::ShownUnits& units) {
  return fmt::format(FMT_STRING("{:.6g},{:.6g},{:.6g}"), units.length(p.x()), units.length(p.y()),
                     units.length(p.z()));
}

}  // namespace

std::string luminaire_csv(const record::RoomRecord& room, const units::ShownUnits& units, bool with_head) {
  std::string text;
  if (with_head)
    text = fmt::format(
        FMT_STRING("room,group,mark,manufacturer,luminaire,x_{0},y_{0},z_{0},rotation_deg,tilt_deg,aim_x_{0},"
                   "aim_y_{0},aim_z_{0},dimming,flux_lm,watts_w\n"),
        units.length_unit());
  for (const record::GroupRecord& group : room.groups)
    for (std::size_t i = 0; i < group.positions.size(); ++i)
      text += fmt::format(FMT_STRING("{},{},{},{},{},{},{:.6g},{:.6g},{},{:.6g},{:.6g},{}\n"),
                          csv_cell(room.name), csv_cell(group.name), csv_cell(group.mark),
                          csv_cell(group.manufacturer), csv_cell(group.luminaire),
                          place(group.positions[i], units), group.rotations_deg[i], group.tilts_deg[i],
                          group.aim ? place(*group.aim, units) : ",,", group.weight.output, group.flux_lm,
                          group.watts_w ? fmt::format(FMT_STRING("{:.6g}"), *group.watts_w) : std::string());
  return text;
}

}  // namespace glow::files
