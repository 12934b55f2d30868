#pragma once

#include <optional>

#include "core/photometry/placed_luminaire.hpp"
#include "core/sources/light_terms.hpp"
#include "core/transport/transport.hpp"

namespace glow::sources {

/// Luminaires in their places in a room, with where light from there goes: which directions patches and
/// receivers are seen in, with what weight, and what lies between. Another intensity table in the same
/// places, of luminaires with the same luminous area, then costs look-ups only.
///
/// The weights are found as DirectLight and PatchPoints find light, so the light is that of a relight, but
/// for penumbras that a relight divides by what it finds in them. Immutable; `transport` must outlive it.
class RememberedPlaces {
 public:
  /// Nothing where it would not help: in rooms where light is traced out (light_on_patches), and where there
  /// would be more than kMostTerms to remember. Costs about two relights. The light is that of the chosen
  /// receivers. Throws Cancelled.
  static std::optional<RememberedPlaces> of(const transport::Transport& transport,
                                            const std::vector<photometry::PlacedLuminaire>& luminaires,
                                            const Watch& watch, const transport::ReceiverChoice& choice = {});
  static constexpr std::size_t kMostTerms = 20000000;

  /// Every luminaire with this table. Falls back on a relight for tables whose light points on patches do not
  /// find: very narrow beams.
  transport::GroupLight relight(const std::shared_ptr<const photometry::IntensityTable>& table,
                                const Watch& watch) const;

  std::size_t terms() const;

 private:
  /// Terms of a list of points, those of point i from first[i] to first[i + 1].
  struct Terms {
    std::vector<std::uint32_t> first = {0};
    std::vector<LightTerm> terms;
    double sum(const photometry::IntensityTable& table, std::size_t point) const;
    void append(const Terms& other);
    void close_point(const LightTerms& tape, double net);
  };
  struct Place {
    Terms patches, receivers;
    Eigen::MatrixXf seen;  ///< share that reaches each patch, by sample sets; empty when nothing can hide
  };

  RememberedPlaces(const transport::Transport& transport, std::vector<photometry::PlacedLuminaire> luminaires,
                   transport::ReceiverChoice choice)
      : transport_(&transport), luminaires_(std::move(luminaires)), choice_(std::move(choice)) {}
  static double add(const Place& place, const Eigen::VectorXd& flux, double emitted_lm,
                    transport::Inflow& inflow);
  Place remember(const photometry::PlacedLuminaire& luminaire, const Watch& watch) const;

  const transport::Transport* transport_;
  std::vector<photometry::PlacedLuminaire> luminaires_;
  transport::ReceiverChoice choice_;
  std::vector<Place> places_;
  transport::GroupLight like_;  ///< of the luminaires as they were
};

}  // namespace glow::sources
