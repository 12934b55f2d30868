#pragma once

#include <optional>

#include "core/space/planned_view.hpp"
#include "core/views/picture.hpp"
#include "core/views/seen.hpp"

namespace glow::views {

/// How finely a picture is made.
struct Quality {
  int rays = 512;           ///< of a look around for reflected light; a multiple of 128
  double reach = 0.3;       ///< see ReflectedField
  int finest_step = 8;      ///< pixels between places that may look around
  int block = 16;           ///< pixels along each side of the largest piece that is filled from a few
  double tolerance = 0.02;  ///< of light at a pixel that is taken from others
  int least_block = 2;      ///< blocks this small are not divided further
  int least_mixed = 2;      ///< nor are those of several surfaces: each has the light that one pixel finds
  double direct_tolerance = 0.01;  ///< of luminaires' light at a place
  int edge_samples = 3;            ///< lines of sight through a pixel at an edge, along each side
  int gloss_rays = 48;
  int checked_pixels = 256;      ///< that the stated uncertainty comes from
  std::uint32_t sun_places = 8;  ///< of a pixel that stand for all of it where they are alike in the sun

  static Quality draft() { return {128, 0.4, 24, 32, 0.1, 8, 8, 0.03, 1, 12, 96, 3}; }
  /// Of pictures a few hundred pixels wide.
  static Quality small() { return {256, 0.35, 8, 16, 0.04, 2, 2, 0.02, 2, 16}; }
  static Quality normal() { return {}; }
  static Quality fine() { return {2048, 0.18, 3, 8, 0.004, 2, 1, 0.002, 4, 128, 256, 32}; }
  /// "draft", "normal", "fine"; nothing for other words.
  static std::optional<Quality> parse(const std::string& words);
};

/// A picture of a room, each source apart. The same bytes whatever the number of threads. Layers are those of
/// the space's groups and of the moments of `sources`; uses are not set. Throws Cancelled.
Picture render(const RoomSources& sources, const SeenLuminaires& luminaires, const space::PlannedView& view,
               const Quality& quality, const Watch& watch);

}  // namespace glow::views
