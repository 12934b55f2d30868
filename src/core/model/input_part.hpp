#pragma once

#include <string>

namespace glow::model {

/// A part of what a room's results depend on, and a fingerprint of it.
struct InputPart {
  std::string what;  ///< "the room", "luminaire P1", "[project]"
  std::string print;
};

}  // namespace glow::model
