#pragma once

#include "core/daylight/sky_patches.hpp"
#include "core/sources/daylight/daylight_opening.hpp"
#include "core/transport/exchange/patch_response.hpp"
#include "core/transport/transport.hpp"

namespace glow::sources {

/// What stands outside, how sky and sun light it, and what can be seen of it. Surfaces outside are even
/// diffusers; the ground is level, endless, lit by all of sky and sun wherever it is seen, and gets no light
/// back from what stands on it.
class Outdoors {
 public:
  /// `built`: buildings, reveals, slats and the room's own shell from outside; what is the room's own has the
  /// role of a wall. Throws Cancelled.
  Outdoors(geometry::Geometry built, double ground_reflectance, const transport::Effort& effort,
           const Watch& watch);

  /// Numbers of what can be seen: patches of the sky, the ground, patches of what is built.
  static constexpr std::int32_t kNothing = -1;
  std::int32_t ground() const { return std::int32_t(sky_.size()); }
  std::int32_t seen(const Vec3& from, const Vec3& towards) const;
  bool sees_sun(const Vec3& from, const Vec3& sun) const;
  /// Whether what is seen there is none of the room's own: of buildings and what stands around.
  bool is_surroundings(std::int32_t target) const;
  /// m to the surroundings in a direction; infinite where nothing is met, or the room's own.
  double distance(const Vec3& from, const Vec3& towards) const;

  /// How many things can be seen: numbers run below it.
  std::size_t targets() const { return sky_.size() + 1 + built_.patches().size(); }
  double ground_reflectance() const { return ground_reflectance_; }
  /// Of what is built.
  const geometry::RayTracer& tracer() const { return built_.tracer(); }
  /// Patches of what is built.
  std::size_t built() const { return built_.patches().size(); }
  /// Takes what is built out of coefficients (a column for each thing that is seen, per cd/m2): it is as
  /// bright as sky, ground and sun make it. What columns of sky and ground stand for after that; gives the
  /// same of the sun, per lm straight on each patch of what is built. `response`: of what is built.
  Eigen::MatrixXf fold_built(Eigen::MatrixXf& by_targets, const transport::PatchResponse& response,
                             const Watch& watch) const;
  /// Luminance of everything that can be seen, cd/m2, from that of sky and ground and the sun's lm on each
  /// patch of what is built.
  std::vector<double> with_built(const Eigen::VectorXd& sky_and_ground, const Eigen::VectorXf& sun_lm,
                                 const transport::PatchResponse& response, const Watch& watch) const;
  /// How light goes on between what is built; this must outlive it.
  std::unique_ptr<const transport::PatchResponse> response() const;
  /// lm of the sun on each patch of what is built for each lx facing it; `chance`: other for each sun.
  std::vector<float> sun_on_built(const Vec3& sun, std::uint64_t chance) const;

  /// Luminance of everything that can be seen, by those numbers, cd/m2.
  std::vector<double> luminances(const OutdoorLight& light, const Watch& watch) const;
  const daylight::SkyPatches& sky() const { return sky_; }

 private:
  struct Sample {
    float share;  ///< lm on the patch for each cd/m2
    std::int32_t target;
  };
  void sample_patches(const Watch& watch);
  double in_sun(std::size_t patch, const Vec3& sun) const;
  bool any() const { return !built_.geometry().facets().empty(); }

  daylight::SkyPatches sky_;
  double ground_reflectance_;
  transport::Transport built_;
  std::vector<std::vector<Sample>> of_patches_;  ///< of sky and ground only: the rest is exchange
};

}  // namespace glow::sources
