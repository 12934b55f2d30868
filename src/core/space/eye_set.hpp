#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/model/readings.hpp"

namespace glow::space {

/// Eyes whose glare is rated: somebody's, or eyes all over the room. Each looks in every direction of the
/// set.
struct EyeSet {
  std::string name;
  std::string posture;  ///< "seated", "standing", "given height"
  double height_m = 0;
  std::optional<Vec2> cell_m;  ///< of eyes all over: the area of each; nothing: somebody's eyes
  std::vector<Vec3> positions;
  std::vector<std::string> looking;  ///< each direction in words: "90 deg", "to board"
  std::vector<double> azimuths_deg;  ///< counter-clockwise from +x; [position * directions + direction]
  bool verified = true;              ///< held against the limit; else shown for information
  bool all_round = false;            ///< GR is looked for in steps of 5 degrees instead

  std::size_t directions() const { return looking.size(); }
  std::size_t size() const { return azimuths_deg.size(); }
  const Vec3& position(std::size_t view) const { return positions[view / directions()]; }
  /// The level line of sight.
  Vec3 sight(std::size_t view) const {
    const double a = azimuths_deg[view] * kDegree;
    return {std::cos(a), std::sin(a), 0};
  }
};

}  // namespace glow::space
