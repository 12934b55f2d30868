#include "core/run/workload.hpp"

#include <algorithm>
#include <chrono>
#include <cmath>

#include "core/geometry/ray_tracer.hpp"
#include "core/run/run_rooms.hpp"

namespace glow::run {
namespace {

// What else comes with a room's rays, counted in rays that take as long: measured on rooms with one to nine
// scenes, a hundred to two thousand points.
constexpr double kOfLight = 2.2;        // per ray: light, readings, causes and mends
constexpr double kOfRoom = 0.5e6;       // tables and figures
constexpr double kOfSky = 4e6;          // a moment
constexpr double kOfTrials = 6e6;       // what would help an opening
constexpr double kOfStep = 0.2e6;       // of a course of a day
constexpr double kOfYear = 9e6;         // of daylight
constexpr double kOfYearTrials = 14e6;  // what would help it
constexpr double kOfVariant = 0.5;  // of a room whose daylight, and mostly its surfaces, are the project's
constexpr double kOfPicture = 1e6;  // small ones, as `run` makes them

/// Seconds that one ray takes in this room, on one thread.
double seconds_per_ray(const space::PlannedRoom& room) {
  constexpr int kBlocks = 160;
  const geometry::RayTracer tracer(room.space.geometry);
  const geometry::Box2 box = geometry::bounding_box(room.space.outline);
  const Vec2 middle = (box.low + box.high) / 2;
  const Vec3f origin = tracer.local({middle.x(), middle.y(), room.space.height_m / 2});
  geometry::RayBlock rays;
  rays.size = geometry::RayBlock::kMost;
  geometry::Hit hits[geometry::RayBlock::kMost];
  const auto begin = std::chrono::steady_clock::now();
  int number = 0;
  for (int block = 0; block < kBlocks; ++block) {
    for (std::size_t i = 0; i < std::size_t(rays.size); ++i) {
      // Even over the sphere, one after the other far apart, as rays of a patch are.
      const double z = 1 - 2 * std::fmod(0.5 + 0.6180339887 * ++number, 1.0);
      const double azimuth = 2 * M_PI * std::fmod(0.7548776662 * number, 1.0);
      const Vec3f direction(float(std::sqrt(1 - z * z) * std::cos(azimuth)),
                            float(std::sqrt(1 - z * z) * std::sin(azimuth)), float(z));
      rays.set(i, origin, direction);
    }
    tracer.nearest(rays, hits);
  }
  const std::chrono::duration<double> taken = std::chrono::steady_clock::now() - begin;
  return taken.count() / number;
}

}  // namespace

Workload workload_of(const space::PlannedRoom& room) {
  constexpr double kLean = 0.25;
  Workload work;
  for (const space::Grid& grid : room.space.grids) {
    if (grid.grid.points.empty()) continue;
    work.points += grid.grid.points.size();
    if (grid.is_looked_at() || grid.role == space::GridRole::daylight_plane)
      work.year_points += grid.grid.points.size();
    work.receivers += double(grid.grid.points.size()) * (grid.receiver(0).lean ? kLean : 1);
  }
  for (const space::EyeSet& set : room.space.eyes) work.receivers += kLean * double(set.size());
  std::size_t seen = 1;
  for (const space::PlannedScene& scene : room.scenes) {
    const bool verified = scene.brief.daylight && !scene.asks_as_room;
    work.skies += scene.moment.has_value();
    work.verified_skies += verified;
    work.steps += scene.series.size();
    work.years += scene.year.has_value();
    work.asked_years += scene.year && std::any_of(scene.brief.grids.begin(), scene.brief.grids.end(),
                                                  [](const auto& grid) { return !grid.demands.empty(); });
    seen += !scene.emergency && !verified && !scene.year;
  }
  work.pictures = room.views.size() * seen;
  return work;
}

double rays_of(const Workload& work, const Accuracy& accuracy) {
  const transport::Effort& effort = accuracy.effort;
  return transport::kSets *
         (double(effort.patches) * effort.rays_per_patch + work.receivers * effort.rays_per_receiver);
}

double memory_of(const Workload& work, const Accuracy& accuracy) {
  constexpr double kRest = 60e6;     // exchange between patches, and what a room itself takes
  constexpr double kRefinement = 3;  // times the first pass, of what is looked at again
  constexpr double kYear =
      250e6;  // skies and suns of its hours, coefficients of some points, both ways of blinds
  return kRest + kYear * double(work.years) +
         (1 + kRefinement) * sizeof(std::int32_t) * rays_of(work, accuracy);
}

Cost expected_cost(const RunPlan& plan) {
  Cost cost;
  cost.rooms = plan.rooms.size();
  double rays = 0;
  const RoomJob* largest = nullptr;
  for (const RoomJob& job : plan.rooms) {
    const Workload& work = job.work;
    cost.points += work.points;
    cost.rays += rays_of(work, plan.accuracy);
    cost.shares.push_back(kOfRoom + kOfLight * rays_of(work, plan.accuracy) + kOfSky * double(work.skies) +
                          kOfTrials * double(work.verified_skies) + kOfYear * double(work.years) +
                          kOfYearTrials * double(work.asked_years) + kOfStep * double(work.steps) +
                          (plan.studies.pictures ? kOfPicture * double(work.pictures) : 0.0));
    rays += cost.shares.back();
    if (!largest || work.receivers > largest->work.receivers) largest = &job;
  }
  for (const Workload& work : plan.after) {
    ++cost.after;
    rays += kOfVariant * (kOfRoom + kOfLight * rays_of(work, plan.accuracy));
  }
  for (double& share : cost.shares) share /= rays;
  if (largest) cost.seconds = rays * seconds_per_ray(largest->plan()) / thread_count();
  return cost;
}

}  // namespace glow::run
