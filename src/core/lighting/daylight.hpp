#pragma once

#include <functional>
#include <memory>

#include "core/sources/daylight/daylight_paths.hpp"
#include "core/space/space.hpp"
#include "core/space/times/moments.hpp"

namespace glow::lighting {

/// The daylight of a moment at a transport's receivers and patches: no dimming, no maintenance.
struct MomentLight {
  transport::GroupLight light;
  std::vector<sources::DayParts> parts;  ///< by receivers: what of the direct light comes from where
};

/// How daylight comes into a space while certain obstructions stand; traced once for all its moments. Space
/// and transport must outlive it.
class Daylight {
 public:
  using OpeningChoice = std::function<bool(const space::Opening&)>;
  /// `only`: daylight that comes in by these openings; empty: by all. Throws Cancelled.
  Daylight(const space::Space& space, const transport::Transport& transport,
           const std::vector<std::string>& states, const Watch& watch, const OpeningChoice& only = {});
  /// `cells`: by receivers, over which the sun is averaged; empty: at points.
  MomentLight at(const space::PlannedMoment& moment, const Watch& watch,
                 const std::vector<sources::SunCell>& cells = {}) const;
  /// The sun between receivers, lx, for drawings: see sources::DaylightPaths.
  std::vector<double> sun_over(const std::vector<readings::Receiver>& places, const Vec3& u, const Vec3& v,
                               const space::PlannedMoment& moment, const Watch& watch) const;
  /// Whether any of the sky is seen from each place.
  std::vector<char> sky_seen(const std::vector<readings::Receiver>& places, const Watch& watch) const {
    return paths_->sky_seen(places, watch);
  }
  /// cd/m2 of all that can be seen outside: see sources::Outdoors.
  std::vector<double> luminances_outside(const space::PlannedMoment& moment, const Watch& watch) const;
  /// cd/m2 of what outdoors().seen(..., towards) told of, the sun's disc included. `outside`: of
  /// luminances_outside.
  double luminance_outside(std::int32_t target, const Vec3& towards, const space::PlannedMoment& moment,
                           const std::vector<double>& outside) const;
  const sources::Outdoors& outdoors() const { return *outdoors_; }
  const sources::DaylightPaths& paths() const { return *paths_; }
  /// Bytes that its paths take.
  std::size_t memory() const { return paths_->memory(); }

 private:
  const transport::Transport* transport_;
  std::unique_ptr<const sources::Outdoors> outdoors_;
  std::unique_ptr<const sources::DaylightPaths> paths_;
};

}  // namespace glow::lighting
