#pragma once

#include <string>
#include <vector>

#include "core/space/space.hpp"
#include "core/transport/transport.hpp"
#include "core/units/shown_units.hpp"

namespace glow::studies {

/// Numbers as people see them, in the project's units.
struct Words {
  units::ShownUnits units;
  std::string light(double lux) const;    ///< "312 lx"
  std::string spot(const Vec3& p) const;  ///< "(1.2, 3.4)": in plan
  std::string length(double m) const;     ///< "3.1 m"
};

/// The lowest tenth of some receivers, at least one.
struct DarkestPoints {
  std::vector<std::size_t> receivers;  ///< the lowest first
  std::size_t count = 0;
  bool apart = false;  ///< they lie in several places; `receivers` are then those near the lowest
  Vec3 middle = Vec3::Zero(), lowest = Vec3::Zero();  ///< middle of `receivers`
  double lowest_lx = 0;
};

/// Of the receivers `judged`, by `lux` at every receiver of the transport.
DarkestPoints darkest_points(const transport::Transport& transport, const std::vector<std::size_t>& judged,
                     const std::vector<double>& lux);

/// "the lowest 5 points lie along rack wall, about (7.2, 6.0); the least, 96 lx, at (8.0, 6.1)".
std::string where(const DarkestPoints& low, const space::Space& space, const transport::Transport& transport);

/// The luminaire nearest to the low points and what it gives them straight, with the one that gives most.
std::string served_by(const DarkestPoints& low, const space::Space& space,
                      const transport::Transport& transport);

}  // namespace glow::studies
