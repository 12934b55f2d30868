#include "words/data/run_data.hpp"

#include <fmt/format.h>

#include <functional>

#include "words/data/shown_columns.hpp"
#include "words/values.hpp"

namespace glow::words {
namespace {

using record::RoomRecord;

/// Mean daylight factor of the work plane, per cent.
std::optional<double> mean_factor(const assess::GridReading* plane) {
  return plane && plane->day ? plane->day->mean_factor() : std::nullopt;
}

}  // namespace

void each_use(const RoomRecord& room, const std::function<void(const RoomRecord&)>& take) {
  take(room);
  for (std::size_t s = 0; s < room.scenes.size(); ++s) take(record::in_scene(room, s));
}

void each_use(const record::RunRecord& run, const std::function<void(const RoomRecord&)>& take) {
  for (const RoomRecord& room : run.rooms) each_use(room, take);
}

DataTable rooms_data(const record::RunRecord& run) {
  const Shown shown{run.units};
  const std::string m2 = std::string(run.units.length_unit()) + "2";
  DataTable table("rooms", "room", "Rooms",
                  {{"floor", "Floor", kText, 14},
                   {"number", "Number", kText, 9},
                   {"room", "Room", kText, 24},
                   {"verdict", "Verdict"},
                   {"task", "Task", kText, 24},
                   {"area_" + m2, "Area " + m2, 2},
                   shown.light("target", "Target", 0),
                   shown.light("mean", "Mean", 0),
                   shown.light("mean_uncertainty", "+/-", 1),
                   {"u0", "U0", 2},
                   {"luminaires", "Luminaires", 0},
                   {"power_w", "Power W", 0},
                   {"power_density_w_m2", "W/m2", 2},
                   {"installed_w_m2_per_100_lx", "W/m2 per 100 lx", 2},
                   {"changed_since", "Changed since", kText, 24}});
  for (const RoomRecord& room : run.rooms) {
    const assess::GridReading* plane = record::work_plane(room.assessment);
    const auto watts = record::drawn_power(room);
    table.text(room.floor).text(room.number).text(room.name).text(to_string(room.assessment.status));
    table.text(room.tasks.empty() ? std::string() : room.tasks.front().key);
    table.number(run.units.length(run.units.length(room.floor_area_m2)));
    table.number(room.tasks.empty() ? std::nullopt : shown.lux(room.tasks.front().em_lx));
    table.number(plane ? shown.lux(plane->statistics.mean_lx) : std::nullopt);
    table.number(plane ? shown.lux(plane->uncertainty.mean_lx) : std::nullopt);
    table.number(plane ? plane->statistics.u0 : std::nullopt);
    table.number(double(room.luminaires().size())).number(watts);
    table.number(watts ? std::optional(*watts / room.floor_area_m2) : std::nullopt);
    table.number(room.assessment.power.w_per_m2_100lx);
    table.text(fmt::format(FMT_STRING("{}"), fmt::join(room.changed_since, ", "))).end_row();
  }
  return table;
}

DataTable checks_data(const record::RunRecord& run) {
  DataTable table("checks", "check", "Checks",
                  {{"room", "Room", kText, 22},
                   {"scene", "Scene", kText, 16},
                   {"of", "Of", kText, 24},
                   {"quantity", "Quantity", kText, 22},
                   {"required", "Required", 2},
                   {"found", "Found", 2},
                   {"uncertainty", "+/-", 2},
                   {"unit", "Unit"},
                   {"verdict", "Verdict"},
                   {"binding", "Binding"},
                   {"standard", "Standard", kText, 18},
                   {"source", "Source", kText, 24},
                   {"certainty", "Certainty"}});
  each_use(run, [&](const RoomRecord& room) {
    for (const standards::Check& check : room.assessment.checks) {
      const bool in_lux = standards::is_in_lux(check.demand.quantity);
      const auto shown = [&](double value) { return in_lux ? run.units.light(value) : value; };
      table.text(room.name).text(room.scene).text(name_of(check.target, room));
      table.text(to_string(check.demand.quantity));
      table.number(shown(check.demand.required)).number(shown(check.actual)).number(shown(check.uncertainty));
      table.text(in_lux ? run.units.light_unit() : check.unit()).text(to_string(check.verdict));
      table.text(check.binding ? "yes" : "no").text(check.demand.standard).text(check.demand.source);
      table.text(check.demand.certainty).end_row();
    }
  });
  return table;
}

DataTable grids_data(const record::RunRecord& run) {
  const Shown shown{run.units};
  DataTable table("grids", "grid", "Grids",
                  {{"room", "Room", kText, 22},
                   {"scene", "Scene", kText, 16},
                   {"grid", "Grid", kText, 28},
                   {"kind", "Kind", kText, 18},
                   {"points", "Points", 0},
                   shown.light("mean", "Mean", 0),
                   shown.light("mean_uncertainty", "+/-", 1),
                   shown.light("least", "Least", 0),
                   shown.light("most", "Most", 0),
                   {"u0", "U0", 2},
                   shown.light("direct_mean", "Direct mean", 0),
                   shown.light("reflected_mean", "Reflected mean", 0),
                   {"daylight_factor_percent", "Daylight factor %", 2}});
  each_use(run, [&](const RoomRecord& room) {
    for (const assess::GridReading& grid : room.assessment.grids) {
      if (grid.total_lx.empty()) continue;
      table.text(room.name).text(room.scene).text(grid.name).text(grid.kind());
      table.number(double(grid.total_lx.size())).number(shown.lux(grid.statistics.mean_lx));
      table.number(shown.lux(grid.uncertainty.mean_lx)).number(shown.lux(grid.statistics.min_lx));
      table.number(shown.lux(grid.statistics.max_lx)).number(grid.statistics.u0);
      table.number(shown.lux(grid.direct_mean_lx)).number(shown.lux(grid.interreflected_mean_lx));
      table.number(mean_factor(&grid)).end_row();
    }
  });
  return table;
}

DataTable glare_data(const record::RunRecord& run) {
  const Shown shown{run.units};
  DataTable table("views", "view", "Glare at eyes",
                  {{"room", "Room", kText, 22},
                   {"scene", "Scene", kText, 16},
                   {"eyes", "Eyes", kText, 20},
                   shown.length("x"),
                   shown.length("y"),
                   shown.length("z"),
                   {"azimuth_deg", "Looks deg", 0},
                   {"ugr", "UGR", 1},
                   {"gr", "GR", 1},
                   {"background_cd_m2", "Background cd/m2", 1},
                   {"worst_luminaire", "Worst luminaire", kText, 16},
                   {"worst_share", "Its share", 2}});
  each_use(run, [&](const RoomRecord& room) {
    const assess::RoomGlare& glare = room.assessment.glare;
    const auto row = [&](const assess::EyeSetGlare& set, const Vec3& at, double azimuth, bool is_ugr,
                         const auto& view, const std::optional<double>& value,
                         const std::optional<double>& background) {
      table.text(room.name).text(room.scene).text(set.set.name);
      shown.place(table, at);
      table.number(azimuth).number(is_ugr ? value : std::nullopt).number(is_ugr ? std::nullopt : value);
      table.number(background);
      const bool any = view.worst_source >= 0;
      table.text(any ? glare.sources[std::size_t(view.worst_source)].mark : std::string());
      table.number(any ? std::optional(view.worst_share) : std::nullopt).end_row();
    };
    for (const assess::EyeSetGlare& set : glare.sets) {
      for (std::size_t v = 0; v < set.views.size(); ++v)
        row(set, set.set.position(v), set.set.azimuths_deg[v], true, set.views[v], set.views[v].ugr,
            set.views[v].background_cd_m2);
      for (std::size_t p = 0; set.views.empty() && p < set.ratings.size(); ++p)
        row(set, set.set.positions[p], set.ratings[p].azimuth_deg, false, set.ratings[p], set.ratings[p].gr,
            std::nullopt);
    }
  });
  return table;
}

DataTable luminaires_data(const record::RunRecord& run) {
  const Shown shown{run.units};
  DataTable table("luminaires", "luminaire", "Luminaires",
                  {{"room", "Room", kText, 22},
                   {"group", "Group", kText, 16},
                   {"mark", "Mark"},
                   {"luminaire", "Luminaire", kText, 28},
                   shown.length("x"),
                   shown.length("y"),
                   shown.length("z"),
                   {"rotation_deg", "Rotation deg", 1},
                   {"tilt_deg", "Tilt deg", 1},
                   {"dimming", "Dimming", 2},
                   {"flux_lm", "Flux lm", 0},
                   {"power_w", "Power W", 1}});
  for (const RoomRecord& room : run.rooms)
    for (const record::GroupRecord& group : room.groups)
      for (std::size_t k = 0; k < group.positions.size(); ++k) {
        table.text(room.name).text(group.name).text(group.mark).text(group.full_name());
        shown.place(table, group.positions[k]);
        table.number(group.rotations_deg[k]).number(group.tilts_deg[k]).number(group.weight.output);
        table.number(group.flux_lm).number(group.watts_w).end_row();
      }
  return table;
}

DataTable scenes_data(const record::RunRecord& run, bool moments) {
  const Shown shown{run.units};
  DataTable table(moments ? "moments" : "scenes", moments ? "moment" : "scene",
                  moments ? "Moments" : "Scenes",
                  {{"room", "Room", kText, 22},
                   {"scene", moments ? "Moment" : "Scene", kText, 22},
                   {"verdict", "Verdict"},
                   {"when", "When", kText, 30},
                   shown.light("mean", "Mean", 0),
                   {"u0", "U0", 2},
                   {"daylight_factor_percent", "Daylight factor %", 2},
                   {"power_w", "Power W", 0}});
  for (const RoomRecord& room : run.rooms)
    for (const record::SceneRecord& scene : room.scenes) {
      if (scene.moment.has_value() != moments) continue;
      const assess::GridReading* plane = record::work_plane(scene.assessment);
      table.text(room.name).text(scene.name).text(to_string(scene.assessment.status));
      table.text(scene.moment ? scene.moment->when() : std::string());
      table.number(plane ? shown.lux(plane->statistics.mean_lx) : std::nullopt);
      table.number(plane ? plane->statistics.u0 : std::nullopt).number(mean_factor(plane));
      table.number(scene.drawn_w).end_row();
    }
  return table;
}

DataTable points_data(const RoomRecord& of, const units::ShownUnits& units) {
  const Shown shown{units};
  DataTable table("points", "point", "Points",
                  {{"floor", "Floor", kText, 14},
                   {"room", "Room", kText, 22},
                   {"scene", "Scene", kText, 16},
                   {"date", "Date"},
                   {"local_time", "Local time"},
                   {"grid", "Grid", kText, 28},
                   shown.length("x"),
                   shown.length("y"),
                   shown.length("z"),
                   shown.light("direct", "Direct", 1),
                   shown.light("interreflected", "Reflected", 1),
                   shown.light("total", "Total", 1)});
  each_use(of, [&](const RoomRecord& room) {
    const auto row = [&](const std::string& grid, const Vec3& at, double direct, double reflected,
                         double total) {
      table.text(room.floor).text(room.name).text(room.scene);
      table.text(room.moment ? room.moment->date : std::string());
      table.text(room.moment ? room.moment->time : std::string()).text(grid);
      shown.place(table, at);
      table.number(shown.lux(direct)).number(shown.lux(reflected)).number(shown.lux(total));
      table.end_row();
    };
    for (const assess::GridReading& grid : room.assessment.grids)
      for (std::size_t k = 0; k < grid.total_lx.size(); ++k)
        row(grid.name, grid.grid.points[k], grid.direct_lx[k], grid.interreflected_lx[k], grid.total_lx[k]);
    for (const assess::PointReading& point : room.assessment.points)
      if (!point.misplaced)
        row(point.name, point.receiver.position, point.direct_lx, point.interreflected_lx, point.total_lx());
  });
  return table;
}

std::vector<DataTable> all_data(const record::RunRecord& run) {
  std::vector<DataTable> all = {rooms_data(run),        checks_data(run),
                                grids_data(run),        glare_data(run),
                                luminaires_data(run),   scenes_data(run, false),
                                scenes_data(run, true), year_data(run),
                                year_floors_data(run),  year_points_data(run),
                                year_times_data(run),   energy_data(run),
                                neighbours_data(run),   neighbour_luminaires_data(run)};
  std::vector<DataTable> filled;
  for (DataTable& table : all)
    if (!table.rows().empty()) filled.push_back(std::move(table));
  return filled;
}

}  // namespace glow::words
