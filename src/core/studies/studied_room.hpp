#pragma once

#include "core/assess/assess.hpp"

namespace glow::studies {

/// A room with its light and what it comes to: what studies begin from. All of it must outlive them; nothing
/// of it is changed, so several may run side by side.
struct StudiedRoom {
  const assess::Setting& setting;  ///< that reads all grids and eyes
  const assess::SeenFromEyes& eyes;
  const lighting::Lighting& lighting;
  const assess::LitRoom& lit;
  const assess::Assessment& assessment;
  const Watch& watch;

  /// The space that the setting was made of.
  const space::Space& space() const { return setting.space(); }
};

}  // namespace glow::studies
