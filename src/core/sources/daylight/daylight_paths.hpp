#pragma once

#include <Eigen/SparseCore>
#include <functional>

#include "core/sources/daylight/outdoors.hpp"
#include "core/sources/daylight/seen_shares.hpp"

namespace glow::sources {

/// Straight daylight at a receiver, lx.
struct DayParts {
  double sun = 0, sky = 0, outside = 0;  ///< the beam; the sky; ground and what stands outside
};

/// A piece of a plane about a receiver, with these sides; of none the receiver is a point. Over a cell a
/// pattern of slats and bars that falls between points is not missed.
struct SunCell {
  static constexpr std::uint32_t kPlaces = 32;  ///< in it that the sun is looked for from
  Vec3 u = Vec3::Zero(), v = Vec3::Zero();
  std::uint32_t enough = kPlaces;  ///< so many of them stand for all where they are alike
  bool is_point() const { return u.isZero(0) && v.isZero(0); }
};

/// What a moment sends into a room.
struct DayInflow {
  transport::Inflow inflow;
  std::vector<DayParts> parts;  ///< by receivers; together the inflow's direct light
};

/// How the sky, the ground and what stands outside are seen from each receiver and each patch of a room
/// through its openings: traced once, after which any sky is a weighted sum. The sun is followed at each
/// moment, as a disc. Directions are spread evenly over each opening's solid angle in independent sets, so
/// that small openings are as smooth as large ones, and what the sets differ by tells how sure the light is.
class DaylightPaths {
 public:
  /// All must outlive this. Throws Cancelled.
  DaylightPaths(const transport::Transport& room, const Outdoors& outdoors,
                std::vector<DaylightOpening> openings, const Watch& watch);

  /// `cells`: by receivers, over which the sun is averaged; empty: at points.
  DayInflow at(const OutdoorLight& light, const std::vector<SunCell>& cells, const Watch& watch) const;
  /// The mean of many moments, from the mean luminances of what can be seen, and the mean of the sun on each
  /// patch (lm, before what lands of it) and at each receiver (lx), which were found elsewhere.
  DayInflow on_average(const std::vector<double>& luminance, const Eigen::VectorXf& sun_lm,
                       const Eigen::VectorXf& sun_lx, const Watch& watch) const;
  /// The sun at places that are no receivers, lx: the mean over a piece of the plane about each, with sides
  /// `u` and `v`, so that a pattern finer than the pieces is even and never a pattern of another width.
  std::vector<double> sun_over(const std::vector<readings::Receiver>& places, const Vec3& u, const Vec3& v,
                               const Vec3& sun, double sun_normal_lx, const Watch& watch) const;
  /// A moment as it is asked for at any place: what can be seen outside (Outdoors::luminances), and the sun.
  struct Moment {
    const std::vector<double>* luminance = nullptr;
    Vec3 sun = Vec3::UnitZ();
    double sun_normal_lx = 0;
  };
  /// Adds what comes straight from the sky and from what is outside to any place, lx, to lux[moment]: for
  /// pictures, good to a few per cent. `rays`: through each piece of an opening, in each of eight sets.
  void add_sky(const readings::Receiver& place, const std::vector<Moment>& moments, int rays,
               double* lux) const;
  /// The same of the sun, averaged over a cell.
  void add_sun(const readings::Receiver& place, const SunCell& cell, const std::vector<Moment>& moments,
               double* lux) const;
  /// What is seen outside from a place: direction, solid angle (sr), the share that glass and things in the
  /// room let through, and what it is (Outdoors). `rays` as of add_sky.
  using SeenOutside =
      std::function<void(const Vec3& way, double solid_angle, double passed, std::int32_t seen)>;
  void look_out(const readings::Receiver& place, int rays, const SeenOutside& visit) const;
  /// Whether any of the sky is seen from each place, glass or not.
  std::vector<char> sky_seen(const std::vector<readings::Receiver>& places, const Watch& watch) const;
  /// Bytes that the paths take.
  std::size_t memory() const;

  /// Things that can be seen outside: Outdoors::luminances has one of each.
  std::size_t targets() const { return outdoors_->targets(); }
  /// Adds what a receiver gets straight from each of them, lx for each cd/m2.
  void add_straight(std::size_t receiver, float* by_targets) const;
  /// lm that arrive straight on each patch, a row each, for each cd/m2 of them.
  Eigen::SparseMatrix<float, Eigen::RowMajor> onto_patches() const;
  /// The sun, taken as a point, at a receiver: lx for each lx on a plane facing it.
  double sun_at(std::size_t receiver, const Vec3& sun) const;
  /// Light of the sun that arrives on a patch of the room, lm for each lx on a plane facing it.
  struct SunOnPatch {
    std::int32_t patch;
    float lm;
  };
  /// Where the sun falls, followed in from places all over each opening; `chance`: other for each sun.
  std::vector<SunOnPatch> sun_inside(const Vec3& sun, std::uint64_t chance) const;

 private:
  /// A number that begins other chances for each seed of the effort.
  std::uint64_t seeded(std::uint64_t number) const { return number + ((room_->effort().seed - 1) << 32); }
  template <class OnPatch, class AtReceiver>
  DayInflow inflow_of(const std::vector<double>& luminance, const OnPatch& sun_on_patch,
                      const AtReceiver& sun_at_receiver, const Watch& watch) const;
  void sample_receiver(std::size_t r);
  template <class Visit>
  void sample_opening(const readings::Receiver& receiver, std::uint64_t chance,
                      const DaylightOpening& opening, int rays, const Visit& visit) const;
  static std::vector<DaylightOpening> cut_at_horizon(const DaylightOpening& opening, const Vec3& eye);
  void sample_patch(std::size_t i);
  void sample_pane(std::size_t opening, std::size_t i);
  double sun_on(const readings::Receiver& receiver, const SunCell& cell, const Vec3& sun,
                std::uint64_t chance) const;
  bool may_get_sun(const Vec3& middle, double reach_m, const Vec3& sun) const;
  double sun_share(const Vec3& from, const Vec3& sun, std::uint64_t chance, int directions,
                   const Vec3& inside) const;
  void add_sun(const OutdoorLight& light, std::size_t patch, float* sets) const;

  const transport::Transport* room_;
  const Outdoors* outdoors_;
  std::vector<DaylightOpening> openings_;
  bool hides_;                      ///< whether anything in the room can stand in the way
  std::vector<int> pane_of_patch_;  ///< opening that this patch is the scattering outer side of; -1: none
  std::vector<std::vector<SeenShare>> of_receivers_, of_patches_;
};

}  // namespace glow::sources
