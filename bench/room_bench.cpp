// What the demo room costs, against what the ray tracer alone needs for the same rays in the same run.
//
//   full       transport and light of all luminaires, from nothing
//   bare rays  the rays of `full`, prepared beforehand, traced and thrown away
//   relight    one changed luminaire group (six linear pendants; one downlight) on a transport that is there,
//              with another photometry in places that are remembered
//   moved      the same group in places that are new
//   weights    the light of all groups at another dimming, from what each of them gives
//   remember   what it costs to remember the places of the group
//   spread     the same with 300 possible built rooms
//   500        the same room with about 500 points: time, and the accuracy that the run itself states
//   windows    the demo's own throwing room: windows, furniture, all grids
//   furnished  the same for an office with desks, a cupboard, shelves and a screen
#include <fmt/format.h>

#include <map>
#include <numeric>
#include <vector>

#include "bench/bare_rays.hpp"
#include "bench/repeated.hpp"
#include "cli/open_project.hpp"
#include "core/assess/grid_uncertainty.hpp"
#include "core/lighting/lighting.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/run/compute_room.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "core/sources/remembered_places.hpp"
#include "rooms/furnished_room.hpp"

namespace glow::bench::room_bench {
namespace {

/// The first room of a project, without eyes: glare_bench measures what they cost.
struct BenchRoom {
  std::unique_ptr<cli::OpenProject> open;
  space::PlannedRoom planned;

  explicit BenchRoom(const char* project)
      : open(cli::open_project(project)), planned(open->plan(open->rooms.at(0))) {
    planned.space.eyes.clear();
    planned.brief.glare = {};
  }
  record::RoomRecord compute(const run::Studies& studies = {}) const {
    return run::compute_room(open->project, planned, *run::Accuracy::parse("normal"), nullptr, {}, studies)
        .record;
  }
};

const BenchRoom& demo() {
  static const BenchRoom room(GLOWGRID_SOURCE "/bench/plain_room.toml");
  return room;
}
const space::Space& demo_room() {
  return demo().planned.space;
}

/// The demo's room as it is: windows, furniture, all its grids.
const BenchRoom& with_windows() {
  static const BenchRoom room(GLOWGRID_SOURCE "/demo/millrace.toml");
  return room;
}
const space::Space& room_with_windows() {
  return with_windows().planned.space;
}

/// The demo room with a grid fine enough for about 500 points.
const BenchRoom& demo_of_500() {
  static const BenchRoom room = [] {
    BenchRoom own(GLOWGRID_SOURCE "/bench/plain_room.toml");
    space::Space& space = own.planned.space;
    const readings::PlaneGrid usual = *space.work_plane();
    space.grids.resize(1);
    own.planned.brief.grids.resize(1);
    space.grids[0].grid = *readings::plane_grid(space.outline, usual.plane.origin.z(), usual.inset_m, 0.305);
    return own;
  }();
  return room;
}

std::vector<readings::Receiver> receivers_of(const space::Space& room) {
  std::vector<readings::Receiver> receivers;
  for (const space::Grid& grid : room.grids)
    for (std::size_t i = 0; i < grid.grid.points.size(); ++i) receivers.push_back(grid.receiver(i));
  return receivers;
}

void trace_bare(benchmark::State& state, const geometry::Geometry& geometry,
                const std::vector<readings::Receiver>& receivers) {
  const transport::Effort effort;
  const transport::Transport transport(geometry, receivers, effort, Watch{});
  const std::vector<Ray> rays = rays_of(transport, effort);
  for (auto _ : state) trace_bare(transport.tracer(), rays);
  state.counters["rays"] = double(rays.size());
}

void bare_rays(benchmark::State& state) {
  trace_bare(state, demo_room().geometry, receivers_of(demo_room()));
}

void full(benchmark::State& state) {
  for (auto _ : state) benchmark::DoNotOptimize(demo().compute());
  state.counters["points"] = double(receivers_of(demo_room()).size());
}

void full_with_spread(benchmark::State& state) {
  const model::ToleranceWish wish;
  for (auto _ : state) benchmark::DoNotOptimize(demo().compute({wish}));
  state.counters["samples"] = wish.samples;
}

void moved(benchmark::State& state) {
  const transport::Transport transport(demo_room().geometry, receivers_of(demo_room()), {}, Watch{});
  const auto& luminaires = demo_room().groups.at(std::size_t(state.range(0))).luminaires;
  for (auto _ : state) benchmark::DoNotOptimize(sources::relight(transport, luminaires, {}));
  state.counters["luminaires"] = double(luminaires.size());
}

/// The same luminaires, another table: a batwing of the group's flux.
std::shared_ptr<const photometry::IntensityTable> other_table(const photometry::IntensityTable& table) {
  std::vector<double> planes, gammas, candela;
  for (double c = 0; c <= 360; c += 15) planes.push_back(c);
  for (double g = 0; g <= 90; g += 5) gammas.push_back(g);
  for (const double c : planes)
    for (const double g : gammas)
      candela.push_back((1 + std::sin(2 * g * kDegree)) * std::cos(g * kDegree) *
                        (1.2 + std::cos(2 * c * kDegree)));
  const photometry::IntensityTable unit(planes, gammas, candela);
  return std::make_shared<photometry::IntensityTable>(unit.scaled(table.flux() / unit.flux()));
}

void relight_swapped(benchmark::State& state, const transport::Transport& transport,
                     const std::vector<photometry::PlacedLuminaire>& luminaires) {
  const auto places = sources::RememberedPlaces::of(transport, luminaires, {});
  const auto table = other_table(*luminaires.front().table);
  for (auto _ : state) benchmark::DoNotOptimize(places->relight(table, {}));
  state.counters["luminaires"] = double(luminaires.size());
  state.counters["terms"] = double(places->terms());
}

void relight(benchmark::State& state) {
  const transport::Transport transport(demo_room().geometry, receivers_of(demo_room()), {}, Watch{});
  relight_swapped(state, transport, demo_room().groups.at(std::size_t(state.range(0))).luminaires);
}

void remember(benchmark::State& state) {
  const transport::Transport transport(demo_room().geometry, receivers_of(demo_room()), {}, Watch{});
  const auto& luminaires = demo_room().groups.at(std::size_t(state.range(0))).luminaires;
  for (auto _ : state) benchmark::DoNotOptimize(sources::RememberedPlaces::of(transport, luminaires, {}));
}

/// Other weights of the same light: a control scene, another dimming.
void weights(benchmark::State& state) {
  const transport::Transport transport(demo_room().geometry, receivers_of(demo_room()), {}, Watch{});
  const lighting::Lighting lighting(demo_room(), transport, {});
  lighting::Weights weights = demo().open->weights_of(demo().planned);
  for (auto _ : state) {
    weights[0].output = weights[0].output < 1 ? 1 : 0.5;
    benchmark::DoNotOptimize(lighting.weighted(weights));
  }
}

void full_500(benchmark::State& state) {
  record::RoomRecord record;
  for (auto _ : state) record = demo_of_500().compute();
  const assess::GridReading& grid = record.assessment.grids.front();
  state.counters["points"] = double(grid.grid.points.size());
  state.counters["mean_pct"] = 100 * grid.uncertainty.mean_lx / grid.statistics.mean_lx;
  state.counters["min_pct"] = 100 * grid.uncertainty.min_lx / grid.statistics.min_lx;
}

void windows_full(benchmark::State& state) {
  for (auto _ : state) benchmark::DoNotOptimize(with_windows().compute());
  state.counters["points"] = double(receivers_of(room_with_windows()).size());
}

void windows_relight(benchmark::State& state) {
  const transport::Transport transport(room_with_windows().geometry, receivers_of(room_with_windows()), {},
                                       Watch{});
  relight_swapped(state, transport, room_with_windows().groups.at(0).luminaires);
}

const rooms::TestRoom& furnished() {
  static const rooms::TestRoom space = rooms::furnished_room();
  return space;
}

void furnished_bare_rays(benchmark::State& state) {
  trace_bare(state, furnished().geometry, furnished().receivers);
}

void furnished_full(benchmark::State& state) {
  std::vector<std::size_t> all(furnished().receivers.size());
  std::iota(all.begin(), all.end(), std::size_t{0});
  for (auto _ : state) {
    const transport::Transport transport(furnished().geometry, furnished().receivers, {}, Watch{});
    const transport::GroupLight light = sources::relight(transport, furnished().luminaires, {});
    benchmark::DoNotOptimize(assess::grid_uncertainty(transport::LightError(transport, light), light, all));
  }
}

void furnished_relight(benchmark::State& state) {
  const transport::Transport transport(furnished().geometry, furnished().receivers, {}, Watch{});
  relight_swapped(state, transport, furnished().luminaires);
}

void furnished_moved(benchmark::State& state) {
  const transport::Transport transport(furnished().geometry, furnished().receivers, {}, Watch{});
  for (auto _ : state) benchmark::DoNotOptimize(sources::relight(transport, furnished().luminaires, {}));
}

/// Prints as usual and keeps the medians for the ratios.
class Ratios : public benchmark::ConsoleReporter {
 public:
  void ReportRuns(const std::vector<Run>& runs) override {
    ConsoleReporter::ReportRuns(runs);
    for (const Run& run : runs)
      if (run.aggregate_name == "median") {
        const std::string& arguments = run.run_name.args;
        median_[run.run_name.function_name + (arguments.empty() ? "" : "/" + arguments)] =
            run.GetAdjustedRealTime();
      }
  }
  void print() {
    const auto ratio = [&](const char* words, const char* a, const char* b, const char* aim) {
      fmt::print(FMT_STRING("{:<44} {:>6.1f}   {}\n"), words, median_[a] / median_[b], aim);
    };
    fmt::print(FMT_STRING("\n"));
    ratio("demo: full / bare rays", "full", "bare_rays", "(aim: at most 1.5)");
    ratio("furnished: full / bare rays", "furnished_full", "furnished_bare_rays", "(aim: at most 1.5)");
    ratio("demo: full / relight of six long luminaires", "full", "relight/0", "(aim: at least 100)");
    ratio("demo: full / relight of one downlight", "full", "relight/1", "(aim: at least 100)");
    ratio("furnished: full / relight of all six", "furnished_full", "furnished_relight",
          "(aim: at least 100)");
    ratio("with windows: full / relight of six", "windows_full", "windows_relight", "(aim: at least 100)");
    ratio("demo: full / other weights", "full", "weights", "(aim: at least 1000)");
    ratio("demo: full / six long luminaires moved", "full", "moved/0", "");
    ratio("demo: full / one downlight moved", "full", "moved/1", "");
    ratio("furnished: full / all six moved", "furnished_full", "furnished_moved", "");
    ratio("demo: remembering six places / moving them", "remember/0", "moved/0", "");
    fmt::print(FMT_STRING("{:<44} {:>6.0f}   ms (aim: at most 1000)\n"), "demo: 300 possible built rooms",
               median_["full_with_spread"] - median_["full"]);
    fmt::print(FMT_STRING("{:<44} {:>6.0f}   ms\n"), "demo with 522 points", median_["full_500"]);
  }

 private:
  std::map<std::string, double> median_;
};

int measure(const Words& words) {
  const auto add = [](const char* name, void (*function)(benchmark::State&)) {
    return benchmark::RegisterBenchmark(name, function)
        ->Unit(benchmark::kMillisecond)
        ->UseRealTime()
        ->Repetitions(15)
        ->MinTime(0.1)
        ->ReportAggregatesOnly(true);
  };
  add("bare_rays", bare_rays);
  add("full", full);
  add("full_with_spread", full_with_spread);
  add("relight", relight)->Arg(0)->Arg(1);
  add("weights", weights);
  add("moved", moved)->Arg(0)->Arg(1);
  add("remember", remember)->Arg(0);
  add("full_500", full_500);
  add("windows_full", windows_full);
  add("windows_relight", windows_relight);
  add("furnished_bare_rays", furnished_bare_rays);
  add("furnished_full", furnished_full);
  add("furnished_relight", furnished_relight);
  add("furnished_moved", furnished_moved);
  Ratios reporter;
  // Taken in turns, so that a slow minute of the machine falls on all alike.
  if (!run_registered(words.after("--benchmark_enable_random_interleaving=true"), &reporter)) return 1;
  reporter.print();
  return 0;
}

const Measurement known("room", measure);

}  // namespace
}  // namespace glow::bench::room_bench
