#pragma once

#include "core/assess/light_colour.hpp"
#include "files/results/described/archive.hpp"

namespace glow::colour {

using files::Described;

template <class A>
void describe(A& a, Described<A, Chromaticity>& c) {
  a("x", c.x);
  a("y", c.y);
}
template <class A>
void describe(A& a, Described<A, Temperature>& t) {
  a("cct_k", t.kelvin);
  a("duv", t.duv);
}

}  // namespace glow::colour

namespace glow::assess {

using files::Described;

/// Mean, range, and x, y of each of the grid's points.
template <class A>
void describe(A& a, Described<A, GridColour>& c, std::size_t points) {
  a("known_share", c.known_share);
  a("mean", c.mean);
  a("mean_temperature", c.mean_temperature);
  a("warmest_k", c.warmest_k);
  a("coolest_k", c.coolest_k);
  a("points_without_cct", c.without);
  a.brief_list("direct_xy", c.direct_xy);
  a.brief_list("total_xy", c.total_xy);
  if constexpr (A::kReads) {
    if (c.direct_xy.size() != 2 * points || c.total_xy.size() != 2 * points)
      throw std::runtime_error("colours do not fit their grid");
    if (c.warmest_k.has_value() != c.coolest_k.has_value())
      throw std::runtime_error("a range of temperatures lacks an end");
  }
}

template <class A>
void describe(A& a, Described<A, PointColour>& c) {
  a("known_share", c.known_share);
  a("direct", c.direct);
  a("total", c.total);
  a("temperature", c.temperature);
}

}  // namespace glow::assess
