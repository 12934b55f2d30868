#include "core/transport/tracing/traced_hits.hpp"

#include <algorithm>

namespace glow::transport {
namespace {

constexpr int kMostTurns = 64;  // mirrors and panes along one ray; more are met only between perfect mirrors

/// Where the rays of one thing land, block after block, in the order in which they are added.
class Landings {
 public:
  Landings(const PatchSet& patches, const geometry::RayTracer& tracer, std::int32_t* hits,
           std::uint64_t chance)
      : patches_(patches), tracer_(tracer), hits_(hits), chance_(chance) {}

  void add(const geometry::RayBlock& rays) {
    if (patches_.geometry().has_specular()) {
      for (int i = 0; i < rays.size; ++i)
        hits_[i] = landing_patch(patches_, tracer_, rays.origin(i), rays.direction(i),
                                 mixed(chance_, done_ + std::uint64_t(i)));
    } else {
      std::array<geometry::Hit, geometry::RayBlock::kMost> found;
      tracer_.nearest(rays, found.data());
      const std::int32_t nothing = patches_.geometry().enclosed() ? kBuried : kEscaped;
      for (int i = 0; i < rays.size; ++i) {
        const geometry::Hit& hit = found[std::size_t(i)];
        hits_[i] =
            hit.facet < 0 ? nothing
            : hit.from_behind
                ? kBuried
                : patches_.patch_at(hit.facet, Vec3f(rays.origin(i) + hit.distance * rays.direction(i)));
      }
    }
    hits_ += rays.size;
    done_ += std::uint64_t(rays.size);
  }

 private:
  const PatchSet& patches_;
  const geometry::RayTracer& tracer_;
  std::int32_t* hits_;
  std::uint64_t chance_, done_ = 0;  // number of the next ray
};

std::int32_t first_patch(const PatchSet& patches, const geometry::RayTracer& tracer, const Vec3f& origin,
                         const Vec3f& direction, int owner) {
  const geometry::Hit hit = tracer.nearest(origin, direction, owner);
  if (hit.facet < 0) return patches.geometry().enclosed() ? kBuried : kEscaped;
  if (hit.from_behind) return kBuried;
  return patches.patch_at(hit.facet, Vec3f(origin + hit.distance * direction));
}

/// Where the rays of each item begin among those of all, and where the last ones end.
template <class Item, class Rays>
std::vector<std::uint64_t> first_rays(const std::vector<Item>& items, const Rays& rays) {
  std::vector<std::uint64_t> begin = {0};
  begin.reserve(items.size() + 1);
  for (const Item& item : items)
    begin.push_back(begin.back() + std::uint64_t(kSets) * std::uint64_t(rays.rays_per_set(item)));
  return begin;
}

/// Within an object that stands against a wall, the covered pieces of floor and walls see each other and are
/// cut off from the room. Patches with most of their rays buried are held to be covered, and so are, in turn,
/// those that see little else; those that see more of the open room than a stray ray are let go again, in
/// turn.
void bury_covered(TracedHits& hits) {
  constexpr double kCovered = 0.5, kStray = 0.04;  // shares of a patch's rays
  const std::size_t n = hits.patch_begin.size() - 1;
  std::vector<char> covered(n, 0);
  const auto is_buried = [&](std::int32_t hit) {
    return hit == kBuried || (hit >= 0 && covered[std::size_t(hit)]);
  };
  const auto buried_share = [&](std::size_t i) {
    const auto begin = hits.of_patches.begin() + std::ptrdiff_t(hits.patch_begin[i]);
    const auto end = hits.of_patches.begin() + std::ptrdiff_t(hits.patch_begin[i + 1]);
    return begin == end ? 0.0 : double(std::count_if(begin, end, is_buried)) / double(end - begin);
  };
  std::vector<double> shares(n);
  const auto until_settled = [&](char from, const auto& changes) {
    for (bool changed = true; changed;) {
      changed = false;
      parallel_for(n, {}, "", [&](std::size_t i) { shares[i] = covered[i] == from ? buried_share(i) : 0; });
      for (std::size_t i = 0; i < n; ++i)
        if (covered[i] == from && changes(shares[i])) {
          covered[i] = char(1 - from);
          changed = true;
        }
    }
  };
  until_settled(0, [](double buried) { return buried > kCovered; });
  until_settled(1, [](double buried) { return buried < 1 - kStray; });
  if (std::none_of(covered.begin(), covered.end(), [](char c) { return c != 0; })) return;
  parallel_for(n, {}, "", [&](std::size_t i) {
    for (std::uint64_t k = hits.patch_begin[i]; k < hits.patch_begin[i + 1]; ++k)
      if (covered[i] || is_buried(hits.of_patches[k])) hits.of_patches[k] = kBuried;
  });
  for (std::int32_t& hit : hits.of_receivers)
    if (is_buried(hit)) hit = kBuried;
}

}  // namespace

bool TracedHits::fits(const PatchSet& patches, const std::vector<readings::Receiver>& receivers,
                      const Effort& effort) const {
  const std::int32_t n = std::int32_t(patches.size());
  const auto known = [n](std::int32_t hit) { return hit >= kBuried && hit < n; };
  return patch_begin == first_rays(patches.patches(), PatchRays(patches, effort)) &&
         of_patches.size() == patch_begin.back() &&
         receiver_begin == first_rays(receivers, ReceiverRays(effort)) &&
         of_receivers.size() == receiver_begin.back() &&
         std::all_of(of_patches.begin(), of_patches.end(), known) &&
         std::all_of(of_receivers.begin(), of_receivers.end(), known);
}

std::int32_t landing_patch(const PatchSet& patches, const geometry::RayTracer& tracer, Vec3f origin,
                           Vec3f direction, std::uint64_t chance, int owner, bool* mirrored) {
  if (mirrored) *mirrored = false;
  if (!patches.geometry().has_specular()) return first_patch(patches, tracer, origin, direction, owner);
  for (int turn = 0; turn < kMostTurns; ++turn) {
    const geometry::Hit hit = tracer.nearest(origin, direction, owner);
    if (hit.facet < 0) return patches.geometry().enclosed() && turn == 0 ? kBuried : kEscaped;
    if (hit.from_behind) return kBuried;
    const geometry::Facet& facet = patches.geometry().facets()[std::size_t(hit.facet)];
    const geometry::Material& material = patches.geometry().material_of(facet);
    const Vec3f place = origin + hit.distance * direction;
    const double number = unit_interval(mixed(chance, std::uint64_t(turn)));
    const Vec3f normal = facet.normal.cast<float>();
    const float lift = static_cast<float>(geometry::kStartOffset);
    if (number < material.mirror) {
      direction -= 2 * direction.dot(normal) * normal;
      if (mirrored) *mirrored = true;
      origin = place + lift * normal;
    } else if (number < material.mirror + material.clear) {
      origin = place - lift * normal;
    } else {
      return patches.patch_at(hit.facet, place);
    }
  }
  return kBuried;
}

TracedHits trace(const PatchSet& patches, const geometry::RayTracer& tracer,
                 const std::vector<readings::Receiver>& receivers, const Effort& effort, const Watch& watch) {
  TracedHits hits;
  const PatchRays patch_rays(patches, effort);
  const ReceiverRays receiver_rays(effort);
  hits.patch_begin = first_rays(patches.patches(), patch_rays);
  hits.of_patches.resize(hits.patch_begin.back());
  parallel_for(patches.size(), watch, "light exchange between surfaces", [&](std::size_t i) {
    Landings landings(patches, tracer, hits.of_patches.data() + hits.patch_begin[i], mixed(effort.seed, i));
    for (int set = 0; set < kSets; ++set)
      patch_rays.each(static_cast<int>(i), set, [&](const geometry::RayBlock& rays) { landings.add(rays); });
  });
  hits.receiver_begin = first_rays(receivers, receiver_rays);
  hits.of_receivers.resize(hits.receiver_begin.back());
  parallel_for(receivers.size(), watch, "what each point sees", [&](std::size_t r) {
    Landings landings(patches, tracer, hits.of_receivers.data() + hits.receiver_begin[r],
                      ~mixed(effort.seed, r));
    for (int set = 0; set < kSets; ++set)
      receiver_rays.each(tracer, receivers[r], r, set,
                         [&](const geometry::RayBlock& rays) { landings.add(rays); });
  });
  bury_covered(hits);
  return hits;
}

}  // namespace glow::transport
