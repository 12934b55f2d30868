#pragma once

#include <array>
#include <map>

#include "core/studies/arrangement/field_light.hpp"
#include "core/studies/arrangement/fields.hpp"
#include "core/studies/arrangement/mean_map.hpp"

namespace glow::studies {

/// Judges fields in a room: quickly, for what is surely out of the question, or by calculating all their
/// light.
class FieldJudge {
 public:
  /// What quick light may be off: of a mean, and of what hangs on single points.
  static constexpr double kMeanMargin = 0.03, kPointMargin = 0.2;
  static constexpr double kGlareMargin =
      0.5;  ///< of UGR and GR, which hang on quick light by their backgrounds

  /// Throws Cancelled. `room` must outlive it. `light`: of another judge of the same room, with the places
  /// that it remembers; null: a new one.
  FieldJudge(const SearchRoom& room, const model::LuminairePlacement& base,
             std::shared_ptr<const FieldLight> light = nullptr);

  /// Finds quick light for the luminaires of these fields, where it is not known yet.
  void look_at(const std::vector<const LaidField*>& fields);
  /// By quick light; `glare`: of eyes and tables as well, which takes ten times as long. The fields must have
  /// been looked at.
  TriedField quick(const LaidField& field, bool glare = false) const;
  /// Whether a field judged quickly fails by more than quick light may be off.
  static bool surely_fails(const TriedField& quick);
  /// Looks at fields that have been laid: what of them is open, most in hand first, with those that surely
  /// fail given to `failed`. Throws Cancelled.
  struct OpenField {
    const LaidField* field = nullptr;
    double in_hand = INFINITY;  ///< by quick light; infinite without it
  };
  std::vector<OpenField> open_of(const std::vector<const LaidField*>& fields,
                                 const std::function<bool(const TriedField&)>& passed_over,
                                 const std::function<void(const TriedField&)>& failed);
  /// Calculated, glare included; dimmed as far as the light that is asked for allows, down to
  /// `least_dimming`. Throws Cancelled.
  TriedField calculated(const LaidField& field, double least_dimming) const;
  /// Calculated with other reflectances of walls and ceiling, changed by `by`.
  TriedField brighter(const LaidField& field, double by) const;

  /// The fewest luminaires that could give all means that are asked, if each gave what none gives anywhere in
  /// these places (most_straight_mean_lx, and its flux where it does most by way of surfaces), and the check
  /// that tells; 1 where nothing tells. Wants quick light.
  std::pair<std::size_t, std::optional<standards::Check>> surely_fewest(
      const std::vector<HangingPlaces>& places) const;
  /// The same, nearer and less surely: if each gave what one gives in the best of `places`, and the check
  /// that tells; 1 where nothing tells. Without quick light by their flux.
  std::pair<std::size_t, std::optional<standards::Check>> fewest(
      const std::vector<photometry::PlacedLuminaire>& places);
  /// How much of the means that are asked for a field gives by what one luminaire gives in places near its
  /// own, which `fewest` found; infinite where that tells nothing.
  double about_times_asked(const LaidField& field) const {
    return means_ ? means_->times_asked(field) : INFINITY;
  }
  /// Receivers that some judgement hangs on.
  static transport::ReceiverChoice choice_of(const assess::Setting& setting);
  /// False: there is no quick light here, and all fields are calculated.
  bool has_quick_light() const { return quick_ != nullptr; }
  const std::shared_ptr<const FieldLight>& light() const { return quick_; }

 private:
  using Place = std::array<double, 6>;  // where it hangs, and the way C0 looks

  std::pair<std::size_t, std::optional<standards::Check>> fewest_by_flux(double flux_lm) const;
  std::vector<standards::Check> means_asked() const;
  std::vector<std::size_t> quick_numbers(const standards::Check& check) const;
  assess::LitRoom with(const LaidField& field, std::vector<space::LuminaireGroup>& groups) const;
  TriedField tried(const LaidField& laid, const Field& field, const assess::Assessment& assessment) const;
  assess::Assessment judged(const assess::LitRoom& lit, bool glare) const;
  static Place place_of(const photometry::PlacedLuminaire& luminaire);

  const SearchRoom& room_;
  const model::LuminairePlacement& base_;
  double maintenance_ = 1;
  transport::ReceiverChoice choice_;
  std::shared_ptr<const FieldLight> quick_;
  std::map<Place, FieldLight::Light> known_;
  assess::TabularMemory tabular_;
  std::optional<MeanMap> means_;
};

}  // namespace glow::studies
