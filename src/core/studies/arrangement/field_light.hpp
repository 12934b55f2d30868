#pragma once

#include <list>
#include <map>
#include <tuple>

#include "core/photometry/placed_luminaire.hpp"
#include "core/studies/arrangement/place_lattice.hpp"
#include "core/transport/transport.hpp"

namespace glow::studies {

/// Light of luminaires at very many places of one space, quickly and nearly right: what searches look with
/// before they calculate. Straight light is that of PlainLight. Light by way of surfaces is what falls on
/// groups of patches, along kWays directions from each place, times how receivers respond to it; that is
/// found once, from the balance solved backwards for every receiver, which a symmetric exchange allows. Of
/// many places at one height it is found on a lattice, and taken from there to those in between. Against a
/// full calculation means are within 2 %, single points within 19 % (tests/core/arrangement_test.cpp).
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
  /// lx per lm; no lumen that lands anywhere gives more to the mean of these receivers (numbers in
  /// receivers()), by the balance of groups of patches.
  double most_reflected_mean(const std::vector<std::size_t>& chosen) const;
  /// Throws Cancelled.
  std::vector<Light> lights(const std::vector<photometry::PlacedLuminaire>& luminaires,
                            const Watch& watch) const;

 private:
  using Way = std::vector<std::int32_t>;  // group that each ray lands on; -1: none
  using Place = std::tuple<double, double, double>;
  /// One kind of luminaire that looks one way.
  struct Lobe {
    std::shared_ptr<const photometry::IntensityTable> table;
    Vec3 c0, g0;
    Eigen::VectorXf lumens;                  // along each way
    std::map<Place, Eigen::VectorXf> nodes;  // reflected_lx at places of the lattice; empty: nothing to go by
    bool is_of(const photometry::PlacedLuminaire& luminaire) const;
  };
  using Luminaires = std::vector<const photometry::PlacedLuminaire*>;

  void solve_backwards(const Watch& watch);
  Way landing_from(const Vec3& place) const;
  void find_landings(const std::vector<Vec3>& places, const Vec3& down, const Watch& watch) const;
  Lobe& lobe_of(const photometry::PlacedLuminaire& luminaire) const;
  Eigen::VectorXf lumens_along_ways(const photometry::PlacedLuminaire& luminaire) const;
  bool is_sound(const Way& way) const;
  bool are_in_sight(const Vec3& place, const std::array<PlaceLattice::Share, 4>& shares) const;
  std::vector<Eigen::VectorXf> reflected_from(const std::vector<Vec3>& places, const Lobe& lobe,
                                              const Watch& watch) const;
  bool find_nodes(const Luminaires& luminaires, Lobe& lobe, const Watch& watch) const;
  std::optional<Eigen::VectorXf> between_nodes(const Vec3& place, const Lobe& lobe) const;
  std::vector<Eigen::VectorXf> reflected(const Luminaires& luminaires, const Watch& watch) const;
  Eigen::VectorXf on_groups(const Way& way, const Lobe& lobe) const;
  Eigen::VectorXf straight(const photometry::PlacedLuminaire& luminaire) const;

  const transport::Transport* transport_;
  PlaceLattice lattice_;
  std::vector<std::size_t> receivers_;
  std::vector<Vec3> ways_;  // unit length, each for the same solid angle
  Eigen::MatrixXf per_lm_;  // lx at a receiver (row) for each lm that lands on a group (column)
  mutable std::map<Place, Way> landings_;
  mutable std::list<Lobe> lobes_;  // those looked at last
};

}  // namespace glow::studies
