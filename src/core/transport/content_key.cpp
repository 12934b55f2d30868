#include "core/transport/content_key.hpp"

#include <fmt/format.h>
#define XXH_INLINE_ALL  // its code comes with the header; nothing to link
#include <xxhash.h>

namespace glow::transport {
namespace {

constexpr std::uint32_t kWayOfTracing = 2;  // raise it when the same input would give other hits

/// Plain numbers, one after the other.
class Bytes {
 public:
  template <class Number>
  void add(Number number) {
    static_assert(std::is_arithmetic_v<Number>);
    const char* first = reinterpret_cast<const char*>(&number);
    bytes_.append(first, sizeof number);
  }
  void add(const Vec3& v) {
    for (int k = 0; k < 3; ++k) add(v[k]);
  }
  void add(const Vec2& v) {
    for (int k = 0; k < 2; ++k) add(v[k]);
  }
  const std::string& bytes() const { return bytes_; }

 private:
  std::string bytes_;
};

void add_geometry(Bytes& bytes, const geometry::Geometry& geometry) {
  bytes.add(geometry.enclosed());
  bytes.add(geometry.facets().size());
  for (const geometry::Facet& facet : geometry.facets()) {
    const geometry::Material& m = geometry.material_of(facet);
    for (const double share : {m.diffuse, m.mirror, m.clear, m.scattering}) bytes.add(share);
    for (const int number : {facet.surface, facet.back, facet.owner, int(facet.is_front)}) bytes.add(number);
    for (const Vec3& v : {facet.origin, facet.u, facet.v, facet.normal}) bytes.add(v);
    bytes.add(facet.vertices.size());
    for (const Vec2& p : facet.vertices) bytes.add(p);
    bytes.add(facet.triangles.size());
    for (const auto& triangle : facet.triangles)
      for (const int corner : triangle) bytes.add(corner);
    for (const geometry::Polygon& loop : facet.loops) {
      bytes.add(loop.size());
      for (const Vec2& p : loop) bytes.add(p);
    }
  }
}

}  // namespace

struct ContentChecksum::State {
  XXH3_state_t* hash = XXH3_createState();
  ~State() { XXH3_freeState(hash); }
};

ContentChecksum::ContentChecksum() : state_(std::make_unique<State>()) {
  XXH3_128bits_reset(state_->hash);
}

ContentChecksum::~ContentChecksum() = default;

void ContentChecksum::add(const void* bytes, std::size_t count) {
  XXH3_128bits_update(state_->hash, bytes, count);
}

std::string ContentChecksum::text() const {
  const XXH128_hash_t hash = XXH3_128bits_digest(state_->hash);
  return fmt::format(FMT_STRING("{:016x}{:016x}"), hash.high64, hash.low64);
}

std::string content_key(const geometry::Geometry& geometry, const std::vector<readings::Receiver>& receivers,
                        const Effort& effort) {
  Bytes bytes;
  bytes.add(kWayOfTracing);
  for (const int number : {effort.patches, effort.rays_per_patch, effort.rays_per_receiver})
    bytes.add(number);
  bytes.add(effort.seed);
  add_geometry(bytes, geometry);
  for (const readings::Receiver& receiver : receivers) {
    for (const Vec3& v : {receiver.position, receiver.normal, receiver.axis}) bytes.add(v);
    bytes.add(int(receiver.kernel));
    bytes.add(receiver.lean);
  }
  ContentChecksum checksum;
  checksum.add(bytes.bytes().data(), bytes.bytes().size());
  return checksum.text();
}

}  // namespace glow::transport
