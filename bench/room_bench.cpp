// What the demo room costs, against what the ray tracer alone needs for the same rays in the same run.
//
//   full       transport and light of all luminaires, from nothing
//   bare rays  the rays of `full`, prepared beforehand, traced and thrown away
//   relight    one changed luminaire group (six linear pendants) on a transport that is there
//   500        the same room with about 500 points: time, and the accuracy that the run itself states
#include <benchmark/benchmark.h>
#include <fmt/format.h>
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>

#include <map>
#include <vector>

#include "cli/open_project.hpp"
#include "core/results/room_result.hpp"
#include "core/transport/patch_rays.hpp"

namespace {

using namespace glow;

const scene::RoomScene& demo_room() {
  static const cli::OpenProject open = cli::open_project(GLOWGRID_DEMO);
  return open.rooms.at(0);
}

/// The demo room with a grid fine enough for about 500 points.
const scene::RoomScene& room_of_500() {
  static const scene::RoomScene room = [] {
    scene::RoomScene copy = demo_room();
    copy.grid = *readings::plane_grid(copy.outline, copy.grid.height_m, copy.grid.inset_m, 0.305);
    return copy;
  }();
  return room;
}

std::vector<transport::Receiver> receivers_of(const scene::RoomScene& room) {
  std::vector<transport::Receiver> receivers;
  for (const Vec3& point : room.grid.points) receivers.push_back({point, Vec3::UnitZ()});
  return receivers;
}

struct Ray {
  Vec3f origin, direction;
};

/// All rays that Transport traces for the room: the same generators with the same seed.
std::vector<Ray> rays_of(const transport::Transport& transport, const transport::Effort& effort) {
  std::vector<Ray> rays;
  const auto keep = [&](const Vec3f& origin, const Vec3f& direction) { rays.push_back({origin, direction}); };
  for (std::size_t i = 0; i < transport.patches().size(); ++i)
    for (int set = 0; set < transport::kSets; ++set)
      transport::PatchRays(transport.patches(), effort).each(int(i), set, keep);
  for (std::size_t r = 0; r < transport.receivers().size(); ++r)
    for (int set = 0; set < transport::kSets; ++set)
      transport::ReceiverRays(effort).each(transport.tracer(), transport.receivers()[r], r, set, keep);
  return rays;
}

void bare_rays(benchmark::State& state) {
  const transport::Effort effort;
  const transport::Transport transport(demo_room().geometry, receivers_of(demo_room()), effort, {});
  const std::vector<Ray> rays = rays_of(transport, effort);
  for (auto _ : state) {
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, rays.size(), 1024), [&](const auto& range) {
      int met = 0;
      for (std::size_t i = range.begin(); i != range.end(); ++i)
        met += transport.tracer().bare_nearest(rays[i].origin, rays[i].direction);
      benchmark::DoNotOptimize(met);
    });
  }
  state.counters["rays"] = double(rays.size());
}

void full(benchmark::State& state) {
  for (auto _ : state)
    benchmark::DoNotOptimize(
        results::compute_room(demo_room(), *results::Accuracy::parse("normal"), nullptr, {}));
  state.counters["points"] = double(demo_room().grid.points.size());
}

void relight(benchmark::State& state) {
  const transport::Transport transport(demo_room().geometry, receivers_of(demo_room()), {}, {});
  for (auto _ : state) benchmark::DoNotOptimize(transport.relight(demo_room().groups.at(0).luminaires, {}));
  state.counters["luminaires"] = double(demo_room().groups.at(0).luminaires.size());
}

void full_500(benchmark::State& state) {
  results::RoomResult result;
  for (auto _ : state)
    result = results::compute_room(room_of_500(), *results::Accuracy::parse("normal"), nullptr, {});
  const results::GridResult& grid = result.grids.front();
  state.counters["points"] = double(grid.grid.points.size());
  state.counters["mean_pct"] = 100 * grid.uncertainty.mean_lx / grid.statistics.mean_lx;
  state.counters["min_pct"] = 100 * grid.uncertainty.min_lx / grid.statistics.min_lx;
}

/// Prints as usual and keeps the medians for the ratios.
class Ratios : public benchmark::ConsoleReporter {
 public:
  void ReportRuns(const std::vector<Run>& runs) override {
    ConsoleReporter::ReportRuns(runs);
    for (const Run& run : runs)
      if (run.aggregate_name == "median") median_[run.run_name.function_name] = run.GetAdjustedRealTime();
  }
  void print() {
    fmt::print(FMT_STRING("\nfull / bare rays   {:.2f}   (aim: at most 2)\n"),
               median_["full"] / median_["bare_rays"]);
    fmt::print(FMT_STRING("full / relight     {:.0f}   (aim: at least 50)\n"),
               median_["full"] / median_["relight"]);
    fmt::print(FMT_STRING("500 points         {:.0f} ms (aim: well under a second)\n"), median_["full_500"]);
  }

 private:
  std::map<std::string, double> median_;
};

}  // namespace

int main(int argc, char** argv) {
  // Taken in turns, so that a slow minute of the machine falls on all alike.
  std::string interleave = "--benchmark_enable_random_interleaving=true";
  std::vector<char*> arguments(argv, argv + argc);
  arguments.insert(arguments.begin() + 1, interleave.data());
  argc = int(arguments.size());
  argv = arguments.data();
  benchmark::Initialize(&argc, argv);
  if (benchmark::ReportUnrecognizedArguments(argc, argv)) return 1;
  const auto add = [](const char* name, void (*function)(benchmark::State&)) {
    benchmark::RegisterBenchmark(name, function)
        ->Unit(benchmark::kMillisecond)
        ->UseRealTime()
        ->Repetitions(15)
        ->MinTime(0.1)
        ->ReportAggregatesOnly(true);
  };
  add("bare_rays", bare_rays);
  add("full", full);
  add("relight", relight);
  add("full_500", full_500);
  Ratios reporter;
  benchmark::RunSpecifiedBenchmarks(&reporter);
  reporter.print();
  return 0;
}
