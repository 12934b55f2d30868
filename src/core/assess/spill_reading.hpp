#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/assess/glare/room_glare.hpp"

namespace glow::assess {

/// Light that leaves an outdoor area for where it is not wanted; luminaires dimmed as they are, but as new:
/// the worst that happens.

/// One luminaire as a neighbour sees it.
struct SpillSource {
  int source = 0;                ///< of SpillReading::sources
  double intensity_cd = 0;       ///< towards the neighbour, past what lies between
  double projected_area_m2 = 0;  ///< luminous, what is seen of it; 0: the file states no size
  double distance_m = 0;
  double c_deg = 0, gamma_deg = 0;                 ///< of that direction, from the luminaire
  double solid_angle_sr = 0, luminance_cd_m2 = 0;  ///< as they count for k
  double seen_share = 1;
  double k = 0;
  bool outside_range = false;  ///< of what k was made for
};

struct NeighbourReading {
  std::size_t grid = 0;              ///< number among the assessment's; it is named as the neighbour
  Vec3 facing = Vec3::UnitX();       ///< zero: whichever way, on an area
  double background_cd_m2 = 0;       ///< at least what counts
  bool finds_background = false;     ///< computed
  double relative_doubt = 0;         ///< of k, half width of the 95 % interval: that of a computed background
  Vec3 at = Vec3::Zero();            ///< the window's middle, or the facade's point with the highest k
  std::vector<SpillSource> sources;  ///< seen from there, highest k first
  std::vector<double> k_by_point;    ///< of facades: the highest at each point of the grid

  /// The highest; 0: none is seen.
  double k() const { return sources.empty() ? 0 : sources.front().k; }
};

struct RoadUserReading {
  std::string name;
  Vec3 eye = Vec3::Zero(), sight = Vec3::UnitX();
  double road_cd_m2 = 0, veil_cd_m2 = 0;
  double increment_percent = 0;
  int worst_source = -1;  ///< adds most to the veil
};

struct SpillReading {
  std::vector<GlareSourceName> sources;
  std::vector<NeighbourReading> neighbours;  ///< by Space::neighbours
  std::vector<RoadUserReading> road_users;   ///< by Space::road_users
  double all_lm = 0, upward_lm = 0;          ///< of luminaires as they hang
  std::optional<double> flux_ratio;          ///< upward, CIE 150; nothing: no level is asked of the area
  std::string small_angles;                  ///< how they are taken: standards::SmallAngles in words
  int told = 5;                              ///< of each neighbour so many luminaires are told

  /// Short mark of a luminaire in plans and tables: "F5/3", by its number.
  std::string short_mark(int source) const {
    return sources[std::size_t(source)].mark + "/" + std::to_string(source + 1);
  }
  double upward_percent() const { return all_lm > 0 ? 100 * upward_lm / all_lm : 0; }
};

}  // namespace glow::assess
