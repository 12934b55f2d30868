#include "core/geometry/ray_tracer.hpp"

#include <embree3/rtcore.h>
#include <tbb/task_arena.h>

#include <limits>
#include <map>
#include <stdexcept>

namespace glow::geometry {

struct RayTracer::Scene {
  RTCDevice device = nullptr;
  RTCScene space = nullptr;
  Vec3 origin = Vec3::Zero();
  std::vector<int> facet_of_triangle;
  struct Side {
    Vec3f normal;
    int back, owner;
    float clear;
  };
  std::vector<Side> facets;
  bool opaque = true;                      // nothing lets light through, no facet belongs to a luminaire
  std::map<int, std::vector<bool>> owned;  // by owner: which triangles are its own

  Scene() = default;
  Scene(const Scene&) = delete;
  Scene& operator=(const Scene&) = delete;
  ~Scene() {
    if (space) rtcReleaseScene(space);
    if (device) rtcReleaseDevice(device);
  }
};

namespace {

struct Arrays {
  std::vector<float> vertices;
  std::vector<unsigned> indices;
};

Arrays arrays_of(const Geometry& geometry, const Vec3& origin, std::vector<int>& facet_of_triangle) {
  Arrays arrays;
  for (std::size_t f = 0; f < geometry.facets().size(); ++f) {
    const Facet& facet = geometry.facets()[f];
    if (!facet.is_front) continue;  // its front is there already
    const unsigned first = static_cast<unsigned>(arrays.vertices.size() / 3);
    for (const Vec2& p : facet.vertices) {
      const Vec3 corner = facet.at(p) - origin;
      for (int k = 0; k < 3; ++k) arrays.vertices.push_back(static_cast<float>(corner[k]));
    }
    for (const auto& triangle : facet.triangles) {
      for (const int corner : triangle) arrays.indices.push_back(first + static_cast<unsigned>(corner));
      facet_of_triangle.push_back(static_cast<int>(f));
    }
  }
  return arrays;
}

}  // namespace

RayTracer::RayTracer(const Geometry& geometry) : space_(std::make_unique<Scene>()) {
  // One instruction set: with AVX-512 distances differ in the last digits, and results would depend on the
  // machine.
  space_->device = rtcNewDevice("max_isa=avx2,set_affinity=0");
  if (!space_->device) throw std::runtime_error("the ray tracing library could not be started");
  space_->origin = geometry.middle();
  for (const Facet& facet : geometry.facets()) {
    const float clear = static_cast<float>(geometry.material_of(facet).clear);
    space_->facets.push_back({facet.normal.cast<float>(), facet.back, facet.owner, clear});
    space_->opaque = space_->opaque && clear == 0 && facet.owner == kNobody;
  }
  const Arrays arrays = arrays_of(geometry, space_->origin, space_->facet_of_triangle);
  for (std::size_t t = 0; t < space_->facet_of_triangle.size(); ++t)
    if (const int owner = space_->facets[std::size_t(space_->facet_of_triangle[t])].owner; owner != kNobody) {
      std::vector<bool>& own = space_->owned[owner];
      own.resize(space_->facet_of_triangle.size());
      own[t] = true;
    }
  space_->space = rtcNewScene(space_->device);
  rtcSetSceneFlags(space_->space,
                   space_->owned.empty()
                       ? RTC_SCENE_FLAG_ROBUST
                       : RTCSceneFlags(RTC_SCENE_FLAG_ROBUST | RTC_SCENE_FLAG_CONTEXT_FILTER_FUNCTION));
  rtcSetSceneBuildQuality(space_->space, RTC_BUILD_QUALITY_HIGH);
  if (!arrays.indices.empty()) {
    RTCGeometry mesh = rtcNewGeometry(space_->device, RTC_GEOMETRY_TYPE_TRIANGLE);
    void* vertices = rtcSetNewGeometryBuffer(mesh, RTC_BUFFER_TYPE_VERTEX, 0, RTC_FORMAT_FLOAT3,
                                             3 * sizeof(float), arrays.vertices.size() / 3);
    void* indices = rtcSetNewGeometryBuffer(mesh, RTC_BUFFER_TYPE_INDEX, 0, RTC_FORMAT_UINT3,
                                            3 * sizeof(unsigned), arrays.indices.size() / 3);
    if (!vertices || !indices) throw std::bad_alloc();
    std::copy(arrays.vertices.begin(), arrays.vertices.end(), static_cast<float*>(vertices));
    std::copy(arrays.indices.begin(), arrays.indices.end(), static_cast<unsigned*>(indices));
    rtcCommitGeometry(mesh);
    rtcAttachGeometry(space_->space, mesh);
    rtcReleaseGeometry(mesh);
  }
  // On one thread, so that the search tree, and with it the choice between two facets met at the very same
  // distance, is always the same. (The device's own "threads=1" would limit the whole program.)
  tbb::task_arena alone(1);
  alone.execute([&] { rtcCommitScene(space_->space); });
}

RayTracer::~RayTracer() = default;
RayTracer::RayTracer(RayTracer&&) noexcept = default;
RayTracer& RayTracer::operator=(RayTracer&&) noexcept = default;

namespace {

RTCRay ray_from(const Vec3f& origin, const Vec3f& direction, float length) {
  RTCRay ray;
  ray.org_x = origin.x();
  ray.org_y = origin.y();
  ray.org_z = origin.z();
  ray.dir_x = direction.x();
  ray.dir_y = direction.y();
  ray.dir_z = direction.z();
  ray.tnear = 0;
  ray.tfar = length;
  ray.time = 0;
  ray.mask = ~0u;
  ray.flags = 0;
  return ray;
}

/// A query that looks through what belongs to one owner.
struct ThroughOwner {
  RTCIntersectContext context;  // first: embree hands out the address of the whole
  const std::vector<bool>* is_owned;
};

void look_through(const RTCFilterFunctionNArguments* hit) {
  // Rays are sent one by one.
  const ThroughOwner& query = *reinterpret_cast<const ThroughOwner*>(hit->context);
  if ((*query.is_owned)[RTCHitN_primID(hit->hit, hit->N, 0)]) hit->valid[0] = 0;
}

RTCRayHit traced(RTCScene space, const Vec3f& origin, const Vec3f& direction,
                 const std::vector<bool>* looked_through = nullptr) {
  RTCRayHit query;
  query.ray = ray_from(origin, direction, std::numeric_limits<float>::infinity());
  query.hit.geomID = RTC_INVALID_GEOMETRY_ID;
  ThroughOwner through;
  rtcInitIntersectContext(&through.context);
  through.is_owned = looked_through;
  if (looked_through) through.context.filter = look_through;
  rtcIntersect1(space, &through.context, &query);
  return query;
}

}  // namespace

Hit RayTracer::nearest(const Vec3f& origin, const Vec3f& direction, int owner) const {
  const auto owned = owner == kNobody ? space_->owned.end() : space_->owned.find(owner);
  const RTCRayHit query =
      traced(space_->space, origin, direction, owned == space_->owned.end() ? nullptr : &owned->second);
  if (query.hit.geomID == RTC_INVALID_GEOMETRY_ID) return {};
  const int facet = space_->facet_of_triangle[query.hit.primID];
  const Scene::Side& side = space_->facets[std::size_t(facet)];
  const bool from_behind = side.normal.dot(direction) > 0;
  if (from_behind && side.back >= 0) return {side.back, query.ray.tfar, false};
  return {facet, query.ray.tfar, from_behind};
}

void RayTracer::nearest(const RayBlock& rays, Hit* hits) const {
  RTCIntersectContext context;
  rtcInitIntersectContext(&context);
  for (int i = 0; i < rays.size; ++i) {
    RTCRayHit query;
    query.ray = ray_from(rays.origin(i), rays.direction(i), std::numeric_limits<float>::infinity());
    query.hit.geomID = RTC_INVALID_GEOMETRY_ID;
    rtcIntersect1(space_->space, &context, &query);
    const bool met = query.hit.geomID != RTC_INVALID_GEOMETRY_ID;
    hits[i] = {met ? static_cast<int>(query.hit.primID) : -1, query.ray.tfar, false};
  }
  // What was met is looked up in a loop of its own, whose steps do not wait for each other.
  for (int i = 0; i < rays.size; ++i) {
    if (hits[i].facet < 0) continue;
    const int facet = space_->facet_of_triangle[std::size_t(hits[i].facet)];
    const Scene::Side& side = space_->facets[std::size_t(facet)];
    const bool from_behind = side.normal.dot(rays.direction(i)) > 0;
    const bool two_sided = from_behind && side.back >= 0;
    hits[i].facet = two_sided ? side.back : facet;
    hits[i].from_behind = from_behind && !two_sided;
  }
}

float RayTracer::passed(const Vec3& from, const Vec3& to, int owner) const {
  const Vec3 way = to - from;
  const double length = way.norm();
  if (length <= 2 * kStartOffset) return 1;
  const Vec3f direction = (way / length).cast<float>();
  Vec3f origin = local(from);
  float rest = static_cast<float>(length - kStartOffset);
  if (space_->opaque) {
    RTCRay ray = ray_from(origin, direction, rest);
    RTCIntersectContext context;
    rtcInitIntersectContext(&context);
    rtcOccluded1(space_->space, &context, &ray);
    return ray.tfar < 0 ? 0.0f : 1.0f;
  }
  float share = 1, beyond = static_cast<float>(kStartOffset);
  int last = -1;
  while (share > 0) {
    const Hit hit = nearest(origin, direction, owner);
    if (hit.facet < 0 || hit.distance >= rest) return share;
    // A sight line along a pane meets it again and again: it passes once, in growing steps.
    if (hit.facet == last)
      beyond *= 2;
    else
      share *= space_->facets[std::size_t(hit.facet)].clear;
    last = hit.facet;
    const float step = hit.distance + beyond;
    origin += step * direction;
    rest -= step;
  }
  return 0;
}

bool RayTracer::bare_nearest(const Vec3f& origin, const Vec3f& direction) const {
  return traced(space_->space, origin, direction).hit.geomID != RTC_INVALID_GEOMETRY_ID;
}

Vec3f RayTracer::local(const Vec3& world) const {
  return (world - space_->origin).cast<float>();
}

}  // namespace glow::geometry
