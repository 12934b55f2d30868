#include "files/results/rooms_csv.hpp"

#include <fmt/format.h>

#include "files/text/csv_cell.hpp"

namespace glow::files {
namespace {

std::string number(const std::optional<double>& value, int digits) {
  return value ? fmt::format(FMT_STRING("{:.{}f}"), *value, digits) : std::string();
}

}  // namespace

std::string rooms_csv(const record::RunRecord& run) {
  std::string text =
      "drawn_as,floor,room,number,area_m2,height_m,task,target_lx,mean_lx,mean_uncertainty_lx,u0,luminaires,"
      "watts_w,verdict\n";
  for (const record::RoomRecord& room : run.rooms) {
    std::optional<double> target, mean, sure, u0;
    if (!room.tasks.empty()) target = room.tasks.front().em_lx;
    if (const assess::GridReading* plane = record::work_plane(room.assessment)) {
      mean = plane->statistics.mean_lx;
      sure = plane->uncertainty.mean_lx;
      u0 = plane->statistics.u0;
    }
    const auto watts = record::drawn_power(room);
    text +=
        fmt::format(FMT_STRING("{},{},{},{},{:.3f},{:.3f},{},{},{},{},{},{},{},{}\n"), csv_cell(room.drawn),
                    csv_cell(room.floor), csv_cell(room.name), csv_cell(room.number), room.floor_area_m2,
                    room.height_m, csv_cell(room.tasks.empty() ? std::string() : room.tasks.front().key),
                    number(target, 0), number(mean, 2), number(sure, 2), number(u0, 3),
                    room.luminaires().size(), number(watts, 1), to_string(room.assessment.status));
  }
  return text;
}

namespace {

void write_points(const record::RunRecord& run, const record::RoomRecord& room, const std::string& scene,
                  const std::optional<record::MomentRecord>& moment, const assess::Assessment& assessment,
                  const std::function<void(const std::string&)>& write) {
  const units::ShownUnits& units = run.units;
  for (const assess::GridReading& grid : assessment.grids) {
    const std::string lead =
        fmt::format(FMT_STRING("{},{},{},{},{},{}"), csv_cell(room.floor), csv_cell(room.name),
                    csv_cell(scene), moment ? csv_cell(moment->date) : std::string(),
                    moment ? csv_cell(moment->time) : std::string(), csv_cell(grid.name));
    std::string rows;
    for (std::size_t k = 0; k < grid.total_lx.size(); ++k) {
      const Vec3& p = grid.grid.points[k];
      rows +=
          fmt::format(FMT_STRING("{},{:.6g},{:.6g},{:.6g},{:.6g},{:.6g},{:.6g}\n"), lead, units.length(p.x()),
                      units.length(p.y()), units.length(p.z()), units.light(grid.direct_lx[k]),
                      units.light(grid.interreflected_lx[k]), units.light(grid.total_lx[k]));
    }
    write(rows);
  }
}

}  // namespace

void write_points_csv(const record::RunRecord& run, const std::function<void(const std::string&)>& write) {
  const char *m = run.units.length_unit(), *lx = run.units.light_unit();
  write(fmt::format(
      FMT_STRING("floor,room,scene,date,local_time,grid,x_{0},y_{0},z_{0},direct_{1},interreflected_{1},"
                 "total_{1}\n"),
      m, lx));
  for (const record::RoomRecord& room : run.rooms) {
    write_points(run, room, {}, std::nullopt, room.assessment, write);
    for (const record::SceneRecord& scene : room.scenes)
      write_points(run, room, scene.name, scene.moment, scene.assessment, write);
  }
}

}  // namespace glow::files
