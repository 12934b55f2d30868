// Tables of light that goes astray outdoors.
#include <algorithm>

#include "core/assess/judge.hpp"
#include "words/data/run_data.hpp"
#include "words/data/shown_columns.hpp"

namespace glow::words {
namespace {

using record::RoomRecord;
using standards::Check;
using standards::Quantity;

/// The check of a neighbour that leaves least; null: none.
const Check* check_of(const RoomRecord& room, std::size_t grid, Quantity quantity) {
  const Check* least = nullptr;
  for (const Check& check : room.assessment.checks)
    if (check.target.kind == standards::Target::Kind::grid && check.target.id == grid &&
        check.demand.quantity == quantity && (!least || check.margin() < least->margin()))
      least = &check;
  return least;
}

/// Of the worst: how far its worst limit is used up.
double used_up(const RoomRecord& room, const assess::NeighbourReading& own) {
  double most = 0;
  for (const Check& check : room.assessment.checks)
    if (check.target.kind == standards::Target::Kind::grid && check.target.id == own.grid)
      most = std::max(most, check.actual / std::max(1e-9, check.demand.required));
  return most;
}

std::vector<const assess::NeighbourReading*> worst_first(const RoomRecord& room) {
  std::vector<const assess::NeighbourReading*> list;
  for (const assess::NeighbourReading& own : room.assessment.spill->neighbours) list.push_back(&own);
  std::stable_sort(list.begin(), list.end(),
                   [&](const auto* a, const auto* b) { return used_up(room, *a) > used_up(room, *b); });
  return list;
}

}  // namespace

DataTable neighbours_data(const record::RunRecord& run) {
  const Shown shown{run.units};
  DataTable table("neighbours", "neighbour", "Light on neighbours",
                  {{"room", "Area", kText, 18},
                   {"scene", "Scene", kText, 14},
                   {"neighbour", "Neighbour", kText, 22},
                   shown.light("mean", "Mean Ev", 2),
                   shown.light("mean_limit", "limit", 2),
                   shown.light("most", "Most Ev", 2),
                   shown.light("most_limit", "limit", 2),
                   {"k", "k", 1},
                   {"k_limit", "limit", 0},
                   {"k_margin", "margin", 1},
                   {"background_cd_m2", "before cd/m2", 2},
                   {"intensity_cd", "I cd", 0},
                   {"intensity_limit_cd", "limit", 0},
                   {"in_sight", "in sight", 0},
                   {"verdict", "Verdict", kText, 10}});
  each_use(run, [&](const RoomRecord& room) {
    if (!room.assessment.spill) return;
    for (const assess::NeighbourReading* own : worst_first(room)) {
      const assess::GridReading& grid = room.assessment.grids[own->grid];
      const auto limit = [&](Quantity quantity) -> std::optional<double> {
        const Check* check = check_of(room, own->grid, quantity);
        return check ? std::optional(check->demand.required) : std::nullopt;
      };
      std::vector<Check> checks;
      for (const Check& check : room.assessment.checks)
        if (check.target.kind == standards::Target::Kind::grid && check.target.id == own->grid)
          checks.push_back(check);
      double intensity = 0;
      for (const assess::SpillSource& source : own->sources)
        intensity = std::max(intensity, source.intensity_cd);
      if (const Check* check = check_of(room, own->grid, Quantity::spill_intensity))
        intensity = check->actual;
      const auto k_limit = limit(Quantity::glare_value);
      table.text(room.name).text(room.scene).text(grid.name).number(shown.lux(grid.initial.mean_lx));
      table.number(shown.lux(limit(Quantity::window_illuminance))).number(shown.lux(grid.initial.max_lx));
      table.number(shown.lux(limit(Quantity::property_illuminance))).number(own->k()).number(k_limit);
      table.number(k_limit ? std::optional(*k_limit - own->k()) : std::nullopt);
      table.number(own->background_cd_m2).number(intensity).number(limit(Quantity::spill_intensity));
      table.number(double(own->sources.size()));
      table.text(checks.empty() ? "" : assess::to_string(assess::status_of(checks))).end_row();
    }
  });
  return table;
}

DataTable neighbour_luminaires_data(const record::RunRecord& run) {
  const Shown shown{run.units};
  DataTable table("neighbour_luminaires", "neighbour_luminaire", "Luminaires that neighbours see",
                  {{"room", "Area", kText, 18},
                   {"scene", "Scene", kText, 14},
                   {"neighbour", "Neighbour", kText, 22},
                   {"luminaire", "Luminaire", kText, 12},
                   shown.length("x"),
                   shown.length("y"),
                   shown.length("z"),
                   {"distance_" + std::string(run.units.length_unit()), "away", 1},
                   {"c_deg", "C deg", 0},
                   {"gamma_deg", "gamma deg", 0},
                   {"intensity_cd", "I cd", 0},
                   {"projected_area_m2", "area m2", 4},
                   {"solid_angle_usr", "1e-6 sr", 2},
                   {"luminance_cd_m2", "L cd/m2", 0},
                   {"k", "k", 1},
                   {"remark", "", kText, 20}});
  each_use(run, [&](const RoomRecord& room) {
    if (!room.assessment.spill) return;
    const assess::SpillReading& spill = *room.assessment.spill;
    for (const assess::NeighbourReading* own : worst_first(room))
      for (std::size_t s = 0; s < std::min(own->sources.size(), std::size_t(spill.told)); ++s) {
        const assess::SpillSource& source = own->sources[s];
        const assess::GlareSourceName& name = spill.sources[std::size_t(source.source)];
        table.text(room.name).text(room.scene).text(room.assessment.grids[own->grid].name);
        table.text(spill.short_mark(source.source));
        shown.place(table, name.position);
        table.number(run.units.length(source.distance_m)).number(source.c_deg).number(source.gamma_deg);
        table.number(source.intensity_cd).number(source.projected_area_m2);
        table.number(1e6 * source.solid_angle_sr).number(source.luminance_cd_m2).number(source.k);
        table.text(source.projected_area_m2 <= 0 ? "no luminous size"
                   : source.outside_range        ? "outside range"
                   : source.seen_share < 0.999   ? "partly hidden"
                                                 : "");
        table.end_row();
      }
  });
  return table;
}

}  // namespace glow::words
