// Whether the stated uncertainty of daylight is honest where it is hard to sample: small openings, a window
// around a corner, a deep well, a glossy one; many times with other seeds, against runs of far greater
// effort. Prints how often the truth lies inside the stated 95 % interval.
//
//   daylight-confidence [repetitions, 40] [room]
#include <cstdio>
#include <cstdlib>

#include "bench/benches.hpp"
#include "bench/tally.hpp"
#include "cli/open_project.hpp"
#include "core/assess/grid_reader.hpp"
#include "core/assess/grid_uncertainty.hpp"
#include "core/lighting/daylight.hpp"
#include "core/run/room_pass.hpp"

namespace glow::bench::daylight_confidence_bench {
namespace {

constexpr int kLongRuns = 3;

struct Values {
  double mean = 0, mean_doubt = 0, least = 0, least_doubt = 0;
  std::vector<double> points, doubts;
};

Values computed(const space::PlannedRoom& plan, const space::PlannedMoment& moment,
                const transport::Effort& effort) {
  const run::Pass pass = run::pass_over(plan.space, plan.brief, {},
                                        assess::ReadingPlan::part(plan.space, {0}, {}), effort, nullptr, {});
  const lighting::Daylight paths(plan.space, *pass.transport, moment.states, {});
  const lighting::MomentLight day = paths.at(moment, {});
  assess::LitRoom lit = pass.lit;
  lit.day = &day;
  lit.moment = &moment;
  lit.light.add_day(day.light);
  const transport::LightError error(*pass.transport, lit.light.maintained);
  const assess::GridReading grid = assess::read_grid(*pass.setting, 0, lit, &error);
  Values values{grid.statistics.mean_lx, grid.uncertainty.mean_lx,
                grid.statistics.min_lx,  grid.uncertainty.min_lx,
                grid.total_lx,           {}};
  for (const std::size_t r : pass.setting->readable()[0])
    values.doubts.push_back(assess::point_uncertainty(error, lit.light.maintained, r));
  return values;
}

void examine(const space::PlannedRoom& plan, const space::PlannedScene& scene, int repetitions) {
  Values truth;
  for (int seed = 1; seed <= kLongRuns; ++seed) {
    const Values v = computed(plan, *scene.moment, {2400, 256, 4096, std::uint64_t(100000 + seed), 1e-4});
    truth.points.resize(v.points.size());
    truth.mean += v.mean / kLongRuns;
    truth.least += v.least / kLongRuns;
    for (std::size_t p = 0; p < v.points.size(); ++p) truth.points[p] += v.points[p] / kLongRuns;
  }
  bench::Tally mean{"mean"}, least{"minimum"}, points{"points, one by one"};
  for (int seed = 1; seed <= repetitions; ++seed) {
    transport::Effort effort = transport::Effort::normal();
    effort.seed = std::uint64_t(seed);
    const Values v = computed(plan, *scene.moment, effort);
    mean.add(v.mean, truth.mean, v.mean_doubt);
    least.add(v.least, truth.least, v.least_doubt);
    for (std::size_t p = 0; p < v.points.size(); ++p) points.add(v.points[p], truth.points[p], v.doubts[p]);
  }
  fmt::print(FMT_STRING("\n{}, {}: long runs: mean {:.2f} lx, minimum {:.2f} lx\n\n"), plan.space.name,
             scene.name, truth.mean, truth.least);
  bench::Tally::print_head(repetitions);
  for (const bench::Tally& tally : {mean, least, points}) tally.print();
  std::fflush(stdout);
}

int measure(const Words& words) {
  const auto open = cli::open_project(GLOWGRID_SOURCE "/bench/daylight_rooms.toml");
  for (const cli::OpenProject::Room& room : open->rooms) {
    if (room.name() != words.at(1, room.name())) continue;
    const space::PlannedRoom plan = open->plan(room);
    for (const space::PlannedScene& scene : plan.scenes) examine(plan, scene, words.number(0, 40));
  }
  return 0;
}

const Measurement known("daylight-confidence", measure);

}  // namespace
}  // namespace glow::bench::daylight_confidence_bench
