#pragma once

#include "core/assess/room_glare.hpp"
#include "core/space/space.hpp"
#include "core/transport/transport.hpp"

namespace glow::assess {

/// The luminaires of a room as sources of glare, as they are or with one of them changed. `space` and
/// `transport` must outlive it.
class RoomGlareSources {
 public:
  RoomGlareSources(const space::Space& space, const transport::Transport& transport);

  /// The luminaires of one source in other places, each giving `share` of what it gave.
  struct Change {
    const GlareSourceName* source;
    std::vector<photometry::PlacedLuminaire> placed;
    double share = 1;
  };

  const glare::GlareSources& as_they_are() const { return sources_; }
  glare::GlareSources with(const Change& change) const;
  const std::vector<GlareSourceName>& names() const { return names_; }
  /// The luminaires of a source where they are, to be changed.
  std::vector<photometry::PlacedLuminaire> placed(const GlareSourceName& source) const;

  /// What of the sources an eye sees past walls and things.
  std::vector<glare::SeenSource> seen_from(const glare::GlareSources& sources, const Vec3& eye) const {
    return sources.seen_from(eye, &transport_.tracer(), &transport_.occluders());
  }

 private:
  const space::Space& space_;
  const transport::Transport& transport_;
  glare::GlareSources sources_;
  std::vector<GlareSourceName> names_;
};

}  // namespace glow::assess
