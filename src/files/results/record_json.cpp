#include "files/results/record_json.hpp"

#include "files/results/described/describe_energy.hpp"
#include "files/results/described/describe_glare.hpp"
#include "files/results/described/describe_grids.hpp"
#include "files/results/described/describe_outlook.hpp"
#include "files/results/described/describe_shapes.hpp"
#include "files/results/described/describe_spill.hpp"
#include "files/results/described/describe_year.hpp"
#include "files/results/grid_csv.hpp"
#include "files/results/record_checks.hpp"
#include "words/topics/room_words.hpp"

namespace glow::files {

template <>
struct EnumNames<assess::Status> {
  static constexpr std::array<const char*, 4> list = {"met", "not met", "undecided", "no target"};
};
template <>
struct EnumNames<space::VerifiedAs> {
  static constexpr std::array<const char*, 5> list = {"nothing", "whole_room", "areas_with_surroundings",
                                                      "whole_room_and_areas",
                                                      "room_and_areas_of_other_tasks"};
};
template <>
struct EnumNames<space::PlaneHeight> {
  static constexpr std::array<const char*, 3> list = {"given", "by_task", "assumed"};
};

}  // namespace glow::files

namespace glow::assess {

template <class A>
void describe(A& a, Described<A, Modelling>& m) {
  a("mean", m.mean);
  a("min", m.low);
  a("max", m.high);
  a("share_within", m.share_within);
}
template <class A>
void describe(A& a, Described<A, Power>& power) {
  a("installed_w", power.installed_w);
  a("w_per_m2", power.w_per_m2);
  a("w_per_m2_100lx", power.w_per_m2_100lx);
}

}  // namespace glow::assess

namespace glow::record {
namespace {

using files::Described;
using files::json;

template <class A>
void describe(A& a, Described<A, TaskRecord>& task) {
  a("key", task.key);
  a("standard", task.standard);
  a("source", task.source);
  a("certainty", task.certainty);
  a("em_lx", task.em_lx);
  a("reason", task.reason);
}

template <class A>
void describe(A& a, Described<A, InputPart>& part) {
  a("what", part.what);
  a("print", part.print);
}

template <class A>
void describe_maintenance(A& a, Described<A, GroupRecord>& group) {
  a("factor", group.weight.maintenance);
  if constexpr (A::kReads) {
    if (!a.has("lamp_flux")) return;
    group.maintenance.emplace();
    group.room_surfaces.emplace();
  }
  if (!group.maintenance || !group.room_surfaces) return;
  a("lamp_flux", group.maintenance->lamp_flux);
  a("lamp_survival", group.maintenance->lamp_survival);
  a("luminaire", group.maintenance->luminaire);
  a("room_surfaces", group.room_surfaces->factor);
  a("lamp_hours", group.maintenance->lamp_hours);
  a("cleaning_years", group.maintenance->cleaning_years);
  a("surface_cleaning_years", group.room_surfaces->cleaning_years);
}

template <class A>
void describe(A& a, Described<A, GroupRecord>& group) {
  a("name", group.name);
  a("fitting", group.fitting);
  a("mark", group.mark);
  a("manufacturer", group.manufacturer);
  a("luminaire", group.luminaire);
  a("format", group.format);
  a.derived("count", [&] { return group.positions.size(); });
  a("flux_lm", group.flux_lm);
  a("dimming", group.weight.output);
  a("watts_w", group.watts_w);
  a("cct_k", group.cct_k);
  a("ra", group.ra);
  a.object("maintenance", [&](auto& own) { describe_maintenance(own, group); });
  a("size_m", group.size_m);
  a("round", group.round);
  a("rotations_deg", group.rotations_deg);
  a("tilts_deg", group.tilts_deg);
  a("aim_m", group.aim);
  a("positions_m", group.positions);
  a("c0", group.c0);
  a("gamma0", group.g0);
  if (group.rotations_deg.size() != group.positions.size() ||
      group.tilts_deg.size() != group.positions.size() || group.c0.size() != group.positions.size() ||
      group.g0.size() != group.positions.size())
    throw std::runtime_error("luminaires lack their rotations");
}

template <class A>
void describe_checks(A& a, Described<A, RoomRecord>& room, const units::ShownUnits& units) {
  const auto sentences = [](const std::vector<std::string>& list) { return json(list); };
  a.list("checks", room.assessment.checks, [&](auto& own, auto& check, std::size_t i) {
    own("quantity", check.demand.quantity);
    own.derived("where", [&] { return words::name_of(check.target, room); });
    own.derived("area", [&] { return words::kind_of(check.target, room); });
    own("target", check.target);
    describe_check(own, check);
    own.derived("why", [&] { return sentences(words::why(room, i, units)); });
    own.derived("help", [&] { return sentences(words::help(room, i, units)); });
    if constexpr (A::kReads) {
      own("causes", room.explanations.emplace_back().causes);
      own("mends", room.explanations.back().mends);
    } else {
      own("causes", room.explanations[i].causes);
      own("mends", room.explanations[i].mends);
      if (room.tolerance && room.tolerance->checks[i]) own("spread", *room.tolerance->checks[i]);
    }
  });
  a.derived("not_checked", [&] {
    json list = json::array();
    for (const auto& item : room.assessment.not_verified)
      list.push_back(words::not_verified_words(item, room.assessment.glare.table));
    return list;
  });
  a("not_verified", room.assessment.not_verified);
}

template <class A>
void describe_tolerance(A& a, Described<A, RoomRecord>& room) {
  if constexpr (A::kReads) {
    if (!a.has("spread")) return;
    studies::RoomTolerance& tolerance = room.tolerance.emplace();
    a.object("spread", [&](auto& own) {
      own("samples", tolerance.samples);
      own("share_met", tolerance.share);
    });
    for (const json& check : a.at("checks")) {
      tolerance.checks.emplace_back();
      if (check.contains("spread"))
        files::Reader::read(check.at("spread"), tolerance.checks.back().emplace());
    }
  } else if (room.tolerance) {
    a.object("spread", [&](auto& own) {
      own("samples", room.tolerance->samples);
      own("share_met", room.tolerance->share);
    });
  }
}

template <class A>
void describe_place(A& a, Described<A, RoomRecord>& room) {
  a("outline_m", room.outline);
  a.present("ground_m", room.ground);
  a("walls", room.wall_names);
  a.list("luminaires", room.groups, [](auto& own, auto& group, std::size_t id) {
    own.derived("id", [&] { return id; });
    describe(own, group);
  });
  a("objects", room.objects);
  a("openings", room.openings);
  a("surfaces", room.finishes);
}

template <class A>
void describe_light(A& a, Described<A, RoomRecord>& room) {
  a("power", room.assessment.power);
  a.object("flux_balance", [&](auto& own) {
    own("emitted_lm", room.balance.emitted_lm);
    own("absorbed_lm", room.balance.absorbed_lm);
    own("escaped_lm", room.balance.escaped_lm);
    own("lost_lm", room.balance.lost_lm);
    own("captured_share", room.balance.captured_share);
    own("traced_luminaires", room.balance.traced_luminaires);
    own("solver_residual", room.balance.solver_residual);
  });
}

template <class A>
void describe_engine(A& a, Described<A, RoomRecord>& room) {
  a.object("engine", [&](auto& own) {
    own("patches", room.engine.patches);
    own("rays", room.engine.rays);
    own("refinements", room.engine.refinements);
    own("accuracy_reached", room.engine.accuracy_reached);
  });
}

/// Checks, glare, numbers and values: what the room's light comes to.
template <class A>
void describe_readings(A& a, Described<A, RoomRecord>& room, const units::ShownUnits& units) {
  describe_checks(a, room, units);
  a.present("modelling", room.assessment.modelling);
  a.present("outlook", room.assessment.outlook);
  a.present("spill_light", room.assessment.spill);
  a.present("year", room.assessment.year);
  a("rates_ugr", room.rates_ugr);
  a.object("glare", [&](auto& own) {
    describe_glare(own, room.assessment.glare, files::GlareContext{&room, units});
  });
  describe_light(a, room);
  a.list("points", room.assessment.points, [](auto& own, auto& point, std::size_t id) {
    own.derived("id", [&] { return id; });
    describe(own, point);
  });
  a.list("grids", room.assessment.grids, [&](auto& own, auto& grid, std::size_t id) {
    own.derived("id", [&] { return id; });
    describe(own, grid, files::csv_name("grids", room, grid.name));
  });
}

template <class A>
void describe_head(A& a, Described<A, RoomRecord>& room) {
  a("name", room.name);
  a("number", room.number);
  a("floor", room.floor);
  a("drawn", room.drawn);
  a("thresholds_lx", room.thresholds_lx);
  a.derived("shares", [&] {  // of the points of each grid, by those limits
    json all = json::array();
    for (std::size_t g = 0; room.thresholds_lx && g < room.assessment.grids.size(); ++g)
      if (const auto shares = record::shares_of(room.assessment.grids[g], *room.thresholds_lx))
        all.push_back({{"grid", g},
                       {"below", files::number(shares->below)},
                       {"within", files::number(shares->within)},
                       {"above", files::number(shares->above)}});
    return all;
  });
  a("status", room.assessment.status);
  a.list("inputs", room.inputs, [](auto& own, auto& part, std::size_t) { describe(own, part); });
  a("changed_since", room.changed_since);
  a.derived("task", [&] { return room.tasks.empty() ? json(nullptr) : json(room.tasks.front().key); });
  a.list("tasks", room.tasks, [](auto& own, auto& task, std::size_t) { describe(own, task); });
  a.derived("verified_as", [&] { return words::verified_as_words(room.verified_as); });
  a("verification", room.verified_as);
  a("floor_area_m2", room.floor_area_m2);
  a("height_m", room.height_m);
  a("roofed", room.roofed);
  a("outdoors", room.outdoors);
  a.object("reflectances", [&](auto& own) {
    own("ceiling", room.reflectances.ceiling);
    own("walls", room.reflectances.walls);
    own("floor", room.reflectances.floor);
  });
  a("maintenance_factor", room.maintenance_factor);
  a.derived("values",
            [] { return "maintained: each luminaire's initial light times its maintenance factor, once"; });
  a.derived("plane_height_source", [&] {
    return words::plane_height_words(room.plane_height, room.tasks.empty() ? "" : room.tasks.front().key,
                                     room.plane_note);
  });
  a("plane_height", room.plane_height);
  a("plane_note", room.plane_note);
  a("assumed", room.assumed);
}

/// What a scene has of its own. `seen`: the room as it is in it; filled by readers.
template <class A>
void describe_scene(A& a, Described<A, RoomRecord>& seen, Described<A, SceneRecord>& scene,
                    const units::ShownUnits& units) {
  a("name", scene.name);
  a("status", seen.assessment.status);
  a("shares", scene.shares);
  a("drawn_w", scene.drawn_w);
  a("emergency", scene.emergency);
  a("cct_k", scene.cct_k);
  a.object_if("moment", scene.moment, [&](auto& own, auto& m) {
    own("date", m.date);
    own("time", m.time);
    own("solar_time", m.solar_time);
    own("sky", m.sky);
    own("latitude_deg", m.latitude_deg);
    own("longitude_deg", m.longitude_deg);
    own("sun_altitude_deg", m.altitude_deg);
    own("sun_azimuth_deg", m.azimuth_deg);
    own("diffuse_lx", m.diffuse_lx);
    own("sun_normal_lx", m.sun_normal_lx);
    own("open_lx", m.open_lx);
  });
  a.present("series", scene.series);
  a.object_if("solution", scene.solution, [&](auto& own, auto& solution) {
    own("possible", solution.possible);
    own("each_alone", solution.each_alone);
    own("contradicting", solution.contradicting);
  });
  a.list("tasks", seen.tasks, [](auto& own, auto& task, std::size_t) { describe(own, task); });
  describe_readings(a, seen, units);
}

template <class A>
void describe_scenes(A& a, Described<A, RoomRecord>& room, const units::ShownUnits& units) {
  a.list("scenes", room.scenes, [&](auto& own, auto& scene, std::size_t i) {
    if constexpr (A::kReads) {
      RoomRecord seen;
      seen.name = room.name;
      seen.scene = "scene";
      seen.groups = room.groups;
      seen.outline = room.outline;
      seen.wall_names = room.wall_names;
      describe_scene(own, seen, scene, units);
      seen.scene = scene.name;
      files::check_record(seen);
      scene.tasks = std::move(seen.tasks);
      scene.rates_ugr = seen.rates_ugr;
      scene.assessment = std::move(seen.assessment);
      scene.explanations = std::move(seen.explanations);
      scene.balance = seen.balance;
      files::refuse_unless(scene.shares.size() == room.groups.size(), "a scene lacks shares of groups");
    } else {
      describe_scene(own, in_scene(room, i), scene, units);
    }
  });
}

template <class A>
void describe_room(A& a, Described<A, RoomRecord>& room, const units::ShownUnits& units) {
  describe_head(a, room);
  describe_engine(a, room);
  describe_place(a, room);
  describe_readings(a, room, units);
  describe_tolerance(a, room);
  a.present("energy", room.energy);
  a("times_of_year", room.times);
  if constexpr (A::kReads)
    if (room.energy) room.assessment.kwh_m2 = room.energy->kwh_m2();
  describe_scenes(a, room, units);
}

}  // namespace
}  // namespace glow::record

namespace glow::files {

json room_json(const record::RoomRecord& room, const units::ShownUnits& units) {
  Writer writer;
  record::describe_room(writer, room, units);
  return writer.take();
}

record::RoomRecord room_of(const json& j) {
  record::RoomRecord room;
  Reader reader(j);
  record::describe_room(reader, room, {});
  check_record(room);
  return room;
}

record::RoomRecord as_written(const record::RoomRecord& room) {
  try {
    return room_of(room_json(room, {}));
  } catch (const json::exception& error) {
    throw std::runtime_error(error.what());
  }
}

}  // namespace glow::files
