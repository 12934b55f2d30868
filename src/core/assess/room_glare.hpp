#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/glare/glare_rating.hpp"
#include "core/glare/unified_glare.hpp"
#include "core/space/eye_set.hpp"

namespace glow::assess {

/// Glare of a room with its luminaires as new, dimmed as they are: the worst that happens, and what the
/// tabular method is about. All luminaires losing the same share of their light, UGR falls by 8 lg of it.

/// One view: an eye in one direction.
struct ViewGlare {
  std::optional<double> ugr;  ///< nothing: no source counts, or the eye lies in a thing
  double background_cd_m2 = 0;
  int worst_source = -1;   ///< of RoomGlare::sources: what adds most
  double worst_share = 0;  ///< of the sum
};

/// GR of one eye in its worst direction.
struct EyeRating {
  std::optional<double> gr;
  double azimuth_deg = 0;
  int worst_source = -1;
  double worst_share = 0;
};

/// A source of glare in words: luminaires at one place.
struct GlareSourceName {
  std::string mark;
  Vec3 position = Vec3::Zero();
  std::vector<std::pair<std::size_t, std::size_t>> luminaires;  ///< group, and number in it
};

/// A source with what it adds at one view.
struct SourceShare {
  int source = 0;
  double share = 0;  ///< of the sum
  glare::UgrTerm term;
};

/// What one eye would have after a change to the source that adds most there, computed by relight.
struct GlareChange {
  std::string words;  ///< "dimmed to 50 %"
  double value = 0;   ///< UGR of that view, or GR of that eye; -infinity when nothing glares any more
  double worst = 0;   ///< of the whole set
};

/// "22.4"; "no number" where nothing glares.
std::string rounded_glare(double value);

struct EyeSetGlare {
  space::EyeSet set;
  std::vector<ViewGlare> views;             ///< by the set's views; empty when UGR is not rated
  std::vector<EyeRating> ratings;           ///< by the set's positions; empty when GR is not rated
  std::vector<bool> buried;                 ///< by positions: it lies in a thing and is left out
  std::optional<std::size_t> worst;         ///< view of the highest UGR
  std::optional<std::size_t> worst_rating;  ///< position of the highest GR
  double typical = 0;                       ///< median of UGR over all views that have one
  double uncertainty = 0;                   ///< half width of the 95 % interval of the worst UGR
  std::vector<SourceShare> causes;          ///< at the worst view, those that add most first
  std::vector<std::string> remarks;         ///< what the numbers do not say
  std::vector<GlareChange> changes;         ///< at the worst view
  double rating_uncertainty = 0;            ///< half width of the 95 % interval of GR
  std::vector<GlareChange> rating_changes;  ///< at the worst GR

  /// Over the directions of one position: the highest UGR and the median; nothing when none has a value.
  std::optional<double> worst_at(std::size_t position) const;
  std::optional<double> typical_at(std::size_t position) const;
};

/// UGR of a room by the tabular method, read for its own proportions.
struct TableGlare {
  struct Value {
    std::string along;  ///< "x" or "y" for rooms square to the plan, else "wall 1" ...
    double x_h = 0, y_h = 0;
    bool crosswise = true;
    double ugr = 0;  ///< corrected for the flux
  };
  std::vector<std::string> why_not;  ///< what speaks against the method; empty: it holds
  std::string mark, reflectances;    ///< "70/50/20": the nearest set of the table
  std::vector<Value> values;         ///< for both lines of sight; empty when it does not hold
  std::vector<std::string> remarks;
  std::optional<double> worst() const;
};

struct RoomGlare {
  std::vector<GlareSourceName> sources;
  std::vector<EyeSetGlare> sets;
  TableGlare table;
  /// The set of that name; null: there is none.
  const EyeSetGlare* set(const std::string& name) const;
  /// UGR of every view of all sets that has one, rising.
  std::vector<double> all_ugr() const;
};

}  // namespace glow::assess
