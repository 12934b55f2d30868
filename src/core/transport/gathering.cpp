#include "core/transport/gathering.hpp"

#include "core/transport/hit_tally.hpp"

namespace glow::transport {

Gathering::Gathering(const PatchSet& patches, const geometry::RayTracer& tracer,
                     std::vector<Receiver> receivers, int blocks_per_set, std::uint64_t seed,
                     const Watch& watch)
    : receivers_(std::move(receivers)), links_(receivers_.size()), set_begin_(receivers_.size()) {
  const std::size_t rays_per_set = std::size_t(blocks_per_set) * HemisphereDirections::kBlockSize;
  rays_ = receivers_.size() * kSets * rays_per_set;
  std::vector<char> buried(receivers_.size(), 0);
  parallel_for(receivers_.size(), watch, "what each point sees", [&](std::size_t r) {
    HitTally& tally = HitTally::of_this_thread(patches.patches().size());
    std::size_t from_behind = 0;
    int current = 0;
    const auto finish_set = [&] {
      tally.take([&](std::int32_t patch, std::int32_t hits) {
        links_[r].push_back({patch, float(hits) / float(rays_per_set)});
      });
      set_begin_[r][std::size_t(++current)] = static_cast<std::uint32_t>(links_[r].size());
    };
    ReceiverRays(seed).each(
        tracer, receivers_[r], r, kSets, blocks_per_set,
        [&](int set, const Vec3f& origin, const Vec3f& direction) {
          if (set != current) finish_set();
          const geometry::Hit hit = tracer.nearest(origin, direction);
          if (hit.from_behind) ++from_behind;
          if (hit.facet < 0 || hit.from_behind) return;
          tally.add(patches.patch_at(hit.facet, Vec3f(origin + hit.distance * direction)));
        });
    finish_set();
    buried[r] = from_behind > kSets * rays_per_set / 2;
  });
  for (std::size_t r = 0; r < buried.size(); ++r)
    if (buried[r]) buried_.push_back(r);
}

std::vector<double> Gathering::interreflected(const std::vector<double>& exitance) const {
  std::vector<double> result(receivers_.size() * kSets, 0.0);
  for (std::size_t r = 0; r < receivers_.size(); ++r)
    for (std::size_t set = 0; set < kSets; ++set) {
      double sum = 0;
      for (std::uint32_t k = set_begin_[r][set]; k < set_begin_[r][set + 1]; ++k)
        sum += double(links_[r][k].share) * exitance[std::size_t(links_[r][k].patch)];
      result[r * kSets + set] = sum;
    }
  return result;
}

}  // namespace glow::transport
