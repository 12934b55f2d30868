#pragma once

#include <map>
#include <tuple>

#include "core/sources/direct_light.hpp"
#include "core/transport/transport.hpp"

namespace glow::studies {

/// Light of luminaires at very many places of one space, quickly and nearly right: what searches look with
/// before they calculate. Straight light is that of DirectLight, but shadows are told by five sight lines
/// where these agree. Light by way of surfaces is what falls on groups of patches, along kWays directions
/// from each place, times how receivers respond to it; that is found once, from the balance solved backwards
/// for every receiver, which a symmetric exchange allows. Against a full calculation means are within 2 %,
/// single points within 6 % (tests/core/arrangement_test.cpp).
///
/// Immutable but for what it remembers of places; use from one thread, it works with several.
class FieldLight {
 public:
  static constexpr std::size_t kWays = 512;

  /// False where light is traced out, or scattered by panes, or there are too many patches.
  static bool serves(const transport::Transport& transport);
  /// `transport` must outlive it, and serve. `choice`: receivers that are read. Throws Cancelled.
  FieldLight(const transport::Transport& transport, const transport::ReceiverChoice& choice,
             const Watch& watch);

  /// Of one luminaire at full output as new, lx, by `receivers`.
  struct Light {
    Eigen::VectorXf direct_lx, reflected_lx;
  };
  /// Numbers of the chosen receivers.
  const std::vector<std::size_t>& receivers() const { return receivers_; }
  /// Throws Cancelled.
  std::vector<Light> lights(const std::vector<photometry::PlacedLuminaire>& luminaires,
                            const Watch& watch) const;

 private:
  using Way = std::vector<std::int32_t>;  // group that each ray lands on; -1: none

  void solve_backwards(const Watch& watch);
  Way landing_from(const Vec3& place) const;
  Eigen::VectorXf lobe(const photometry::PlacedLuminaire& luminaire) const;
  Eigen::VectorXf on_groups(const Way& way, const Eigen::VectorXf& lobe, double flux_lm) const;
  Eigen::VectorXf straight(const photometry::PlacedLuminaire& luminaire) const;

  const transport::Transport* transport_;
  std::vector<std::size_t> receivers_;
  std::vector<Vec3> ways_;  // unit length, each for the same solid angle
  Eigen::MatrixXf per_lm_;  // lx at a receiver (row) for each lm that lands on a group (column)
  mutable std::map<std::tuple<double, double, double>, Way> landings_;  // by place
};

}  // namespace glow::studies
