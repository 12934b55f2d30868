// What daylight costs in each room of the demo that has a window, in the same run: the first moment (paths
// traced through the openings, then its light) against the transport that it stands on, and each further
// moment against the first.
#include <fmt/format.h>

#include <algorithm>

#include "bench/timing.hpp"
#include "cli/open_project.hpp"
#include "core/lighting/daylight.hpp"
#include "core/run/room_pass.hpp"

using namespace glow;

int main() {
  const auto open = cli::open_project(GLOWGRID_DEMO);
  const transport::Effort effort = transport::Effort::normal();
  model::Moment day;  // half hour by half hour
  std::tie(day.year, day.month, day.day) = std::tuple(2026, 6, 21);
  day.sky = model::Moment::Sky::clear;
  day.series = model::Series{0, 23.5, 0.5, {}};
  Problems unheard;
  const std::vector<space::PlannedMoment> steps = space::plan_series(open->project, day, unheard);
  for (const cli::OpenProject::Room& room : open->rooms) {
    const space::PlannedRoom plan = open->plan(room);
    const auto has_moment = [](const space::PlannedScene& scene) { return scene.moment.has_value(); };
    const auto scene = std::find_if(plan.scenes.begin(), plan.scenes.end(), has_moment);
    if (scene == plan.scenes.end()) continue;
    const assess::ReadingPlan reading = assess::ReadingPlan::whole(plan.space, plan.brief);
    const double traced =
        bench::seconds(3, [&] { transport::Transport(plan.space.geometry, reading.receivers, effort, {}); });
    const transport::Transport transport(plan.space.geometry, reading.receivers, effort, {});
    const double paths = bench::seconds(3, [&] { lighting::Daylight(plan.space, transport, {}, {}); });
    const lighting::Daylight light(plan.space, transport, {}, {});
    const double moment = bench::seconds(3, [&] { light.at(*scene->moment, {}); });
    const double whole_day = bench::seconds(1, [&] {
      for (const space::PlannedMoment& step : steps)
        if (!step.is_night) light.at(step, {});
    });
    fmt::print(
        FMT_STRING(
            "{:<16} transport {:4.0f} ms, first moment {:4.0f} ms more ({:.2f} times it), each further "
            "one {:5.1f} ms (1/{:.0f} of transport and first); a day of {} steps {:.2f} times it; paths "
            "{:.1f} MB\n"),
        room.name(), 1e3 * traced, 1e3 * (paths + moment), (paths + moment) / traced, 1e3 * moment,
        (traced + paths + moment) / moment, steps.size(), whole_day / (traced + paths + moment),
        double(light.memory()) / 1e6);
  }
}
