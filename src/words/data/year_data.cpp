// Tables of a year: daylight and energy.
#include "words/data/run_data.hpp"
#include "words/data/shown_columns.hpp"

namespace glow::words {
namespace {

using record::RoomRecord;

}  // namespace

DataTable year_data(const record::RunRecord& run) {
  using assess::YearMetric;
  const Shown shown{run.units};
  DataTable table("years", "year", "Daylight of the year",
                  {{"room", "Room", kText, 22},
                   {"grid", "Grid", kText, 22},
                   shown.light("level", "Level", 0),
                   {"autonomy_percent", "Autonomy %", 1},
                   {"autonomy_uncertainty_percent", "+/-", 1},
                   {"continuous_autonomy_percent", "Contin. %", 1},
                   {"below_100_percent", "<100 %", 1},
                   {"from_100_to_300_percent", "100-300 %", 1},
                   {"from_300_to_3000_percent", "300-3000 %", 1},
                   {"above_3000_percent", ">3000 %", 1},
                   {"spatial_autonomy_percent", "Spatial %", 1},
                   {"sun_exposure_percent", "Sun exp. %", 1},
                   {"exposure_klxh", "klx h", 0},
                   {"sun_hours", "Sun h", 0},
                   {"hours_blinds_down", "Blinds h", 0}});
  each_use(run, [&](const RoomRecord& room) {
    if (!room.assessment.year) return;
    const assess::YearReading& year = *room.assessment.year;
    std::optional<double> down;
    for (const int hours : year.hours_down) down = std::max(down.value_or(0), double(hours));
    for (const assess::YearOnGrid& own : year.grids) {
      const assess::YearMap& autonomy = *own.find(YearMetric::autonomy);
      table.text(room.name).text(room.assessment.grids[own.grid].name).number(shown.lux(autonomy.level_lx));
      table.number(autonomy.mean).number(autonomy.mean_doubt);
      for (const YearMetric metric :
           {YearMetric::continuous_autonomy, YearMetric::useful_below_100, YearMetric::useful_100_to_300,
            YearMetric::useful_300_to_3000, YearMetric::useful_above_3000})
        table.number(own.find(metric)->mean);
      table.number(own.spatial_autonomy.percent).number(own.sun_exposure.percent);
      table.number(own.find(YearMetric::exposure)->mean).number(own.find(YearMetric::sun_hours)->mean);
      table.number(down).end_row();
    }
  });
  return table;
}

DataTable year_points_data(const record::RunRecord& run) {
  using assess::YearMetric;
  DataTable table("year_points", "year_point", "Daylight of the year at points and eyes",
                  {{"room", "Room", kText, 22},
                   {"point", "Point", kText, 28},
                   {"autonomy_percent", "Autonomy %", 1},
                   {"exposure_klxh", "klx h", 0},
                   {"sun_hours", "Sun h", 0},
                   {"glare_above_035_percent", "DGP>0.35 %", 1},
                   {"glare_above_040_percent", ">0.40 %", 1},
                   {"glare_above_045_percent", ">0.45 %", 1}});
  each_use(run, [&](const RoomRecord& room) {
    if (!room.assessment.year) return;
    for (const assess::YearAtPoint& point : room.assessment.year->points) {
      const auto value = [&](YearMetric metric) -> std::optional<double> {
        for (const assess::YearMap& map : point.maps)
          if (map.metric == metric) return map.mean;
        return std::nullopt;
      };
      table.text(room.name).text(point.name).number(value(YearMetric::autonomy));
      table.number(value(YearMetric::exposure)).number(value(YearMetric::sun_hours));
      for (std::size_t k = 0; k < 3; ++k)
        table.number(point.glare ? std::optional((*point.glare)[k]) : std::nullopt);
      table.end_row();
    }
  });
  return table;
}

DataTable energy_data(const record::RunRecord& run) {
  DataTable table("energies", "energy", "Energy of the year",
                  {{"room", "Room", kText, 22},
                   {"zone", "Zone", kText, 16},
                   {"method", "Method", kText, 24},
                   {"power_w", "W", 0},
                   {"low_kwh", "from kWh", 0},
                   {"kwh", "kWh", 0},
                   {"uncontrolled_kwh", "uncontrolled", 0},
                   {"saving_percent", "saves %", 0},
                   {"kwh_m2", "kWh/m2", 1},
                   {"cost", "Cost", 0},
                   {"co2_kg", "CO2 kg", 0},
                   {"missed_h", "missed h", 0},
                   {"missed_by_lx", "by lx", 0}});
  studies::RoomEnergy all;  // of rooms that are known hour by hour
  std::size_t known = 0, asked = 0;
  for (const RoomRecord& room : run.rooms) {
    if (!room.energy) continue;
    ++asked;
    if (!room.energy->hourly) continue;
    ++known;
    studies::RoomEnergy::Hourly& sum = all.hourly ? *all.hourly : all.hourly.emplace();
    sum.kwh += room.energy->hourly->kwh;
    sum.uncontrolled_kwh += room.energy->hourly->uncontrolled_kwh;
    all.area_m2 += room.energy->area_m2;
    all.price = room.energy->price;
    all.co2_kg = room.energy->co2_kg;
  }
  const auto add = [&](const std::string& name, const studies::RoomEnergy& energy) {
    const auto times = [](const std::optional<double>& factor, double kwh) {
      return factor ? std::optional(*factor * kwh) : std::nullopt;
    };
    const auto row = [&](const std::string& zone, const std::string& method, std::optional<double> watts,
                         std::optional<double> low, double kwh, std::optional<double> uncontrolled,
                         const studies::ZoneEnergy* own) {
      table.text(name).text(zone).text(method).number(watts).number(low).number(kwh).number(uncontrolled);
      table.number(uncontrolled && *uncontrolled > 0 ? std::optional(100 * (1 - kwh / *uncontrolled))
                                                     : std::nullopt);
      table.number(energy.area_m2 > 0 ? std::optional(kwh / energy.area_m2) : std::nullopt);
      table.number(times(energy.price, kwh)).number(times(energy.co2_kg, kwh));
      table.number(own && own->target_lx > 0 ? std::optional(double(own->missed_h)) : std::nullopt);
      table.number(own && own->missed_h > 0 ? std::optional(own->missed_by_lx) : std::nullopt).end_row();
    };
    if (energy.estimate)
      row("", "estimate, usual hours", std::nullopt, energy.estimate->low_kwh, energy.estimate->high_kwh,
          std::nullopt, nullptr);
    if (energy.factors)
      row("", "EN 15193-1, factors", std::nullopt, std::nullopt,
          energy.factors->light_kwh + energy.factors->parasitic_kwh, std::nullopt, nullptr);
    if (!energy.hourly) return;
    row("", "hour by hour", std::nullopt, std::nullopt, energy.hourly->kwh, energy.hourly->uncontrolled_kwh,
        nullptr);
    for (const studies::ZoneEnergy& zone : energy.hourly->zones)
      row(zone.name, zone.control, zone.watts, std::nullopt, zone.kwh, zone.uncontrolled_kwh, &zone);
  };
  for (const RoomRecord& room : run.rooms)
    if (room.energy) add(room.name, *room.energy);
  if (known > 1 && known == asked) add("all rooms", all);
  return table;
}

}  // namespace glow::words
