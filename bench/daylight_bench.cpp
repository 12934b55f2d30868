// What daylight costs in each room of the demo that has a window, in the same run: the first moment (paths
// traced through the openings, then its light) against the transport that it stands on, all of it against
// the rays alone, and each further moment, the mean over a clear day of half hours, against the first.
//
//   bare rays   those of the transport, and as many from receivers and patches to places spread over the
//               same openings as the paths of daylight have, inside and on from there outside, prepared
//               beforehand, traced and thrown away
#include <fmt/format.h>

#include <algorithm>

#include "bench/bare_rays.hpp"
#include "bench/benches.hpp"
#include "bench/timing.hpp"
#include "cli/open_project.hpp"
#include "core/lighting/daylight.hpp"
#include "core/run/room_pass.hpp"

namespace glow::bench::daylight_bench {
namespace {

/// As sources::DaylightPaths sends them: to the openings, and on from there.
struct DayRays {
  std::vector<Ray> inside, outside;

  void add(const Vec3& eye, const Vec3& at, const Vec3& outwards, const transport::Transport& room,
           const geometry::RayTracer& beyond) {
    const Vec3 way = (at - eye).normalized();
    if (way.dot(outwards) <= 0) return;
    inside.push_back({room.tracer().local(eye), way.cast<float>()});
    outside.push_back({beyond.local(at), way.cast<float>()});
  }
};

DayRays day_rays(const space::Space& space, const transport::Transport& room,
                 const geometry::RayTracer& outside) {
  constexpr int kOfPatch = 16;
  DayRays rays;
  const auto spread = [&](const space::Opening& opening, std::uint32_t k) -> Vec3 {
    const Vec2 place = transport::even_point(k, Vec2(0.3, 0.7));
    return opening.corners[0] + place.x() * (opening.corners[1] - opening.corners[0]) +
           place.y() * (opening.corners[3] - opening.corners[0]);
  };
  const int openings = int(space.openings.size());
  for (const space::Opening& opening : space.openings) {
    for (const readings::Receiver& receiver : room.receivers()) {
      if (receiver.reflected_only) continue;
      const int share = (openings + 1) * (receiver.lean ? 4 : 1);
      const int count = transport::kSets * std::max(8, 2 * room.effort().rays_per_receiver / share);
      for (int k = 0; k < count; ++k) {
        const Vec3 at = spread(opening, std::uint32_t(k));
        if (receiver.weight((at - receiver.position).normalized()) > 0)
          rays.add(receiver.ray_start(), at, opening.outwards, room, outside);
      }
    }
    for (std::size_t i = 0; i < room.patches().size(); ++i) {
      const Vec3& normal = room.patches().facet_of(room.patches().patches()[i]).normal;
      for (int k = 0; k < transport::kSets * kOfPatch; ++k) {
        const Vec2 on = transport::even_point(std::uint32_t(k), Vec2(0.1, 0.6));
        const Vec3 eye = room.patches().point_on(int(i), on.x(), on.y()) + geometry::kStartOffset * normal;
        const Vec3 at = spread(opening, std::uint32_t(k));
        if (normal.dot(at - eye) > 0) rays.add(eye, at, opening.outwards, room, outside);
      }
    }
  }
  return rays;
}

int measure(const Words&) {
  const auto open = cli::open_project(GLOWGRID_SOURCE "/demo/millrace.toml");
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
        seconds(3, [&] { transport::Transport(plan.space.geometry, reading.receivers, effort, {}); });
    const transport::Transport transport(plan.space.geometry, reading.receivers, effort, {});
    const double paths = seconds(3, [&] { lighting::Daylight(plan.space, transport, {}, {}); });
    const lighting::Daylight light(plan.space, transport, {}, {});
    const double moment = seconds(3, [&] { light.at(*scene->moment, {}); });
    const std::vector<Ray> rays = rays_of(transport, effort);
    const DayRays of_day = day_rays(plan.space, transport, light.outdoors().tracer());
    const double bare = seconds(3, [&] {
      trace_bare(transport.tracer(), rays);
      trace_bare(transport.tracer(), of_day.inside);
      if (light.outdoors().built() > 0) trace_bare(light.outdoors().tracer(), of_day.outside);
    });
    const auto in_daylight = [](const space::PlannedMoment& step) { return !step.is_night; };
    const double whole_day = seconds(3, [&] {  // as a run has it: step beside step
      parallel_for(steps.size(), {}, "", [&](std::size_t k) {
        if (in_daylight(steps[k])) light.at(steps[k], {});
      });
    });
    const double further = whole_day / double(std::count_if(steps.begin(), steps.end(), in_daylight));
    fmt::print(
        FMT_STRING(
            "{:<16} transport {:4.0f} ms, first moment {:4.0f} ms more ({:.2f} times it), each further "
            "one {:5.1f} ms (1/{:.0f} of transport and first); a day of {} steps {:.2f} times it; paths "
            "{:.1f} MB\n  all of it / bare rays {:.2f} ({} of the transport, {} of daylight, twice)\n"),
        room.name(), 1e3 * traced, 1e3 * (paths + moment), (paths + moment) / traced, 1e3 * further,
        (traced + paths + moment) / further, steps.size(), whole_day / (traced + paths + moment),
        double(light.memory()) / 1e6, (traced + paths + moment) / bare, rays.size(), of_day.inside.size());
  }
  return 0;
}

const Measurement known("daylight", measure);

}  // namespace
}  // namespace glow::bench::daylight_bench
