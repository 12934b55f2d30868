#pragma once

#include <map>
#include <memory>
#include <optional>

#include "core/sources/remembered_places.hpp"
#include "core/studies/findings.hpp"
#include "core/studies/repaint.hpp"
#include "core/studies/studied_room.hpp"

namespace glow::studies {

/// A room with one thing changed: what shines in it, and its light where it is judged.
struct Trial {
  std::shared_ptr<const std::vector<space::LuminaireGroup>> groups;  ///< null: the space's own
  assess::LitRoom lit;
};

/// What a room would be like with one thing changed: each a relight on the transport that is there, judged as
/// the room itself is. Only what is judged and what eyes see is right in a trial; other receivers are left as
/// they are, or lose light.
class Trials {
 public:
  /// The room must outlive this.
  explicit Trials(const StudiedRoom& room);

  /// Nothing changed.
  Trial as_it_is() const;
  /// With all groups at other weights: no light is computed anew.
  Trial with_weights(const lighting::Weights& weights) const;
  /// All groups at `factor` of what they give.
  Trial dimmed(double factor) const;
  /// With other diffuse reflectances of floor, ceiling or walls. Panes and what reflects nothing stay as they
  /// are.
  Trial with_finishes(const std::vector<FinishChange>& changes) const;
  /// With other luminaires in place of a group's: `flux_factor` of their own output each.
  Trial with_group(std::size_t group, const std::vector<photometry::PlacedLuminaire>& luminaires,
                   double flux_factor) const;
  /// With all groups changed at will, as many as there are.
  Trial with_groups(std::vector<space::LuminaireGroup> groups) const;
  /// With other intensity tables for all luminaires of some groups, in their places.
  Trial with_tables(
      const std::map<std::size_t, std::shared_ptr<const photometry::IntensityTable>>& tables) const;
  /// With one luminaire more, maintained and dimmed as the group.
  Trial with_one_more(std::size_t group, const photometry::PlacedLuminaire& luminaire) const;
  /// With the luminaires of one source of glare in other places, or each at `share` of its output.
  Trial with_source(const assess::GlareSourceName& source,
                    const std::vector<photometry::PlacedLuminaire>& placed, double share) const;

  /// What the trial comes to, glare included where something hangs on it and there is not too much to look
  /// at.
  assess::Assessment judged(const Trial& trial) const;
  /// The same with all eyes of all sets.
  assess::Assessment judged_with_eyes(const Trial& trial) const;
  /// Checks that the room meets as it is and the trial does not, with the trial's values.
  std::vector<standards::Check> broken(const assess::Assessment& trial) const;
  /// Whether whole groups can be lit anew without keeping people waiting.
  bool is_quick() const;
  /// False where some limit of glare is met now, and there was too much to look at to tell whether it stays
  /// so.
  bool tells_of_glare() const { return !glare_matters_ || looks_at_glare_; }

 private:
  Trial changed(std::vector<space::LuminaireGroup> groups) const;
  const sources::RememberedPlaces* places_of(std::size_t group) const;
  /// At the chosen receivers, at full output. `effort`: nothing for the transport's.
  transport::GroupLight relit(const std::vector<photometry::PlacedLuminaire>& luminaires,
                              const std::optional<transport::Effort>& effort = {}) const;

  const StudiedRoom& room_;
  transport::ReceiverChoice choice_;
  std::string choice_key_;
  bool glare_matters_ = false, looks_at_glare_ = false;
  assess::Scope scope_;
  mutable std::map<std::size_t, std::optional<sources::RememberedPlaces>> places_;  ///< of one thread
};

/// The check of an assessment that is the same demand on the same thing; null: it was not made.
const standards::Check* same_check(const assess::Assessment& assessment, const standards::Check& check);

/// The luminaires of a source of glare where they are, to be changed.
std::vector<photometry::PlacedLuminaire> placed_of(const space::Space& space,
                                                   const assess::GlareSourceName& source);

/// Whether a luminaire can hang there: clear of the walls, of objects, whose extent neither it nor its cable
/// may meet, and of all luminaires but `itself`, by group and number.
bool has_room_for(const space::Space& space, const photometry::PlacedLuminaire& luminaire,
                  const std::vector<std::pair<std::size_t, std::size_t>>& itself);

/// The group laid anew as an even array over the room, all else as of its first luminaire.
std::vector<photometry::PlacedLuminaire> as_array(const space::Space& space, std::size_t group, int rows,
                                                  int columns);

/// The luminaire's flux in a lobe that falls to half at `half_angle_deg`, below the horizontal only, the same
/// all round: I = I0 cos^m.
std::shared_ptr<const photometry::IntensityTable> even_lobe(double flux_lm, double half_angle_deg);

}  // namespace glow::studies
