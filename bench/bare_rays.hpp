#pragma once

#include <benchmark/benchmark.h>
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>

#include <vector>

#include "core/transport/tracing/patch_rays.hpp"
#include "core/transport/transport.hpp"

namespace glow::bench {

struct Ray {
  Vec3f origin, direction;
};

/// All rays that Transport traces for the room: the same generators with the same seed.
inline std::vector<Ray> rays_of(const transport::Transport& transport, const transport::Effort& effort) {
  std::vector<Ray> rays;
  const auto keep = [&](const geometry::RayBlock& block) {
    for (int i = 0; i < block.size; ++i) rays.push_back({block.origin(i), block.direction(i)});
  };
  for (std::size_t i = 0; i < transport.patches().size(); ++i)
    for (int set = 0; set < transport::kSets; ++set)
      transport::PatchRays(transport.patches(), effort).each(int(i), set, keep);
  for (std::size_t r = 0; r < transport.receivers().size(); ++r)
    for (int set = 0; set < transport::kSets; ++set)
      transport::ReceiverRays(effort).each(transport.tracer(), transport.receivers()[r], r, set, keep);
  return rays;
}

/// Traces them by the tracer alone, on all threads, and throws away what they met.
inline void trace_bare(const geometry::RayTracer& tracer, const std::vector<Ray>& rays) {
  tbb::parallel_for(tbb::blocked_range<std::size_t>(0, rays.size(), 1024), [&](const auto& range) {
    int met = 0;
    for (std::size_t i = range.begin(); i != range.end(); ++i)
      met += tracer.bare_nearest(rays[i].origin, rays[i].direction);
    benchmark::DoNotOptimize(met);
  });
}

}  // namespace glow::bench
