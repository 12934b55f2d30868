// What glare costs: eyes and luminaires a second, the map of a room, the table of a luminaire.
//
//   sweep   UGR sums of 1000 eyes in 4 directions for 12 luminaires, nothing hidden; items: eye, direction,
//           luminaire
//   direct  what the same light costs as direct illuminance at the same eyes, from points: to compare with
//   room    a room of 60 m2 with 12 luminaires without its eyes, from nothing
//   map     the same with UGR of eyes every 0.5 m in 4 directions, and what the worst luminaire could do
//   table   the table of CIE 190 of one luminaire, 19 rooms; headline: its two values on the data sheet
#include "bench/repeated.hpp"
#include "cli/open_project.hpp"
#include "core/cavity/ugr_table.hpp"
#include "core/glare/unified_glare.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/run/compute_room.hpp"
#include "core/sources/direct/direct_light.hpp"

namespace glow::bench::glare_bench {
namespace {

const cli::OpenProject& open() {
  static const std::unique_ptr<cli::OpenProject> opened =
      cli::open_project(GLOWGRID_SOURCE "/bench/glare_room.toml");
  return *opened;
}
const space::PlannedRoom& planned_room() {
  static const space::PlannedRoom room = open().plan(open().rooms.at(0));
  return room;
}
const space::Space& room() {
  return planned_room().space;
}

std::vector<Vec3> many_eyes() {
  std::vector<Vec3> eyes;
  for (int i = 0; i < 40; ++i)
    for (int j = 0; j < 25; ++j) eyes.emplace_back(0.5 + 9.0 * i / 39, 0.5 + 5.0 * j / 24, 1.2);
  return eyes;
}

const std::vector<photometry::PlacedLuminaire>& luminaires() {
  return room().groups.at(0).luminaires;
}

void sweep(benchmark::State& state) {
  glare::GlareSources sources;
  for (const auto& luminaire : luminaires()) sources.add(luminaire, 1);
  const std::vector<Vec3> eyes = many_eyes();
  for (auto _ : state)
    for (const Vec3& eye : eyes) {
      const auto seen = sources.seen_from(eye, nullptr, nullptr);
      for (const Vec3& sight : {Vec3(1, 0, 0), Vec3(0, 1, 0), Vec3(-1, 0, 0), Vec3(0, -1, 0)})
        benchmark::DoNotOptimize(glare::unified_glare(seen, eye, sight, 100).value);
    }
  state.SetItemsProcessed(state.iterations() * std::int64_t(eyes.size() * 4 * luminaires().size()));
}

void direct(benchmark::State& state) {
  std::vector<photometry::PlacedLuminaire> points = luminaires();
  for (auto& point : points) point.area = {};
  const std::vector<Vec3> eyes = many_eyes();
  for (auto _ : state)
    for (const Vec3& eye : eyes)
      for (const Vec3& sight : {Vec3(1, 0, 0), Vec3(0, 1, 0), Vec3(-1, 0, 0), Vec3(0, -1, 0)})
        for (const auto& point : points)
          benchmark::DoNotOptimize(sources::DirectLight(point, nullptr).plane_illuminance(eye, sight));
  state.SetItemsProcessed(state.iterations() * std::int64_t(eyes.size() * 4 * points.size()));
}

void compute(benchmark::State& state, bool with_eyes) {
  space::PlannedRoom planned = planned_room();
  space::Space& space = planned.space;
  if (!with_eyes) space.eyes.clear();
  std::size_t views = 0;
  for (const space::EyeSet& set : space.eyes) views += set.size();
  for (auto _ : state)
    benchmark::DoNotOptimize(
        run::compute_room(open().project, planned, *run::Accuracy::parse("normal"), nullptr, {})
            .record.assessment.status);
  state.counters["views"] = double(views);
}

void table(benchmark::State& state) {
  for (auto _ : state) benchmark::DoNotOptimize(cavity::ugr_table(*room().groups.at(0).photometry));
}

void headline(benchmark::State& state) {
  for (auto _ : state) benchmark::DoNotOptimize(cavity::ugr_headline(*room().groups.at(0).photometry));
}

int measure(const Words& words) {
  const auto add = [](const char* name, const auto& function) {
    return benchmark::RegisterBenchmark(name, function)->Unit(benchmark::kMillisecond);
  };
  add("sweep", sweep);
  add("direct", direct);
  add("compute/room", [](benchmark::State& state) { compute(state, false); })->UseRealTime();
  add("compute/map", [](benchmark::State& state) { compute(state, true); })->UseRealTime();
  add("table", table);
  add("headline", headline);
  return run_registered(words) ? 0 : 1;
}

const Measurement known("glare", measure);

}  // namespace
}  // namespace glow::bench::glare_bench
