#include "files/results/rooms_csv.hpp"

#include <fmt/format.h>

#include "files/text/csv_cell.hpp"

namespace glow::files {
namespace {

std::string digits_of(const std::optional<double>& value, int digits) {
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
                    digits_of(target, 0), digits_of(mean, 2), digits_of(sure, 2), digits_of(u0, 3),
                    room.luminaires().size(), digits_of(watts, 1), to_string(room.assessment.status));
  }
  return text;
}

}  // namespace glow::files
