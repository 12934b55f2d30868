#pragma once

#include <optional>

#include "core/assess/assessment.hpp"
#include "core/assess/setting.hpp"
#include "core/photometry/upward_light.hpp"
#include "core/transport/numerical_error.hpp"

namespace glow::assess {

/// What the eyes of a setting, and the neighbours and road users of its area, see of its luminaires past
/// walls and objects. Looked at once: other weights of the same luminaires, and others in some of the places,
/// then cost no sight lines for what has stayed. Immutable and shared between threads. Forgets, and looks
/// anew each time, where there is too much to keep (kMostKept).
class SeenFromEyes {
 public:
  static constexpr std::size_t kMostKept = 1000000;  ///< positions times luminaires

  /// Looks from all of them at the space's own luminaires.
  SeenFromEyes(const Setting& setting, const Watch& watch);

  /// What an eye sees of these luminaires. `in_place`: see GlareOrigins::in_places_of(own()).
  std::vector<glare::SeenSource> seen(const GlareOrigins& origins, const SamePlaces& in_place,
                                      std::size_t set, std::size_t position) const;
  /// The same of a neighbour of an outdoor area, from one of its eyes, and of a road user.
  std::vector<glare::SeenSource> seen_by_neighbour(const GlareOrigins& origins, const SamePlaces& in_place,
                                                   std::size_t neighbour, std::size_t eye) const;
  std::vector<glare::SeenSource> seen_by_road_user(const GlareOrigins& origins, const SamePlaces& in_place,
                                                   std::size_t user) const;
  /// What one lux from each of its own sources adds to the veil before an eye where GR is rated, cd/m2: by
  /// directions and sources; empty: not kept.
  const Eigen::MatrixXd& veils(std::size_t set, std::size_t position) const;
  /// The space's own luminaires.
  const GlareOrigins& own() const { return own_; }
  /// What leaves luminaires upwards, of all that were asked for so far.
  const photometry::HungFluxes& fluxes() const { return fluxes_; }

 private:
  /// What is known from places; empty: too much to keep.
  using Known = std::vector<glare::KnownFromPlace>;
  void look(const std::vector<Vec3>& places, Known& known, std::size_t& kept, const Watch& watch) const;
  std::vector<glare::SeenSource> seen(const GlareOrigins& origins, const SamePlaces& in_place,
                                      const Vec3& place, const Known& known, std::size_t number) const;

  const Setting* setting_;
  GlareOrigins own_;
  std::vector<Known> eyes_, neighbours_;  ///< by sets; by neighbours
  Known road_users_;
  std::vector<std::vector<Eigen::MatrixXd>> veils_;  ///< by sets
  photometry::HungFluxes fluxes_;
};

/// Views whose UGR is read; nothing: all.
using Views = std::optional<ViewChoice>;

/// UGR, and in sports and outdoors GR, of the eyes of a setting under a light. `plane`: of the work plane,
/// whose initial mean is the light of the surroundings for GR. No causes, no uncertainty.
RoomGlare read_glare(const Setting& setting, const SeenFromEyes& eyes, const LitRoom& lit,
                     const std::optional<readings::Statistics>& plane_initial, const Views& views,
                     const Watch& watch);

/// SeenFromEyes::veils, by positions.
std::vector<Eigen::MatrixXd> veils_in(const space::EyeSet& set, const GlareOrigins& origins);
/// GR of all eyes anew, from the light of the work plane.
void rate(const Setting& setting, const SeenFromEyes& eyes, const LitRoom& lit, double mean_lx,
          const Watch& watch, RoomGlare& glare);
/// Half width of the 95 % interval of GR, which hangs on that of the work plane's mean.
double rating_uncertainty(const GridReading& plane);

/// What causes the worst UGR of every set, and what its number does not say; and the typical UGR of all sets.
void tell_causes(const SeenFromEyes& eyes, const LitRoom& lit, RoomGlare& glare);

/// Half width of the 95 % interval of UGR that the background of a receiver brings.
double background_uncertainty(const transport::NumericalError& error, const lighting::RoomLight& light,
                              std::size_t receiver);
/// Views of a set that may turn out to be its worst when all is known better.
std::vector<std::size_t> critical_views(const EyeSetGlare& set);
/// Takes the background of the views that a finer setting reads from its light.
void refine_views(const Setting& finer, const lighting::RoomLight& light,
                  const transport::NumericalError& error, std::size_t set, EyeSetGlare& glare);

}  // namespace glow::assess
