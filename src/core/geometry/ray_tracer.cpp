#include "core/geometry/ray_tracer.hpp"

#include <embree3/rtcore.h>
#include <tbb/task_arena.h>

#include <algorithm>
#include <array>
#include <limits>
#include <map>
#include <stdexcept>

namespace glow::geometry {

namespace {

constexpr unsigned kClearMesh = 1;  // number of the mesh that lets light through; that of the others is 0
constexpr float kEndless = std::numeric_limits<float>::infinity();

}  // namespace

struct RayTracer::Scene {
  RTCDevice device = nullptr;
  RTCScene space = nullptr;  // what lets light through is a mesh of its own, after the others
  Vec3 origin = Vec3::Zero();
  std::vector<int> facet_of_triangle;
  unsigned first_clear = 0;  // number of its first triangle
  struct Side {
    Vec3f normal;
    int back, owner;
    float clear;
  };
  std::vector<Side> facets;
  std::map<int, std::vector<bool>> owned;  // by owner: which triangles are its own

  std::size_t triangle(unsigned mesh, unsigned number_in_mesh) const {
    return std::size_t((mesh == kClearMesh ? first_clear : 0) + number_in_mesh);
  }
  /// Null: nothing is.
  const std::vector<bool>* owned_by(int owner) const {
    const auto found = owner == kNobody ? owned.end() : owned.find(owner);
    return found == owned.end() ? nullptr : &found->second;
  }

  Scene() = default;
  Scene(const Scene&) = delete;
  Scene& operator=(const Scene&) = delete;
  ~Scene() {
    if (space) rtcReleaseScene(space);
    if (device) rtcReleaseDevice(device);
  }
};

struct RayTracer::Arrays {
  std::vector<float> vertices;
  std::vector<unsigned> indices;

  /// Of what lets light through, or of all else.
  Arrays(const Geometry& geometry, const Vec3& origin, bool clear, std::vector<int>& facet_of_triangle);
};

RayTracer::Arrays::Arrays(const Geometry& geometry, const Vec3& origin, bool clear,
                          std::vector<int>& facet_of_triangle) {
  for (std::size_t f = 0; f < geometry.facets().size(); ++f) {
    const Facet& facet = geometry.facets()[f];
    if (!facet.is_front) continue;  // its front is there already
    if ((geometry.material_of(facet).clear > 0) != clear) continue;
    const unsigned first = static_cast<unsigned>(vertices.size() / 3);
    for (const Vec2& p : facet.vertices) {
      const Vec3 corner = facet.at(p) - origin;
      for (int k = 0; k < 3; ++k) vertices.push_back(static_cast<float>(corner[k]));
    }
    for (const auto& triangle : facet.triangles) {
      for (const int corner : triangle) indices.push_back(first + static_cast<unsigned>(corner));
      facet_of_triangle.push_back(static_cast<int>(f));
    }
  }
}

/// A query: what it looks through, and what it has passed.
struct RayTracer::Query {
  RTCIntersectContext context;  // first: embree hands out the address of the whole
  const Scene& scene;
  const std::vector<bool>* is_owned;  // null: nothing is looked through
  float share = 1;                    // of light that came through panes
  std::vector<int> panes = {};        // facets that were met, each once

  Query(const Scene& of, int owner) : scene(of), is_owned(of.owned_by(owner)) {
    rtcInitIntersectContext(&context);
    if (is_owned) context.filter = look_through;
  }

  RTCRayHit first(const Vec3f& origin, const Vec3f& direction);

  /// Rays are sent one by one.
  static void look_through(const RTCFilterFunctionNArguments* hit) {
    const Query& query = *reinterpret_cast<const Query*>(hit->context);
    if ((*query.is_owned)[query.triangle(*hit)]) hit->valid[0] = 0;
  }
  /// Nothing clear ever lies in between: it takes its share and is passed. The search tree may find it twice.
  static void pass(const RTCFilterFunctionNArguments* hit) {
    Query& query = *reinterpret_cast<Query*>(hit->context);
    hit->valid[0] = 0;
    const std::size_t triangle = query.triangle(*hit);
    const int facet = query.scene.facet_of_triangle[triangle];
    if ((query.is_owned && (*query.is_owned)[triangle]) ||
        std::find(query.panes.begin(), query.panes.end(), facet) != query.panes.end())
      return;
    query.panes.push_back(facet);
    query.share *= query.scene.facets[std::size_t(facet)].clear;
  }

 private:
  std::size_t triangle(const RTCFilterFunctionNArguments& hit) const {
    return scene.triangle(RTCHitN_geomID(hit.hit, hit.N, 0), RTCHitN_primID(hit.hit, hit.N, 0));
  }
};

void RayTracer::attach(const Arrays& arrays, unsigned number) {
  if (arrays.indices.empty()) return;
  RTCGeometry mesh = rtcNewGeometry(space_->device, RTC_GEOMETRY_TYPE_TRIANGLE);
  void* vertices = rtcSetNewGeometryBuffer(mesh, RTC_BUFFER_TYPE_VERTEX, 0, RTC_FORMAT_FLOAT3,
                                           3 * sizeof(float), arrays.vertices.size() / 3);
  void* indices = rtcSetNewGeometryBuffer(mesh, RTC_BUFFER_TYPE_INDEX, 0, RTC_FORMAT_UINT3,
                                          3 * sizeof(unsigned), arrays.indices.size() / 3);
  if (!vertices || !indices) throw std::bad_alloc();
  std::copy(arrays.vertices.begin(), arrays.vertices.end(), static_cast<float*>(vertices));
  std::copy(arrays.indices.begin(), arrays.indices.end(), static_cast<unsigned*>(indices));
  if (number == kClearMesh) rtcSetGeometryOccludedFilterFunction(mesh, Query::pass);
  rtcCommitGeometry(mesh);
  rtcAttachGeometryByID(space_->space, mesh, number);
  rtcReleaseGeometry(mesh);
}

RayTracer::RayTracer(const Geometry& geometry) : space_(std::make_unique<Scene>()) {
  // One instruction set: with AVX-512 distances differ in the last digits, and results would depend on the
  // machine.
  space_->device = rtcNewDevice("max_isa=avx2,set_affinity=0");
  if (!space_->device) throw std::runtime_error("the ray tracing library could not be started");
  space_->origin = geometry.middle();
  for (const Facet& facet : geometry.facets())
    space_->facets.push_back({facet.normal.cast<float>(), facet.back, facet.owner,
                              static_cast<float>(geometry.material_of(facet).clear)});
  std::vector<int>& facets = space_->facet_of_triangle;
  const Arrays opaque(geometry, space_->origin, false, facets);
  space_->first_clear = static_cast<unsigned>(facets.size());
  const Arrays clear(geometry, space_->origin, true, facets);
  for (std::size_t t = 0; t < facets.size(); ++t)
    if (const int owner = space_->facets[std::size_t(facets[t])].owner; owner != kNobody) {
      std::vector<bool>& own = space_->owned[owner];
      own.resize(facets.size());
      own[t] = true;
    }
  space_->space = rtcNewScene(space_->device);
  attach(opaque, 0);
  attach(clear, kClearMesh);
  rtcSetSceneFlags(space_->space,
                   space_->owned.empty()
                       ? RTC_SCENE_FLAG_ROBUST
                       : RTCSceneFlags(RTC_SCENE_FLAG_ROBUST | RTC_SCENE_FLAG_CONTEXT_FILTER_FUNCTION));
  rtcSetSceneBuildQuality(space_->space, RTC_BUILD_QUALITY_HIGH);
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

}  // namespace

/// What is met first.
RTCRayHit RayTracer::Query::first(const Vec3f& origin, const Vec3f& direction) {
  RTCRayHit ray;
  ray.ray = ray_from(origin, direction, kEndless);
  ray.hit.geomID = RTC_INVALID_GEOMETRY_ID;
  rtcIntersect1(scene.space, &context, &ray);
  return ray;
}

Hit RayTracer::nearest(const Vec3f& origin, const Vec3f& direction, int owner) const {
  const RTCRayHit ray = Query(*space_, owner).first(origin, direction);
  if (ray.hit.geomID == RTC_INVALID_GEOMETRY_ID) return {};
  const int facet = space_->facet_of_triangle[space_->triangle(ray.hit.geomID, ray.hit.primID)];
  const Scene::Side& side = space_->facets[std::size_t(facet)];
  const bool from_behind = side.normal.dot(direction) > 0;
  if (from_behind && side.back >= 0) return {side.back, ray.ray.tfar, false};
  return {facet, ray.ray.tfar, from_behind};
}

void RayTracer::nearest(const RayBlock& rays, Hit* hits) const {
  Query query(*space_, kNobody);
  for (int i = 0; i < rays.size; ++i) {
    const RTCRayHit ray = query.first(rays.origin(i), rays.direction(i));
    const bool met = ray.hit.geomID != RTC_INVALID_GEOMETRY_ID;
    hits[i] = {met ? int(space_->triangle(ray.hit.geomID, ray.hit.primID)) : -1, ray.ray.tfar, false};
  }
  settle_sides(rays, hits);
}

void RayTracer::nearest_side_by_side(const RayBlock& rays, Hit* hits) const {
  constexpr int kTogether = 8;
  static_assert(RayBlock::kMost % kTogether == 0);
  Query query(*space_, kNobody);
  query.context.flags = RTC_INTERSECT_CONTEXT_FLAG_COHERENT;
  for (int first = 0; first < rays.size; first += kTogether) {
    RTCRayHit8 ray;
    alignas(32) std::array<int, kTogether> valid;
    for (int k = 0; k < kTogether; ++k) {
      const int i = std::min(first + k, rays.size - 1);
      const RTCRay own = ray_from(rays.origin(i), rays.direction(i), kEndless);
      valid[std::size_t(k)] = i == first + k ? -1 : 0;
      ray.ray.org_x[k] = own.org_x, ray.ray.org_y[k] = own.org_y, ray.ray.org_z[k] = own.org_z;
      ray.ray.dir_x[k] = own.dir_x, ray.ray.dir_y[k] = own.dir_y, ray.ray.dir_z[k] = own.dir_z;
      ray.ray.tnear[k] = own.tnear, ray.ray.tfar[k] = own.tfar, ray.ray.time[k] = own.time;
      ray.ray.mask[k] = own.mask, ray.ray.flags[k] = own.flags;
      ray.hit.geomID[k] = RTC_INVALID_GEOMETRY_ID;
    }
    rtcIntersect8(valid.data(), space_->space, &query.context, &ray);
    for (int k = 0; k < kTogether && first + k < rays.size; ++k) {
      const bool met = ray.hit.geomID[k] != RTC_INVALID_GEOMETRY_ID;
      hits[first + k] = {met ? int(space_->triangle(ray.hit.geomID[k], ray.hit.primID[k])) : -1,
                         ray.ray.tfar[k], false};
    }
  }
  settle_sides(rays, hits);
}

/// Of triangles that were met, to facets and which side of them: in a loop of its own, whose steps do not
/// wait for each other.
void RayTracer::settle_sides(const RayBlock& rays, Hit* hits) const {
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
  RTCRay ray = ray_from(local(from), (way / length).cast<float>(), static_cast<float>(length - kStartOffset));
  Query query(*space_, owner);
  rtcOccluded1(space_->space, &query.context, &ray);
  return ray.tfar < 0 ? 0 : query.share;
}

bool RayTracer::bare_nearest(const Vec3f& origin, const Vec3f& direction) const {
  return Query(*space_, kNobody).first(origin, direction).hit.geomID != RTC_INVALID_GEOMETRY_ID;
}

Vec3f RayTracer::local(const Vec3& world) const {
  return (world - space_->origin).cast<float>();
}

}  // namespace glow::geometry
