// What a facade of neighbours costs: 200 luminaires and 1000 points, all pairs past what stands between,
// against as many bare rays; and the whole run of that yard.
#include <fmt/format.h>

#include "bench/benches.hpp"
#include "bench/timing.hpp"
#include "cli/open_project.hpp"
#include "core/assess/spill_reader.hpp"
#include "core/run/compute_room.hpp"
#include "core/run/room_pass.hpp"

namespace glow::bench::neighbours_bench {
namespace {

/// One ray from each point to the middle of each luminaire, on all threads.
double bare_rays(const space::Space& space, const transport::Transport& transport) {
  return seconds(3, [&] {
    parallel_for(space.neighbours.front().eyes.size(), {}, "rays", [&](std::size_t p) {
      const Vec3& eye = space.neighbours.front().eyes[p];
      for (const space::LuminaireGroup& group : space.groups)
        for (const photometry::PlacedLuminaire& luminaire : group.luminaires)
          transport.tracer().bare_nearest(transport.tracer().local(eye),
                                          (luminaire.frame.origin - eye).normalized().cast<float>());
    });
  });
}

int measure(const Words&) {
  const auto open = cli::open_project(GLOWGRID_SOURCE "/bench/neighbours_yard.toml");
  if (!open || open->rooms.empty()) return 1;
  const space::PlannedRoom plan = open->plan(open->rooms.front());
  const run::Pass pass = run::pass_over(plan.space, plan.brief, open->weights_of(plan),
                                        assess::ReadingPlan::whole(plan.space, plan.brief),
                                        transport::Effort::normal(), nullptr, {});
  std::size_t luminaires = 0;
  for (const space::LuminaireGroup& group : plan.space.groups) luminaires += group.luminaires.size();
  const std::size_t points = plan.space.neighbours.front().eyes.size();
  const double bare = bare_rays(plan.space, *pass.transport);
  const double seen = seconds(3, [&] { assess::SeenFromEyes(*pass.setting, {}); });
  const assess::SeenFromEyes eyes(*pass.setting, {});
  const double read = seconds(3, [&] { assess::read_spill(*pass.setting, eyes, pass.lit, {}, {}); });
  fmt::print(FMT_STRING("{} luminaires, {} points: {} pairs; bare rays {:.1f} ms, one for each pair\n"),
             luminaires, points, luminaires * points, 1e3 * bare);
  fmt::print(
      FMT_STRING(
          "sight of luminous areas {:.1f} ms, {:.1f} times the bare rays; k of all pairs {:.1f} ms, {:.1f} "
          "times; again with other weights the latter only\n"),
      1e3 * seen, seen / bare, 1e3 * read, read / bare);
  const double whole = seconds(
      1, [&] { run::compute_room(open->project, plan, *run::Accuracy::parse("normal"), nullptr, {}); });
  fmt::print(FMT_STRING("the whole yard {:.2f} s\n"), whole);
  return 0;
}

const Measurement known("neighbours", measure);

}  // namespace
}  // namespace glow::bench::neighbours_bench
