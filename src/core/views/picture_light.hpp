#pragma once

#include "core/views/reflected_field.hpp"

namespace glow::views {

/// All light on a place that is looked at, source after source: as it is told in ways (RoomSources::bands).
/// What casts shadows is found anew, the rest is the field's.
inline void light_at(const RoomSources& sources, const ReflectedField& field, const Place& place,
                     const sources::SunCell& cell, double tolerance, double* lux) {
  field.at(place, lux);
  std::vector<double> straight(sources.count(), 0.0);
  sources.add_beams({place.point, place.normal}, cell, tolerance, straight.data());
  const std::size_t bands = std::size_t(sources.bands());
  for (std::size_t s = 0; s < sources.count(); ++s)
    for (std::size_t b = 0; b < bands; ++b) lux[s * bands + b] += straight[s];
}

}  // namespace glow::views
