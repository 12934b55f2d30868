// Tables of a year: daylight and energy.
#include <array>

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

DataTable year_floors_data(const record::RunRecord& run) {
  using assess::YearMetric;
  DataTable table("year_floors", "year_floor", "Daylight of the year by floor, by area",
                  {{"floor", "Floor", kText, 22},
                   {"rooms", "Rooms", 0},
                   {"area_m2", "m2", 1},
                   {"autonomy_percent", "Autonomy %", 1},
                   {"continuous_autonomy_percent", "Contin. %", 1},
                   {"from_300_to_3000_percent", "300-3000 %", 1},
                   {"spatial_autonomy_percent", "Spatial %", 1},
                   {"sun_exposure_percent", "Sun exp. %", 1}});
  const auto add = [&](const std::string& name, const std::optional<std::string>& floor) {
    std::array<double, 5> sums{};
    double area = 0, rooms = 0;
    each_use(run, [&](const RoomRecord& room) {
      if (!room.assessment.year || room.assessment.year->grids.empty() || (floor && room.floor != *floor))
        return;
      const assess::YearOnGrid& own = room.assessment.year->grids.front();
      const double own_values[] = {own.find(YearMetric::autonomy)->mean,
                                   own.find(YearMetric::continuous_autonomy)->mean,
                                   own.find(YearMetric::useful_300_to_3000)->mean,
                                   own.spatial_autonomy.percent, own.sun_exposure.percent};
      for (std::size_t k = 0; k < sums.size(); ++k) sums[k] += room.floor_area_m2 * own_values[k];
      area += room.floor_area_m2;
      ++rooms;
    });
    if (rooms < (floor ? 1 : 2)) return;
    table.text(name).number(rooms).number(area);
    for (const double sum : sums) table.number(sum / area);
    table.end_row();
  };
  if (run.rooms.size() < 2) return table;
  for (const record::FloorRecord& floor : run.floors) add(floor.name, floor.name);
  add("all rooms with daylight", std::nullopt);
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

DataTable year_times_data(const record::RunRecord& run) {
  const Shown shown{run.units};
  DataTable table("year_times", "year_time", "Chosen hours of the year",
                  {{"room", "Room", kText, 22},
                   {"hours_name", "Hours", kText, 16},
                   {"when", "When", kText, 40},
                   {"hours", "h", 0},
                   {"light", "Light", kText, 16},
                   shown.light("mean", "Mean", 0),
                   shown.light("low", "From", 0),
                   shown.light("high", "To", 0),
                   {"below_percent", "Below %", 1},
                   {"within_percent", "Within %", 1},
                   {"above_percent", "Above %", 1}});
  for (const RoomRecord& room : run.rooms)
    for (const studies::TimeOfYear& time : room.times) {
      const auto add = [&](const char* light, const studies::TimeOfYear::Light& found) {
        table.text(room.name).text(time.name).text(time.words).number(time.hours).text(light);
        table.number(shown.lux(found.mean_lx)).number(shown.lux(time.low_lx)).number(shown.lux(time.high_lx));
        table.number(found.below_percent).number(found.within_percent).number(found.above_percent).end_row();
      };
      add("daylight", time.daylight);
      if (time.in_all) add("with electric", *time.in_all);
    }
  return table;
}

namespace {

/// Rooms whose energy is known hour by hour, added up.
struct EnergySum {
  std::string name;
  std::size_t asked = 0, known = 0;
  studies::RoomEnergy all;

  void add(const RoomRecord& room) {
    if (!room.energy) return;
    ++asked;
    if (!room.energy->hourly) return;
    ++known;
    if (!all.hourly) all.hourly = studies::RoomEnergy::Hourly{};
    studies::RoomEnergy::Hourly& sum = *all.hourly;
    sum.kwh += room.energy->hourly->kwh;
    sum.uncontrolled_kwh += room.energy->hourly->uncontrolled_kwh;
    all.area_m2 += room.energy->area_m2;
    all.price = room.energy->price;
    all.co2_kg = room.energy->co2_kg;
  }
  bool is_whole() const { return known > 0 && known == asked; }
};

/// By floor, where there are several rooms, and of all.
std::vector<EnergySum> energy_sums(const record::RunRecord& run) {
  std::vector<EnergySum> sums;
  if (run.rooms.size() < 2) return sums;
  for (const record::FloorRecord& floor : run.floors) {
    EnergySum& sum = sums.emplace_back();
    sum.name = floor.name;
    for (const RoomRecord& room : run.rooms)
      if (room.floor == floor.name) sum.add(room);
    if (!sum.is_whole()) sums.pop_back();
  }
  EnergySum all;
  all.name = "all rooms";
  for (const RoomRecord& room : run.rooms) all.add(room);
  if (all.is_whole() && all.known > 1) sums.push_back(std::move(all));
  return sums;
}

}  // namespace

DataTable energy_data(const record::RunRecord& run) {
  DataTable table("energies", "energy", "Energy of the year",
                  {{"room", "Room", kText, 22},
                   {"zone", "Zone", kText, 16},
                   {"method", "Method", kText, 24},
                   {"power_w", "W", 0},
                   {"low_kwh", "from kWh", 1},
                   {"kwh", "kWh", 1},
                   {"uncontrolled_kwh", "uncontrolled", 1},
                   {"saving_percent", "saves %", 0},
                   {"kwh_m2", "kWh/m2", 1},
                   {"cost", "Cost", 2},
                   {"co2_kg", "CO2 kg", 1},
                   {"missed_h", "missed h", 0},
                   {"missed_by_lx", "by lx", 0}});
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
  for (const EnergySum& sum : energy_sums(run)) add(sum.name, sum.all);
  return table;
}

}  // namespace glow::words
