#pragma once

#include <functional>
#include <map>
#include <optional>

#include "core/assess/grid_reader.hpp"
#include "core/sources/remembered_places.hpp"

namespace glow::studies {

/// Light at the receivers of a pass, maintained, lx.
using Lux = std::vector<double>;

/// A surface whose diffuse reflectance is changed by `by`, kept within 0.05 to 0.88 where it lay within:
/// "walls" stands for all of them, each from its own.
struct FinishChange {
  std::string surface;
  double by = 0;
};

/// What a room would be like with one thing changed: each a relight on the transport that is there. Only what
/// chosen receivers get is right; the others are left as they are, or lose light. `space`, `transport` and
/// `light` must outlive it.
class Trials {
 public:
  Trials(const space::Space& space, const transport::Transport& transport, const assess::RoomLight& light,
           const Watch& watch, transport::ReceiverChoice choice = {});

  Lux as_it_is() const;
  /// With other diffuse reflectances of floor, ceiling or walls (or one wall by its name). Panes and what
  /// reflects nothing stay as they are.
  Lux with_finishes(const std::vector<FinishChange>& changes) const;
  /// With other luminaires in place of a group's: `flux_factor` of their own output each.
  Lux with_group(std::size_t group, const std::vector<photometry::PlacedLuminaire>& luminaires,
                 double flux_factor) const;
  /// With another intensity table for all of a group's luminaires, in their places. The places are
  /// remembered: the second table for a group costs look-ups only.
  Lux with_table(std::size_t group, const std::shared_ptr<const photometry::IntensityTable>& table) const;
  /// With one luminaire more, maintained and dimmed as the group.
  Lux with_one_more(std::size_t group, const photometry::PlacedLuminaire& luminaire) const;

 private:
  const transport::GroupLight& light_of(std::size_t group) const;
  double weight(std::size_t group) const {
    return space_.groups[group].dimming * space_.groups[group].maintenance_factor;
  }

  const space::Space& space_;
  const transport::Transport& transport_;
  const assess::RoomLight& light_;
  const Watch& watch_;
  transport::ReceiverChoice choice_;
  mutable std::map<std::size_t, transport::GroupLight> of_groups_;
  mutable std::map<std::size_t, std::optional<sources::RememberedPlaces>> places_;
};

/// The group laid anew as an even array over the room, all else as of its first luminaire.
std::vector<photometry::PlacedLuminaire> as_array(const space::Space& space, std::size_t group, int rows,
                                                  int columns);

/// The luminaire's flux in a lobe that falls to half at `half_angle_deg`, below the horizontal only, the same
/// all round: I = I0 cos^m.
std::shared_ptr<const photometry::IntensityTable> even_lobe(double flux_lm, double half_angle_deg);

}  // namespace glow::studies
