#include "words/topics/energy_words.hpp"

#include <fmt/format.h>

#include "words/text_layout.hpp"
#include "words/values.hpp"

namespace glow::words {
namespace {

std::string zone_remark(const studies::ZoneEnergy& zone, const Values& values) {
  std::string sensors;
  for (const studies::ZoneEnergy::Sensor& sensor : zone.sensors)
    sensors += (sensors.empty() ? "" : " and ") +
               (sensor.name.empty() ? "its sensor, placed where the plane needs light most,"
                                    : "its sensor \"" + sensor.name + "\"") +
               " at " + values.in_plan(sensor.at);
  std::string words = fmt::format(FMT_STRING("{} keeps {}"), zone.name, values.light(zone.target_lx));
  if (!sensors.empty())
    words += fmt::format(FMT_STRING("; {} gets {} of daylight on average"), sensors,
                         values.light(zone.sensor_mean_lx));
  if (zone.missed_h > 0)
    words += fmt::format(
        FMT_STRING(". In {} h of use the plane has less than that while the control dims, by {} on "
                   "average"),
        zone.missed_h, values.light(zone.missed_by_lx));
  if (zone.better)
    words += fmt::format(FMT_STRING("; with a sensor at {} it would be {} h, and {:.0f} kWh"),
                         values.in_plan(zone.better->at), zone.better->missed_h, zone.better->kwh);
  return words;
}

}  // namespace

std::string energy_remarks(const record::RunRecord& run) {
  std::string text;
  const Values values{run.units};
  for (const record::RoomRecord& room : run.rooms) {
    if (!room.energy) continue;
    if (const auto& estimate = room.energy->estimate)
      wrap(text, "  ",
           fmt::format(
               FMT_STRING("{}: the estimate takes {:.0f} usual hours of use ({}, EN 15193-1), from presence "
                          "and daylight control to none"),
               room.name, estimate->hours, estimate->building),
           4);
    for (const std::string& missing : room.energy->missing)
      wrap(text, "  ! ", fmt::format(FMT_STRING("{}: a deeper calculation wants {}"), room.name, missing), 4);
    if (!room.energy->hourly) continue;
    for (const studies::ZoneEnergy& zone : room.energy->hourly->zones)
      if (zone.target_lx > 0) wrap(text, "  ", room.name + ": " + zone_remark(zone, values), 4);
  }
  return text.empty() ? text : "\n" + text;
}

}  // namespace glow::words
