// What scenes cost beside the calculation of their room, in the same run: each room of the demo with its
// task, with 50 scenes and without. And what the colour of light costs beside it: told of grey surfaces, and
// with a wall of a colour, for which the exchange is solved in three bands. Arguments: the one room to time,
// and how many scenes.
#include <fmt/format.h>

#include <algorithm>

#include "bench/benches.hpp"
#include "bench/timing.hpp"
#include "cli/open_project.hpp"
#include "core/colour/bands.hpp"
#include "core/run/compute_room.hpp"

namespace glow::bench::scenes_bench {
namespace {

std::vector<space::PlannedScene> scenes_of(const space::PlannedRoom& room, std::size_t count) {
  std::vector<space::PlannedScene> scenes(count);
  for (std::size_t s = 0; s < count; ++s) {
    scenes[s].name = std::to_string(s);
    scenes[s].brief = room.brief;
    for (std::size_t g = 0; g < room.space.groups.size(); ++g)
      scenes[s].shares.push_back(double((s + 1) * (g + 3) % 11) / 10);
  }
  return scenes;
}

/// The room with a first wall of clay.
model::Room with_clay(const model::Room& room) {
  model::Room clay = room;
  model::Wall wall;
  wall.number = 1;
  wall.finish = model::Finish{};
  wall.finish->material.diffuse = room.reflectances.walls;
  wall.finish->material.tint = colour::tint_of({0.55, 0.30, 0.18});
  clay.walls.push_back(wall);
  return clay;
}

int measure(const Words& words) {
  const std::size_t kScenes = std::size_t(words.number(1, 50));
  const auto open = cli::open_project(GLOWGRID_SOURCE "/demo/millrace.toml");
  run::Accuracy accuracy = *run::Accuracy::parse("normal");
  accuracy.most_refinements = 0;  // scenes that stand at their limits would be refined, too
  for (const cli::OpenProject::Room& room : open->rooms) {
    if (room.name() != words.at(0, room.name())) continue;
    space::PlannedRoom plan = open->plan(room);
    plan.scenes.clear();
    plan.energy.reset();  // which may name them
    space::PlannedRoom used = plan;
    used.scenes = scenes_of(plan, kScenes);
    open->project.colour = true;
    Problems problems;
    const model::Room clay = with_clay(*room.written);
    auto tinted = space::build_space(open->project, clay, open->standards, problems);
    if (tinted) tinted->scenes.clear(), tinted->energy.reset();
    const auto compute = [&](const space::PlannedRoom& which, bool colour) {
      open->project.colour = colour;
      run::compute_room(open->project, which, accuracy, nullptr, {});
    };
    const std::vector<double> took =
        seconds_in_turn(15, {[&] { compute(plan, false); }, [&] { compute(used, false); },
                             [&] { compute(plan, true); }, [&] { compute(tinted ? *tinted : plan, true); }});
    const double plain = took[0], with = took[1], grey = took[2], bands = tinted ? took[3] : 0;
    open->project.colour = false;
    fmt::print(FMT_STRING("{:<16} {:4.0f} ms, with {} scenes {:4.0f} ms: {:.3f} times, {:.2f} ms each\n"),
               room.name(), 1e3 * plain, kScenes, 1e3 * with, with / plain,
               1e3 * (with - plain) / double(kScenes));
    fmt::print(FMT_STRING("{:<16} colour of grey surfaces {:.3f} times, in three bands {:.3f} times\n"), "",
               grey / plain, bands / plain);
  }
  return 0;
}

const Measurement known("scenes", measure);

}  // namespace
}  // namespace glow::bench::scenes_bench
