#pragma once

#include <array>
#include <string>
#include <vector>

#include "core/lighting/daylight.hpp"
#include "core/lighting/lighting.hpp"
#include "core/sources/luminaire_light.hpp"
#include "core/transport/exchange/bright_patches.hpp"

namespace glow::views {

/// The daylight of a moment in a room that is looked at.
struct SeenMoment {
  std::string name;
  const lighting::Daylight* paths = nullptr;
  const space::PlannedMoment* moment = nullptr;
  const transport::GroupLight* light = nullptr;
};

/// A room with all its light, each source by itself: the luminaire groups at full output as new, then
/// moments. All that it points at must outlive what is made of it.
struct LitSpace {
  const space::Space* space = nullptr;
  const transport::Transport* transport = nullptr;
  const lighting::Lighting* lighting = nullptr;
  std::vector<SeenMoment> moments;

  std::size_t sources() const { return space->groups.size() + moments.size(); }
};

/// What comes straight from each source to any place of a room, and what each has made of its surfaces.
class RoomSources {
 public:
  RoomSources(const LitSpace& lit, const Watch& watch);

  std::size_t count() const { return lit_.sources(); }
  /// Ways in which reflected light is told: as it is; and where surfaces have colours in three bands besides.
  int bands() const { return bands_; }
  std::size_t layers() const { return count() * std::size_t(bands_); }
  const LitSpace& lit() const { return lit_; }

  /// Adds what casts shadows, luminaires straight and over mirrors and the sun, lx, to lux[source].
  /// `tolerance`: share that luminaires may be off; `cell`: what the sun is averaged over.
  void add_beams(const readings::Receiver& place, const sources::SunCell& cell, double tolerance,
                 double* lux) const;
  /// Adds what comes straight from sky and ground, lx, to lux[source]. `rays`: see sources::DaylightPaths.
  void add_sky(const readings::Receiver& place, int rays, double* lux) const;
  /// lm/m2 that leave a patch, source after source, band after band: layers() numbers; without what
  /// add_bright adds.
  const float* exitance(std::int32_t patch) const { return exitance_.data() + std::size_t(patch) * layers(); }
  /// The same of a place on a facet, laid evenly between the middles of patches.
  void add_left_to_rays(int facet, const Vec3& point, double* lm_m2) const;
  /// Adds all that leaves a patch.
  void add_all_leaving(std::int32_t patch, double* lm_m2) const;
  /// Adds `share` of all that leaves a place on a facet, laid evenly between the middles of patches.
  void add_leaving(int facet, const Vec3& point, double share, double* lm_m2) const;
  /// Adds what a receiver gets of the patches so bright that rays alone would speckle, lx, to lux[layer]:
  /// see transport::BrightPatches.
  void add_bright(const readings::Receiver& receiver, const std::vector<std::int32_t>& landed,
                  double* lux) const;
  /// lm/m2 that leave a patch by a source only since it is corrected for the size of patches, see
  /// transport::LightBalance::leaving; negative, where it is less by that.
  double leaving_by_size(std::size_t source, std::int32_t patch) const { return by_size_[source][patch]; }
  /// cd/m2 of what is seen outside by each moment, added to luminance[source].
  void add_outside(const Vec3& from, const Vec3& towards, double share, double* luminance) const;

 private:
  std::array<std::pair<std::int32_t, double>, 4> about(int facet, const Vec3& point) const;
  void find_exitance();
  void take_out_bright(std::size_t source);

  LitSpace lit_;
  int bands_ = 1;
  std::vector<sources::LuminaireLight> groups_;
  /// Moments by the same paths: traced once for all of them.
  struct Paths {
    const sources::DaylightPaths* paths;
    std::vector<sources::DaylightPaths::Moment> moments;
    std::vector<std::size_t> sources;  ///< their numbers
  };

  std::vector<std::vector<double>> outside_;  ///< by moments: luminance of all that is seen outside
  std::vector<Paths> paths_;
  std::vector<Eigen::VectorXd> leaving_;          ///< by sources and bands, per patch
  std::vector<Eigen::VectorXd> by_size_;          ///< by sources
  std::vector<transport::BrightPatches> bright_;  ///< by sources
  std::vector<double> bright_share_;              ///< by layers: of what these give as it is
  std::vector<float> exitance_;
};

}  // namespace glow::views
